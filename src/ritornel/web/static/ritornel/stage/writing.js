// The editor of an object's text: that of its kind, or the usual one.
import { LEFT } from "./held-keys.js";
import { TableEditor } from "./table-editor.js";
import { WordsEditor } from "./text-editor.js";

/** @type {{[kind: string]: typeof WordsEditor}} */
const EDITORS = { table: TableEditor };

/** Opens the text of an object; text that was open is saved first. @param {Stage} stage */
export function editWords(stage, /** @type {Core.SlideObject} */ item, typed = "") {
	stage.editor?.finish();
	const Editor = EDITORS[item.kind] ?? WordsEditor;
	stage.editor = new Editor(stage, item);
	const words = typed.replaceAll(LEFT, "");
	if (words) stage.editor.begin(words);
	if (words !== typed) stage.editor.leave();
}
