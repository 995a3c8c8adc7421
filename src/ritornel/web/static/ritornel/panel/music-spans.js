// Spans of music: under one slide, from one slide to another, or under the whole show, in one act.
import { newId } from "../ui/element.js";

/**
 * Where a span can run: from the slide on the stage to its own end, to another slide's end, or through the show.
 * @param {ShowState} state
 */
export function stretches(state) {
	const { data } = state;
	const here = state.slide?.id;
	const from = data.order.indexOf(here);
	const after = data.order.slice(from).filter((id) => !data.slides[id].skipped);
	return {
		whole: { start: { at: "show start" }, end: { at: "show end" } },
		slide: here && { start: { at: "slide", slide_id: here }, end: { at: "slide end", slide_id: here } },
		to: (/** @type {string} */ id) => ({
			start: { at: "slide", slide_id: here },
			end: id === after.at(-1) ? { at: "show end" } : { at: "slide end", slide_id: id },
		}),
		ends: after.map((id) => [id, `${data.numbers[id]} ${data.slides[id].name || "Untitled"}`]),
	};
}

/** Puts a sound of the shelf under that stretch; a shorter sound repeats, and it fades. @param {ShowState} state */
export async function putMusic(state, /** @type {ShelfAsset} */ asset, /** @type {any} */ stretch) {
	const span = {
		id: newId(),
		asset_id: asset.id,
		...stretch,
		loops: true,
		crossfade_ms: Math.min(500, Math.floor(asset.lasts_ms / 2)),
		fade_in_ms: 500,
		fade_out_ms: 3000,
	};
	const since = state.steps;
	const made = await state.edit({ do: "put span", span });
	if (made) state.pick([], { span: span.id, since });
	return made;
}
