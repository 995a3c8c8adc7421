// Dragging on the score. What is dragged follows the pointer with its exact number. The core computes the result, which
// score, stage and list show before the drop; nothing is saved until then.
import { attempt, endAttempt } from "../editor/attempts.js";
import { pull } from "../ui/pull.js";
import { slideAt } from "./marks.js";
import { numberOf } from "./numbers.js";
import { eventsOf, nearestMs } from "./snapping.js";
import { dragStepMs, stepped } from "./scale.js";

const SNAP_PX = 7;

function scrub(/** @type {DragSurface} */ score, /** @type {number} */ ms) {
	const { state } = score;
	const at = Math.max(0, Math.min(ms, state.data.length_ms));
	const id = slideAt(state, at);
	if (id && id !== state.slide?.id) state.open(id, at);
	else state.setPlayhead(at);
}

/**
 * Follows the pointer from a handle until release, or until the drag is cancelled.
 * @param {DragSurface} score has state, scale, scroll, draw, showNumber and
 * showLine, which is given the instant that was snapped to, or null @param {(event: PointerEvent) => void} click when nothing was moved
 */
export function dragOn(score, /** @type {any} */ handle, /** @type {PointerEvent} */ event, click) {
	const { state } = score;
	const { drag: kind, ...names } = handle.dataset;
	if (kind === "playhead") {
		pullPlayhead(score, event);
		return;
	}
	const drag = numberOf(state, kind, names);
	const fromX = event.clientX;
	const events = eventsOf(state, drag.without).filter((ms) => ms !== drag.anchor);
	let last = event;
	let value = drag.from;
	let free = false;
	let over = false;
	const valueAt = (/** @type {any} */ next) => {
		const by = score.scale.ms(next.clientX - fromX);
		free = next.altKey;
		const snapped = free || drag.bars ? null : nearestMs(drag.anchor + by, events, score.scale.ms(SNAP_PX));
		score.showLine(snapped);
		const share = drag.share ?? 1;
		if (snapped !== null) return Math.max(0, Math.round(drag.from + (snapped - drag.anchor) * share));
		return Math.max(0, stepped(drag.from + by * share, free ? 1 : dragStepMs(score.scale)));
	};
	const say = () => {
		if (!over) score.showNumber(drag.words(value, state.trial?.slides[names.slide], free), last);
	};
	const end = () => {
		over = true;
		state.letGo();
		score.showNumber("", last);
		score.showLine(null);
	};
	const settle = () => {
		endAttempt(state);
		score.draw();
	};
	pull(event, {
		lift() {
			state.hold();
			say();
		},
		move(next) {
			last = next;
			value = valueAt(next);
			say();
			attempt(state, drag.edit(value, free), say);
		},
		async drop(next) {
			if (last !== event) value = valueAt(next);
			end();
			if (value !== drag.from) await state.edit(drag.edit(value, free));
			settle();
		},
		back() {
			end();
			settle();
		},
		press: click,
	});
	event.preventDefault();
}

/** Moves the playhead to the pointer at once, and with it during a drag. */
function pullPlayhead(/** @type {DragSurface} */ score, /** @type {PointerEvent} */ event) {
	const { state } = score;
	const box = score.scroll.getBoundingClientRect();
	const left = score.scroll.scrollLeft;
	const go = (/** @type {any} */ next) => scrub(score, score.scale.ms(next.clientX - box.left + left));
	const before = state.playheadMs;
	pull(event, { move: go, back: () => scrub(score, before) }, { rests: false });
	event.preventDefault();
	go(event);
}
