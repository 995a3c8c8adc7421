// The builds of the selected object: which it has, how each starts, and how long it lasts.
import { KIND_WORDS, sign } from "../stage/signs.js";
import { el, icon, newId } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { changeBuild } from "./build-timing.js";
import { choice, numberField, pair, selectField, timeField } from "./fields.js";
import { sample } from "./samples.js";
import { timing } from "./build-timing.js";

/** The name of a part of an object's text. */
const partOf = (/** @type {Core.SlideObject} */ item) => (item.kind === "table" ? "Row" : "Paragraph");

/** "row 2". */
const partWords = (/** @type {Core.SlideObject} */ item, /** @type {any} */ part) =>
	`${partOf(item).toLowerCase()} ${item.paragraphs.findIndex((paragraph) => paragraph.id === part) + 1}`;

/** @param {ShowState} state */
export function builds(state, /** @type {Core.SlideObject} */ item, /** @type {Panel} */ panel) {
	const own = state.line.builds.filter((build) => build.object_id === item.id);
	const current = own.find((build) => build.id === state.pickedBuild) ?? null;
	const kinds = Object.keys(KIND_WORDS).filter((kind) => state.data.effects.some((effect) => effect.kind === kind));
	const kind = current?.kind ?? panel.kind;
	// What was chosen for another text holds for this one only where it can.
	const several = item.paragraphs?.length > 1;
	const part =
		several && (panel.part === "*" || item.paragraphs.some((paragraph) => paragraph.id === panel.part))
			? panel.part
			: "";
	const add = (/** @type {EffectForm} */ effect) => addBuild(state, item, effect, part);
	const result = [];
	if (own.length) {
		result.push(
			el(
				"div",
				{ class: "row flex-wrap" },
				own.map((build) =>
					el(
						"button",
						{
							class: "push",
							"aria-pressed": String(build === current),
							onclick: () => state.pick([item.id], { build: build === current ? null : build.id }),
						},
						el("span", { class: "text-glass" }, sign(build.kind)),
						build.part ? `${build.title}, ${partWords(item, build.part)}` : build.title,
					),
				),
				current
					? el("button", { class: "push bare", onclick: () => state.pick([item.id]) }, icon("plus"), "Another")
					: null,
			),
		);
	}
	if (current?.kind === "plays") return [...result, ...timing(state, current)];
	result.push(
		choice(
			kind,
			kinds.map((key) => [key, /** @type {any} */ (KIND_WORDS)[key]]),
			(key) => {
				if (current) state.pick([item.id]);
				panel.openKind(key);
			},
			{ label: "Kind of build" },
		),
	);
	const choose = (/** @type {EffectForm} */ effect) =>
		current ? changeBuild(state, current, { effect: effect.name, settings: {}, repeats: effect.repeats }) : add(effect);
	result.push(
		el(
			"div",
			{ class: "effects", role: "group", "aria-label": "Effect" },
			state.data.effects
				.filter((effect) => effect.kind === kind)
				.map((effect) =>
					effectButton(state, effect, {
						pressed: current?.effect === effect.name,
						choose: () => choose(effect),
						builds: () => buildsFor(item, effect, current?.part ?? part, state.data.settings.usual),
					}),
				),
		),
	);
	if (!current) {
		if (several) {
			const parts = [
				["", "All of it"],
				...item.paragraphs.map((paragraph, index) => [paragraph.id, `${partOf(item)} ${index + 1}`]),
				["*", `Each ${partOf(item).toLowerCase()} in turn`],
			];
			result.push(
				pair(
					"What moves",
					selectField(part, parts, (chosen) => panel.openPart(chosen)),
				),
			);
		}
		const habit = state.data.effects.find((effect) => effect.name === state.data.settings.habits.effect);
		result.push(el("p", { class: "said" }, "Choose an effect to give it a build."));
		if (habit)
			result.push(
				el(
					"button",
					{
						class: "push",
						title: "The show's default; set it at any build, or in the show's panel",
						onclick: () => add(habit),
					},
					el("span", { class: "text-glass" }, sign(habit.kind)),
					`Default build: ${habit.title.toLowerCase()}, ${secondsText(state.data.settings.usual[habit.name].lasts_ms)} s`,
				),
			);
		if (item.kind === "text" && item.paragraphs.length > 1) result.push(growth(state, item));
		return result;
	}
	if (several) result.push(partsOf(state, item, current));
	return [...result, ...timing(state, current)];
}

/**
 * Whether a build is of the whole text or of each paragraph; it can be changed at any time.
 * @param {ShowState} state
 */
function partsOf(state, /** @type {Core.SlideObject} */ item, /** @type {BuildLine} */ build) {
	const turn = (/** @type {any} */ by_paragraphs) =>
		state.edit({
			do: "build by paragraphs",
			slide_id: state.slide.id,
			build_id: build.id,
			by_paragraphs,
			stem: newId().slice(0, 12),
		});
	return pair(
		"Builds",
		choice(
			build.part ? "parts" : "whole",
			[
				["whole", "All of it"],
				["parts", `Each ${partOf(item).toLowerCase()}`],
			],
			(chosen) => turn(chosen === "parts"),
			{ label: "Builds all of it, or each paragraph" },
		),
	);
}

/**
 * A growing list in one act: its lines arrive one after another, the first at once, and what is shown stays in the
 * middle.
 * @param {ShowState} state
 */
