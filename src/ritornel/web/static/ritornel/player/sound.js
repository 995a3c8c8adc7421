// The show's music and voices on the audio clock, from the same passes, fades and breakpoints as the film's mixer.
import { ON_SLIDE } from "./sampling.js";
import { passOf } from "./pressed-clips.js";

const STEPS = 65;
const EDGE_S = 0.005;
const DOWN_S = 0.3;
const UP_S = 0.6;
/**
 * The key of a clip's sound at its speed: core/sound/tempo.py.
 * @param {{asset_id: any, rate_pct?: number}} clip
 */
export const soundOf = ({ asset_id: id, rate_pct: rate = 100 }) => (rate === 100 ? id : `${id}@${rate}`);
/** @param {number} db */
const factor = (db) => 10 ** (db / 20);

/**
 * Samples of a piece of an equal-power fade, from progress `from` to `to`.
 * @param {number} from
 * @param {number} to
 */
function fadeCurve(from, to) {
	return Float32Array.from({ length: STEPS }, (_, i) =>
		Math.sin(((from + ((to - from) * i) / (STEPS - 1)) * Math.PI) / 2),
	);
}

/**
 * Puts a fade in at the start and a fade out before the end onto a gain, for a sound that is `offset` seconds into
 * its life when it begins. All in seconds; `length` may be Infinity.
 * @param {AudioParam} gain
 * @param {number} when
 * @param {number} offset
 * @param {number} length
 * @param {number} fadeIn
 * @param {number} fadeOut
 */
function layFades(gain, when, offset, length, fadeIn, fadeOut) {
	if (fadeIn > offset) gain.setValueCurveAtTime(fadeCurve(offset / fadeIn, 1), when, fadeIn - offset);
	else gain.setValueAtTime(1, when);
	if (!fadeOut || length === Infinity) return;
	const begins = Math.max(length - fadeOut, offset, fadeIn);
	// A tenth of a millisecond later than the fade in may end: curves on one parameter must not touch.
	if (length > begins)
		gain.setValueCurveAtTime(fadeCurve((length - begins) / fadeOut, 0), when + begins - offset + 1e-4, length - begins);
}

/**
 * The level of breakpoints at an instant, in dB: core/sound/ducking.py.
 * @param {[number, number][]} points
 * @param {number} ms
 */
export function levelAt(points, ms) {
	const next = points.findIndex(([at]) => ms < at);
	if (!points.length) return 0;
	if (next === 0) return points[0][1];
	if (next < 0) return points[points.length - 1][1];
	const [[a, from], [b, to]] = [points[next - 1], points[next]];
	return from + ((to - from) * (ms - a)) / (b - a);
}

/**
 * Puts breakpoints onto a gain for music that is at `fromMs` of the show at `when`. Exponential ramps are straight in
 * dB.
 * @param {AudioParam} gain
 * @param {number} when
 * @param {number} fromMs
 * @param {[number, number][]} points
 */
function layDucking(gain, when, fromMs, points) {
	gain.cancelScheduledValues(when);
	gain.setValueAtTime(factor(levelAt(points, fromMs)), when);
	for (const [ms, db] of points)
		if (ms > fromMs) gain.exponentialRampToValueAtTime(factor(db), when + (ms - fromMs) / 1000);
}

export class Sound {
	/** @type {Float32Array<ArrayBuffer>} */
	heard;

	/** @param {PlayedShow} show @param {AudioContext} audio */
	constructor(show, audio) {
		this.show = show;
		this.audio = audio;
		this.buffers = new Map();
		this.running = new Map();
		this.speaking = new Map();
		// Editions made before there were voices have none.
		this.voices = show.voices ?? [];
		this.effects = show.effects ?? [];
		this.events = [...this.voices, ...this.effects];
		this.pressable = show.slides.flatMap((slide) => Object.values(slide.clips ?? {})).filter((clip) => !clip.muted);
		this.at = null;
		this.out = audio.createGain();
		this.out.connect(audio.destination);
		this.coming = this.fetchInOrder();
		this.loaded = Promise.all(this.coming.map(({ came }) => came));
	}

