// The look of the selected object: text, pictures and shapes, in the theme's colours or by hand.
import { el, icon } from "../ui/element.js";
import { familyIn } from "../stage/text-editor.js";
import { fillFields, paintField, shadowFields, strokeFields } from "./colours.js";
import { tableFields } from "./table-fields.js";
import { choice, numberField, pair, selectField, textField } from "./fields.js";

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
function picture(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	const asset = state.asset(item.asset_id);
	const { crop } = item;
	const percent = (/** @type {any} */ value) => Math.round(value * 1000) / 10;
	const cut = (/** @type {any} */ side, /** @type {string} */ label) =>
		numberField(side.of, (n) => change((/** @type {any} */ old) => ({ crop: side.set(old.crop, n / 100) })), {
			label,
			least: 0,
			most: 99,
			unit: "%",
		});
	const room = (/** @type {any} */ value) => Math.max(0.01, Math.min(1, value));
	const sides = {
		left: {
			of: percent(crop.x),
			set: (/** @type {any} */ old, /** @type {number} */ n) => ({
				...old,
				x: Math.min(n, 0.99),
				width: room(old.x + old.width - n),
			}),
		},
		right: {
			of: percent(1 - crop.x - crop.width),
			set: (/** @type {any} */ old, /** @type {number} */ n) => ({ ...old, width: room(1 - old.x - n) }),
		},
		top: {
			of: percent(crop.y),
			set: (/** @type {any} */ old, /** @type {number} */ n) => ({
				...old,
				y: Math.min(n, 0.99),
				height: room(old.y + old.height - n),
			}),
		},
		bottom: {
			of: percent(1 - crop.y - crop.height),
			set: (/** @type {any} */ old, /** @type {number} */ n) => ({ ...old, height: room(1 - old.y - n) }),
		},
	};
	const natural = () =>
		change((/** @type {any} */ old) => {
			const share =
				asset.height_px * old.crop.height ? (asset.width_px * old.crop.width) / (asset.height_px * old.crop.height) : 1;
			return { box: { ...old.box, height: Math.round((old.box.width / share) * 10) / 10 } };
		});
	return [
		el(
			"p",
			{ class: "said" },
			asset ? `${asset.name}, ${asset.width_px} × ${asset.height_px} px` : "The picture is missing from the shelf.",
		),
		el(
			"div",
			{ class: "row flex-wrap" },
			el(
				"button",
				{
					class: "push",
					onclick: () => state.dispatchEvent(new CustomEvent("want", { detail: { replace: item.id } })),
				},
				icon("replace"),
				"Replace",
			),
			item.kind === "clip"
				? null
				: el(
						"button",
						{
							class: "push",
							disabled: !asset,
							"aria-pressed": String(state.cutting === item.id),
							onclick: () => state.dispatchEvent(new CustomEvent("cut", { detail: { id: item.id } })),
						},
						icon("crop"),
						state.cutting === item.id ? "Done cutting" : "Cut on the stage",
					),
			el(
				"button",
				{
					class: "push",
					disabled: !asset,
					onclick: natural,
					title: "Makes the box as high as the picture's proportion asks",
				},
				"True proportion",
			),
		),
		pair(
			"Fit",
			choice(
				item.fit,
				[
					["cover", "Cover"],
					["contain", "Contain"],
					["stretch", "Stretch"],
				],
				(fit) => change({ fit }),
				{ label: "Fit" },
			),
		),
		pair(
			"Cut off",
			el("div", { class: "two" }, cut(sides.left, "Cut off on the left"), cut(sides.right, "Cut off on the right")),
		),
		el(
			"div",
			{ class: "pair" },
			el("span", { class: "said text-xs" }, "left, right, top, bottom"),
			el("div", { class: "two" }, cut(sides.top, "Cut off at the top"), cut(sides.bottom, "Cut off at the bottom")),
		),
		pair(
			"Flip",
			el(
				"div",
				{ class: "two" },
				el(
					"button",
					{ class: "push", "aria-pressed": String(item.flip_x), onclick: () => change({ flip_x: !item.flip_x }) },
					"Left–right",
				),
				el(
					"button",
					{ class: "push", "aria-pressed": String(item.flip_y), onclick: () => change({ flip_y: !item.flip_y }) },
					"Up–down",
				),
			),
		),
		...(item.kind === "clip" ? [] : driftFields(state, [item])),
		item.drift
			? pair(
					"Pace",
					selectField(
						item.drift.pace,
						Object.keys(state.data.paces).map((name) => [name, name]),
						(pace) => change((/** @type {any} */ old) => ({ drift: { ...old.drift, pace } })),
						{ label: "Pace of the drift" },
					),
				)
			: null,
		...strokeFields(state, item.stroke, (stroke) => change({ stroke })),
		pair(
			"Corner radius",
			numberField(item.corner_px, (n) => change({ corner_px: n }), {
				label: "Corner radius",
				least: 0,
				most: 1000,
				unit: "px",
			}),
		),
		pair(
			"In words",
			textField(item.alternative, (alternative) => change({ alternative }), {
				label: "What it shows, in words",
				rows: 3,
				placeholder: "For those who do not see it",
			}),
		),
	];
}

