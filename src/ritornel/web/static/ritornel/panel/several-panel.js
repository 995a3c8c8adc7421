// The panel of several objects, or several slides.
import { el, icon, newId } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { effectButton } from "./builds-panel.js";
import { paintField } from "./colours.js";
import { DRIFTS, driftFields } from "./look-panel.js";
import { readThrough } from "./lengths.js";
import { choice, numberField, pair, selectField, timeField } from "./fields.js";
import { personField } from "./person-field.js";
import { KIND_WORDS } from "../stage/signs.js";
import { commonActions, differs } from "./object-panel.js";
import { stacking } from "./place-panel.js";

const ROWS = [
	[
		["left", "align-start-vertical", "Left sides"],
		["centre", "align-center-vertical", "Middles, side by side"],
		["right", "align-end-vertical", "Right sides"],
		["spread across", "align-horizontal-distribute-center", "Equal gaps across"],
	],
	[
		["top", "align-start-horizontal", "Tops"],
		["middle", "align-center-horizontal", "Middles, one over the other"],
		["bottom", "align-end-horizontal", "Bottoms"],
		["spread down", "align-vertical-distribute-center", "Equal gaps down"],
	],
];

/**
 * One effect for all selected objects, with one question about how they start: the first on a cue and the others
 * together with it, one after another, or each on a cue of its own. Their builds can be started alike, or removed.
 * @param {ShowState} state
 */
function buildsOfAll(state, /** @type {any} */ items, /** @type {Panel} */ panel) {
	const ids = items.map((/** @type {Core.SlideObject} */ item) => item.id);
	const slide = state.slide.id;
	const how = panel.starting;
	/** @type {{[how: string]: () => object}} */
	const rules = {
		together: () => ({ rule: "together" }),
		"one after another": () => ({ rule: "follows" }),
		"each on a cue": () => ({ rule: "cue", cue_id: newId() }),
	};
	const give = (/** @type {EffectForm} */ effect) => {
		const edits = ids.map((/** @type {string} */ id, /** @type {any} */ at) => ({
			do: "add build",
			slide_id: slide,
			build: {
				id: newId(),
				object_id: id,
				effect: effect.name,
				...state.data.settings.usual[effect.name],
				repeats: effect.repeats,
				starts: at ? rules[how]() : { rule: "cue", cue_id: newId() },
			},
		}));
		state.edit({ do: "several", label: `Give ${ids.length} objects ${effect.title.toLowerCase()}`, edits });
	};
	const own = state.line.builds.filter((build) => ids.includes(build.object_id));
	const kind = panel.kind;
	const preview = (/** @type {EffectForm} */ effect) =>
		ids.map((/** @type {string} */ id) => ({
			object_id: id,
			effect: effect.name,
			starts: { rule: "together" },
			...state.data.settings.usual[effect.name],
			repeats: effect.repeats,
		}));
	return [
		el("h3", {}, "Builds for all of them"),
		choice(
			how,
			[
				["together", "Together"],
				["one after another", "One by one"],
				["each on a cue", "Each on a cue"],
			],
			(chosen) => panel.openStarting(chosen),
			{ label: "How they start" },
		),
		choice(kind, Object.entries(KIND_WORDS), (key) => panel.openKind(key), { label: "Kind of build" }),
		el(
			"div",
			{ class: "effects", role: "group", "aria-label": "Effect for all" },
			state.data.effects
				.filter((effect) => effect.kind === kind)
				.map((effect) =>
					effectButton(state, effect, { pressed: false, choose: () => give(effect), builds: () => preview(effect) }),
				),
		),
		own.length > 1
			? el(
					"button",
					{
						class: "push",
						onclick: () =>
							state.edit({
								do: "start builds",
								slide_id: slide,
								build_ids: own.map((build) => build.id),
								how,
								stem: newId().slice(0, 12),
							}),
					},
					`Start the ${own.length} they have ${how}`,
				)
			: null,
		own.length
			? el(
					"button",
					{
						class: "push",
						onclick: () =>
							state.edit({
								do: "several",
								label: `Take the builds from ${ids.length} objects`,
								edits: own.map((build) => ({ do: "remove build", slide_id: slide, build_id: build.id })),
							}),
					},
					icon("trash-2"),
					`Take their ${own.length} build${own.length === 1 ? "" : "s"} away`,
				)
			: null,
	];
}

