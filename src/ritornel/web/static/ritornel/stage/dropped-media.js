// What happens to files dropped on the stage or pasted, once they are on the shelf.
import { addPicture } from "./adding.js";

/** A few pictures go onto the slide; many go only to the shelf, which opens to show them. @param {Stage} stage */
export async function bringFiles(stage, /** @type {any} */ files, /** @type {Point | null} */ at) {
	const added = await stage.state.addFiles(files);
	const pictures = added.filter((asset) => asset.width_px); // clips among them
	if (pictures.length > 3 || (added.length && !pictures.length)) {
		stage.state.dispatchEvent(new CustomEvent("shelf", { detail: { ids: added.map((asset) => asset.id) } }));
		return;
	}
	for (const [number, asset] of pictures.entries()) {
		const place = at ? stage.places.pictureAt(at) : null;
		const spot = at ? { x: at.x + number * 30, y: at.y + number * 30 } : null;
		await addPicture(stage, asset, { at: spot, place });
	}
}
