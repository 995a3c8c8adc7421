// Menus and panels that open over or beside something, and close again.

/**
 * Closes something at Escape, wherever the focus is; a field with text of its own comes first.
 * @param {any} node
 * @param {any} close
 */
export function closeAtEscape(node, close) {
	document.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
		const { key, target, defaultPrevented } = event;
		if (key !== "Escape" || node.hidden || defaultPrevented || document.querySelector("dialog[open]")) return;
		const field = target?.closest?.("input, textarea, [contenteditable]");
		if (field && (!node.contains(field) || (field.type === "search" && field.value))) return;
		event.preventDefault();
		close();
	});
}

/**
 * Closes an opened `details` at Escape, which gives the focus back to its summary, and at a press elsewhere.
 * @param {any} menu
 */
export function closeMenu(menu) {
	addEventListener(
		"pointerdown",
		(event) => {
			if (!menu.contains(event.target)) menu.open = false;
		},
		true,
	);
	menu.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
		if (event.key !== "Escape" || !menu.open) return;
		event.stopPropagation();
		menu.open = false;
		menu.firstElementChild.focus();
	});
}
