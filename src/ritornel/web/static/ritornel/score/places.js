// The places of the score for the keyboard and for screen readers, row by row and in the order of time: each with its
// words, what it opens, and its numbers.
import { clockText, secondsText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { markMs } from "./marks.js";

const END_WORDS = {
	hold: "The show holds at its end",
	loop: "The show begins again at its end",
	black: "The show ends in black",
};
const leavesOnCue = (/** @type {any} */ { advance, schedule }) =>
	advance.rule !== "after" && advance.rule !== "voice" && !schedule.last_wait;

/**
 * A place: `id`, the same as long as its subject exists; `at` and `to` on the show's clock, in ms; `title` and
 * `times`, and `words`, both together; `open`, what it selects; `number` and `length`, what Alt and the arrows
 * change, each [kind, names], or nothing.
 * @returns {Place[]}
 */
const slidePlaces = (/** @type {ShowState} */ state, /** @type {string} */ id, /** @type {number} */ at) => {
	const { data } = state;
	const line = data.slides[id];
	const { schedule, transition } = line;
	const name = `${data.numbers[id]}, ${line.name || "Untitled"}`;
	const to = at + schedule.length_ms;
	const into = {
		id: `transition ${id}`,
		at,
		to: at + schedule.transition_ms,
		title: schedule.transition_ms ? `${transition.name} into slide ${name}` : `Cut to slide ${name}`,
		times: schedule.transition_ms ? `${secondsText(schedule.transition_ms)} s` : "",
		open: { pick: "transition", slide: id },
		number: schedule.transition_ms ? ["slur", { slide: id }] : null,
	};
	const bar = {
		id: `slide ${id}`,
		at,
		to,
		title: `Slide ${name}`,
		times: `${clockText(at)} to ${clockText(to)}, ${secondsText(schedule.length_ms)} s, ${countWords(state.waitsOf(id), "wait")}`,
		open: { pick: "slide", slide: id },
		number: leavesOnCue(line) ? null : ["bar", { slide: id }],
	};
	return [bar, into];
};

/** @param {ShowState} state @returns {Place[]} */
function waitPlaces(state, /** @type {string} */ id, /** @type {number} */ at) {
	const { schedule } = state.data.slides[id];
	const waits = schedule.beats
		.slice(1)
		.map((beat, index) => ({ wait: /** @type {Core.Wait} */ (beat.wait), beat: index + 1 }));
	if (schedule.last_wait && state.waitsToLeave(id))
		waits.push({ wait: schedule.last_wait, beat: schedule.beats.length });
	return waits
		.filter(({ wait }) => wait)
		.map(({ wait, beat }) => {
			const inBar = beat < schedule.beats.length;
			const begins = at + wait.start_ms;
			return {
				id: `wait ${id} ${beat}`,
				at: begins,
				to: begins + wait.hold_ms,
				title: `Wait for ${inBar ? `cue ${beat}` : "the cue to go on"}`,
				times: `hold ${secondsText(wait.hold_ms)} s, at ${clockText(begins)}`,
				open: { pick: "wait", slide: id, beat: String(beat) },
				number: inBar ? ["hold", { slide: id, beat, ms: wait.hold_ms }] : ["bar", { slide: id }],
			};
		});
}

/** @param {ShowState} state @returns {Place[]} */
function buildPlaces(
	state,
	/** @type {string} */ id,
	/** @type {number} */ at,
	/** @type {import("./ties.js").Ties} */ ties,
) {
	const line = state.data.slides[id];
	const builds = line.builds.map((build) => {
		const begins = at + line.schedule.beats[build.beat].start_ms + build.offset_ms;
		const ends = begins + build.runs_ms;
		return {
			id: `build ${id} ${build.id}`,
			at: begins,
			to: ends,
			title: `${build.name} ${build.kind}, ${build.title.toLowerCase()}`,
			times: `beat ${build.beat}, ${clockText(begins)} to ${clockText(ends)}`,
			open: { pick: "build", slide: id, build: build.id },
			number: ["build", { slide: id, build: build.id }],
			length: build.runs_ms ? ["length", { slide: id, build: build.id }] : null,
		};
	});
	const carried = ties
		.of(line)
		.map((tie) => ({
			id: `tie ${id} ${tie.after}`,
			at,
			to: at + line.schedule.transition_ms,
			title: `${tie.name}, carried into ${line.name || "Untitled"}`,
			times: "",
			open: { pick: "tie", slide: id },
			number: null,
		}));
	return [...carried, ...waitPlaces(state, id, at), ...builds].sort((one, other) => one.at - other.at);
}

/** @param {ShowState} state @returns {Place[]} */
function voicePlaces(state) {
	const { data } = state;
	return data.voices.map((voice) => {
		const id = state.shown[voice.index];
		const to = voice.start_ms + voice.lasts_ms;
		return {
			id: `voice ${voice.id}`,
			at: voice.start_ms,
			to,
			title: `Voice ${state.asset(voice.asset_id)?.name ?? ""}`,
			times: `${clockText(voice.start_ms)} to ${clockText(to)}`,
			open: { pick: "slide", slide: id },
			number: ["voice", { slide: id }],
			length: ["voiceEnd", { slide: id }],
		};
	});
}

/** @param {ShowState} state @returns {Place[]} */
function musicPlaces(state) {
	const { data } = state;
	return data.music.flatMap(({ span_id: span, asset_id: asset, start_ms: start, end_ms: end }) => {
		const value = /** @type {Core.MusicSpan} */ (data.spans.find((entry) => entry.id === span));
		const name = state.asset(asset)?.name ?? "Music";
		const place = (
			/** @type {string} */ kind,
			/** @type {number} */ at,
			/** @type {number} */ to,
			/** @type {any} */ what,
			/** @type {string} */ times,
		) => ({
			id: `${kind} ${span}`,
			at,
			to,
			title: `${name} ${what}`,
			times,
			open: { pick: "span", span },
			number: [kind, { span }],
		});
		return [
			place("spanStart", start, start, "begins", `at ${clockText(start)}`),
			place("fadeIn", start, start + value.fade_in_ms, "fades in", `over ${secondsText(value.fade_in_ms)} s`),
			place("fadeOut", end - value.fade_out_ms, end, "fades out", `over ${secondsText(value.fade_out_ms)} s`),
			place("spanEnd", end, end, "ends", `at ${clockText(end)}`),
		];
	});
}

/**
 * The rows from above to below, each a list of places; a row without places is left out.
 * @param {ShowState} state
 * @param {import("./ties.js").Ties} ties
 * @returns {{name: string, places: Place[]}[]}
 */
export function placeRows(state, ties) {
	const { data } = state;
	/** @type {[string, number][]} */
	const shown = state.shown.map((id) => [id, data.starts_ms[id]]);
	const marks = data.marks
		.map((mark) => /** @type {[Core.NamedMark, number]} */ ([mark, markMs(data, mark)]))
		.filter(([, at]) => Number.isFinite(at))
		.sort(([, one], [, other]) => one - other)
		.map(([mark, at]) => ({
			id: `mark ${mark.id}`,
			at,
			to: at,
			title: `Mark ${mark.name}`,
			times: `at ${clockText(at)}`,
			open: { pick: "mark", mark: mark.id },
			number: ["mark", { mark: mark.id }],
		}));
	const end = {
		id: "end",
		at: data.length_ms,
		to: data.length_ms,
		title: END_WORDS[data.settings.end],
		times: "",
		open: { pick: "end" },
		number: null,
	};
	const slides = [...shown.flatMap(([id, at]) => slidePlaces(state, id, at)), ...(shown.length ? [end] : [])];
	const builds = shown.flatMap(([id, at]) => buildPlaces(state, id, at, ties));
	/** @type {{[name: string]: Place[]}} */
	const rows = { marks, slides, builds, voices: voicePlaces(state), music: musicPlaces(state) };
	for (const place of Object.values(rows).flat()) {
		place.title = place.title[0].toUpperCase() + place.title.slice(1);
		place.words = [place.title, place.times].filter(Boolean).join(", ");
	}
	return Object.entries(rows)
		.filter(([, places]) => places.length)
		.map(([name, places]) => ({ name, places }));
}
