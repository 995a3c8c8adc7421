// What is typed before there is a field for it.

/** Stands at the end of what was typed where Esc ended it. */
export const LEFT = "\u001b";

/**
 * Holds on to what is typed while a text is on its way; the returned function hands it over. Nobody has to wait for the
 * server to type.
 */
export function heldKeys() {
	let text = "";
	const hold = (event) => {
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		if (event.key.length === 1) text += event.key;
		else if (event.key === "Enter") text += "\n";
		else if (event.key === "Backspace") text = text.slice(0, -1);
		else if (event.key === "Escape") {
			text += LEFT;
			removeEventListener("keydown", hold, true);
		} else return;
		event.preventDefault();
		event.stopPropagation();
	};
	addEventListener("keydown", hold, true);
	return () => {
		removeEventListener("keydown", hold, true);
		return text;
	};
}
