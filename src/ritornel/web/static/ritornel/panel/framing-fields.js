// A slide larger than the frame, in the slide's panel: its size, and framings that the view flies to.
import { el, icon, newId } from "../ui/element.js";
import { numberField, pair } from "./fields.js";

export const WHOLE = "whole";
const LEAST_PX = 16;
const tenths = (/** @type {any} */ value) => Math.floor(value * 10 + 0.5) / 10;

/**
 * A new framing with a build that flies to it, in one act.
 * @param {ShowState} state
 * @param {{x: number, y: number, width: number, name?: string}} where
 */
async function addFraming(state, { x, y, width, name = "" }) {
	const framing = {
		id: newId(),
		name: name || `Framing ${state.slide.framings.length + 1}`,
		x: tenths(x),
		y: tenths(y),
		width_px: Math.max(tenths(width), LEAST_PX),
	};
	const build = flightTo(framing.id);
	const since = state.steps;
	if (await state.edit({ do: "add framing", slide_id: state.slide.id, framing, build }))
		state.pick([], { framing: framing.id, build: build.id, since });
}

/** A framing of half the slide's width in its middle. @param {ShowState} state */
export function addFramingInMiddle(state) {
	const { frame } = state.data.settings;
	const { width_px, height_px } = state.slide.size ?? frame;
	return addFraming(state, { x: width_px / 2, y: height_px / 2, width: state.data.viewing.whole.width_px / 2 });
}

/** A move of the view on its own cue. */
const flightTo = (/** @type {any} */ target) => ({
	id: newId(),
	object_id: target,
	effect: "views fly",
	pace: "ease in and out",
	starts: { rule: "cue", cue_id: newId() },
});

/** The slide's size and its framings, in the slide's panel. @param {ShowState} state */
export function framingFields(state) {
	const { slide, data } = state;
	const { frame } = data.settings;
	const size = slide.size ?? frame;
	const resize = (/** @type {number} */ width, /** @type {number} */ height) =>
		state.edit({ do: "change size", slide_id: slide.id, size: { width_px: width, height_px: height } });
	const rows = slide.framings.map((framing) =>
		el(
			"button",
			{
				class: "push",
				"aria-pressed": String(state.pickedFraming === framing.id),
				onclick: () => state.pick([], { framing: framing.id }),
			},
			icon("maximize"),
			framing.name,
		),
	);
	return [
		pair(
			"Size",
			el(
				"div",
				{ class: "two" },
				numberField(size.width_px, (width) => resize(Math.round(width), size.height_px), {
					label: "Width of the slide",
					least: frame.width_px,
					most: 8192,
					unit: "px",
					decimals: 0,
				}),
				numberField(size.height_px, (height) => resize(size.width_px, Math.round(height)), {
					label: "Height of the slide",
					least: frame.height_px,
					most: 8192,
					unit: "px",
					decimals: 0,
				}),
			),
		),
		el(
			"div",
			{ class: "row flex-wrap" },
			slide.size
				? el(
						"button",
						{ class: "push", onclick: () => resize(frame.width_px, frame.height_px) },
						"As large as the frame",
					)
				: el(
						"button",
						{ class: "push", onclick: () => resize(frame.width_px * 2, frame.height_px * 2) },
						"Twice as large",
					),
			el(
				"button",
				{
					class: "push",
					title: "A part of the slide that the view flies to",
					onclick: () => addFramingInMiddle(state),
				},
				icon("plus"),
				"Framing",
			),
			slide.framings.length
				? el(
						"button",
						{
							class: "push",
							title: "The view flies back to all of the slide, on a cue",
							onclick: () => flyTo(state, WHOLE),
						},
						"Fly to the whole",
					)
				: null,
		),
		rows.length
			? el("div", { class: "row flex-wrap", role: "group", "aria-label": "Framings" }, rows)
			: el("p", { class: "said" }, "A framing is a part of the slide that the view flies to on a cue."),
	];
}

/** @param {ShowState} state */
export function flyTo(state, /** @type {any} */ target) {
	const build = flightTo(target);
	const since = state.steps;
	return state.edit({ do: "add build", slide_id: state.slide.id, build }).then((made) => {
		if (made && target !== WHOLE) state.pick([], { framing: target, build: build.id, since });
	});
}
