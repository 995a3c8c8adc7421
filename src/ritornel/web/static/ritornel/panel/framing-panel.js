// The panel of a framing: its place, and when the view flies there.
import { el, icon } from "../ui/element.js";
import { timing } from "./build-timing.js";
import { numberField, pair, textField, tick } from "./fields.js";
import { WHOLE, addFramingInMiddle, flyTo } from "./framing-fields.js";

/** The panel of the selected framing, or of a move of the view back to the whole. @param {ShowState} state */
export function framingPanel(state) {
	const { slide } = state;
	const framing = slide.framings.find((entry) => entry.id === state.pickedFraming);
	const target = framing?.id ?? WHOLE;
	const own = state.line.builds.filter((build) => build.kind === "views" && build.object_id === target);
	const current = own.find((build) => build.id === state.pickedBuild) ?? null;
	const flights = el(
		"section",
		{ class: "grid gap-2" },
		el("h3", {}, "The view flies here"),
		el(
			"div",
			{ class: "row flex-wrap" },
			own.map((build) =>
				el(
					"button",
					{
						class: "push",
						"aria-pressed": String(build === current),
						onclick: () => state.pick([], { framing: target, build: build === current ? null : build.id }),
					},
					build.starts.rule === "cue" ? `On cue, beat ${build.beat}` : `In beat ${build.beat}`,
				),
			),
			el("button", { class: "push", onclick: () => flyTo(state, target) }, icon("plus"), "Fly here once more"),
		),
		...(current ? timing(state, current) : []),
	);
	if (!framing)
		return [
			el("section", {}, el("h2", {}, "The whole slide"), el("p", { class: "said" }, "What the view comes back to.")),
			flights,
		];
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit({ do: "change framing", slide_id: slide.id, framing_id: framing.id, changes });
	return [
		el(
			"section",
			{ class: "grid gap-2" },
			textField(framing.name, (name) => set({ name }), {
				label: "Name of the framing",
				placeholder: "Name this framing",
				cls: "name-field",
			}),
			pair(
				"Middle",
				el(
					"div",
					{ class: "two" },
					numberField(framing.x, (x) => set({ x }), { label: "From the left", unit: "px" }),
					numberField(framing.y, (y) => set({ y }), { label: "From the top", unit: "px" }),
				),
			),
			pair(
				"Width",
				numberField(framing.width_px, (width) => set({ width_px: width }), {
					label: "Width",
					least: 16,
					most: 32768,
					unit: "px",
				}),
			),
			pair(
				"Turn",
				numberField(framing.turn_deg ?? 0, (turn) => set({ turn_deg: turn }), {
					label: "Turn",
					least: -360,
					most: 360,
					unit: "°",
				}),
			),
			tick("The slide opens here", slide.opens_on === framing.id, (on) =>
				state.edit({ do: "change slides", slide_ids: [slide.id], changes: { opens_on: on ? framing.id : null } }),
			),
		),
		flights,
		el(
			"section",
			{ class: "row flex-wrap" },
			el("button", { class: "push", onclick: () => addFramingInMiddle(state) }, icon("plus"), "Another framing"),
			el(
				"button",
				{
					class: "push",
					onclick: () => state.edit({ do: "remove framing", slide_id: slide.id, framing_id: framing.id }),
				},
				icon("trash-2"),
				"Remove framing",
			),
		),
	];
}
