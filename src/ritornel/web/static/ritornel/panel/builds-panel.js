// The builds of the selected object: which it has, how each starts, and how long it lasts.
import { el, icon, newId, svg } from "../ui/element.js";
import { withBend, withForm } from "../stage/path.js";
import { KIND_WORDS, sign } from "../stage/signs.js";
import { secondsText } from "../ui/times.js";
import { choice, numberField, pair, selectField, timeField } from "./fields.js";
import { sample } from "./samples.js";
import { settingControls } from "./settings.js";
import { soundFields } from "./sound-field.js";
import { startsWords } from "./running-order.js";

/** The name of a part of an object's text. */
const partOf = (/** @type {Core.SlideObject} */ item) => (item.kind === "table" ? "Row" : "Paragraph");

/** "row 2". */
const partWords = (/** @type {Core.SlideObject} */ item, /** @type {any} */ part) =>
	`${partOf(item).toLowerCase()} ${item.paragraphs.findIndex((paragraph) => paragraph.id === part) + 1}`;

const capital = (/** @type {any} */ word) => word[0].toUpperCase() + word.slice(1);

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

/** @param {ShowState} state */
export function changeBuild(state, /** @type {BuildLine} */ build, /** @type {{[name: string]: any}} */ changes) {
	const slideId = state.slide.id;
	return state.edit(() => {
		const now = state.data.slides[slideId]?.builds.find((entry) => entry.id === build.id);
		return now
			? {
					do: "change build",
					slide_id: slideId,
					build_id: build.id,
					changes: typeof changes === "function" ? changes(now) : changes,
				}
			: null;
	});
}

/** The tools for a path drawn on the stage. */
function pathFields(
	/** @type {EffectForm} */ effect,
	/** @type {BuildLine} */ build,
	/** @type {(value: any) => any} */ set,
) {
	const control = effect.controls.find((entry) => entry.path);
	if (!control) return [];
	const path = build.settings.path ?? control.default;
	const put = (/** @type {any} */ next) =>
		set((/** @type {any} */ old) => ({ settings: { ...old.settings, path: next } }));
	return [
		pair(
			"Path",
			el(
				"div",
				{ class: "row flex-wrap" },
				el("button", { class: "push", onclick: () => put(withForm(path, false)) }, "Straight"),
				el("button", { class: "push", onclick: () => put(withForm(path, true)) }, "Curved"),
				el("button", { class: "push", onclick: () => put(withBend(path)) }, icon("plus"), "Bend"),
			),
		),
		el("p", { class: "said" }, "Pull the path's points on the stage."),
	];
}

/**
 * How this differs from the show's habit, with one press to return to it, or to make this the habit.
 * @param {ShowState} state
 */
function habitRow(state, /** @type {BuildLine} */ build, /** @type {EffectForm} */ effect) {
	if (!["enters", "leaves"].includes(effect.kind)) return null;
	const usual = state.data.settings.usual[effect.name];
	const same = build.lasts_ms === usual.lasts_ms && build.pace === usual.pace;
	const backwards = { "ease in": "ease out", "ease out": "ease in" };
	// As it is when its turn comes: a length just typed may still be on its way.
	const adopt = () =>
		state.edit(() => {
			const { lasts_ms: lasts, pace } = state.build(build.id) ?? build;
			return {
				do: "change habits",
				changes: {
					lasts_ms: lasts,
					pace: effect.kind === "leaves" ? (backwards[/** @type {keyof typeof backwards} */ (pace)] ?? pace) : pace,
					...(effect.kind === "enters" ? { effect: effect.name } : {}),
				},
			};
		});
	if (same && (effect.kind === "leaves" || state.data.settings.habits.effect === effect.name))
		return el("p", { class: "said" }, "The default of this show.");
	return el(
		"div",
		{ class: "differs" },
		el(
			"span",
			{},
			same ? "Default length and pace" : `Differs from the default: ${secondsText(usual.lasts_ms)} s, ${usual.pace}`,
		),
		same ? null : el("button", { class: "link", onclick: () => changeBuild(state, build, usual) }, "Return to it"),
		el("button", { class: "link", onclick: adopt }, "Make this the default"),
	);
}

