// A build in its panel: when it starts, how long it takes, its settings and its sound.
import { withBend, withForm } from "../stage/path.js";
import { el, icon, newId, svg } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { choice, pair, selectField, timeField } from "./fields.js";
import { startsWords } from "./running-order.js";
import { settingControls } from "./settings.js";
import { soundFields } from "./sound-field.js";

const capital = (/** @type {any} */ word) => word[0].toUpperCase() + word.slice(1);

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
