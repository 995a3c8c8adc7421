// Files dropped on the stage or pasted: pictures go where they are dropped, into an empty place if there is one.
import { later } from "../ui/later.js";

const dropped = later(() => import("../shelf/dropped.js"));

export function receiveFiles(stage) {
  const { theatre, state } = stage;
  const over = (on) => { if (on) theatre.dataset.over = ""; else delete theatre.dataset.over; };
  theatre.addEventListener("dragover", (event) => { event.preventDefault(); dropped.get(); over(true); });
  theatre.addEventListener("dragleave", () => over(false));
  theatre.addEventListener("drop", async (event) => {
    event.preventDefault();
    over(false);
    const at = stage.point(event);
    // What a drop holds has to be asked before anything is waited for; dragging over brought what can look into folders.
    const files = await (dropped.ready?.filesOf(event.dataTransfer) ?? [...event.dataTransfer.files].map((file) => ({ file, folder: "" })));
    if (files.length) await bringFiles(stage, files, at);
  });
  state.addEventListener("files", (event) => bringFiles(stage, event.detail.files, null));
}

/** A few pictures go onto the slide; many go to the shelf only, which opens to show them. */
async function bringFiles(stage, files, at) {
  const added = await stage.state.addFiles(files);
  const pictures = added.filter((asset) => asset.width_px);  // clips among them
  if (pictures.length > 3 || (added.length && !pictures.length)) {
    stage.state.dispatchEvent(new CustomEvent("shelf", { detail: { ids: added.map((asset) => asset.id) } }));
    return;
  }
  const { addPicture } = await import("./making.js");
  for (const [number, asset] of pictures.entries()) {
    const place = at ? stage.places.pictureAt(at) : null;
    const spot = at ? { x: at.x + number * 30, y: at.y + number * 30 } : null;
    await addPicture(stage, asset, { at: spot, place });
  }
}