	/**
	 * Sounds are loaded in the order in which they begin, two at a time, so that over a slow line the first does not
	 * wait for the last.
	 */
	fetchInOrder() {
		const begins = new Map();
		for (const { asset_id: id, start_ms: at } of [...this.show.music, ...this.events])
			begins.set(id, Math.min(at, begins.get(id) ?? Infinity));
		for (const clip of this.pressable) if (!begins.has(soundOf(clip))) begins.set(soundOf(clip), Infinity);
		const lanes = [Promise.resolve(), Promise.resolve()];
		return [...begins]
			.sort(([, a], [, b]) => a - b)
			.map(([id, at], index) => {
				// Without a sound the show goes on, in silence.
				const came = lanes[index % 2].then(() => this.load(id)).catch(() => undefined);
				lanes[index % 2] = came;
				return { at, came };
			});
	}

	/**
	 * Resolves when all sounds that begin before an instant have loaded.
	 * @param {number} beforeMs
	 */
	ready(beforeMs) {
		return Promise.all(this.coming.filter(({ at }) => at < beforeMs).map(({ came }) => came));
	}

	/** @param {string} assetId */
	async load(assetId) {
		const reply = await fetch(this.show.heard?.[assetId] ?? this.show.media[assetId]);
		// A clip may have no sound to decode.
		const buffer = await this.audio.decodeAudioData(await reply.arrayBuffer()).catch(() => null);
		if (buffer) this.buffers.set(assetId, buffer);
	}

	/**
	 * The present peak in dB of full scale, left and right. Nothing is measured before somebody asks.
	 */
	peaksDb() {
		if (!this.ears) {
			const split = this.audio.createChannelSplitter(2);
			this.out.connect(split);
			this.ears = [0, 1].map((channel) => {
				const ear = this.audio.createAnalyser();
				ear.fftSize = 1024;
				split.connect(ear, channel);
				return ear;
			});
			this.heard = new Float32Array(1024);
		}
		return this.ears.map((ear) => {
			ear.getFloatTimeDomainData(this.heard);
			return 20 * Math.log10(Math.max(1e-4, ...this.heard.map(Math.abs)));
		});
	}

	get muted() {
		return this.out.gain.value === 0;
	}

	set muted(value) {
		this.out.gain.value = value ? 0 : 1;
	}

	/**
	 * The volume of everything, in dB; -60 is silence.
	 * @param {number} db
	 */
	set levelDb(db) {
		this.out.gain.value = db <= -60 ? 0 : factor(db);
	}

	stop(fadeMs = 20) {
		for (const id of [...this.running.keys()]) this.stopSpan(id, fadeMs);
		this.hush(fadeMs);
	}

	/** A looping show begins again: all spans end with the pass, except those that run on. */
	endPass() {
		for (const [id, { span, duck }] of [...this.running]) {
			if (!span.runs_on) this.stopSpan(id, 20);
			else layDucking(duck.gain, this.audio.currentTime, 0, span.ducking ?? []);
		}
		this.hush(20);
	}

	/** @param {string} id @param {number} fadeMs */
	stopSpan(id, fadeMs) {
		const span = this.running.get(id);
		if (!span) return;
		this.running.delete(id);
		// The clock is read once: it runs on between two readings, by more than a short fade where the page is busy.
		const now = this.audio.currentTime;
		const end = now + Math.max(fadeMs, 5) / 1000;
		const fade = span.leave.gain;
		fade.setValueCurveAtTime(fadeCurve(1, 0), now, end - now);
		span.sources.forEach((/** @type {AudioScheduledSourceNode} */ source) => source.stop(end + 0.01));
	}

