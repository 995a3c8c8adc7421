// The look of a picture or a clip: how it fits, what is cut off, its drift.
import { el, icon } from "../ui/element.js";
import { choice, numberField, pair, selectField, textField } from "./fields.js";
import { strokeFields } from "./colours.js";

/** How round the corners of a picture, a clip, a rectangle or a bubble are. */
export const cornerField = (/** @type {Core.SlideObject} */ item, /** @type {(changes: object) => void} */ change) =>
	pair(
		"Corner radius",
		numberField(item.corner_px, (n) => change({ corner_px: n }), {
			label: "Corner radius",
			least: 0,
			most: 1000,
			unit: "px",
		}),
	);

/** @param {ShowState} state */
export function picture(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
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
		cornerField(item, change),
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
