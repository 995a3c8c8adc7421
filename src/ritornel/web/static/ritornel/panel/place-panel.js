// The place of the selected object: exact numbers, alignment, the same as on the slide before, stacking; and what a
// press on it does.
import { el } from "../ui/element.js";
import { commonActions } from "./object-panel.js";
import { numberField, pair, selectField, textField, tick } from "./fields.js";

/** @param {ShowState} state */
export function place(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	const { box } = item;
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		change((/** @type {any} */ old) => ({ box: { ...old.box, ...changes } }));
	const size = (/** @type {any} */ sides) =>
		state.edit({ do: "size object", slide_id: state.slide.id, object_id: item.id, keep: keeps(state, item), ...sides });
	const arrange = (/** @type {any} */ how) =>
		state.edit({ do: "arrange objects", slide_id: state.slide.id, object_ids: [item.id], how });
	const before = state.data.viewing.before.includes(item.id);
	return [
		pair(
			"Place",
			el(
				"div",
				{ class: "two" },
				numberField(box.x, (x) => set({ x }), { label: "From the left", unit: "px" }),
				numberField(box.y, (y) => set({ y }), { label: "From the top", unit: "px" }),
			),
		),
		pair(
			"Size",
			el(
				"div",
				{ class: "two" },
				numberField(box.width, (width) => size({ width }), { label: "Width", least: 0, unit: "px" }),
				numberField(box.height, (height) => size({ height }), { label: "Height", least: 0, unit: "px" }),
			),
		),
		tick("Keep its proportion", keeps(state, item), (on) => {
			state.keepsProportion = { ...state.keepsProportion, [item.kind]: on };
		}),
		item.paragraphs && !item.form && item.overflow !== "grow" ? wordsHeight(state, item, set) : null,
		pair(
			"Turn",
			numberField(box.turn_deg ?? 0, (turn) => set({ turn_deg: turn }), {
				label: "Turn",
				least: -3600,
				most: 3600,
				unit: "°",
			}),
		),
		pair(
			"Centre",
			el(
				"div",
				{ class: "two" },
				el("button", { class: "push", onclick: () => arrange("centre") }, "Across"),
				el("button", { class: "push", onclick: () => arrange("middle") }, "Up and down"),
			),
		),
		el(
			"button",
			{
				class: "push",
				disabled: !before,
				title: before ? "" : "It has no counterpart on the slide before",
				onclick: () => state.edit({ do: "place as before", slide_id: state.slide.id, object_ids: [item.id] }),
			},
			"As on the slide before",
		),
		stacking(state, [item]),
		item.kind === "text" ? splitting(state, item) : null,
		...wingsFields(state, item, change),
		commonActions(state, [item]),
	];
}

/**
 * Whether a typed side changes the other in proportion: pictures and clips do until somebody decides otherwise.
 */
const keeps = (/** @type {ShowState} */ state, /** @type {any} */ { kind }) =>
	/** @type {any} */ (state.keepsProportion)?.[kind] ?? ["picture", "clip"].includes(kind);

/** @param {ShowState} state */
export function stacking(state, /** @type {any} */ items) {
	const { objects } = state.slide;
	const ids = items.map((/** @type {Core.SlideObject} */ item) => item.id);
	const first = Math.min(...ids.map((/** @type {string} */ id) => objects.findIndex((other) => other.id === id)));
	const to = (/** @type {any} */ at) =>
		state.edit({ do: "stack objects", slide_id: state.slide.id, object_ids: ids, to: at });
	const last = objects.length - ids.length;
	return el(
		"div",
		{ class: "pair" },
		el("span", { class: "label" }, "Stacking"),
		el(
			"div",
			{ class: "two" },
			el("button", { class: "push", onclick: () => to(last) }, "To the front"),
			el("button", { class: "push", onclick: () => to(0) }, "To the back"),
			el("button", { class: "push", onclick: () => to(Math.min(first + 1, last)) }, "Forward"),
			el("button", { class: "push", onclick: () => to(Math.max(first - 1, 0)) }, "Backward"),
		),
	);
}

/** The height of the text, and one press to make the box as high. @param {ShowState} state */
function wordsHeight(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ set) {
	const needs =
		state.staged.drawing.objects.find((entry) => entry.object_id === item.id)?.needs_height ?? item.box.height;
	const over = needs > item.box.height + 0.5;
	return pair(
		"Words",
		el(
			"div",
			{ class: "row" },
			el(
				"span",
				{ class: over ? "wrong" : "said" },
				`${Math.round(needs)} px high${over ? ", more than the box" : ""}`,
			),
			el(
				"button",
				{
					class: "push ml-auto",
					disabled: Math.abs(needs - item.box.height) < 0.5,
					onclick: () => set({ height: needs }),
				},
				"Fit",
			),
		),
	);
}