/** @param {ShowState} state */
export function severalPanel(state, /** @type {Panel} */ panel) {
	const items = state.slide.objects.filter((item) => state.picked.has(item.id));
	const ids = items.map((item) => item.id);
	const slide = state.slide.id;
	const arrange = (/** @type {any} */ how) =>
		state.edit({ do: "arrange objects", slide_id: slide, object_ids: ids, how });
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit({ do: "change objects", slide_id: slide, object_ids: ids, changes });
	const groups = new Set(items.map((item) => item.group));
	const whole = groups.size === 1 && items[0].group;
	const units = new Set(items.map((item) => item.group || item.id)).size;
	const button = (/** @type {string[]} */ [how, sign, words]) =>
		el(
			"button",
			{
				class: "push",
				disabled: how.startsWith("spread") && units < 3,
				title: words,
				"aria-label": words,
				onclick: () => arrange(how),
			},
			icon(sign),
		);
	const texts = items.every((item) => item.kind === "text");
	const carried = state.carriedLook;
	return [
		el(
			"section",
			{ class: "pb-2" },
			el("h2", {}, whole ? `Group of ${ids.length} objects` : `${ids.length} objects`),
			el("p", { class: "said" }, items.map((item) => item.name).join(", ")),
			differs(state, items),
		),
		el(
			"section",
			{ class: "grid gap-2" },
			el("h3", {}, "Line up"),
			...ROWS.map((row) => el("div", { class: "four" }, row.map(button))),
			el(
				"div",
				{ class: "two" },
				el("button", { class: "push", onclick: () => arrange("frame centre") }, "Centre across"),
				el("button", { class: "push", onclick: () => arrange("frame middle") }, "Centre down"),
				el("button", { class: "push", onclick: () => arrange("same width") }, "Same width"),
				el("button", { class: "push", onclick: () => arrange("same height") }, "Same height"),
			),
			el(
				"button",
				{
					class: "push",
					disabled: !ids.some((id) => state.data.viewing.before.includes(id)),
					onclick: () => state.edit({ do: "place as before", slide_id: slide, object_ids: ids }),
				},
				"As on the slide before",
			),
			stacking(state, items),
		),
		el("section", { class: "grid gap-2" }, ...buildsOfAll(state, items, panel)),
		el(
			"section",
			{ class: "grid gap-2" },
			el("h3", {}, "All of them"),
			pair(
				"Opacity",
				numberField(items[0].opacity * 100, (n) => set({ opacity: n / 100 }), {
					label: "Opacity",
					least: 0,
					most: 100,
					unit: "%",
					decimals: 0,
				}),
			),
			...lettersOfAll(state, items, set),
			items.some((item) => item.paragraphs)
				? pair(
						"Words",
						paintField(
							state,
							items.find((item) => item.paragraphs)?.colour,
							(/** @type {string} */ colour) => colour && set({ colour }),
							{ label: "Colour of the words" },
						),
					)
				: null,
			items.some((item) => item.kind === "shape")
				? pair(
						"Fill",
						paintField(
							state,
							items.find((item) => item.kind === "shape")?.fill?.colour ?? "",
							(/** @type {string} */ colour) => set({ fill: colour ? { kind: "plain", colour } : null }),
							{ label: "Fill colour", none: "None" },
						),
					)
				: null,
			...(items.every((item) => item.kind === "picture") ? driftFields(state, items) : []),
			carried
				? el(
						"button",
						{
							class: "push",
							onclick: () =>
								state.edit({
									do: "copy look",
									slide_id: slide,
									source: carried,
									object_ids: ids.filter((id) => id !== carried.id),
								}),
						},
						icon("paintbrush"),
						`Give them the look of ${carried.name}`,
					)
				: null,
			buildsFor(state, items),
			el(
				"div",
				{ class: "row flex-wrap" },
				whole
					? el(
							"button",
							{
								class: "push",
								onclick: () => state.edit({ do: "group objects", slide_id: slide, object_ids: ids, group: "" }),
							},
							icon("ungroup"),
							"Ungroup",
						)
					: el(
							"button",
							{
								class: "push",
								onclick: () => state.edit({ do: "group objects", slide_id: slide, object_ids: ids, group: newId() }),
							},
							icon("group"),
							"Group",
						),
				texts
					? el(
							"button",
							{ class: "push", onclick: () => state.edit({ do: "join texts", slide_id: slide, object_ids: ids }) },
							"Join into one text",
						)
					: null,
			),
			commonActions(state, items),
		),
	];
}

