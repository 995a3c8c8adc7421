// What a screen reader says of a show that plays: each slide, and what is new on each beat.
import { el } from "../ui/element.js";

/**
 * Announces a moment on another slide or beat than before, where there is something to say.
 * @param {any} node a live region @param {PlayedShow} show @param {{index: number, beat: number}} moment
 * @param {string} called the slide, as "Slide 3 of 9"
 */
export function sayMoment(node, show, { index, beat }, called) {
	const { slide: before, beat: until } = node.dataset;
	if (before === String(index) && until === String(beat)) return;
	Object.assign(node.dataset, { slide: index, beat });
	const slide = show.slides[index];
	// An edition of earlier days has all words of a slide in one.
	const beats = slide?.beat_words ?? [slide?.words ?? ""];
	const goesOn = before === String(index) && Number(until) < beat;
	const words = beats
		.slice(goesOn ? Number(until) + 1 : 0, beat + 1)
		.filter(Boolean)
		.join("\n");
	if (goesOn && !words) return;
	node.replaceChildren(goesOn ? "" : `${called}. `, el("span", { lang: show.language }, words));
}
