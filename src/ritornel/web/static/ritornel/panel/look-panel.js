// The look of the selected object: text, pictures and shapes, in the theme's colours or by hand.
import { familyIn } from "../stage/text-editor.js";
import { el, icon } from "../ui/element.js";
import { fillFields, paintField, shadowFields, strokeFields } from "./colours.js";
import { choice, numberField, pair, selectField } from "./fields.js";
import { cornerField, picture } from "./picture-fields.js";
import { tableFields } from "./table-fields.js";

/** @param {ShowState} state */
export function look(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	const common = [
		pair(
			"Opacity",
			numberField(item.opacity * 100, (n) => change({ opacity: n / 100 }), {
				label: "Opacity",
				least: 0,
				most: 100,
				unit: "%",
				decimals: 0,
			}),
		),
		...shadowFields(item.shadow, (shadow) => change({ shadow })),
	];
	const kinds = {
		text: () => letters(state, item, change),
		table: () => [...tableFields(state, item, change), ...letters(state, item, change)],
		picture: () => picture(state, item, change),
		clip: () => picture(state, item, change),
		shape: () => shape(state, item, change),
	};
	return [...kinds[item.kind](), ...common, carryLook(state, item)];
}

/** @param {ShowState} state */
function letters(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	/** @type {any[][]} */
	const toggles = [
		["weight", "bold", "Bold", item.weight >= 600, (/** @type {boolean} */ on) => ({ weight: on ? 700 : 400 })],
		["italic", "italic", "Italic", item.italic, (/** @type {any} */ italic) => ({ italic })],
		["underline", "underline", "Underlined", item.underline, (/** @type {any} */ underline) => ({ underline })],
	];
	const families = [
		["@heading", `Headings: ${familyIn(state, "@heading")}`],
		["@body", `Body: ${familyIn(state, "@body")}`],
		...state.data.families.map((name) => [name, name]),
	];
	const hollow = item.colour === null;
	return [
		pair(
			"Font",
			selectField(item.family, families, (family) => change({ family }), { label: "Font" }),
		),
		pair(
			"Size",
			el(
				"div",
				{ class: "grid grid-cols-[1fr_auto] gap-2" },
				numberField(item.size_px, (size) => change({ size_px: size }), {
					label: "Size",
					least: 4,
					most: 1000,
					unit: "px",
				}),
				el(
					"div",
					{ class: "toggles" },
					toggles.map(([, sign, words, on, make]) =>
						el(
							"button",
							{
								"aria-pressed": String(Boolean(on)),
								"aria-label": words,
								title: words,
								onclick: () => change(make(!on)),
							},
							icon(sign),
						),
					),
				),
			),
		),
		pair(
			"Colour",
			paintField(
				state,
				item.colour,
				(/** @type {string} */ colour) =>
					change(
						colour
							? { colour }
							: (/** @type {any} */ old) => ({
									colour: null,
									outline: old.outline ?? { colour: "@words", width_px: 2, dash: "solid" },
								}),
					),
				{ label: "Colour of the words", none: "Hollow" },
			),
		),
		...strokeFields(
			state,
			item.outline,
			(outline) => change(outline || !hollow ? { outline } : { outline: null, colour: "@words" }),
			{ title: "Outline", add: "Add an outline" },
		),
		pair(
			"Highlight",
			paintField(state, item.highlight, (highlight) => change({ highlight }), { label: "Highlight", none: "None" }),
		),
		pair(
			"Align",
			choice(
				item.align,
				[
					["left", "Left"],
					["centre", "Centre"],
					["right", "Right"],
				],
				(align) => change({ align }),
				{ label: "Align" },
			),
		),
		pair(
			"Stands",
			choice(
				item.stand,
				[
					["top", "Top"],
					["middle", "Middle"],
					["bottom", "Bottom"],
				],
				(stand) => change({ stand }),
				{ label: "Stands" },
			),
		),
		pair(
			"Too long",
			choice(
				item.overflow,
				[["spill", "Spills"], ["shrink", "Shrinks"], ...(item.form ? [] : [["grow", "Grows"]])],
				(overflow) => change({ overflow }),
				{ label: "Words too long for the box" },
			),
		),
		shrunk(state, item),
		pair(
			"Lines",
			el(
				"div",
				{ class: "two" },
				numberField(item.line_spacing, (n) => change({ line_spacing: n }), {
					label: "Line height",
					least: 0.5,
					most: 4,
					decimals: 2,
					unit: "×",
				}),
				numberField(item.paragraph_gap, (n) => change({ paragraph_gap: n }), {
					label: "Gap between paragraphs, in letter sizes",
					least: 0,
					most: 4,
					decimals: 2,
					unit: "gap",
				}),
			),
		),
	];
}

