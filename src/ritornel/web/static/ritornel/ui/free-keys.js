// Whether a key is meant for the page, or for a field or a dialog that is open over it: nothing is done behind a
// dialog.
export const taken = (event) =>
	event.defaultPrevented ||
	document.querySelector("dialog[open]") !== null ||
	Boolean(event.target.closest?.("input, textarea, select, [contenteditable]"));
