// What a press on a part of the score opens in the panel: the transition, a wait, the notes, the end.
import { newId } from "../ui/element.js";
import { slideAt } from "./marks.js";

/** @param {ShowState} state @param {{pick: string, slide?: string, beat?: string}} about */
export async function openFrom(state, { pick, slide, beat }) {
	if (slide && state.slide?.id !== slide) await state.open(slide);
	state.pick([]);
	if (pick === "tie") {
		state.showPanel("slide", { passage: "transition" });
		// The part of the panel with the pairs may only be on its way.
		await Promise.all([import("../panel/carry-panel.js"), import("../panel/transition-panel.js")]);
		await new Promise(requestAnimationFrame);
		document.querySelector(".panel .pairs")?.scrollIntoView({ block: "nearest" });
		return;
	}
	if (pick === "end") state.showPanel("show");
	else if (pick === "notes") state.showPanel("slide", { tab: "notes" });
	else if (pick === "transition") state.showPanel("slide", { passage: "transition" });
	else if (Number(beat) >= state.line.schedule.beats.length) state.showPanel("slide", { passage: "advance" });
	else {
		state.showPanel("slide", { tab: "order" });
		const field = document.querySelector(`.order [data-beat="${CSS.escape(String(beat))}"] input`);
		field?.scrollIntoView({ block: "nearest" });
		field?.focus({ preventScroll: true });
		field?.select();
	}
}

/**
 * Selects several slides: with Shift all from the one on the stage to the pressed one, with Ctrl one more or one
 * less.
 * @param {ShowState} state
 */
export function pickSeveral(state, /** @type {any} */ slide, /** @type {PointerEvent} */ event) {
	const { order } = state.data;
	const now = state.pickedSlides.size ? state.pickedSlides : new Set(state.slide ? [state.slide.id] : []);
	if (event.shiftKey) {
		const [a, b] = [order.indexOf(state.slide?.id), order.indexOf(slide)].sort((one, other) => one - other);
		state.pickSlides(order.slice(Math.max(a, 0), b + 1));
		return;
	}
	const next = new Set(now);
	if (next.has(slide)) next.delete(slide);
	else next.add(slide);
	state.pickSlides(next);
}

/** Adds a mark at the playhead, selected so that it can be named. @param {ShowState} state */
export async function addMark(state) {
	const at = state.playheadMs;
	const id = slideAt(state, at);
	if (!id) return;
	const mark = {
		id: newId(),
		name: `Mark ${state.data.marks.length + 1}`,
		slide_id: id,
		offset_ms: Math.round(at - state.data.starts_ms[id]),
	};
	const since = state.steps;
	if (!(await state.edit({ do: "put mark", mark }))) return;
	state.pick([], { mark: mark.id, since });
	document.querySelector(".panel .name-field")?.select();
}
