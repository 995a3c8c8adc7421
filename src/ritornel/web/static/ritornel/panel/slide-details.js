// A slide's name, layout, section, size and background, and ways to make slides from it.
import { el, icon } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";
import { pair, selectField, textField, tick } from "./fields.js";
import { personField } from "./person-field.js";

const grounds = later(() => import("./background-details.js"));
const framing = later(() => import("./framing-fields.js"));

const removeSlide = (/** @type {ShowState} */ state) =>
	state.edit({ do: "remove slides", slide_ids: [state.slide.id] });
const acts = () => import("./slide-acts.js");

/** @param {ShowState} state */
export function slideDetails(state, /** @type {(value: any) => any} */ change, /** @type {any} */ again) {
	const { slide, data } = state;
	const { furniture } = data.settings;
	return [
		el(
			"section",
			{ class: "grid gap-2" },
			textField(slide.name, (name) => change({ name }), {
				label: "Name of the slide",
				placeholder: "Called by its heading until you name it",
				cls: "name-field",
			}),
			pair(
				"Layout",
				selectField(
					slide.layout,
					data.layouts.map((entry) => [entry.name, entry.title]),
					(layout) => state.edit({ do: "change layout", slide_ids: [slide.id], layout }),
					{ label: "Layout" },
				),
			),
			pair(
				"Section",
				textField(slide.opens_section, (name) => change({ opens_section: name }), {
					label: "Section that begins with this slide",
					placeholder: "Begins one? Name it",
				}),
			),
			pair(
				"Given to",
				personField(
					state,
					slide.given_to ?? "",
					(/** @type {string} */ name) => change({ given_to: name }),
					"Whom the slide is given to",
				),
			),
			kin(state),
		),
		missingGlyphs(state),
		el(
			"section",
			{ class: "grid gap-2" },
			el("h3", {}, "Background"),
			background(state, change, again),
			furniture.footer || furniture.numbers || furniture.mark_asset_id
				? tick("Footer and number on this slide", !slide.bare, (on) => change({ bare: !on }))
				: null,
		),
		el("section", { class: "grid gap-2" }, ...larger(state, again)),
		el("section", {}, slideActions(state, change)),
	];
}

/** @param {ShowState} state */
function kin(state) {
	const { slide, data } = state;
	const own = slide.lineage || slide.id;
	const found = data.order.filter((id) => id !== slide.id && (data.slides[id].lineage || id) === own);
	if (!found.length) return null;
	return el(
		"p",
		{ class: "said" },
		slide.lineage ? "Stems from the same as " : "Copied as ",
		found
			.slice(0, 3)
			.map((id, at) => [
				at ? ", " : "",
				el(
					"button",
					{ class: "link", onclick: () => state.open(id) },
					`${data.numbers[id]} ${data.slides[id].name || "Untitled"}`,
				),
			])
			.flat(),
	);
}

/** Characters that no font here has are named; on the slide a sign stands in their place. @param {ShowState} state */
function missingGlyphs(state) {
	const { missing } = state.staged.drawing;
	if (!missing?.length) return "";
	return el(
		"section",
		{},
		el(
			"p",
			{ class: "wrong" },
			`No font here has ${missing.map((one) => `“${one}”`).join(", ")}: a sign stands in its place.`,
		),
	);
}

/** Few slides are larger than the frame: the fields are folded until they are needed. @param {ShowState} state */
function larger(state, /** @type {any} */ again) {
	const { slide } = state;
	if (!slide.size && !slide.framings.length && state.unfolded !== "larger") {
		return [
			el(
				"button",
				{
					class: "push",
					title: "The view flies over a slide that is larger than the frame",
					onclick: () => {
						state.unfolded = "larger";
						again();
					},
				},
				icon("maximize"),
				"Larger than the frame",
			),
		];
	}
	if (!framing.ready) {
		framing.get().then(again);
		return [];
	}
	return [el("h3", {}, "Larger than the frame"), ...framing.ready.framingFields(state)];
}

/** @param {ShowState} state */
function background(state, /** @type {(value: any) => any} */ change, /** @type {any} */ again) {
	const own = state.slide.background;
	if (own && !grounds.ready) {
		grounds.get().then(again);
		return [];
	}
	const kinds = [
		["theme", "Theme"],
		["plain", "Plain"],
		["gradient", "Two colours"],
		...[
			["picture", "Picture"],
			["clip", "Clip"],
		].filter(([kind]) => state.data.assets.some((asset) => asset.kind === kind)),
	];
	const pick = async (/** @type {string} */ kind) =>
		change({ background: (await grounds.get()).backgroundOf(state, kind) });
	return [
		pair("Background", selectField(own?.kind ?? "theme", kinds, pick, { label: "Background" })),
		...(own ? grounds.ready.backgroundDetails(state, change) : []),
		state.data.order.length > 1
			? el(
					"button",
					{
						class: "push",
						onclick: () =>
							state.edit(() => ({
								do: "change slides",
								slide_ids: state.data.order,
								changes: { background: state.slide.background },
							})),
					},
					icon("copy"),
					"To all slides",
				)
			: null,
	];
}

/** @param {ShowState} state */
function slideActions(state, /** @type {(value: any) => any} */ change) {
	const { slide, data } = state;
	const at = data.order.indexOf(slide.id);
	const move = (/** @type {number} */ to) => state.edit({ do: "move slides", slide_ids: [slide.id], to });
	return el(
		"div",
		{ class: "row flex-wrap" },
		el(
			"button",
			{ class: "push", disabled: at === 0, onclick: () => move(at - 1), "aria-label": "Move the slide earlier" },
			icon("arrow-left"),
			"Earlier",
		),
		el(
			"button",
			{
				class: "push",
				disabled: at === data.order.length - 1,
				onclick: () => move(at + 1),
				"aria-label": "Move the slide later",
			},
			"Later",
			icon("arrow-right"),
		),
		el(
			"button",
			{ class: "push", onclick: async () => (await acts()).duplicateSlide(state) },
			icon("copy"),
			"Duplicate",
		),
		el(
			"button",
			{
				class: "push",
				title: "The next slide as a copy to change; what is on both is carried",
				onclick: async () => (await acts()).continueFromHere(state),
			},
			icon("arrow-right"),
			"Continue from here",
		),
		el(
			"button",
			{ class: "push", onclick: () => change({ skipped: !slide.skipped }) },
			icon("eye-off"),
			slide.skipped ? "Show again" : "Skip",
		),
		el("button", { class: "push", onclick: () => removeSlide(state) }, icon("trash-2"), "Remove slide"),
	);
}
