// The area below the stage in Compose: its height, and in a narrow window whether it shows the details or the score.
import { el } from "../ui/element.js";
import { pull } from "../ui/pull.js";

const NARROW = matchMedia("(width < 56.25em)");
const SHEETS = { panel: "Details", score: "Score" };
const LEAST_PX = 190;
const STAGE_PX = 300;
const STEP_PX = 20;

/** Lets the handle change the height of the area below the stage. */
export function pullHeight(/** @type {any} */ compose, /** @type {any} */ handle, /** @type {any} */ score) {
	const height = () => score.clientHeight;
	const set = (/** @type {number} */ px) =>
		compose.style.setProperty("--score-height", `${Math.min(Math.max(px, LEAST_PX), innerHeight - STAGE_PX)}px`);
	handle.addEventListener("pointerdown", (/** @type {any} */ down) => {
		const was = height();
		const hand = {
			move: (/** @type {PointerEvent} */ event) => set(was + down.clientY - event.clientY),
			back: () => set(was),
		};
		pull(down, hand, { rests: false });
	});
	handle.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
		const way = { ArrowUp: STEP_PX, ArrowDown: -STEP_PX }[/** @type {"ArrowUp"} */ (event.key)];
		if (!way) return;
		event.preventDefault();
		set(height() + way);
	});
}

/**
 * In a narrow window, lets the details and the score share the area below the stage.
 * @param {HTMLElement} compose the page
 * @param {{onShow: () => void}} how told when another sheet is seen
 */
export function shareSheet(compose, { onShow }) {
	const show = (/** @type {string} */ name) => {
		compose.dataset.sheet = name;
		for (const button of tabs.children) button.setAttribute("aria-pressed", String(button.dataset.sheet === name));
		onShow();
	};
	const tabs = el(
		"nav",
		{ class: "sheet-tabs", "aria-label": "Below the stage" },
		Object.entries(SHEETS).map(([name, title]) =>
			el("button", { "data-sheet": name, onclick: () => show(name) }, title),
		),
	);
	const fit = () => {
		tabs.hidden = !NARROW.matches;
		if (!NARROW.matches) delete compose.dataset.sheet;
		else if (!compose.dataset.sheet) show("panel");
	};
	compose.querySelector(".pull").after(tabs);
	NARROW.addEventListener("change", fit);
	fit();
	// What is focused in the sheet that is not seen brings it.
	compose.addEventListener("focusin", ({ target }) => {
		const name = Object.keys(SHEETS).find((sheet) => target?.closest(`.${sheet}`));
		if (NARROW.matches && name && name !== compose.dataset.sheet) show(name);
	});
}
