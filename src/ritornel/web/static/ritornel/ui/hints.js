// One sentence for each control whose own text does not say everything: on hover, and while it has the focus.
import { later } from "./lazy-modules.js";

const RESTS_MS = 500;
const CONTROLS = "button, input, select, textarea, summary, [role=slider]";

const words = later(() => import("./hint-words.js"));
/** @type {any} */
let tip = null;
let timer = 0;

function hide() {
	clearTimeout(timer);
	tip?.remove();
	tip = null;
}

/**
 * Below the control, or above it where the window ends.
 * @param {any} control
 */
function show(control) {
	hide();
	tip = document.createElement("div");
	tip.className = "control-tip";
	tip.role = "tooltip";
	tip.textContent = control.title;
	document.body.append(tip);
	const box = control.getBoundingClientRect();
	const below = box.bottom + 6 + tip.offsetHeight < innerHeight;
	const left = Math.max(8, Math.min(box.left, innerWidth - tip.offsetWidth - 8));
	Object.assign(tip.style, { left: `${left}px`, top: `${below ? box.bottom + 6 : box.top - 6 - tip.offsetHeight}px` });
}

/** @param {any} control */
async function giveTitle(control) {
	if (control.title) return true;
	// Without a line there is no sentence; it is asked for again the next time.
	const sentence = (await words.get().catch(() => null))?.hintFor(control);
	if (sentence) control.title = sentence;
	return Boolean(sentence);
}

addEventListener("pointerover", (event) => {
	const control = event.target instanceof Element ? event.target.closest(CONTROLS) : null;
	if (control) giveTitle(control);
});
addEventListener("focusin", async ({ target }) => {
	hide();
	if (!(target instanceof HTMLElement) || !target.matches(CONTROLS) || !target.matches(":focus-visible")) return;
	if (!(await giveTitle(target))) return;
	timer = setTimeout(() => {
		if (document.activeElement === target && target.title !== target.textContent.trim()) show(target);
	}, RESTS_MS);
});
for (const kind of ["focusout", "keydown", "pointerdown", "scroll"]) addEventListener(kind, hide, true);
