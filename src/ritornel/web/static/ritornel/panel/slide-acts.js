// Making slides from slides: duplicating, continuing on a new one, gathering the credits.
import { newId } from "../ui/element.js";

/** @param {ShowState} state */
export async function duplicateSlide(state) {
	const stem = newId().slice(0, 12);
	if (await state.edit({ do: "duplicate slides", slide_ids: [state.slide.id], stem })) await state.open(`${stem}-s`);
}

/**
 * The next slide as a copy of this one with a carry: change the copy, and the carry shows the way.
 * @param {ShowState} state
 */
export async function continueFromHere(state) {
	const stem = newId().slice(0, 12);
	const edits = [
		{ do: "duplicate slides", slide_ids: [state.slide.id], stem },
		{
			do: "change slides",
			slide_ids: [`${stem}-s`],
			changes: { transition: { name: "carry", lasts_ms: 1200, pace: "ease in and out", settings: {} } },
		},
		...state.slide.order.map((build, at) => ({
			do: "remove build",
			slide_id: `${stem}-s`,
			build_id: `${stem}-b${at}`,
		})),
	];
	if (await state.edit({ do: "several", label: "Continue from here", edits })) await state.open(`${stem}-s`);
}

/** @param {ShowState} state */
export async function gatherCredits(state) {
	const stem = newId().slice(0, 12);
	if (await state.edit({ do: "gather credits", stem })) await state.open(`${stem}-s`);
}
