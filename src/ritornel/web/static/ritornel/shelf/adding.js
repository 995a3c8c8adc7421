// Adding files to the shelf.
import { newId } from "../ui/element.js";
import { ProgressLine } from "../ui/progress-line.js";
import { sendTold } from "./sending.js";
import { toast } from "../ui/toast.js";

/** A file larger than this shows its progress. */
const TOLD_BYTES = 500_000;

/**
 * Adds files one after another, so that edits find their turn between them. Unusable files are named at the end and
 * do not stop the others; one undo removes all files.
 * @param {ShowState} state
 * @param {{file: File, folder?: string, came?: (asset: ShelfAsset) => void}[]} files
 */
export async function addFiles(state, files) {
	const batch = newId();
	/** @type {any[]} */
	const added = [];
	const refused = [];
	/** @type {any[]} */
	const told = [];
	let stopped = false;
	/** @type {any} */
	let line = null;
	const tell = (/** @type {number} */ done, /** @type {number} */ share) => {
		const { file } = files[done];
		if (files.length === 1 && file.size <= TOLD_BYTES) return;
		line ??= new ProgressLine("Coming onto the shelf", {
			stop: "Stop here",
			onstop: () => {
				stopped = true;
			},
		});
		const part =
			share > 0 && share < 1 ? `, ${Math.floor(share * 100)} % sent` : share === 1 ? ", being looked at" : "";
		const which = files.length > 1 ? `${done} of ${files.length} on the shelf · ` : "";
		line.tell(`${which}${file.name}${part}`, (done + share) / files.length);
	};
	for (const [index, { file, folder = "", came = () => undefined }] of files.entries()) {
		if (stopped) break;
		tell(index, 0);
		try {
			await state.quietly(async () => {
				const limit = state.data.limits.file_bytes;
				if (file.size > limit)
					throw new Error(
						`“${file.name}” has ${(file.size / 1e6).toFixed(1)} MB; at most ${Math.round(limit / 1e6)} MB can be added.`,
					);
				const reply = await sendTold(`${state.base}/shelf`, file, { batch, folder }, (/** @type {number} */ share) =>
					tell(index, share),
				);
				await state.addAsset(reply);
				added.push(reply.asset);
				came(reply.asset);
				told.push(...reply.notices);
			});
		} catch (error) {
			refused.push(error.message);
		}
	}
	line?.remove();
	if (added.length) state.tell("show");
	state.tell("kept");
	const more = refused.length > 1 ? ` And ${refused.length - 1} more that could not be taken in.` : "";
	if (refused.length) toast(`${refused[0]}${more}${added.length ? ` ${added.length} came in.` : ""}`, { wrong: true });
	else if (told.length) toast(told.slice(0, 3).join(" "));
	else if (added.length > 3)
		toast(`${added.length} files are on the shelf.`, { act: "Undo", onact: () => state.undo() });
	return added;
}