/** Font, size and alignment of all texts together. @param {ShowState} state */
function lettersOfAll(state, /** @type {any} */ items, /** @type {(value: any) => any} */ set) {
	const written = items.filter((/** @type {Core.SlideObject} */ item) => item.paragraphs);
	if (!written.length) return [];
	const alike = (/** @type {keyof Core.SlideObject} */ name) =>
		written.every((/** @type {Core.SlideObject} */ item) => item[name] === written[0][name]) ? written[0][name] : "";
	const families = [["@heading", "Headings"], ["@body", "Body"], ...state.data.families.map((name) => [name, name])];
	const family = alike("family");
	return [
		pair(
			"Font",
			selectField(
				family,
				family ? families : [["", "Different now"], ...families],
				(name) => name && set({ family: name }),
				{ label: "Font of all" },
			),
		),
		pair(
			"Size",
			numberField(alike("size_px") || null, (size_px) => set({ size_px }), {
				label: "Size of all letters",
				least: 4,
				most: 1000,
				unit: "px",
			}),
		),
		pair(
			"Align",
			choice(
				alike("align"),
				[
					["left", "Left"],
					["centre", "Centre"],
					["right", "Right"],
				],
				(align) => set({ align }),
				{ label: "Align all" },
			),
		),
	];
}

/** Copies the builds of the one object that has some to all others. @param {ShowState} state */
function buildsFor(state, /** @type {any} */ items) {
	const owners = items.filter((/** @type {Core.SlideObject} */ item) =>
		state.line.builds.some((build) => build.object_id === item.id && !build.part),
	);
	if (!owners.length || owners.length === items.length) return null;
	const [source] = owners;
	return el(
		"button",
		{
			class: "push",
			onclick: () =>
				state.edit({
					do: "copy builds",
					slide_id: state.slide.id,
					source_id: source.id,
					object_ids: items
						.filter((/** @type {Core.SlideObject} */ item) => !owners.includes(item))
						.map((/** @type {Core.SlideObject} */ item) => item.id),
					stem: newId().slice(0, 12),
				}),
		},
		`Give them the builds of ${source.name}`,
	);
}

