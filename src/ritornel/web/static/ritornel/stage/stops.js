// The slide's beats as stops on a line: pressing one shows the slide at the end of that beat.
import { el, icon } from "../ui/element.js";
import { clockText, secondsText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";

/** @param {ShowState} state */
export function beatAt(state) {
	const { schedule } = state.line;
	const slideMs = state.playheadMs - (state.data.starts_ms[state.slide.id] ?? 0);
	let beat = 0;
	schedule.beats.forEach((entry, index) => {
		if (entry.start_ms <= slideMs) beat = index;
	});
	return beat;
}

/** Moves the playhead to the end of a beat of the slide on the stage. @param {ShowState} state */
export function goToBeat(state, /** @type {number} */ beat) {
	state.setPlayhead((state.data.starts_ms[state.slide.id] ?? 0) + state.line.schedule.beats[beat].end_ms);
}

/** @param {ShowState} state */
export function drawStops(state, /** @type {MadeElement} */ node) {
	const { line } = state;
	if (!line) {
		node.replaceChildren();
		return;
	}
	const start = state.data.starts_ms[state.slide.id] ?? 0;
	const now = beatAt(state);
	// While the playhead moves only the clock changes; the stops are drawn anew where they tell something else.
	const known = drawn.get(node);
	const stale = known?.line !== line || known.start !== start || known.now !== now;
	if (stale) {
		drawn.set(node, { line, start, now });
		drawAnew(state, node, start, now);
	}
	const at = Math.min(Math.max(state.playheadMs - start, 0), line.schedule.length_ms);
	/** @type {Node} */ (node.lastChild).textContent = `${clockText(at)} of ${clockText(line.schedule.length_ms)}`;
	if (stale) showCurrent(node.querySelector(".along"));
}

const drawn = new WeakMap();

/** Where not all stops fit, the current one is among the visible ones. */
function showCurrent(/** @type {any} */ along) {
	const current = along.querySelector("[aria-current]");
	if (along.scrollWidth > along.clientWidth) along.scrollLeft = current.offsetLeft - along.clientWidth / 2;
}

/** @param {ShowState} state */
function drawAnew(state, /** @type {MadeElement} */ node, /** @type {any} */ start, /** @type {any} */ now) {
	const { schedule } = state.line;
	const stops = schedule.beats.flatMap((beat, index) => {
		const stop = el(
			"button",
			{
				"aria-current": index === now ? "true" : null,
				"data-past": index < now,
				"aria-label": index ? `After cue ${index}` : "On arrival",
				onclick: () => goToBeat(state, index),
			},
			el("span", {}, String(index)),
		);
		return index ? [el("i"), el("em", {}, `${secondsText(beat.wait?.hold_ms ?? 0)} s`), el("i"), stop] : [stop];
	});
	const waits = state.waitsOf(state.slide.id);
	const begin = start + schedule.beats[now].start_ms;
	const run = (/** @type {number} */ from, /** @type {number} */ to) =>
		state.dispatchEvent(new CustomEvent("run", { detail: { from, to } }));
	const focused = [...node.querySelectorAll("button")].indexOf(document.activeElement);
	const along = el("div", { class: "along" }, el("em", { class: "mr-1" }, "On arrival"), stops);
	node.replaceChildren(
		el(
			"span",
			{ class: "runs" },
			el(
				"button",
				{
					"data-run": "beat",
					title: "See this beat",
					"aria-label": "See this beat",
					onclick: () => run(begin, start + schedule.beats[now].end_ms),
				},
				icon("play"),
				"Beat",
			),
			el(
				"button",
				{
					"data-run": "slide",
					title: "See the slide",
					"aria-label": "See the slide",
					onclick: () => run(start, start + schedule.length_ms),
				},
				icon("play"),
				"Slide",
			),
		),
		along,
		el("em", { title: "How often it waits for a cue on this slide" }, countWords(waits, "wait")),
		el("output"),
	);
	if (focused >= 0) node.querySelectorAll("button")[focused]?.focus({ preventScroll: true });
}
