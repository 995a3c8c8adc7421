// The panel when nothing is picked: the slide, how it is come into and left, its running order.
import { el, icon, newId } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";
import { secondsText } from "../ui/times.js";
import { choice, pair, selectField, textField, tick, timeField } from "./fields.js";
import { voiceFields } from "./voice-panel.js";
import { sample } from "./samples.js";
import { soundFields } from "./sound-field.js";
import { settingControls } from "./settings.js";
import { runningOrder } from "./running-order.js";

const carrying = later(() => import("./carry-panel.js"));
const grounds = later(() => import("./background-details.js"));
const framing = later(() => import("./framing-fields.js"));
const whole = later(() => import("./show-panel.js"));

const acts = () => import("./slide-acts.js");

const WHY = { voice: "the voice", clip: "the clip", build: "the builds", transition: "the transition" };

export function slidePanel(state, again) {
	const { slide, data } = state;
	// Changes may be a function of the slide as it is when their turn comes.
	const change = (changes) =>
		state.edit(() => {
			const now = state.slide?.id === slide.id ? state.slide : state.data.slides[slide.id];
			return {
				do: "change slides",
				slide_ids: [slide.id],
				changes: typeof changes === "function" ? changes(now) : changes,
			};
		});
	return [
		el(
			"section",
			{},
			textField(slide.name, (name) => change({ name }), {
				label: "Name of the slide",
				placeholder: "Name this slide",
				cls: "name-field",
			}),
			el(
				"div",
				{ class: "row said layout-row" },
				`${slide.skipped ? "Skipped" : `Slide ${data.numbers[slide.id]} of ${state.shown.length}`} · Layout`,
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
			kin(state),
			el("div", { class: "grid gap-2 mt-2" }, advance(state, change), comeInto(state, change, again)),
		),
		missingGlyphs(state),
		el("section", {}, el("h3", {}, "Running order"), runningOrder(state)),
		el("section", { class: "grid gap-2" }, el("h3", {}, "Voice"), ...voiceFields(state, change, again)),
		el("section", { class: "grid gap-2" }, ...larger(state, again)),
		el(
			"section",
			{ class: "grid gap-2" },
			el("h3", {}, "Background and notes"),
			background(state, change, again),
			state.data.settings.furniture.footer ||
				state.data.settings.furniture.numbers ||
				state.data.settings.furniture.mark_asset_id
				? tick("Footer and number on this slide", !slide.bare, (on) => change({ bare: !on }))
				: null,
			textField(slide.notes, (notes) => change({ notes }), {
				label: "Notes",
				rows: 3,
				placeholder: "What you will say here",
			}),
		),
		el("section", {}, slideActions(state, change)),
		el("section", { class: "grid gap-2" }, el("h3", {}, "The whole show"), ...wholeShow(state)),
	];
}

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

/** Characters that no font here has are told; on the slide a sign stands in their place. */
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

function advance(state, change) {
	const { slide, data } = state;
	const { schedule } = state.line;
	const now = slide.advance;
	const set = (rule) =>
		change({
			advance: {
				after: { rule, after_ms: schedule.length_ms, cut_short: false },
				cue: { rule, cue_id: newId(), hold_ms: null },
				voice: { rule },
			}[rule],
		});
	const time =
		now.rule === "voice"
			? timeField(now.breath_ms, (ms) => change({ advance: { rule: "voice", breath_ms: ms } }), {
					label: "Breath after the voice",
				})
			: now.rule === "after"
				? timeField(now.after_ms, (ms) => change((old) => ({ advance: { ...old.advance, after_ms: ms } })), {
						label: "Advances after",
					})
				: timeField(now.hold_ms, (ms) => change((old) => ({ advance: { ...old.advance, hold_ms: ms } })), {
						label: "Hold before leaving",
						placeholder: `${secondsText(state.data.settings.default_hold_ms)} s`,
					});
	const told = el(
		"p",
		{},
		el("b", { class: "font-semibold" }, `Lasts ${secondsText(schedule.length_ms)} s`),
		schedule.extended_ms
			? el(
					"span",
					{ class: "said" },
					` · ${secondsText(schedule.extended_ms)} s more for ${WHY[schedule.extended_for]}`,
				)
			: null,
	);
	return [
		el(
			"div",
			{ class: "pair" },
			el("span", { class: "label" }, "Advances"),
			el(
				"div",
				{ class: "grid grid-cols-[1fr_66px] gap-2" },
				choice(
					now.rule,
					[["after", "After"], ["cue", "On cue"], ...(slide.voice || now.rule === "voice" ? [["voice", "Voice"]] : [])],
					set,
					{ label: "Advances" },
				),
				time,
			),
		),
		told,
		now.rule !== "cue" && (slide.also_live || data.settings.runs === "on cue")
			? tick("Goes on by itself, also live", slide.also_live, (on) => change({ also_live: on }))
			: null,
		now.rule === "after" && state.line.reading_ms
			? el(
					"p",
					{ class: "said" },
					`Reading takes about ${(state.line.reading_ms / 1000).toFixed(1)} s (estimate) `,
					el(
						"button",
						{ class: "link", onclick: async () => (await import("./lengths.js")).readThrough(state, [slide.id]) },
						"Use it",
					),
				)
			: null,
		now.rule === "after" && (schedule.extended_ms || now.cut_short)
			? tick("Cut short: go on even if something still runs", now.cut_short, (on) =>
					change((old) => ({ advance: { ...old.advance, cut_short: on } })),
				)
			: null,
	];
}

function comeInto(state, change, again) {
	const { transition } = state.slide;
	const kind = state.data.transitions.find((entry) => entry.name === transition.name);
	const set = (changes) => change((old) => ({ transition: { ...old.transition, ...changes } }));
	const pick = (name) => {
		const next = state.data.transitions.find((entry) => entry.name === name);
		set({ name, lasts_ms: next.lasts_ms && transition.lasts_ms ? transition.lasts_ms : next.lasts_ms, settings: {} });
	};
	const kinds = el(
		"div",
		{},
		el("span", { class: "label said" }, "Comes by"),
		el(
			"div",
			{ class: "effects mt-1", role: "group", "aria-label": "Comes by" },
			state.data.transitions.map((entry) => {
				const button = el("button", {
					"aria-pressed": String(entry.name === transition.name),
					onclick: () => {
						if (entry.name !== transition.name) pick(entry.name);
					},
				});
				button.append(sample(entry.name, button), el("span", {}, entry.title));
				return button;
			}),
		),
	);
	const sound = soundFields(
		state,
		transition.sound ?? null,
		(next) => set({ sound: next }),
		"Sound of the transition",
		{ keeps: true },
	);
	if (transition.name === "cut") return [kinds, ...sound];
	const length = el(
		"div",
		{ class: "grid grid-cols-[66px_1fr] gap-2" },
		timeField(transition.lasts_ms, (ms) => set({ lasts_ms: ms }), { label: "Length of the transition" }),
		selectField(
			transition.pace,
			Object.keys(state.data.paces).map((name) => [name, name[0].toUpperCase() + name.slice(1)]),
			(pace) => set({ pace }),
			{ label: "Pace of the transition" },
		),
	);
	return [
		kinds,
		el("div", { class: "pair" }, el("span", { class: "label" }, "Length, pace"), length),
		...settingControls(kind.controls, transition.settings, (settings) => set({ settings })),
		...sound,
		...carryParts(state, change, again),
	];
}

function carryParts(state, change, again) {
	if (!state.data.viewing.carry) return [];
	if (carrying.ready) return carrying.ready.carryFields(state, change);
	carrying.get().then(again);
	return [];
}

/** Few slides are larger than the frame: folded until one is or is meant to be. */
function larger(state, again) {
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

function background(state, change, again) {
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
	const pick = async (kind) => change({ background: (await grounds.get()).backgroundOf(state, kind) });
	return [
		pair("Ground", selectField(own?.kind ?? "theme", kinds, pick, { label: "Background" })),
		...(own ? grounds.ready.backgroundDetails(state, change) : []),
	];
}

function slideActions(state, change) {
	const { slide, data } = state;
	const at = data.order.indexOf(slide.id);
	const move = (to) => state.edit({ do: "move slides", slide_ids: [slide.id], to });
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

export const removeSlide = (state) => state.edit({ do: "remove slides", slide_ids: [state.slide.id] });

/** What is set for the whole show; it comes once the slide's own details stand, and moves nothing of them. */
function wholeShow(state) {
	if (whole.ready) return whole.ready.showSettings(state);
	const place = el("div", { class: "grid gap-2" });
	whole.get().then(({ showSettings }) => place.append(...showSettings(state).filter(Boolean)));
	return [place];
}
