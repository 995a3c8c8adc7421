// Whether a key is meant for the page, or for a field or a dialog that is open over it: nothing is done behind a
// dialog.

let closedAt = -Infinity;
// Esc closes a dialog before anybody hears of the key, which is not meant for the page either.
document.addEventListener(
	"cancel",
	(event) => {
		closedAt = event.timeStamp;
	},
	true,
);

export const taken = (event) =>
	event.defaultPrevented ||
	document.querySelector("dialog[open]") !== null ||
	(event.key === "Escape" && event.timeStamp - closedAt < 100) ||
	Boolean(event.target.closest?.("input, textarea, select, [contenteditable]"));
