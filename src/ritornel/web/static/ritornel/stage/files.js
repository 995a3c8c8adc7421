// Files dropped on the stage or pasted: pictures go where they are dropped, into an empty place if there is one.

/** All files of a drop, those in dropped folders too, each with the name of its folder. */
export async function filesOf(transfer) {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry?.()).filter(Boolean);
  if (!entries.some((entry) => entry.isDirectory)) return [...transfer.files].map((file) => ({ file, folder: "" }));
  const found = [];
  const walk = async (entry, folder) => {
    if (entry.isFile) { found.push({ file: await new Promise((done, wrong) => { entry.file(done, wrong); }), folder }); return; }
    const reader = entry.createReader();
    for (;;) {
      const batch = await new Promise((done, wrong) => { reader.readEntries(done, wrong); });
      if (!batch.length) return;
      for (const child of batch) await walk(child, entry.name);
    }
  };
  for (const entry of entries) await walk(entry, "");
  return found;
}

export function receiveFiles(stage) {
  const { theatre, state } = stage;
  const over = (on) => { if (on) theatre.dataset.over = ""; else delete theatre.dataset.over; };
  theatre.addEventListener("dragover", (event) => { event.preventDefault(); over(true); });
  theatre.addEventListener("dragleave", () => over(false));
  theatre.addEventListener("drop", async (event) => {
    event.preventDefault();
    over(false);
    const at = stage.point(event);
    const files = await filesOf(event.dataTransfer);
    if (files.length) await bringFiles(stage, files, at);
  });
  state.addEventListener("files", (event) => bringFiles(stage, event.detail.files, null));
}

/** A few pictures go onto the slide; many go to the shelf only, which opens to show them. */
async function bringFiles(stage, files, at) {
  const added = await stage.state.addFiles(files);
  const pictures = added.filter((asset) => asset.width_px);
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
