// A menu behind a summary.

/** Closes an opened `details` at Escape, which gives the keyboard back to its summary, and at a press elsewhere. */
export function closeMenu(menu) {
	addEventListener(
		"pointerdown",
		(event) => {
			if (!menu.contains(event.target)) menu.open = false;
		},
		true,
	);
	menu.addEventListener("keydown", (event) => {
		if (event.key !== "Escape" || !menu.open) return;
		event.stopPropagation();
		menu.open = false;
		menu.firstElementChild.focus();
	});
}