	/**
	 * Begins a span `offsetMs` into its life.
	 * @param {Core.MusicTime} span
	 * @param {number} offsetMs
	 * @param {number} lengthMs its whole length, Infinity when live
	 */
	begin(span, offsetMs, lengthMs) {
		const buffer = this.buffers.get(span.asset_id);
		if (!buffer || this.running.has(span.span_id) || offsetMs >= lengthMs) return;
		const when = this.audio.currentTime + 0.01;
		const level = this.audio.createGain();
		const fade = this.audio.createGain();
		const leave = this.audio.createGain();
		const duck = this.audio.createGain();
		level.gain.value = factor(span.gain_db);
		level.connect(fade).connect(duck).connect(leave).connect(this.out);
		if (lengthMs !== Infinity || span.runs_on)
			layDucking(duck.gain, when, span.start_ms + offsetMs, span.ducking ?? []);
		layFades(fade.gain, when, offsetMs / 1000, lengthMs / 1000, span.fade_in_ms / 1000, span.fade_out_ms / 1000);
		this.running.set(span.span_id, {
			span,
			level,
			leave,
			duck,
			sources: new Set(),
			when,
			offsetMs,
			lengthMs,
			next: null,
		});
		this.ahead();
	}

	/**
	 * Schedules the passes of the next seconds; called often, so that a show of a day does not need a day of nodes.
	 */
	ahead(seconds = 20) {
		this.layVoices(Math.min(seconds, 20));
		for (const entry of this.running.values()) {
			const { span, when, offsetMs, lengthMs } = entry;
			const horizon = offsetMs + (this.audio.currentTime - when + seconds) * 1000;
			const period = span.period_ms;
			entry.next ??= period ? Math.floor(Math.max(offsetMs - (span.lasts_ms - period), 0) / period) : 0;
			while ((period || entry.next === 0) && entry.next * period < Math.min(horizon, lengthMs)) {
				this.layPass(entry, entry.next * period, period);
				entry.next += 1;
				if (!period) break;
			}
		}
	}

	/** @param {any} entry @param {number} startMs @param {number} period */
	layPass(entry, startMs, period) {
		const { span, when, offsetMs, lengthMs } = entry;
		const endMs = Math.min(startMs + span.lasts_ms, lengthMs);
		const skipMs = Math.max(offsetMs - startMs, 0);
		if (skipMs >= endMs - startMs) return;
		const at = when + (startMs + skipMs - offsetMs) / 1000;
		const crossfade = period ? (span.lasts_ms - period) / 1000 : 0;
		const another = period && startMs + period < lengthMs;
		const source = this.audio.createBufferSource();
		source.buffer = this.buffers.get(span.asset_id);
		const gain = this.audio.createGain();
		layFades(gain.gain, at, skipMs / 1000, span.lasts_ms / 1000, startMs ? crossfade : 0, another ? crossfade : 0);
		source.connect(gain).connect(entry.level);
		source.start(at, skipMs / 1000, (endMs - startMs - skipMs) / 1000);
		entry.sources.add(source);
		source.onended = () => entry.sources.delete(source);
	}

	/**
	 * Self-running: moves the music to the playhead.
	 * @param {number} timeMs
	 */
	seek(timeMs) {
		this.stop();
		this.follow(timeMs);
	}

	/**
	 * Begins spans whose time has come.
	 * @param {number} timeMs
	 */
	follow(timeMs) {
		for (const span of this.show.music) {
			const running = this.running.has(span.span_id);
			if (timeMs >= span.start_ms && timeMs < span.end_ms) {
				if (!running) this.begin(span, timeMs - span.start_ms, span.runs_on ? Infinity : span.end_ms - span.start_ms);
			} else if (running && !span.runs_on) this.stopSpan(span.span_id, 20);
		}
		this.at = { ms: timeMs, when: this.audio.currentTime + 0.01 };
		this.ahead();
	}

	/**
	 * Self-running: schedules the voices and effects of the next seconds, each on its exact sample.
	 * @param {number} seconds
	 */
	layVoices(seconds) {
		if (!this.at) return;
		const { ms, when } = this.at;
		for (const voice of this.events) {
			const from = Math.max(ms - voice.start_ms, 0);
			if (this.speaking.has(voice.id) || from >= voice.lasts_ms || voice.start_ms > ms + seconds * 1000) continue;
			this.speak(voice, when + Math.max(voice.start_ms - ms, 0) / 1000, from);
		}
	}

