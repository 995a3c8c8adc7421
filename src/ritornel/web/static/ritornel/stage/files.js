// Files dropped on the stage or pasted: a picture goes where it is dropped, into an empty place if there is one.
import { later } from "../ui/lazy-modules.js";

const dropped = later(() => import("../shelf/dropped-files.js"));
/** @type {typeof import("./dropped-media.js").bringFiles} */
const bring = async (...given) => (await import("./dropped-media.js")).bringFiles(...given);

/** @param {Stage} stage */
export function receiveFiles(stage) {
	const { theatre, state } = stage;
	const over = (/** @type {boolean} */ on) => {
		if (on) theatre.dataset.over = "";
		else delete theatre.dataset.over;
	};
	theatre.addEventListener("dragover", (/** @type {DragEvent} */ event) => {
		event.preventDefault();
		dropped.get();
		over(true);
	});
	theatre.addEventListener("dragleave", () => over(false));
	theatre.addEventListener("drop", async (/** @type {DragEvent} */ event) => {
		event.preventDefault();
		over(false);
		const at = stage.point(event);
		// What a drop holds has to be asked before anything is waited for; dragging over brought what can look into
		// folders.
		const files = await (dropped.ready?.filesOf(event.dataTransfer) ??
			[...(event.dataTransfer?.files ?? [])].map((file) => ({ file, folder: "" })));
		if (files.length) await bring(stage, files, at);
	});
	state.addEventListener("files", (event) => bring(stage, event.detail.files, null));
}
