// What is said of a show that plays to those who do not see it: each slide, and what is new on each beat.
import { el } from "../ui/element.js";

/**
 * Says a moment that is another slide or beat than the one before, where there is anything to say.
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
