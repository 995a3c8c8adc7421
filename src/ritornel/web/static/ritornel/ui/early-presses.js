// A press that comes before the scripts of a page is held, and made when they are there. This is a plain script and no
// module: it runs before the first button can be pressed.
(() => {
	/** @type {HTMLElement | null} */
	let held = null;

	/**
	 * Holds a press on a button that does nothing without scripts. Of several presses the last counts.
	 * @param {MouseEvent} event
	 */
	function hold(event) {
		const button = event.target instanceof Element ? event.target.closest("button") : null;
		if (!button || (button.form && button.type === "submit")) return;
		event.preventDefault();
		event.stopImmediatePropagation();
		held?.removeAttribute("aria-busy");
		button.setAttribute("aria-busy", "true");
		held = button;
	}

	document.addEventListener("click", hold, true);
	// Modules are evaluated before this event.
	document.addEventListener("DOMContentLoaded", () => {
		document.removeEventListener("click", hold, true);
		held?.removeAttribute("aria-busy");
		held?.click();
	});
})();