/** @param {ShowState} state */
export function slidesPanel(state) {
	const ids = state.data.order.filter((id) => state.pickedSlides.has(id));
	const lines = ids.map((id) => state.data.slides[id]);
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit({ do: "change slides", slide_ids: ids, changes, stem: newId().slice(0, 12) });
	const alike = (/** @type {any} */ read) =>
		lines.every((line) => read(line) === read(lines[0])) ? read(lines[0]) : "";
	const mixed = (/** @type {any} */ read) =>
		alike((/** @type {SlideLine} */ line) => String(read(line))) === "" ? null : read(lines[0]);
	const skipped = lines.every((line) => line.skipped);
	const first = state.data.order.indexOf(ids[0]);
	const move = (/** @type {number} */ to) => state.edit({ do: "move slides", slide_ids: ids, to });
	const transitions = [["", "Different now"], ...state.data.transitions.map((entry) => [entry.name, entry.title])];
	const layouts = [["", "Different now"], ...state.data.layouts.map((entry) => [entry.name, entry.title])];
	// Of the slides as they are when the edit's turn comes: somebody else may have changed them since the panel was
	// drawn.
	const each = (/** @type {string} */ label, /** @type {(line: SlideLine) => object | null} */ fresh) =>
		state.edit(() => {
			const now = ids.map((id) => state.data.slides[id]).filter(Boolean);
			const edits = now
				.map((line) => /** @type {[SlideLine, object | null]} */ ([line, fresh(line)]))
				.filter(([, changes]) => changes)
				.map(([line, changes]) => ({ do: "change slides", slide_ids: [line.id], changes }));
			return edits.length
				? { do: "several", label: `${label} of ${edits.length} slide${edits.length === 1 ? "" : "s"}`, edits }
				: null;
		});
	// Only what was chosen changes: each slide keeps its own length, pace and sound, and those settings that the other
	// transition has too.
	const settle = (/** @type {string} */ name) => {
		const kind = state.data.transitions.find((entry) => entry.name === name);
		if (!kind) return;
		const known = (/** @type {any} */ settings) =>
			Object.fromEntries(
				Object.entries(settings).filter(([key, value]) =>
					kind.controls.some(
						(control) => control.name === key && (!control.choices || control.choices.includes(value)),
					),
				),
			);
		each("Change transition", (/** @type {any} */ { transition }) =>
			transition.name === name
				? null
				: {
						transition: {
							...transition,
							name,
							lasts_ms: transition.lasts_ms || kind.lasts_ms,
							settings: known(transition.settings),
						},
					},
		);
	};
	const advance = (/** @type {string} */ rule) =>
		each("Change how to advance", (/** @type {SlideLine} */ line) =>
			line.advance.rule === rule
				? null
				: {
						advance: {
							after: { rule, after_ms: line.advance.after_ms ?? 5000 },
							cue: { rule, cue_id: newId(), hold_ms: null },
							voice: { rule },
						}[rule],
					},
		);
	const after = (/** @type {number} */ ms) =>
		each("Change length", (/** @type {SlideLine} */ line) => ({
			advance: line.advance.rule === "after" ? { ...line.advance, after_ms: ms } : { rule: "after", after_ms: ms },
		}));
	const total = lines.reduce((sum, line) => sum + line.schedule.length_ms, 0);
	return [
		el(
			"section",
			{},
			el("h2", {}, `${ids.length} slide${ids.length === 1 ? "" : "s"}`),
			el(
				"p",
				{ class: "said" },
				`${lines
					.map((line) => line.name || "Untitled")
					.slice(0, 6)
					.join(", ")}${ids.length > 6 ? " …" : ""} · together ${secondsText(total)} s`,
			),
		),
		el(
			"section",
			{ class: "grid gap-2" },
			pair(
				"Transition",
				selectField(
					alike((/** @type {SlideLine} */ line) => line.transition.name),
					transitions,
					settle,
					{ label: "Transition" },
				),
			),
			pair(
				"Length",
				timeField(
					mixed((/** @type {SlideLine} */ line) => line.transition.lasts_ms),
					(ms) =>
						each("Change transition", (/** @type {SlideLine} */ line) => ({
							transition: { ...line.transition, lasts_ms: ms },
						})),
					{ label: "Length of the transitions", placeholder: "different now" },
				),
			),
			pair(
				"Advance",
				choice(
					alike((/** @type {SlideLine} */ line) => line.advance.rule),
					[
						["after", "After"],
						["cue", "On cue"],
						["voice", "Voice"],
					],
					advance,
					{ label: "Advance" },
				),
			),
			pair(
				"After",
				timeField(
					mixed((/** @type {SlideLine} */ line) => line.advance.after_ms ?? null),
					after,
					{ label: "All advance after", placeholder: "different now" },
				),
			),
			pair(
				"Given to",
				personField(
					state,
					alike((/** @type {SlideLine} */ line) => line.given_to) ?? "",
					(/** @type {string} */ name) =>
						state.edit({ do: "change slides", slide_ids: ids, changes: { given_to: name } }),
					"Whom the slides are given to",
				),
			),
			pair(
				"Layout",
				selectField(
					alike((/** @type {SlideLine} */ line) => line.layout),
					layouts,
					(layout) => layout && state.edit({ do: "change layout", slide_ids: ids, layout }),
					{ label: "Layout of the slides" },
				),
			),
			pair(
				"Drift",
				selectField(
					"",
					[["", "Pictures …"], ["in turn", "Drift, each another way"], ...DRIFTS.filter(([way]) => way !== "own")],
					(way) => way && state.edit({ do: "drift slides", slide_ids: ids, way }),
					{ label: "Drift of the pictures" },
				),
			),
			el("button", { class: "push", onclick: () => readThrough(state, ids) }, "Lengths from reading"),
			el("button", { class: "push", onclick: () => set({ background: null }) }, "Background of the theme on all"),
		),
		el(
			"section",
			{},
			el(
				"div",
				{ class: "row flex-wrap" },
				el(
					"button",
					{ class: "push", disabled: first === 0, onclick: () => move(Math.max(0, first - 1)) },
					icon("arrow-left"),
					"Earlier",
				),
				el("button", { class: "push", onclick: () => move(first + 1) }, "Later", icon("arrow-right")),
				el(
					"button",
					{
						class: "push",
						onclick: () => state.edit({ do: "duplicate slides", slide_ids: ids, stem: newId().slice(0, 12) }),
					},
					icon("copy"),
					"Duplicate",
				),
				el(
					"button",
					{ class: "push", onclick: () => set({ skipped: !skipped }) },
					icon("eye-off"),
					skipped ? "Show again" : "Skip",
				),
				el(
					"button",
					{ class: "push", onclick: () => state.edit({ do: "remove slides", slide_ids: ids }) },
					icon("trash-2"),
					"Remove slides",
				),
			),
		),
	];
}
