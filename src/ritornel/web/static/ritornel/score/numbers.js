// The numbers of the score that can be dragged, moved by keys and typed: how each is read, announced and changed.
import { secondsText } from "../ui/times.js";
import { holdEdit } from "./holds.js";
import { markMs, slideAt } from "./marks.js";
import { nearestMs } from "./snapping.js";

const startOf = (/** @type {ShowState} */ state, /** @type {SlideLine} */ line) => state.data.starts_ms[line.id] ?? 0;
const changeOf = (/** @type {string} */ slide, /** @type {string} */ build, /** @type {object} */ changes) => ({
	do: "change build",
	slide_id: slide,
	build_id: build,
	changes,
});
/** @returns {Core.MusicTime} */
const placedOf = (/** @type {ShowState} */ state, /** @type {string} */ span) =>
	/** @type {any} */ (state.data.music.find((entry) => entry.span_id === span));
const beginOf = (/** @type {ShowState} */ state, /** @type {SlideLine} */ line, /** @type {BuildLine} */ entry) =>
	startOf(state, line) + line.schedule.beats[entry.beat].start_ms + entry.offset_ms;

/**
 * What each handle changes: `from`, the number, in ms; `anchor`, the instant on the show's clock that moves along;
 * `share`, how much of the way counts; `bars` where only bar lines count; the edit; and its number in words, `now`
 * being the slide as it would be.
 */
