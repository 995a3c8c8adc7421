// Keeping the keyboard's focus where content is drawn again.

/**
 * What identifies a control after it is drawn again.
 * @param {any} control
 */
export const nameOf = (control) =>
	`${control.tagName} ${control.getAttribute("aria-label") ?? control.dataset.named ?? ""} ${control.tagName === "BUTTON" ? control.textContent : ""}`;

/** @param {any} node */
export const controlsOf = (node) => [...node.querySelectorAll("button, input, select, textarea, summary")];

/**
 * Remembers which control has the focus. The result, called once the node is drawn again, gives it to the nearest
 * control of the same name, or to `otherwise()`.
 * @param {any} node
 * @param {any} [otherwise]
 */
export function keepPlace(node, otherwise = () => null) {
	const before = controlsOf(node);
	const at = before.indexOf(document.activeElement);
	if (at < 0) return () => undefined;
	const held = before[at];
	const name = nameOf(held);
	const marked = held.tagName === "INPUT" ? [held.selectionStart, held.selectionEnd, held.value.length] : null;
	return () => {
		const same = controlsOf(node)
			.map((control, index) => [control, Math.abs(index - at)])
			.filter(([control]) => nameOf(control) === name)
			.sort((a, b) => a[1] - b[1]);
		const found = same[0]?.[0];
		(found ?? otherwise())?.focus({ preventScroll: true });
		// What was marked to be typed over still is; a caret stays where it was.
		if (marked?.[0] != null)
			found?.setSelectionRange(marked[0], marked[1] === marked[2] ? found.value.length : marked[1]);
	};
}