/** The size after shrinking, and a warning where it cannot be read any more. @param {ShowState} state */
function shrunk(state, /** @type {Core.SlideObject} */ item) {
	const drawn = state.staged.drawing.objects.find((entry) => entry.object_id === item.id);
	const size = drawn?.size_px ?? item.size_px;
	const small = state.data.viewing.small.includes(item.id);
	if (!small && size >= item.size_px) return null;
	return el(
		"p",
		{ class: small ? "wrong" : "said" },
		`${size < item.size_px ? `Shrunk to ${Number(size.toFixed(1))} px` : `${Number(size.toFixed(1))} px`}${small ? `: too small to read from afar, less than ${Math.round(state.data.viewing.readable_px)} px. Shorten it or enlarge its box.` : ""}`,
	);
}

/** @param {ShowState} state */
function shape(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	const line = item.form === "line";
	const open = line || item.form === "bracket";
	const percent = (/** @type {string} */ label, /** @type {string} */ title) =>
		pair(
			title,
			numberField(item.hollow * 100, (n) => change({ hollow: n / 100 }), {
				label,
				least: 2,
				most: 98,
				unit: "%",
				decimals: 0,
			}),
		);
	const heads = [
		["none", "No heads"],
		["end", "Head at the end"],
		["start", "Head at the start"],
		["both", "Heads at both"],
	];
	return [
		...(open ? [] : fillFields(state, item.fill, (fill) => change({ fill }))),
		...strokeFields(state, item.stroke, (stroke) => change({ stroke })),
		line
			? pair(
					"Heads",
					selectField(item.heads, heads, (key) => change({ heads: key }), { label: "Heads of the line" }),
				)
			: null,
		["rectangle", "bubble"].includes(item.form) ? cornerField(item, change) : null,
		["polygon", "star", "wheel"].includes(item.form)
			? pair(
					item.form === "wheel" ? "Teeth" : "Points",
					numberField(item.points, (n) => change({ points: Math.round(n) }), {
						label: "Points",
						least: 3,
						most: 96,
						decimals: 0,
					}),
				)
			: null,
		["star", "ring", "arch", "wheel"].includes(item.form) ? percent("Hollow", "Hollow") : null,
		item.form === "arrow" ? percent("Thickness of the shaft", "Shaft") : null,
		item.form === "bubble"
			? pair(
					"Tail to",
					el(
						"div",
						{ class: "two" },
						numberField(item.tail_x * 100, (n) => change({ tail_x: n / 100 }), {
							label: "Tail, across",
							least: -2000,
							most: 2100,
							unit: "%",
						}),
						numberField(item.tail_y * 100, (n) => change({ tail_y: n / 100 }), {
							label: "Tail, down",
							least: -2000,
							most: 2100,
							unit: "%",
						}),
					),
				)
			: null,
		...(line ? [] : wordsInside(state, item, change)),
	];
}

/** @param {ShowState} state */
function wordsInside(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	if (!item.paragraphs.some((paragraph) => paragraph.runs.some((run) => run.text))) {
		return [
			pair(
				"Words",
				el(
					"button",
					{ class: "push", onclick: () => state.dispatchEvent(new CustomEvent("write", { detail: { id: item.id } })) },
					"Write inside",
				),
			),
		];
	}
	return [el("h3", { class: "mt-1" }, "Words inside"), ...letters(state, item, change)];
}

/** Copying a look: taken here, and given to what is selected next. @param {ShowState} state */
function carryLook(state, /** @type {Core.SlideObject} */ item) {
	const carried = state.carriedLook;
	const put = () => state.edit({ do: "copy look", slide_id: state.slide.id, source: carried, object_ids: [item.id] });
	return el(
		"div",
		{ class: "row flex-wrap" },
		el(
			"button",
			{
				class: "push",
				onclick: () => {
					state.carriedLook = structuredClone(item);
					state.tell("pick");
				},
			},
			icon("paintbrush"),
			carried?.id === item.id ? "Look is copied" : "Copy the look",
		),
		carried && carried.id !== item.id ? el("button", { class: "push", onclick: put }, `Look of ${carried.name}`) : null,
	);
}