	/**
	 * @param {Spoken} voice a voice, an effect, or a clip that was pressed
	 * @param {number} when
	 * @param {number} fromMs how much of it is over already
	 */
	speak(voice, when, fromMs, lastsMs = voice.lasts_ms) {
		const buffer = this.buffers.get(voice.asset_id);
		if (!buffer) return;
		const source = this.audio.createBufferSource();
		const gain = this.audio.createGain();
		const level = this.audio.createGain();
		source.buffer = buffer;
		level.gain.value = factor(voice.gain_db);
		const fadeIn = Math.max(voice.in_ms ? EDGE_S : 0, (voice.fade_in_ms ?? 0) / 1000);
		layFades(gain.gain, when, fromMs / 1000, lastsMs / 1000, fadeIn, Math.max(EDGE_S, (voice.fade_out_ms ?? 0) / 1000));
		source.connect(gain).connect(level).connect(this.out);
		if (voice.loops) {
			const [begin, pass] = [
				voice.in_ms / 1000,
				voice.pass_ms ? Math.min(voice.pass_ms / 1000, buffer.duration - voice.in_ms / 1000) : buffer.duration,
			];
			Object.assign(source, { loop: true, loopStart: begin, loopEnd: begin + pass });
			source.start(when, begin + ((fromMs / 1000) % pass));
			if (lastsMs !== Infinity) source.stop(when + (lastsMs - fromMs) / 1000);
		} else source.start(when, (voice.in_ms + fromMs) / 1000, (lastsMs - fromMs) / 1000);
		this.speaking.set(voice.id, { source, level, voice, when });
	}

	/** Ends all voices. */
	hush(fadeMs = 20, which = (/** @type {Core.SoundTime} */ voice) => Boolean(voice), all = true) {
		if (all) this.at = null;
		const now = this.audio.currentTime;
		for (const [id, { source, level, voice }] of [...this.speaking]) {
			if (!which(voice)) continue;
			level.gain.setTargetAtTime(0, now, fadeMs / 4000);
			source.stop(now + fadeMs / 1000 + 0.01);
			this.speaking.delete(id);
		}
	}

	/**
	 * Plays the sound of a pressed clip.
	 * @param {Core.PressedClip} clip
	 */
	playPressed(clip) {
		if (!this.pressable.includes(clip)) return;
		const [passMs, rate] = [passOf(clip), clip.rate_pct ?? 100];
		const event = {
			...clip,
			asset_id: soundOf(clip),
			id: `pressed ${clip.id}`,
			in_ms: Math.floor(((clip.in_ms ?? 0) * 100) / rate + 0.5),
			lasts_ms: passMs,
			gain_db: clip.gain_db ?? 0,
			loops: clip.repeats,
			pass_ms: passMs,
		};
		const lasts = clip.repeats ? Infinity : passMs;
		this.speak(event, this.audio.currentTime + 0.01, 0, lasts);
		this.sink(this.audio.currentTime + 0.01, lasts / 1000);
	}

	/** @param {string} objectId */
	endPressed(objectId) {
		this.hush(20, ({ id }) => id === `pressed ${objectId}`, false);
		this.sink(this.audio.currentTime + 0.01, 0);
	}

	/**
	 * Live: ends the clips that do not continue into a beat; those of other slides never do.
	 * @param {number} index
	 * @param {number} beat
	 */
	endClips(index, beat) {
		/** @param {{id: string, index: number, beat: number, ends_with_beat: any}} clip */
		const ends = ({ id, index: own, beat: begun, ends_with_beat: withBeat }) =>
			id.startsWith("clip ") && (own !== index || begun > beat || (withBeat && begun !== beat));
		const ended = [...this.speaking.values()].some(({ voice }) => ends(voice));
		this.hush(20, ends, false);
		if (ended) this.sink(this.audio.currentTime + 0.01, 0);
	}

