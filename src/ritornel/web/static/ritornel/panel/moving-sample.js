// A small moving sample of an effect or a transition, painted by the painter itself.
import { Painter } from "../player/painter.js";
import { frameStateAt } from "../player/frame-state.js";
import { get } from "../ui/requests.js";

const SHOWN_AT = 0.55;
const stillness = matchMedia("(prefers-reduced-motion: reduce)");
let loading = null;

const samples = () => {
	loading ??= get("/shows/samples.json").catch(() => {
		loading = null;
		return null;
	});
	return loading;
};

/**
 * @param {SVGSVGElement} node is painted
 * @param {string} name an effect's, or a transition's
 * @param {HTMLElement} button moves while this is pointed at or focused
 */
export function paintSample(node, name, button) {
	/** @type {any} */
	let painter = null;
	/** @type {any} */
	let show = null;
	let begin = 0;
	let length = 0;
	let request = 0;
	const paint = (/** @type {number} */ ms) => painter?.paint(frameStateAt(show, begin + ms));
	samples().then((/** @type {any} */ all) => {
		const index = all?.slides.findLastIndex((/** @type {SlideLine} */ slide) => slide.name === name) ?? -1;
		if (index < 0) return;
		// Only the slide itself and the one before are kept: a painter makes views of what it shows.
		show = all;
		painter = new Painter(node, show);
		begin = show.starts_ms[index];
		length = show.slides[index].schedule.length_ms;
		const runs = show.slides[index].schedule.transition_ms || show.slides[index].schedule.beats[0].end_ms;
		paint(runs * SHOWN_AT);
		node.dataset.rest = String(runs * SHOWN_AT);
	});
	const move = () => {
		if (stillness.matches || request) return;
		const from = performance.now();
		const step = () => {
			paint((performance.now() - from) % length);
			request = requestAnimationFrame(step);
		};
		request = requestAnimationFrame(step);
	};
	const rest = () => {
		cancelAnimationFrame(request);
		request = 0;
		paint(Number(node.dataset.rest ?? 0));
	};
	for (const kind of ["pointerenter", "focus"]) button.addEventListener(kind, move);
	for (const kind of ["pointerleave", "blur"]) button.addEventListener(kind, rest);
}
