// What a press on a part of the score opens in the panel: the transition, a wait, the notes, the end.

/** @param {object} state @param {{pick: string, slide?: string, beat?: string}} about */
export async function openFrom(state, { pick, slide, beat }) {
	if (slide && state.slide?.id !== slide) await state.open(slide);
	state.pick([]);
	if (pick === "end") state.showPanel("show");
	else if (pick === "notes") state.showPanel("slide", { tab: "notes" });
	else if (pick === "transition") state.showPanel("slide", { passage: "transition" });
	else if (Number(beat) >= state.line.schedule.beats.length) state.showPanel("slide", { passage: "advance" });
	else {
		state.showPanel("slide", { tab: "order" });
		const field = document.querySelector(`.order [data-beat="${CSS.escape(beat)}"] input`);
		field?.scrollIntoView({ block: "nearest" });
		field?.focus({ preventScroll: true });
		field?.select();
	}
}