/** @type {{[kind: string]: (state: ShowState, names: any) => Drag}} */
const numbers = {
	hold: (/** @type {ShowState} */ state, /** @type {any} */ { slide, beat, ms }) => {
		const line = state.data.slides[slide];
		return {
			from: Number(ms),
			anchor: startOf(state, line) + line.schedule.beats[beat].start_ms,
			edit: (/** @type {number} */ value) => holdEdit(line, Number(beat), value),
			words: (/** @type {number} */ value) => `Hold ${secondsText(value)} s`,
		};
	},
	bar: (/** @type {ShowState} */ state, /** @type {any} */ { slide }) => {
		const line = state.data.slides[slide];
		const { schedule, advance } = line;
		const anchor = startOf(state, line) + schedule.length_ms;
		const lasts = (/** @type {SlideLine} */ now) =>
			now?.schedule.extended_ms ? `, but lasts ${secondsText(now.schedule.length_ms)} s` : "";
		const set = (/** @type {object} */ changes) => ({
			do: "change slides",
			slide_ids: [slide],
			changes: { advance: { ...advance, ...changes } },
		});
		if (advance.rule === "after")
			return {
				from: schedule.length_ms,
				anchor,
				edit: (/** @type {number} */ value) => set({ after_ms: value }),
				words: (/** @type {number} */ value, /** @type {SlideLine} */ now) =>
					`After ${secondsText(value)} s${lasts(now)}`,
			};
		if (advance.rule === "voice")
			return {
				from: advance.breath_ms,
				anchor,
				edit: (/** @type {number} */ value) => set({ breath_ms: value }),
				words: (/** @type {number} */ value, /** @type {SlideLine} */ now) =>
					`Breath ${secondsText(value)} s${lasts(now)}`,
			};
		return {
			from: schedule.last_wait?.hold_ms ?? 0,
			anchor,
			edit: (/** @type {number} */ value) => holdEdit(line, schedule.beats.length, value),
			words: (/** @type {number} */ value) => `Hold ${secondsText(value)} s, then on`,
		};
	},
	slur: (/** @type {ShowState} */ state, /** @type {any} */ { slide }) => {
		const line = state.data.slides[slide];
		const { transition } = line;
		return {
			from: transition.lasts_ms,
			anchor: startOf(state, line) + transition.lasts_ms,
			edit: (/** @type {number} */ value) => ({
				do: "change slides",
				slide_ids: [slide],
				changes: { transition: { ...transition, lasts_ms: value } },
			}),
			words: (/** @type {number} */ value) => `${transition.name}, ${secondsText(value)} s`,
		};
	},
	build: (/** @type {ShowState} */ state, /** @type {any} */ { slide, build }) => {
		const line = state.data.slides[slide];
		const entry = /** @type {BuildLine} */ (line.builds.find((item) => item.id === build));
		return {
			from: entry.after_ms,
			anchor: beginOf(state, line, entry),
			without: build,
			edit: (/** @type {number} */ value) => changeOf(slide, build, { after_ms: value }),
			words: (/** @type {number} */ value) => `${entry.name}: after ${secondsText(value)} s`,
		};
	},
	length: (/** @type {ShowState} */ state, /** @type {any} */ { slide, build }) => {
		const line = state.data.slides[slide];
		const entry = /** @type {BuildLine} */ (line.builds.find((item) => item.id === build));
		const { clip } = entry;
		if (clip) {
			const most = state.asset(clip.asset_id)?.lasts_ms ?? clip.out_ms;
			const out = (/** @type {number} */ value) =>
				Math.min(Math.max(clip.in_ms + Math.round((value * clip.rate_pct) / 100), clip.in_ms + 100), most);
			const shown = ((clip.out_ms - clip.in_ms) * 100) / clip.rate_pct;
			return {
				from: shown,
				anchor: beginOf(state, line, entry) + shown,
				without: build,
				edit: (/** @type {number} */ value) => ({
					do: "change objects",
					slide_id: slide,
					object_ids: [entry.object_id],
					changes: { out_ms: out(value) },
				}),
				words: (/** @type {number} */ value) => `${entry.name}: to ${secondsText(out(value))} s of its clip`,
			};
		}
		const repeats = Math.max(entry.repeats, 1);
		return {
			from: entry.runs_ms / repeats,
			anchor: beginOf(state, line, entry) + entry.runs_ms,
			share: 1 / repeats,
			without: build,
			edit: (/** @type {number} */ value) => changeOf(slide, build, { lasts_ms: value }),
			words: (/** @type {number} */ value) => `${entry.name}: lasts ${secondsText(value)} s`,
		};
	},
	spanStart: (/** @type {ShowState} */ state, /** @type {any} */ { span }) => {
		const old = /** @type {Core.MusicSpan} */ (state.data.spans.find((entry) => entry.id === span));
		const from = placedOf(state, span).start_ms;
		return {
			from,
			anchor: from,
			bars: true,
			edit: (/** @type {number} */ value, /** @type {boolean} */ free) => ({
				do: "put span",
				span: { ...old, start: startAt(state, value, free) },
			}),
			words: (/** @type {number} */ value, /** @type {SlideLine} */ now, /** @type {boolean} */ free) => {
				const at = startAt(state, value, free);
				return at.at === "slide"
					? `From ${nameOf(state, at.slide_id)}${at.offset_ms ? ` + ${secondsText(at.offset_ms)} s` : ""}`
					: "From the start of the show";
			},
		};
	},
	spanEnd: (/** @type {ShowState} */ state, /** @type {any} */ { span }) => {
		const old = /** @type {Core.MusicSpan} */ (state.data.spans.find((entry) => entry.id === span));
		const from = placedOf(state, span).end_ms;
		return {
			from,
			anchor: from,
			bars: true,
			edit: (/** @type {number} */ value) => ({ do: "put span", span: { ...old, end: endAt(state, value) } }),
			words: (/** @type {number} */ value) => {
				const at = endAt(state, value);
				return at.at === "slide end" ? `To the end of ${nameOf(state, at.slide_id)}` : "To the end of the show";
			},
		};
	},
	fadeIn: (/** @type {ShowState} */ state, /** @type {any} */ { span }) =>
		fadeDrag(state, span, "fade_in_ms", 1, "Fades in over"),
	fadeOut: (/** @type {ShowState} */ state, /** @type {any} */ { span }) =>
		fadeDrag(state, span, "fade_out_ms", -1, "Fades out over"),
	voice: (/** @type {ShowState} */ state, /** @type {any} */ { slide }) => {
		const line = state.data.slides[slide];
		const voice = /** @type {Core.Voice} */ (line.voice);
		return {
			from: voice.offset_ms,
			anchor: startOf(state, line) + voice.offset_ms,
			edit: (/** @type {number} */ value) => ({
				do: "put voice",
				slide_id: slide,
				voice: { ...voice, offset_ms: value },
			}),
			words: (/** @type {number} */ value) => `Voice begins at ${secondsText(value)} s`,
		};
	},
	voiceEnd: (/** @type {ShowState} */ state, /** @type {any} */ { slide }) => {
		const line = state.data.slides[slide];
		const voice = /** @type {Core.Voice} */ (line.voice);
		const most = state.asset(voice.asset_id)?.lasts_ms ?? voice.out_ms;
		const within = (/** @type {number} */ value) => Math.min(Math.max(value, voice.in_ms + 100), most);
		return {
			from: voice.out_ms,
			anchor: startOf(state, line) + voice.offset_ms + voice.out_ms - voice.in_ms,
			edit: (/** @type {number} */ value) => ({
				do: "trim voice",
				slide_id: slide,
				in_ms: voice.in_ms,
				out_ms: within(value),
			}),
			words: (/** @type {number} */ value) => `Voice to ${secondsText(within(value))} s of its sound`,
		};
	},
	mark: (/** @type {ShowState} */ state, /** @type {any} */ { mark }) => {
		const old = /** @type {Core.NamedMark} */ (state.data.marks.find((entry) => entry.id === mark));
		const at = markMs(state.data, old);
		const placed = (/** @type {number} */ ms) => {
			const id = slideAt(state, ms) ?? old.slide_id;
			return { ...old, slide_id: id, offset_ms: Math.max(0, Math.round(ms - state.data.starts_ms[id])) };
		};
		return {
			from: at,
			anchor: at,
			edit: (/** @type {number} */ value) => ({ do: "put mark", mark: placed(Math.min(value, state.data.length_ms)) }),
			words: (/** @type {number} */ value) => `${old.name}, ${secondsText(value)} s`,
		};
	},
};

