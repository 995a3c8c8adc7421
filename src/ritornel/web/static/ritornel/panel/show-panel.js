// What is set for the whole show.
import { el, icon } from "../ui/element.js";
import { clockText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { choice, pair, tick, timeField } from "./fields.js";
import { spreading } from "./lengths.js";

const acts = () => import("./slide-acts.js");

export function showSettings(state) {
	const { settings, length_ms: length } = state.data;
	const change = (changes) => state.edit({ do: "change show", changes });
	return [
		choice(settings.runs, Object.entries(settings.runs_titles), (runs) => change({ runs }), {
			label: "How the show runs",
		}),
		el(
			"p",
			{ class: "said" },
			`${countWords(state.shown.length, "slide")}, ${clockText(length)}. ${settings.runs === "on cue" ? "Every slide waits for your cue; new slides advance on cue." : "It never waits; new slides advance after 5.0 s."}`,
		),
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
		...spreading(state),
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
		state.data.voices.length
			? tick("Voices are heard when played on cue", settings.voices_live, (on) => change({ voices_live: on }))
			: null,
		pair(
			"Default hold",
			timeField(settings.default_hold_ms, (ms) => change({ default_hold_ms: ms }), { label: "Default hold" }),
		),
	];
}
