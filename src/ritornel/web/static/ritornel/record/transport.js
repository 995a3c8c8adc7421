// The words and buttons below the picture: which take it is, how long it is, and what can be pressed now.
import { clockText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";

const TAKE_WORDS = {
	idle: "not begun",
	paused: "paused",
	counting: "counting in",
	recording: "recording",
	hearing: "paused",
};
const at = (/** @type {string} */ id) => /** @type {any} */ (document.getElementById(id));
const tenths = (/** @type {number} */ ms) => `${(ms / 1000).toFixed(1)} s`;

/**
 * @typedef {object} Transport what is known of the recording
 * @property {"idle" | "paused" | "counting" | "recording" | "hearing"} mode
 * @property {number} number the take's
 * @property {number} atMs how long the take is
 * @property {{number: number}} slide
 * @property {{from_ms: number} | null} piece the piece that is recorded, or was last
 * @property {boolean} goesOn whether the piece is continued on this slide
 * @property {boolean} left whether a take is open
 * @property {boolean} ready whether a microphone is open
 */

/** @param {Transport} transport */
export function drawTransport({ mode, number, atMs, slide, piece, goesOn, left, ready }) {
	const recording = mode === "recording";
	const inMs = atMs - (piece?.from_ms ?? 0);
	at("take-now").textContent = `Take ${number}, ${TAKE_WORDS[mode]}`;
	at("take-time").textContent = clockText(mode === "idle" ? 0 : atMs);
	at("take-place").textContent =
		goesOn || recording ? `slide ${slide.number}, ${tenths(inMs)} in` : `slide ${slide.number}`;
	at("record-word").textContent = recording ? "Recording" : mode === "counting" ? "Counting in" : "Record";
	at("record-from").textContent = recording
		? "every second is kept"
		: goesOn
			? `on from ${tenths(inMs)}`
			: `take ${number}, from slide ${slide.number}`;
	at("record-go").disabled = recording || mode === "counting" || mode === "hearing" || !ready;
	at("pause").disabled = !recording;
	at("next-cue").disabled = !recording;
	at("stop").disabled = !(recording || (mode === "paused" && left));
	at("restart-slide").disabled = !(recording || goesOn);
}

/**
 * The recorded time, as it is read aloud.
 * @param {number} atMs
 * @param {{number: number}} slide
 * @param {boolean} recording
 */
export function progressWords(atMs, slide, recording) {
	const [minutes, seconds] = [Math.floor(atMs / 60_000), Math.floor(atMs / 1000) % 60];
	const long = minutes ? `${countWords(minutes, "minute")} ${seconds} s` : `${seconds} s`;
	return `${recording ? "Recording" : "Paused"}, ${long}, slide ${slide.number}`;
}

/**
 * What the take waits for on the slide, and how far the piece is over its plan.
 * @param {{phase: string, beat: number, beats: number, overMs: number}} moment `overMs`: below 0, it is not over
 */
export function drawWaits({ phase, beat, beats, overMs }) {
	const waiting = phase !== "wait" ? "" : beat + 1 < beats ? `Waiting for cue ${beat + 1}` : "Waiting to go on";
	const over = overMs > 0 ? `${clockText(overMs)} over this slide's plan` : "";
	at("waits").textContent = [waiting, over].filter(Boolean).join(" ");
}

/**
 * The length of the selected pieces together, beside the plan.
 * @param {(number | null)[]} lastsMs each slide's, null where none is selected
 * @param {number} planMs
 * @param {boolean} busy whether something is being recorded
 */
export function drawSum(lastsMs, planMs, busy) {
	const known = lastsMs.map((ms) => ms ?? 0);
	const all = known.reduce((sum, ms) => sum + ms, 0);
	at("picked-sum").textContent = `Selected takes ${clockText(all)}, plan ${clockText(planMs)}`;
	at("picked-parts").textContent = lastsMs.map((ms) => (ms === null ? "–" : (ms / 1000).toFixed(1))).join(" + ");
	at("play-picked").disabled = at("keep-picked").disabled = all === 0 || busy;
}
