// The panel of several objects, or several slides.
import { KIND_WORDS } from "../stage/signs.js";
import { el, icon, newId } from "../ui/element.js";
import { effectButton } from "./builds-panel.js";
import { paintField } from "./colours.js";
import { choice, numberField, pair, selectField } from "./fields.js";
import { commonActions, differs } from "./object-panel.js";
import { driftFields } from "./picture-fields.js";
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