export const DRIFTS = [
	["none", "Stands still"],
	["closer", "Closer"],
	["farther", "Farther away"],
	["left", "To the left"],
	["right", "To the right"],
	["up", "Up"],
	["down", "Down"],
	["own", "Its own way"],
];

/** How a picture drifts, derived from its two crops as the core makes them. */
function driftOf(/** @type {any} */ { crop, drift }) {
	if (!drift) return "none";
	const { ends } = drift;
	const near = (/** @type {number} */ a, /** @type {number} */ b) => Math.abs(a - b) < 0.002;
	const middle = (/** @type {any} */ c) => [c.x + c.width / 2, c.y + c.height / 2];
	const [[ax, ay], [bx, by]] = [middle(crop), middle(ends)];
	const same = near(crop.width, ends.width) && near(crop.height, ends.height);
	if (!same && near(ax, bx) && near(ay, by)) return ends.width < crop.width ? "closer" : "farther";
	if (same && near(ay, by)) return bx > ax ? "right" : "left";
	if (same && near(ax, bx)) return by > ay ? "down" : "up";
	return "own";
}

/** Slow moves over pictures, for one or several together. @param {ShowState} state */
export function driftFields(state, /** @type {any} */ items) {
	const ways = new Set(items.map(driftOf));
	const now = ways.size === 1 ? [...ways][0] : "";
	const offered = DRIFTS.filter(([way]) => way !== "own" || now === "own");
	const drift = (/** @type {string} */ way) => {
		if (way && way !== "own")
			state.edit({
				do: "drift pictures",
				slide_id: state.slide.id,
				object_ids: items.map((/** @type {Core.SlideObject} */ item) => item.id),
				way,
			});
	};
	return [
		pair(
			"Drift",
			selectField(now, [...(now ? [] : [["", "Differs"]]), ...offered], drift, {
				label: "Drift over the picture while the slide lasts",
			}),
		),
		items.length === 1 && now !== "none" ? endsFields(state, items[0]) : null,
	];
}

/**
 * The end of the drift in exact numbers: how much is cut off on each side then.
 * @param {ShowState} state
 */
function endsFields(state, /** @type {Core.SlideObject} */ item) {
	const { ends } = /** @type {Core.Drift} */ (item.drift);
	const percent = (/** @type {any} */ value) => Math.round(value * 1000) / 10;
	const set = (/** @type {Partial<Core.Crop>} */ fresh) =>
		state.edit({
			do: "change objects",
			slide_id: state.slide.id,
			object_ids: [item.id],
			changes: { drift: { .../** @type {Core.Drift} */ (item.drift), ends: { ...ends, ...fresh } } },
		});
	const room = (/** @type {any} */ value) => Math.max(0.01, Math.min(1, value));
	return el(
		"div",
		{ class: "pair" },
		el("span", { class: "said text-xs" }, "ends cut off at left, top; shows wide, high"),
		el(
			"div",
			{ class: "two" },
			numberField(percent(ends.x), (n) => set({ x: n / 100 }), {
				label: "At the end, cut off on the left",
				least: 0,
				most: 99,
				unit: "%",
			}),
			numberField(percent(ends.y), (n) => set({ y: n / 100 }), {
				label: "At the end, cut off at the top",
				least: 0,
				most: 99,
				unit: "%",
			}),
			numberField(percent(ends.width), (n) => set({ width: room(n / 100) }), {
				label: "At the end, how much is seen across",
				least: 1,
				most: 100,
				unit: "%",
			}),
			numberField(percent(ends.height), (n) => set({ height: room(n / 100) }), {
				label: "At the end, how much is seen down",
				least: 1,
				most: 100,
				unit: "%",
			}),
		),
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
		["rectangle", "bubble"].includes(item.form)
			? pair(
					"Corner radius",
					numberField(item.corner_px, (n) => change({ corner_px: n }), {
						label: "Corner radius",
						least: 0,
						most: 1000,
						unit: "px",
					}),
				)
			: null,
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
