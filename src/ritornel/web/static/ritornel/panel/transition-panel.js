// The transition into a slide: its kind, length, pace and sound.
import { el, icon } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";
import { selectField, timeField } from "./fields.js";
import { sample } from "./samples.js";
import { settingControls } from "./settings.js";
import { soundFields } from "./sound-field.js";

const carrying = later(() => import("./carry-panel.js"));

/** @param {ShowState} state */
export function transitionPanel(state, /** @type {(value: any) => any} */ change, /** @type {any} */ again) {
	const { transition } = state.slide;
	const kind = /** @type {TransitionForm} */ (state.data.transitions.find((entry) => entry.name === transition.name));
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		change((/** @type {any} */ old) => ({ transition: { ...old.transition, ...changes } }));
	const pick = (/** @type {string} */ name) => {
		const next = /** @type {TransitionForm} */ (state.data.transitions.find((entry) => entry.name === name));
		set({ name, lasts_ms: next.lasts_ms && transition.lasts_ms ? transition.lasts_ms : next.lasts_ms, settings: {} });
	};
	const kinds = el(
		"div",
		{ class: "effects", role: "group", "aria-label": "Transition" },
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
	);
	const toAll = () =>
		state.edit(() => ({
			do: "change slides",
			slide_ids: state.data.order,
			changes: { transition: state.slide.transition },
		}));
	const all =
		state.data.order.length > 1
			? el(
					"button",
					{ class: "push", title: "This transition for every slide, with its length, pace and sound", onclick: toAll },
					icon("copy"),
					"To all slides",
				)
			: null;
	const sound = soundFields(
		state,
		transition.sound ?? null,
		(next) => set({ sound: next }),
		"Sound of the transition",
		{ keeps: true },
	);
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
	const cut = transition.name === "cut";
	return [
		el("section", {}, kinds),
		el(
			"section",
			{ class: "grid gap-2" },
			cut ? null : el("div", { class: "pair" }, el("span", { class: "label" }, "Length, pace"), length),
			...(cut ? [] : settingControls(kind.controls, transition.settings, (settings) => set({ settings }))),
			...sound,
			all,
		),
		...(cut ? [] : carryParts(state, change, again)),
	];
}

/** @param {ShowState} state */
function carryParts(state, /** @type {(value: any) => any} */ change, /** @type {any} */ again) {
	if (!state.data.viewing.carry) return [];
	if (carrying.ready) return [el("section", { class: "grid gap-2" }, ...carrying.ready.carryFields(state, change))];
	carrying.get().then(again);
	return [];
}
