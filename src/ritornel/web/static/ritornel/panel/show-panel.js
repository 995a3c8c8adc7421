// What is set for the whole show.
import { el, icon } from "../ui/element.js";
import { clockText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { choice, pair, tick, timeField } from "./fields.js";
import { fitting } from "./lengths.js";

const acts = () => import("./slide-acts.js");

const press = (id) => document.getElementById(id).click();

export function showPanel(state) {
	const { settings, length_ms: length } = state.data;
	const change = (changes) => state.edit({ do: "change show", changes });
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
		),
		el(
			"section",
			{ class: "grid gap-2" },
			el("h3", {}, "Length"),
			...fitting(state),
			pair(
				"Default hold",
				timeField(settings.default_hold_ms, (ms) => change({ default_hold_ms: ms }), { label: "Default hold" }),
			),
		),
		el(
			"section",
			{ class: "row flex-wrap" },
			el(
				"button",
				{
					class: "push",
					title: "Colours, fonts, frame, footer and slide numbers",
					onclick: () => press("open-themes"),
				},
				icon("palette"),
				"Theme, frame and footer",
			),
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
