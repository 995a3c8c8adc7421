// Moving between the regions of a page: F6 goes forward, Shift F6 back, and the first link of a page skips its bar.
import { el } from "./element.js";

const REGIONS = "header.bar, main, aside, section.score, section.overview, nav.comment-slides";
const CONTROLS = "[data-stage], a[href], button, input, select, textarea, [tabindex='0']";

/** The purpose of a region, where that is not its first control. */
const INNER = "[data-stage], .score-place[tabindex='0']";

/** @param {any} node */
const isSeen = (node) => node.getClientRects().length > 0;

/** The visible regions, in the order of the page; a nested one belongs to the outer one. */
const regions = () =>
	[...document.querySelectorAll(REGIONS)].filter((node) => isSeen(node) && !node.parentElement.closest(REGIONS));

/**
 * Moves the focus into a region: to the slide of the stage, into the score, elsewhere to its first control.
 * @param {HTMLElement} region
 */
function enter(region) {
	const found =
		region.querySelector(INNER) ??
		[...region.querySelectorAll(CONTROLS)].find((node) => isSeen(node) && !node.disabled && node.tabIndex >= 0);
	if (found) {
		found.focus();
		return;
	}
	region.tabIndex = -1;
	region.focus();
}

addEventListener("keydown", (event) => {
	if (event.key !== "F6" || event.ctrlKey || event.altKey || document.querySelector("dialog[open]")) return;
	const all = regions();
	if (!all.length) return;
	event.preventDefault();
	const at = all.findIndex((region) => region.contains(document.activeElement));
	const next = at < 0 ? 0 : at + (event.shiftKey ? -1 : 1);
	enter(all[(next + all.length) % all.length]);
});

if (document.querySelector("header.bar")) {
	const content = document.querySelector("main") ?? regions()[1] ?? regions()[0];
	content.id ||= "content";
	/** @param {any} event */
	const skip = (event) => {
		event.preventDefault();
		enter(content);
	};
	const link = el("a", { class: "skip-link", href: `#${content.id}`, onclick: skip }, "Skip to the content");
	document.body.prepend(link);
}
