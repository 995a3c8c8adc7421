// The panel of a span of music.
import { el, icon } from "../ui/element.js";
import { clockText, secondsText } from "../ui/times.js";
import { numberField, pair, selectField, tick, timeField } from "./fields.js";
import { stretches } from "./music-spans.js";
import { smallPlayer } from "../ui/small-player.js";

/** @param {ShowState} state */
export function musicPanel(state) {
	const span = /** @type {Core.MusicSpan} */ (state.data.spans.find((entry) => entry.id === state.pickedSpan));
	const asset = state.asset(span.asset_id);
	const placed = state.data.music.find((entry) => entry.span_id === span.id);
	const put = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit(() => {
			const now = state.data.spans.find((entry) => entry.id === span.id);
			return now ? { do: "put span", span: { ...now, ...changes } } : null;
		});
	/** @type {any} */
	const ways = stretches(state);
	const slides = state.data.order.map((id, index) => [id, `${index + 1}  ${state.data.slides[id].name}`]);
	const endKey = span.end.at === "show end" ? "*" : span.end.at === "own length" ? "once" : span.end.slide_id;
	return [
		el(
			"section",
			{},
			el("h2", {}, asset?.name ?? "Music"),
			el(
				"p",
				{ class: "said" },
				placed
					? `Music, ${secondsText(asset.lasts_ms)} s long, sounds ${clockText(placed.start_ms)} to ${clockText(placed.end_ms)}`
					: "No slide of its stretch is left, so it does not sound. Choose where it starts and ends.",
			),
		),
		el(
			"section",
			{ class: "grid gap-2" },
			pair(
				"From",
				selectField(
					span.start.at === "slide" ? span.start.slide_id : "*",
					[["*", "The start of the show"], ...slides],
					(key) => put({ start: key === "*" ? { at: "show start" } : { at: "slide", slide_id: key, offset_ms: 0 } }),
				),
			),
			pair(
				"To the end of",
				selectField(endKey, [["*", "The show"], ["once", "The sound, once"], ...slides], (key) =>
					put({
						end: /** @type {Record<string, any>} */ ({ "*": { at: "show end" }, once: { at: "own length" } })[key] ?? {
							at: "slide end",
							slide_id: key,
						},
					}),
				),
			),
			tick("Repeats until its end", span.loops, (loops) => put({ loops })),
			span.loops
				? pair(
						"Crossfade",
						timeField(span.crossfade_ms, (ms) => put({ crossfade_ms: ms }), { label: "Crossfade" }),
					)
				: null,
			pair(
				"Fades",
				el(
					"div",
					{ class: "two" },
					timeField(span.fade_in_ms, (ms) => put({ fade_in_ms: ms }), { label: "Fade in" }),
					timeField(span.fade_out_ms, (ms) => put({ fade_out_ms: ms }), { label: "Fade out" }),
				),
			),
			pair(
				"Level",
				numberField(span.gain_db, (gain) => put({ gain_db: gain }), {
					label: "Level",
					least: -60,
					most: 12,
					unit: "dB",
				}),
			),
			tick("Ends sounds that keep on", span.ends_kept, (on) => put({ ends_kept: on })),
			tick("Sinks under voices", span.ducks, (ducks) => put({ ducks })),
			span.ducks
				? pair(
						"Sinks by",
						numberField(span.duck_db, (db) => put({ duck_db: db }), {
							label: "Sinks under voices by",
							least: 0,
							most: 60,
							unit: "dB",
						}),
					)
				: null,
			el(
				"div",
				{ class: "row flex-wrap", role: "group", "aria-label": "Where it sounds" },
				ways.slide ? el("button", { class: "push", onclick: () => put(ways.slide) }, "Under this slide") : null,
				ways.slide
					? el(
							"button",
							{ class: "push", onclick: () => put({ start: ways.slide.start, end: ways.whole.end }) },
							"From here to the end",
						)
					: null,
				el(
					"button",
					{ class: "push", onclick: () => put({ ...ways.whole, loops: true, fade_out_ms: 4000 }) },
					"As long as the show, fading out in 4 s",
				),
			),
			asset ? smallPlayer({ src: asset.address, name: asset.name, lastsMs: asset.lasts_ms, preload: "none" }) : null,
			el(
				"button",
				{ class: "push", onclick: () => state.edit({ do: "remove span", span_id: span.id }) },
				icon("trash-2"),
				"Remove music",
			),
		),
	];
}
