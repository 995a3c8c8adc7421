// Colours by role or by hand, fills and borders.
import { el } from "../ui/element.js";
import { choice, numberField, pair, selectField } from "./fields.js";

export const ROLES = [
	["@words", "Words"],
	["@soft", "Softer words"],
	["@accent", "Accent"],
	["@second", "Second accent"],
	["@line", "Fine line"],
	["@raised", "Raised"],
	["@ground", "Background"],
];

const looked = (/** @type {ShowState} */ state, /** @type {string} */ colour) =>
	colour.startsWith("@")
		? state.data.settings.theme.palette[/** @type {keyof Core.Palette} */ (colour.slice(1))]
		: colour.slice(0, 7);

/**
 * A role of the theme, or a colour by hand beside it; a transparent colour keeps its transparency.
 * @param {ShowState} state
 */
export function paintField(
	state,
	/** @type {any} */ value,
	/** @type {(value: any) => any} */ set,
	/** @type {any} */ { label, none = "" },
) {
	const own = Boolean(value) && !value.startsWith("@");
	const choices = [...(none ? [["", none]] : []), ...ROLES, ...(own ? [["own", "By hand"]] : [])];
	const role = selectField(
		value ? (own ? "own" : value) : "",
		choices,
		(next) => {
			if (next !== "own") set(next || null);
		},
		{ label },
	);
	const swatch = el("input", {
		class: "field swatch",
		type: "color",
		value: value ? looked(state, value) : "#000000",
		"aria-label": `${label}, by hand`,
		title: "A colour by hand",
	});
	swatch.addEventListener("change", () => set(swatch.value + (own ? value.slice(7) : "")));
	return el("div", { class: "paint" }, role, swatch);
}

/** None, one colour or two. @param {ShowState} state */
export function fillFields(
	state,
	/** @type {any} */ fill,
	/** @type {(value: any) => any} */ set,
	{ label = "Fill", none = true } = {},
) {
	const kinds = [...(none ? [["none", "None"]] : []), ["plain", "Plain"], ["gradient", "Two colours"]];
	const kind = choice(
		fill?.kind ?? "none",
		kinds,
		(next) =>
			set(
				/** @type {Record<string, any>} */ ({
					none: null,
					plain: { kind: "plain", colour: fill?.first ?? "@second" },
					gradient: { kind: "gradient", first: fill?.colour ?? "@raised", second: "@line", angle_deg: 90 },
				})[next],
			),
		{ label },
	);
	const put = (/** @type {{[name: string]: any}} */ changes) => set({ ...fill, ...changes });
	const colours = /** @type {Record<string, any>} */ ({
		plain: () => [
			pair(
				"Colour",
				paintField(state, fill.colour, (/** @type {string} */ colour) => put({ colour }), { label: `${label} colour` }),
			),
		],
		gradient: () => [
			pair(
				"From",
				paintField(state, fill.first, (first) => put({ first }), { label: "First colour" }),
			),
			pair(
				"To",
				paintField(state, fill.second, (second) => put({ second }), { label: "Second colour" }),
			),
			pair(
				"Angle",
				numberField(fill.angle_deg, (n) => put({ angle_deg: n }), {
					label: "Angle",
					unit: "°",
					least: -360,
					most: 360,
				}),
			),
		],
	})[fill?.kind];
	return [pair(label, kind), ...(colours ? colours() : [])];
}

/** @param {ShowState} state */
export function strokeFields(
	state,
	/** @type {any} */ stroke,
	/** @type {(value: any) => any} */ set,
	{ title = "Border", add = "Add a border" } = {},
) {
	if (!stroke)
		return [
			pair(
				title,
				el("button", { class: "push", onclick: () => set({ colour: "@words", width_px: 3, dash: "solid" }) }, add),
			),
		];
	const put = (/** @type {{[name: string]: any}} */ changes) => set({ ...stroke, ...changes });
	return [
		pair(
			title,
			paintField(state, stroke.colour, (/** @type {string} */ colour) => (colour ? put({ colour }) : set(null)), {
				label: `${title} colour`,
				none: "None",
			}),
		),
		el(
			"div",
			{ class: "pair" },
			el("span", {}),
			el(
				"div",
				{ class: "two" },
				numberField(stroke.width_px, (width) => put({ width_px: width }), {
					label: `${title} width`,
					least: 0,
					most: 200,
					unit: "px",
				}),
				selectField(
					stroke.dash ?? "solid",
					[
						["solid", "Solid"],
						["dashed", "Dashed"],
						["dotted", "Dotted"],
					],
					(dash) => put({ dash }),
					{ label: `${title} dashes` },
				),
			),
		),
	];
}

export function shadowFields(/** @type {any} */ shadow, /** @type {(value: any) => any} */ set) {
	if (!shadow)
		return [
			pair(
				"Shadow",
				el(
					"button",
					{ class: "push", onclick: () => set({ dx: 0, dy: 6, blur_px: 16, colour: "#00000059" }) },
					"Add a shadow",
				),
			),
		];
	const put = (/** @type {{[name: string]: any}} */ changes) => set({ ...shadow, ...changes });
	const depth = Math.round((shadow.colour.length === 9 ? parseInt(shadow.colour.slice(7), 16) / 255 : 1) * 100);
	const dark = (/** @type {number} */ percent) =>
		`${shadow.colour.startsWith("@") ? "#000000" : shadow.colour.slice(0, 7)}${Math.round((percent / 100) * 255)
			.toString(16)
			.padStart(2, "0")}`;
	return [
		pair(
			"Shadow",
			el(
				"div",
				{ class: "two" },
				numberField(shadow.dx, (dx) => put({ dx }), { label: "Shadow to the right", unit: "px" }),
				numberField(shadow.dy, (dy) => put({ dy }), { label: "Shadow downwards", unit: "px" }),
			),
		),
		el(
			"div",
			{ class: "pair" },
			el("span", {}),
			el(
				"div",
				{ class: "grid grid-cols-[1fr_1fr_auto] gap-2" },
				numberField(shadow.blur_px, (blur) => put({ blur_px: blur }), {
					label: "Softness of the shadow",
					least: 0,
					most: 200,
					unit: "px",
				}),
				numberField(depth, (percent) => put({ colour: dark(percent) }), {
					label: "Depth of the shadow",
					least: 0,
					most: 100,
					unit: "%",
					decimals: 0,
				}),
				el("button", { class: "push", onclick: () => set(null) }, "None"),
			),
		),
	];
}