const nameOf = (/** @type {ShowState} */ state, id = "") => `${state.data.numbers[id]} ${state.data.slides[id].name}`;

/**
 * Where music dragged to an instant starts: with the slide whose bar line is nearest, or, dragged freely, at exactly
 * that instant of its slide.
 * @param {ShowState} state
 */
function startAt(state, /** @type {number} */ ms, /** @type {boolean} */ free) {
	if (free) {
		const id = slideAt(state, ms) ?? state.shown[0];
		return { at: "slide", slide_id: id, offset_ms: Math.max(0, Math.round(ms - state.data.starts_ms[id])) };
	}
	const bar = nearestMs(
		ms,
		state.shown.map((id) => state.data.starts_ms[id]),
		Infinity,
	);
	return bar === 0
		? { at: "show start" }
		: { at: "slide", slide_id: state.shown.find((id) => state.data.starts_ms[id] === bar), offset_ms: 0 };
}

/**
 * Where it ends: with the slide whose end is nearest, and with the show where that is the last.
 * @param {ShowState} state
 */
function endAt(state, /** @type {number} */ ms) {
	const endOf = (/** @type {string} */ id) => state.data.starts_ms[id] + state.data.slides[id].schedule.length_ms;
	const bar = nearestMs(ms, state.shown.map(endOf), Infinity);
	const id = state.shown.find((one) => endOf(one) === bar);
	return id === state.shown.at(-1) ? { at: "show end" } : { at: "slide end", slide_id: id };
}

/** @param {ShowState} state */
function fadeDrag(
	state,
	/** @type {string} */ span,
	/** @type {"fade_in_ms" | "fade_out_ms"} */ field,
	/** @type {number} */ way,
	/** @type {string} */ words,
) {
	const old = /** @type {Core.MusicSpan} */ (state.data.spans.find((entry) => entry.id === span));
	const placed = placedOf(state, span);
	const anchor = way > 0 ? placed.start_ms + old[field] : placed.end_ms - old[field];
	return {
		from: old[field],
		anchor,
		share: way,
		edit: (/** @type {number} */ value) => ({ do: "put span", span: { ...old, [field]: value } }),
		words: (/** @type {number} */ value) => `${words} ${secondsText(value)} s`,
	};
}

/**
 * What a handle changes, in the present show.
 * @param {ShowState} state
 * @param {string} kind
 * @param {NumberNames} names slide, build, beat, span …
 */
export const numberOf = (state, kind, names) => numbers[kind](state, names);