/** When a build starts, how long it lasts and how it goes. @param {ShowState} state */
export function timing(state, /** @type {BuildLine} */ build) {
	const set = (/** @type {{[name: string]: any}} */ changes) => changeBuild(state, build, changes);
	const effect = /** @type {EffectForm} */ (state.data.effects.find((entry) => entry.name === build.effect));
	const start = (/** @type {string} */ rule) =>
		set({ starts: rule === "cue" ? { rule, cue_id: newId(), hold_ms: null } : { rule } });
	const order = state.line.builds;
	const next = order[order.findIndex((entry) => entry.id === build.id) + 1];
	const curve = state.data.paces[build.pace];
	const plays = build.kind === "plays";
	return [
		pair(
			"Starts",
			choice(
				build.starts.rule,
				[
					["cue", "On cue"],
					["together", "Together"],
					["follows", "Follows"],
				],
				start,
				{ label: "Starts" },
			),
		),
		build.starts.rule === "cue"
			? pair(
					"Hold before",
					timeField(
						build.starts.hold_ms,
						(ms) => set((/** @type {any} */ old) => ({ starts: { ...old.starts, hold_ms: ms } })),
						{ label: "Hold before", placeholder: "default hold" },
					),
				)
			: null,
		el(
			"div",
			{ class: "grid grid-cols-[74px_1fr_44px_1fr] gap-2 items-center" },
			el("span", { class: "said" }, "After"),
			timeField(build.after_ms, (ms) => set({ after_ms: ms }), { label: "After" }),
			...(plays
				? [el("span", { class: "said col-span-2" }, `plays ${secondsText(build.runs_ms)} s`)]
				: [
						el("span", { class: "said" }, "Lasts"),
						timeField(build.kind === "views" ? build.runs_ms : build.lasts_ms, (ms) => set({ lasts_ms: ms }), {
							label: "Lasts",
						}),
					]),
		),
		plays
			? null
			: pair(
					"Pace",
					el(
						"div",
						{ class: "grid grid-cols-[1fr_86px] gap-2 items-center" },
						selectField(
							build.pace,
							Object.keys(state.data.paces).map((name) => [name, capital(name)]),
							(pace) => set({ pace }),
							{ label: "Pace" },
						),
						svg(
							"svg",
							{ viewBox: "0 0 86 30", "aria-hidden": "true" },
							svg("path", {
								d: `M 2 28 C ${2 + curve[0] * 82} ${28 - curve[1] * 26} ${2 + curve[2] * 82} ${28 - curve[3] * 26} 84 2`,
								fill: "none",
								stroke: "var(--color-plum)",
								"stroke-width": 2,
							}),
						),
					),
				),
		effect.kind === "accents"
			? pair(
					"Repeats",
					selectField(
						String(build.repeats),
						[
							["1", "Once"],
							["2", "Twice"],
							["3", "3 times"],
							["5", "5 times"],
							["0", "Until the slide ends"],
						],
						(times) => set({ repeats: Number(times) }),
					),
				)
			: null,
		...pathFields(effect, build, set),
		...soundFields(state, build.sound ?? null, (sound) => set({ sound }), "Sound of the build"),
		habitRow(state, build, effect),
		...settingControls(effect.controls, build.settings, (settings) => set({ settings })),
		el(
			"div",
			{ class: "row justify-between" },
			el(
				"span",
				{ class: "said truncate" },
				next ? `Next: ${next.name} · ${startsWords(next)}` : "Nothing after it on this slide",
			),
			el(
				"button",
				{
					class: "push shrink-0",
					onclick: () => state.edit({ do: "remove build", slide_id: state.slide.id, build_id: build.id }),
				},
				icon("trash-2"),
				"Remove build",
			),
		),
	];
}
