// The settings of a slide's own background.
import { el } from "../ui/element.js";
import { paintField } from "./colours.js";
import { numberField, pair, selectField } from "./fields.js";

const choices = (/** @type {ShowState} */ state, /** @type {string} */ kind) =>
	state.data.assets.filter((asset) => asset.kind === kind).map((asset) => [asset.id, asset.name]);

/**
 * The first background of a kind: in the present colours, with the first picture or clip of the shelf; null for the
 * theme's.
 * @param {ShowState} state
 */
export function backgroundOf(state, /** @type {string} */ kind) {
	const { ground } = state.data.viewing;
	const first = ground.colour ?? ground.first ?? "@ground";
	const seen = { kind, asset_id: choices(state, kind)[0]?.[0], veil: 0.4, colour: "@ground" };
	return /** @type {Record<string, any>} */ ({
		theme: null,
		plain: { kind, colour: first },
		gradient: { kind, first, second: "@line", angle_deg: 90 },
		picture: seen,
		clip: seen,
	})[kind];
}

/** @param {(changes: object) => void} change changes the slide */
export function backgroundDetails(/** @type {ShowState} */ state, change) {
	const own = /** @type {Core.Background & {[name: string]: any}} */ (state.slide.background);
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		change((/** @type {any} */ old) => ({ background: { ...old.background, ...changes } }));
	const colour = (/** @type {string} */ title, /** @type {string} */ name, /** @type {string} */ label) =>
		pair(
			title,
			paintField(state, own[name], (value) => set({ [name]: value }), { label }),
		);
	const seen = (/** @type {string} */ title) => [
		pair(
			title,
			selectField(own.asset_id, choices(state, own.kind), (id) => set({ asset_id: id }), {
				label: `Background ${title.toLowerCase()}`,
			}),
		),
		pair(
			"Overlay",
			el(
				"div",
				{ class: "grid grid-cols-[70px_1fr] gap-2" },
				numberField(own.veil * 100, (n) => set({ veil: n / 100 }), {
					label: "Overlay over it",
					least: 0,
					most: 100,
					unit: "%",
					decimals: 0,
				}),
				paintField(state, own.colour, (value) => set({ colour: value }), { label: "Colour of the overlay" }),
			),
		),
	];
	const fields = /** @type {Record<string, any>} */ ({
		picture: () => seen("Picture"),
		clip: () => seen("Clip"),
		plain: () => [colour("Colour", "colour", "Background colour")],
		gradient: () => [
			colour("From", "first", "First colour"),
			colour("To", "second", "Second colour"),
			pair(
				"Angle",
				numberField(own.angle_deg, (angle) => set({ angle_deg: angle }), {
					label: "Angle",
					unit: "°",
					least: -360,
					most: 360,
				}),
			),
		],
	})[own.kind]();
	return [
		...fields,
		el(
			"p",
			{ class: "differs" },
			el("span", {}, "Differs from the theme: background"),
			el("button", { class: "link", onclick: () => change({ background: null }) }, "Return to it"),
		),
	];
}
