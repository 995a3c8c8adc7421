// How a slide advances: on cue, after a time, after its voice.
import { el, icon, newId } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { choice, pair, tick, timeField } from "./fields.js";

/** @type {{[key: string]: string}} */
const WHY = { voice: "the voice", clip: "the clip", build: "the builds", transition: "the transition" };

/** @param {ShowState} state */
export function advancePanel(state, /** @type {(value: any) => any} */ change) {
	const { slide, data } = state;
	const { schedule } = state.line;
	const now = slide.advance;
	const set = (/** @type {string} */ rule) =>
		change({
			advance: {
				after: { rule, after_ms: schedule.length_ms, cut_short: false },
				cue: { rule, cue_id: newId(), hold_ms: null },
				voice: { rule },
			}[rule],
		});
	const time = {
		voice: () =>
			pair(
				"Breath after the voice",
				timeField(now.breath_ms, (ms) => change({ advance: { rule: "voice", breath_ms: ms } })),
			),
		after: () =>
			pair(
				"Advances after",
				timeField(now.after_ms, (ms) =>
					change((/** @type {any} */ old) => ({ advance: { ...old.advance, after_ms: ms } })),
				),
			),
		cue: () =>
			pair(
				"Hold before leaving",
				timeField(
					now.hold_ms,
					(ms) => change((/** @type {any} */ old) => ({ advance: { ...old.advance, hold_ms: ms } })),
					{ placeholder: `${secondsText(data.settings.default_hold_ms)} s` },
				),
			),
	}[now.rule]();
	const toAll = () => {
		const edits = data.order.map((id) => ({
			do: "change slides",
			slide_ids: [id],
			changes: { advance: now.rule === "cue" ? { ...now, cue_id: newId() } : now },
		}));
		state.edit({ do: "several", label: "Let all slides go on alike", edits });
	};
	return [
		el(
			"section",
			{ class: "grid gap-2" },
			choice(
				now.rule,
				[
					["after", "After a time"],
					["cue", "On cue"],
					...(slide.voice || now.rule === "voice" ? [["voice", "After the voice"]] : []),
				],
				set,
				{ label: "Advances" },
			),
			time,
			el(
				"p",
				{},
				el("b", { class: "font-semibold" }, `Lasts ${secondsText(schedule.length_ms)} s`),
				schedule.extended_ms
					? el(
							"span",
							{ class: "said" },
							` · ${secondsText(schedule.extended_ms)} s more for ${WHY[String(schedule.extended_for)]}`,
						)
					: null,
			),
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
						change((/** @type {any} */ old) => ({ advance: { ...old.advance, cut_short: on } })),
					)
				: null,
			now.rule === "voice" || data.order.length < 2
				? null
				: el("button", { class: "push", onclick: toAll }, icon("copy"), "To all slides"),
		),
	];
}
