// Whether a key is meant for the page, or for a field or an open dialog: nothing happens behind a dialog.

let closedAt = -Infinity;
// Esc closes a dialog before anybody hears of the key, which is not meant for the page either.
document.addEventListener(
	"cancel",
	(event) => {
		closedAt = event.timeStamp;
	},
	true,
);

/** @param {any} event */
export const taken = (event) =>
	event.defaultPrevented ||
	document.querySelector("dialog[open]") !== null ||
	(event.key === "Escape" && event.timeStamp - closedAt < 100) ||
	Boolean(event.target.closest?.("input, textarea, select, [contenteditable]"));

/**
 * The key by the letter that the page uses: the letter on the key in a layout with Latin letters; else (Cyrillic,
 * Greek …) the letter at that place of a Latin keyboard, a capital with Shift.
 * @param {{key: string, code?: string, shiftKey?: boolean}} event
 */
export function keyOf({ key, code = "", shiftKey = false }) {
	if (key.length !== 1 || /[ -~]/.test(key)) return key;
	const letter = /^Key([A-Z])$/.exec(code)?.[1];
	if (!letter) return key;
	return shiftKey ? letter : letter.toLowerCase();
}