/** @param {ShowState} state */
function splitting(state, /** @type {Core.SlideObject} */ item) {
	if (item.paragraphs.length < 2) return null;
	const split = () => {
		const drawn = state.staged.drawing.objects.find((entry) => entry.object_id === item.id);
		// Each paragraph begins where the core placed it: its middle less half of the way to the next.
		const middles = (drawn?.parts ?? []).map((part) => part.pivot_y);
		const tops = middles.map((middle, at) =>
			at ? (middles[at - 1] + middle) / 2 : Math.max(0, middle - (middles[1] - middle) / 2),
		);
		state.edit({
			do: "split text",
			slide_id: state.slide.id,
			object_id: item.id,
			stem: `s${Date.now().toString(36)}`,
			tops,
		});
	};
	return el("button", { class: "push", onclick: split }, `Split into ${item.paragraphs.length} texts, one a paragraph`);
}

/** Where an object waits before a carry brings it on. Only a carry has wings. @param {ShowState} state */
function wingsFields(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	const { wings } = item;
	if (state.slide.transition.name !== "carry" && !wings) return [];
	if (!wings)
		return [
			pair(
				"Wings",
				el(
					"button",
					{
						class: "push",
						title: "Where it waits before the carry brings it on",
						onclick: () => change({ wings: { dx: -400, dy: 0, scale: 1, opacity: 0 } }),
					},
					"Come from the wings",
				),
			),
		];
	const put = (/** @type {{[name: string]: any}} */ changes) =>
		change((/** @type {any} */ old) => ({ wings: { ...old.wings, ...changes } }));
	return [
		pair(
			"Wings",
			el(
				"div",
				{ class: "two" },
				numberField(wings.dx, (dx) => put({ dx }), { label: "Wings, to the right", unit: "px" }),
				numberField(wings.dy, (dy) => put({ dy }), { label: "Wings, downwards", unit: "px" }),
			),
		),
		el(
			"div",
			{ class: "pair" },
			el("span", {}),
			el(
				"div",
				{ class: "grid grid-cols-[1fr_1fr_auto] gap-2" },
				numberField(wings.scale * 100, (n) => put({ scale: n / 100 }), {
					label: "Size in the wings",
					least: 0,
					most: 2000,
					unit: "%",
					decimals: 0,
				}),
				numberField(wings.opacity * 100, (n) => put({ opacity: n / 100 }), {
					label: "Opacity in the wings",
					least: 0,
					most: 100,
					unit: "%",
					decimals: 0,
				}),
				el("button", { class: "push", onclick: () => change({ wings: null }) }, "None"),
			),
		),
	];
}

const PRESSES = [
	["none", "Nothing"],
	["next", "The next cue"],
	["slide", "To a slide"],
	["address", "To an address"],
	["sound", "Plays a sound"],
	["clip", "Plays a clip"],
];

/** What a press on the object does, while playing and in releases. @param {ShowState} state */
export function pressFields(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	const { press } = item;
	const slides = state.data.order.map((id, index) => [id, `${index + 1}  ${state.data.slides[id].name || "Untitled"}`]);
	const sounds = state.data.assets.filter((asset) => asset.kind === "sound").map((asset) => [asset.id, asset.name]);
	const own = (state.slide.objects ?? []).filter((other) => other.kind === "clip");
	const clips = own
		.sort((a, b) => Number(b.id === item.id) - Number(a.id === item.id))
		.map((other) => [other.id, other.name]);
	const pick = (/** @type {string} */ kind) =>
		change({
			press: {
				none: null,
				next: { do: "next" },
				slide: { do: "slide", slide_id: slides[0][0] },
				address: { do: "address", address: "https://orlmere.example" },
				sound: { do: "sound", asset_id: sounds[0]?.[0] },
				clip: { do: "clip", object_id: clips[0]?.[0] },
			}[kind],
		});
	const kinds = PRESSES.filter(([key]) => (key !== "sound" || sounds.length) && (key !== "clip" || clips.length));
	const more =
		press &&
		/** @type {Record<string, any>} */ ({
			slide: () =>
				selectField(press.slide_id, slides, (id) => change({ press: { do: "slide", slide_id: id } }), {
					label: "Slide to go to",
				}),
			address: () =>
				textField(
					press.address,
					(address) =>
						change({
							press: {
								do: "address",
								address: /^(https?:\/\/|mailto:)/.test(address) ? address : `https://${address}`,
							},
						}),
					{ label: "Address to open" },
				),
			clip: () =>
				selectField(press.object_id, clips, (id) => change({ press: { do: "clip", object_id: id } }), {
					label: "Clip to play",
				}),
			sound: () =>
				selectField(press.asset_id, sounds, (id) => change({ press: { do: "sound", asset_id: id } }), {
					label: "Sound to play",
				}),
		})[press.do];
	return [
		pair("When pressed", selectField(press?.do ?? "none", kinds, pick, { label: "When pressed" })),
		more ? el("div", { class: "pair" }, el("span", {}), more()) : null,
	];
}