	/**
	 * Live: music sinks from an instant on, and rises again so many seconds later.
	 * @param {number} from
	 * @param {number} seconds
	 */
	sink(from, seconds) {
		for (const { duck, span } of this.running.values()) {
			if (!span.duck_db) continue;
			const { gain } = duck;
			const now = this.audio.currentTime;
			gain.cancelScheduledValues(now);
			gain.setValueAtTime(Math.max(gain.value, 1e-4), now);
			if (seconds > 0) {
				gain.setValueAtTime(Math.max(gain.value, 1e-4), from);
				gain.exponentialRampToValueAtTime(factor(-span.duck_db), from + DOWN_S);
			}
			if (seconds === Infinity) continue;
			const rises = from + Math.max(seconds, seconds > 0 ? DOWN_S : 0);
			gain.setValueAtTime(seconds > 0 ? factor(-span.duck_db) : Math.max(gain.value, 1e-4), rises);
			gain.exponentialRampToValueAtTime(1, rises + UP_S);
		}
	}

	/**
	 * Live: the sounds of a beat's builds; with ON_SLIDE that of the transition, which ends what was kept before.
	 * @param {number} index
	 * @param {number} beat
	 * @param {number} [delayMs]
	 */
	soundBeat(index, beat, delayMs = 0) {
		const now = this.audio.currentTime + 0.01 + delayMs / 1000;
		for (const effect of this.effects) {
			if (effect.index !== index || effect.beat !== beat) continue;
			if (beat === ON_SLIDE) this.hush(20, (other) => other.loops);
			this.hush(5, (other) => other.id === effect.id);
			const [when, lasts] = [
				now + (beat === ON_SLIDE ? 0 : effect.offset_ms / 1000),
				effect.loops ? Infinity : effect.lasts_ms,
			];
			this.speak(effect, when, 0, lasts);
			if (effect.id.startsWith("clip ")) this.sink(when, lasts / 1000);
		}
	}

	/**
	 * Live: the slide's voice, if voices are heard. Music sinks when it begins and rises when it ends or is left:
	 * nobody could know that before.
	 * @param {number} index
	 * @param {number} slideMs the slide's clock
	 */
	speakLive(index, slideMs) {
		const now = this.audio.currentTime + 0.01;
		/** @param {{id: string}} sound */
		const talks = ({ id }) => id.startsWith("voice ");
		const spoke = [...this.speaking.values()].some((entry) => talks(entry.voice));
		this.hush(20, talks);
		const voice = this.show.voices_live ? this.voices.find((entry) => entry.index === index) : null;
		const over = voice ? Math.max(slideMs - voice.offset_ms, 0) : 0;
		const begins = voice ? now + Math.max(voice.offset_ms - slideMs, 0) / 1000 : Infinity;
		const sinks = Math.max(begins, spoke ? now + UP_S : now);
		const rises = voice ? Math.max(begins + (voice.lasts_ms - over) / 1000, sinks + DOWN_S) : Infinity;
		for (const { duck, span } of this.running.values()) {
			const { gain } = duck;
			if (!span.duck_db || (!spoke && !voice)) continue;
			gain.cancelScheduledValues(now);
			gain.setValueAtTime(Math.max(gain.value, 1e-4), now);
			if (spoke) gain.exponentialRampToValueAtTime(1, now + UP_S);
			if (!voice) continue;
			gain.setValueAtTime(1, sinks);
			gain.exponentialRampToValueAtTime(factor(-span.duck_db), sinks + DOWN_S);
			gain.setValueAtTime(factor(-span.duck_db), rises);
			gain.exponentialRampToValueAtTime(1, rises + UP_S);
		}
		if (voice && over < voice.lasts_ms) this.speak(voice, begins, over);
	}

	/**
	 * Live: runs the music of the slide's spans; after a jump into a span, it starts where the self-running schedule
	 * has it.
	 * @param {number} index
	 * @param {number} [slideMs]
	 */
	arrive(index, slideMs = 0) {
		for (const span of this.show.music) {
			const inside = index >= span.first && index <= span.last;
			if (!inside) this.stopSpan(span.span_id, Math.max(span.fade_out_ms, 20));
			else if (!this.running.has(span.span_id)) {
				const offset = index === span.first ? 0 : this.show.starts_ms[index] - span.start_ms;
				this.begin(span, offset, span.period_ms ? Infinity : span.lasts_ms);
			}
		}
		this.speakLive(index, slideMs);
		if (slideMs > 0) return;
		this.soundBeat(index, ON_SLIDE);
		this.soundBeat(index, 0, this.show.slides[index].schedule.transition_ms);
	}
}
