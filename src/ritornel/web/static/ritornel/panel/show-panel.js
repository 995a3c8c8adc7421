// The settings of the whole show: how it runs, defaults for new things, the frame and the footer.
import { el, icon } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";
import { clockText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { choice, pair, selectField, tick, timeField } from "./fields.js";
import { fitting } from "./lengths.js";

const acts = () => import("./slide-acts.js");
const frame = later(() => import("./frame-fields.js"));
const press = (/** @type {string} */ id) => document.getElementById(id).click();
const capital = (/** @type {any} */ word) => word[0].toUpperCase() + word.slice(1);

const TABS = [
	["runs", "How it runs"],
	["defaults", "Defaults"],
	["frame", "Frame and footer"],
];

const LANGUAGES = (
	"ar bg ca cs cy da de el en es et eu fa fi fr ga gd gl he hi hr hu id is it ja ko lb lt lv mk mt nl no pl pt rm ro ru sk " +
	"sl sq sr sv th tr uk vi zh"
).split(" ");

/** The language of the text on the slides, for screen readers, films and pages. */
function languageField(/** @type {any} */ value, /** @type {(value: any) => any} */ set) {
	const names = new Intl.DisplayNames("en", { type: "language", fallback: "code" });
	const known = [...new Set([...LANGUAGES, value])].map((tag) => [tag, names.of(tag)]);
	known.sort(([, one], [, other]) => one.localeCompare(other));
	return selectField(value, known, set, { label: "Language of the slides" });
}

/** @param {() => void} again draws the panel once more, when a part has come */
export function showPanel(/** @type {ShowState} */ state, again) {
	const tabs = TABS.map(([key, words]) =>
		el(
			"button",
			{
				role: "tab",
				"aria-selected": String(key === state.showTab),
				onclick: () => {
					state.showTab = key;
					state.tell("pick");
				},
			},
			words,
		),
	);
	const body = /** @type {Record<string, any>} */ ({
		runs: () => running(state),
		defaults: () => defaults(state),
		frame: () => {
			if (frame.ready) return [el("section", { class: "grid gap-2" }, frame.ready.frameFields(state)), looks()];
			frame.get().then(again);
			return null;
		},
	})[state.showTab]();
	return body && [el("div", { class: "tabs", role: "tablist" }, tabs), ...body];
}

/** The defaults of new builds and waits. @param {ShowState} state */
function defaults(state) {
	const { settings } = state.data;
	const { habits } = settings;
	const change = (/** @type {{[name: string]: any}} */ changes) => state.edit({ do: "change habits", changes });
	const effects = state.data.effects.filter(({ kind }) => kind === "enters").map(({ name, title }) => [name, title]);
	const usual = settings.usual[habits.effect];
	return [
		el(
			"section",
			{ class: "grid gap-2" },
			el("p", { class: "said" }, "What is new begins like this; each can be set otherwise."),
			pair(
				"Hold",
				timeField(
					settings.default_hold_ms,
					(ms) => state.edit({ do: "change show", changes: { default_hold_ms: ms } }),
					{ label: "Default hold" },
				),
			),
			el("p", { class: "said" }, "How long a wait lasts in a self-running show where it has no hold of its own."),
			pair(
				"Effect",
				selectField(habits.effect, effects, (effect) => change({ effect }), { label: "Default effect" }),
			),
			pair(
				"Lasts",
				timeField(habits.lasts_ms ?? usual.lasts_ms, (lasts_ms) => change({ lasts_ms }), { label: "Builds last" }),
			),
			pair(
				"Pace",
				selectField(
					habits.pace ?? usual.pace,
					Object.keys(state.data.paces).map((name) => [name, capital(name)]),
					(pace) => change({ pace }),
					{ label: "Pace of builds" },
				),
			),
			habits.lasts_ms !== null || habits.pace !== null
				? el(
						"button",
						{ class: "link", onclick: () => change({ lasts_ms: null, pace: null }) },
						"As each effect does by itself",
					)
				: null,
		),
	];
}

const looks = () =>
	el(
		"section",
		{ class: "row flex-wrap" },
		el("button", { class: "push", onclick: () => press("open-themes") }, icon("palette"), "Theme: colours and fonts"),
	);

/** @param {ShowState} state */
function running(state) {
	const { settings, length_ms: length } = state.data;
	const change = (/** @type {{[name: string]: any}} */ changes) => state.edit({ do: "change show", changes });
	const kept =
		settings.runs === "on cue"
			? "Every slide waits for your cue. A new slide goes on when you cue it."
			: "It never waits. A new slide goes on after 5.0 s.";
	return [
		el(
			"section",
			{ class: "grid gap-2" },
			el("h3", {}, "How the show runs"),
			choice(settings.runs, Object.entries(settings.runs_titles), (runs) => change({ runs }), {
				label: "How the show runs",
			}),
			el("p", { class: "said" }, `${countWords(state.shown.length, "slide")}, ${clockText(length)}. ${kept}`),
			pair(
				"At the end",
				choice(
					settings.end,
					[
						["hold", "Holds"],
						["loop", "Loops"],
						["black", "Black"],
					],
					(end) => change({ end }),
					{ label: "At the end" },
				),
			),
			state.data.voices.length
				? tick("Voices are heard when played on cue", settings.voices_live, (on) => change({ voices_live: on }))
				: null,
			state.data.voices.length
				? tick("The notes are the captions of the voices", settings.notes_as_captions, (on) =>
						change({ notes_as_captions: on }),
					)
				: null,
			pair(
				"Language",
				languageField(settings.language, (language) => change({ language })),
			),
		),
		el("section", { class: "grid gap-2" }, el("h3", {}, "Length"), ...fitting(state)),
		el(
			"section",
			{ class: "row flex-wrap" },
			el(
				"button",
				{
					class: "push",
					title: "A closing slide that credits all pictures and sounds in use, and keeps itself true",
					onclick: async () => (await acts()).gatherCredits(state),
				},
				icon("list"),
				"Gather the credits",
			),
		),
	];
}