function growth(state, /** @type {Core.SlideObject} */ item) {
	const slide = state.slide.id;
	const own = state.line.builds.filter((build) => build.object_id === item.id);
	if (item.growing) {
		const lines = own.filter((build) => build.part);
		const all = (/** @type {(build: BuildLine) => object} */ changes) =>
			state.edit({
				do: "several",
				label: `Change how ${item.name} grows`,
				edits: lines.map((build) => ({
					do: "change build",
					slide_id: slide,
					build_id: build.id,
					changes: changes(build),
				})),
			});
		const rises = lines.filter((build) => build.effect === "enters rise");
		const rise = state.data.effects
			.find((effect) => effect.name === "enters rise")
			?.controls.find((control) => control.name === "distance_px")?.default;
		return el(
			"div",
			{ class: "grid gap-2" },
			el("h3", {}, "The growing list"),
			lines.length
				? pair(
						"Each line takes",
						timeField(lines[0].lasts_ms, (ms) => all(() => ({ lasts_ms: ms })), { label: "Each line takes" }),
					)
				: null,
			rises.length
				? pair(
						"Rises by",
						numberField(
							rises[0].settings.distance_px ?? rise,
							(px) =>
								all((/** @type {BuildLine} */ build) =>
									build.effect === "enters rise" ? { settings: { ...build.settings, distance_px: px } } : {},
								),
							{ label: "Each line rises by", least: 0, most: 2000, unit: "px" },
						),
					)
				: null,
			lines.length > 1
				? el(
						"div",
						{ class: "two" },
						el(
							"button",
							{
								class: "push",
								onclick: () =>
									all((/** @type {BuildLine} */ build) =>
										build === lines[0] ? {} : { starts: { rule: "cue", cue_id: newId(), hold_ms: null } },
									),
							},
							"Each on a cue",
						),
						el(
							"button",
							{
								class: "push",
								onclick: () =>
									all((/** @type {BuildLine} */ build) => (build === lines[0] ? {} : { starts: { rule: "follows" } })),
							},
							"By themselves",
						),
					)
				: null,
			el(
				"p",
				{ class: "said" },
				"It stays centred on the middle of its box: move the box to move it, write its lines on the stage.",
			),
			el(
				"button",
				{
					class: "push",
					onclick: () =>
						state.edit({ do: "change objects", slide_id: slide, object_ids: [item.id], changes: { growing: false } }),
				},
				"No longer keep it centred as it grows",
			),
		);
	}
	const grow = () =>
		state.edit({
			do: "several",
			label: `Let ${item.name} grow line by line`,
			edits: [
				{ do: "change objects", slide_id: slide, object_ids: [item.id], changes: { growing: true, align: "centre" } },
				...own.map((build) => ({ do: "remove build", slide_id: slide, build_id: build.id })),
				...item.paragraphs.map((paragraph, at) => ({
					do: "add build",
					slide_id: slide,
					build: {
						id: newId(),
						object_id: item.id,
						effect: "enters rise",
						part: paragraph.id,
						lasts_ms: 700,
						starts: at ? { rule: "cue", cue_id: newId() } : { rule: "follows" },
					},
				})),
			],
		});
	return el(
		"button",
		{ class: "push", title: "Its lines arrive one by one; what is shown stays in the middle", onclick: grow },
		icon("list"),
		"Grow line by line, centred",
	);
}

/**
 * A button with the effect's small sample; hover and focus also show the effect on the stage.
 * @param {ShowState} state
 */
export function effectButton(
	state,
	/** @type {EffectForm} */ effect,
	/** @type {any} */ { pressed, choose, builds: previewed },
) {
	const button = el("button", {
		"aria-pressed": String(pressed),
		onclick: () => {
			end();
			choose();
		},
	});
	let timer = 0;
	const begin = () => {
		timer = setTimeout(() => state.dispatchEvent(new CustomEvent("preview", { detail: previewed() })), 60);
	};
	const end = () => {
		clearTimeout(timer);
		state.tell("preview end");
	};
	button.addEventListener("pointerenter", begin);
	button.addEventListener("focus", () => {
		if (button.matches(":focus-visible")) begin();
	});
	for (const kind of ["pointerleave", "blur"]) button.addEventListener(kind, end);
	button.append(sample(effect.name, button), el("span", {}, effect.title));
	return button;
}

/** The builds of an effect for an object, one for each paragraph where that is wanted. */
function buildsFor(
	/** @type {Core.SlideObject} */ item,
	/** @type {EffectForm} */ effect,
	/** @type {any} */ part,
	/** @type {any} */ usual,
) {
	const build = (/** @type {string} */ partId, /** @type {any} */ starts) => ({
		object_id: item.id,
		effect: effect.name,
		starts,
		part: partId || null,
		repeats: effect.repeats,
		...usual[effect.name],
	});
	if (part !== "*") return [build(part, { rule: "follows" })];
	// Nobody waits for a line without words.
	const written = item.paragraphs.filter(({ runs }) => runs.some((run) => run.text.trim()));
	return (written.length ? written : item.paragraphs).map(({ id }) => build(id, { rule: "follows" }));
}

/** @param {ShowState} state */
async function addBuild(
	state,
	/** @type {Core.SlideObject} */ item,
	/** @type {EffectForm} */ effect,
	/** @type {any} */ part,
) {
	const wanted = buildsFor(item, effect, part, state.data.settings.usual).map((build) => ({
		...build,
		id: newId(),
		starts: { rule: "cue", cue_id: newId() },
	}));
	const edits = wanted.map((entry) => ({ do: "add build", slide_id: state.slide.id, build: entry }));
	const since = state.steps;
	const made = await state.edit(
		edits.length === 1 ? edits[0] : { do: "several", label: `Build ${item.name} by paragraphs`, edits },
	);
	if (made) state.pick([item.id], { build: wanted.at(-1).id, since });
}
