// The settings of a slide's voice: its part of the sound, its level, its start, and when each cue falls while it
// speaks.
import { el, icon } from "../ui/element.js";
import { get } from "../ui/requests.js";
import { toast } from "../ui/toast.js";
import { secondsText } from "../ui/times.js";
import { numberField, pair, tick, timeField } from "./fields.js";
import { smallPlayer } from "../ui/small-player.js";

/** The slide's cues in order, with what each starts. @param {ShowState} state */
function cuesOf(state) {
	const { builds, advance, schedule } = state.line;
	const cues = schedule.beats.slice(1).map(({ wait }, at) => ({
		id: /** @type {Core.Wait} */ (wait).cue_id,
		words: builds
			.filter((build) => build.beat === at + 1)
			.map((build) => build.name)
			.join(", "),
	}));
	return advance.rule === "cue" ? [...cues, { id: advance.cue_id, words: "the next slide" }] : cues;
}

/**
 * @param {ShowState} state @param {(changes: object) => void} change
 * @param {{give: (asset: object | null) => void, numbered: Node}} acts giving another voice, and the control for many at once
 */
export function voiceDetails(state, change, { give, numbered }) {
	const { slide } = state;
	const voice = /** @type {Core.Voice} */ (slide.voice);
	const asset = state.asset(voice.asset_id);
	const put = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit(() => {
			const now = state.data.slides[slide.id].voice;
			return now ? { do: "put voice", slide_id: slide.id, voice: { ...now, ...changes } } : null;
		});
	const trim = (/** @type {number} */ from, /** @type {number} */ to) =>
		state.edit({ do: "trim voice", slide_id: slide.id, in_ms: from, out_ms: to });
	const cues = cuesOf(state);
	const marked = cues.filter((cue) => voice.marks?.[cue.id] !== undefined).length;
	const follows = slide.advance.rule === "voice";
	return [
		el(
			"p",
			{},
			el("b", { class: "font-semibold" }, asset?.name ?? "Missing from the shelf"),
			el("span", { class: "said" }, ` · ${secondsText(voice.out_ms - voice.in_ms)} s${levelled(state, asset, voice)}`),
		),
		asset
			? smallPlayer({ src: asset.address, name: asset.name, fromMs: voice.in_ms, toMs: voice.out_ms, preload: "none" })
			: null,
		pair(
			"Begins at",
			timeField(voice.offset_ms, (ms) => put({ offset_ms: ms }), { label: "Voice begins at" }),
		),
		pair(
			"From, to",
			el(
				"div",
				{ class: "two" },
				timeField(voice.in_ms, (ms) => trim(ms, voice.out_ms), { label: "Voice from" }),
				timeField(voice.out_ms, (ms) => trim(voice.in_ms, ms), { label: "Voice to" }),
			),
		),
		silence(asset, voice, trim),
		pair(
			"Level",
			numberField(voice.gain_db, (gain) => put({ gain_db: gain }), {
				label: "Level of the voice",
				least: -60,
				most: 24,
				unit: "dB",
			}),
		),
		tick("The slide goes on after its voice", follows, (on) =>
			change({
				advance: on ? { rule: "voice" } : { rule: "after", after_ms: state.line.schedule.length_ms, cut_short: false },
			}),
		),
		follows
			? pair(
					"Breath",
					timeField(slide.advance.breath_ms, (ms) => change({ advance: { rule: "voice", breath_ms: ms } }), {
						label: "Breath after the voice",
					}),
				)
			: null,
		cues.length ? marking(state, { asset, voice, cues, marked, put }) : null,
		el(
			"div",
			{ class: "row flex-wrap" },
			el("button", { class: "push", onclick: () => give(null) }, icon("trash-2"), "Take the voice away"),
			numbered,
		),
	];
}

/** The loudness of the sound, and the gain that brings it to the loudness of all voices. @param {ShowState} state */
function levelled(state, /** @type {ShelfAsset} */ asset, /** @type {Core.Voice} */ voice) {
	const placed = state.data.voices.find((entry) => entry.id === `voice ${state.slide.id}`);
	if (!placed || typeof asset?.loudness_lufs !== "number") return "";
	const by = Math.round((placed.gain_db - voice.gain_db) * 10) / 10;
	return ` · ${asset.loudness_lufs} LUFS, levelled by ${by > 0 ? "+" : ""}${by} dB`;
}

/** Silence at the ends, found by the core in the waveform, with one press to cut it. */
function silence(/** @type {ShelfAsset} */ asset, /** @type {Core.Voice} */ voice, /** @type {any} */ trim) {
	const said = el("div", { hidden: true });
	if (!asset) return said;
	const look = async () => {
		const { heard_ms: heard, whole } = await get(`${asset.derived}/wave.json`);
		if (!whole && said.isConnected) setTimeout(look, 500);
		if (!heard || said.firstChild) return;
		const [before, after] = [Math.max(heard[0] - voice.in_ms, 0), Math.max(voice.out_ms - heard[1], 0)];
		if (before + after < 200) return;
		said.hidden = false;
		said.append(
			el(
				"p",
				{ class: "said" },
				`Silence at its ends: ${secondsText(before)} s and ${secondsText(after)} s `,
				el("button", { class: "link", onclick: () => trim(voice.in_ms + before, voice.out_ms - after) }, "Cut it"),
			),
		);
	};
	// It has to stand in the page first, else it would not ask again.
	setTimeout(() => look().catch(() => undefined));
	return said;
}

/** Setting cues by ear: the voice plays, and each press sets the next cue. @param {ShowState} state */
function marking(state, /** @type {any} */ { asset, voice, cues, marked, put }) {
	const said = el(
		"span",
		{ class: "said" },
		marked
			? `${marked} of ${cues.length} cues fall on the voice`
			: `${cues.length} cue${cues.length > 1 ? "s" : ""} could fall on it`,
	);
	const row = el("div", { class: "row flex-wrap" }, said);
	const start = el("button", { class: "push", disabled: !asset }, icon("play"), marked ? "Mark again" : "Mark by ear");
	const forget = marked ? el("button", { class: "link", onclick: () => put({ marks: {} }) }, "Forget the marks") : null;
	row.append(...[start, forget].filter((part) => part !== null));
	start.addEventListener("click", async () => {
		const audio = new Audio(asset.address);
		/** @type {{[cueId: string]: number}} */
		const marks = {};
		let at = 0;
		const here = el("button", { class: "push main" });
		const say = () => {
			here.replaceChildren(`Here: ${cues[at].words || `cue ${at + 1}`}`);
		};
		const stop = () => {
			audio.pause();
			clearInterval(watch);
			here.removeEventListener("keydown", key);
			if (here.isConnected) here.remove();
			start.hidden = false;
		};
		const done = () => {
			stop();
			if (at) put({ marks });
		};
		const key = (/** @type {KeyboardEvent} */ event) => {
			if (event.key === "Escape") {
				event.stopPropagation();
				stop();
			}
		};
		const watch = setInterval(() => {
			if (audio.ended || audio.currentTime * 1000 >= voice.out_ms) done();
		}, 50);
		here.addEventListener("click", () => {
			marks[cues[at].id] = Math.max(0, Math.round(audio.currentTime * 1000) - voice.in_ms);
			at += 1;
			if (at < cues.length) say();
			else done();
		});
		here.addEventListener("keydown", key);
		start.hidden = true;
		row.append(here);
		say();
		here.focus();
		audio.currentTime = voice.in_ms / 1000;
		try {
			await audio.play();
		} catch {
			stop();
			toast("The voice cannot be played here.", { wrong: true });
		}
	});
	return row;
}
