// Pasting: objects and slides of this show or another, and plain text from anywhere.
import { toast } from "../ui/toast.js";
import { copiesOf } from "./copying.js";
import { addLines, addObjects, addTable } from "./adding.js";
import { linesOf, rowsOf } from "./plain-lines.js";

const MOST_CHARACTERS = 100_000;
const ASIDE_PX = 20;

/** @param {Stage} stage */
export async function pasteText(stage, /** @type {string} */ text) {
	if (text.length > MOST_CHARACTERS) {
		toast(
			`The text has ${text.length.toLocaleString("en")} characters; a text holds up to ${MOST_CHARACTERS.toLocaleString("en")}. Nothing was pasted.`,
			{ wrong: true },
		);
		return;
	}
	const rows = rowsOf(text);
	// Lines of several cells each come from a spreadsheet.
	if (rows.length > 1 && rows.every((cells) => cells.length > 1)) await addTable(stage, rows);
	else await addLines(stage, linesOf(text));
}

/**
 * @param {Stage} stage
 * @param {any} content what Clipboard.copy wrote
 * @param {boolean} inPlace where it stood, not a little aside of it
 */
export async function pasteOwn({ state }, { show, slide, items, slides }, inPlace) {
	if (slides.length) {
		await state.bring({ from: show, slide_ids: slides, at: state.data.order.indexOf(state.slide.id) + 1 });
		return;
	}
	const offset = inPlace || slide !== state.slide.id ? 0 : ASIDE_PX;
	const copies = copiesOf(items, offset, offset);
	if (show === state.data.show_id) await addObjects(state, copies, "Paste");
	else if (await state.bring({ from: show, objects: copies, slide_id: state.slide.id }))
		state.pick(copies.map((/** @type {Core.SlideObject} */ item) => item.id));
}
