// Text typed before its field is there.

/** Stands at the end of text that Esc ended. */
export const LEFT = "\u001b";

/**
 * Keeps what is typed while a text is being made; the returned function gives it. Nobody has to wait for the server
 * to type.
 */
export function heldKeys() {
	let text = "";
	const listening = new AbortController();
	const how = { capture: true, signal: listening.signal };
	const hold = (/** @type {KeyboardEvent} */ event) => {
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		if (event.key.length === 1) text += event.key;
		else if (event.key === "Enter") text += "\n";
		else if (event.key === "Backspace") text = text.slice(0, -1);
		else if (event.key === "Escape") {
			text += LEFT;
			listening.abort();
		} else return;
		event.preventDefault();
		event.stopPropagation();
	};
	addEventListener("keydown", hold, how);
	// A space that is let go would press the button that began it all.
	addEventListener("keyup", (event) => event.key === " " && event.preventDefault(), how);
	return () => {
		listening.abort();
		return text;
	};
}
