// The microphone: one of the machine's, or a practice one that speaks. Its samples carry the sound card's clock, so
// that the sound and the cues agree to the sample.
import { levelDb } from "./level.js";
import { openDevice } from "./opened-devices.js";
import { PRACTICE } from "./practice.js";

const HZ = 48_000;
const CLEAN = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };
// About a second of speech, and two of silence.
const LEVEL_BLOCKS = 24;
const SILENT_BLOCKS = 48;
const SILENT_DB = -50;
const FOLDER = new URL(".", import.meta.url);

/** Why a microphone or camera could not be opened, in words. */
export function refusal(/** @type {any} */ error, /** @type {string} */ what) {
	if (!globalThis.isSecureContext)
		return "A browser lets a page record only where it came over HTTPS, or from this computer itself. Open Ritornel there. Nothing was lost.";
	if (error.name === "NotAllowedError")
		return `The browser was not allowed to use the ${what}. Allow it beside the address, or take the practice ${what}. Nothing was lost.`;
	if (error.name === "NotFoundError" || error.name === "OverconstrainedError")
		return `There is no ${what} on this computer. Plug one in, or take the practice ${what}.`;
	if (error.name === "NotReadableError")
		return `The ${what} is used by another program. Close that one, or take the practice ${what}.`;
	return `The ${what} could not be opened: ${error.message}`;
}

/**
 * Events: "samples" (detail: Int16Array, what was recorded), "level" (detail: now_db; mean_db and peak_db of the last
 * second of speech), "lost" when it was pulled out.
 */
export class Microphone extends EventTarget {
	/** @type {AudioContext} */
	context;
	/** @type {AudioWorkletNode} */
	listener;
	/** @type {MediaStreamAudioDestinationNode} */
	out;
	/** @type {any} */
	source;

	constructor() {
		super();
		this.kind = null;
		this.choices = 0;
		/** @type {any[]} */
		this.spans = [];
		/** @type {any[]} */
		this.recent = [];
		this.silent = 0;
	}

	get open() {
		return this.kind !== null;
	}

	/** The sound card's clock, in samples. */
	get frame() {
		return Math.round(this.context.currentTime * HZ);
	}

	async ready() {
		if (this.context) return;
		const context = new AudioContext({ sampleRate: HZ });
		await context.audioWorklet.addModule(new URL("capture.js", FOLDER));
		this.context = context;
		this.listener = new AudioWorkletNode(context, "ritornel-listening", { numberOfInputs: 1, numberOfOutputs: 1 });
		this.listener.port.onmessage = ({ data }) => this.hear(data);
		// It has to lead somewhere to be run at all; nothing is heard of it.
		const silence = context.createGain();
		silence.gain.value = 0;
		this.listener.connect(silence).connect(context.destination);
	}

	/**
	 * Opens a microphone by its id; false where another was chosen while it opened. Throws what `refusal` puts into words;
	 * the one before stays open then.
	 */
	async use(/** @type {string} */ id) {
		this.choices += 1;
		const choice = this.choices;
		await this.ready();
		await this.context.resume();
		const source = id === PRACTICE ? await this.practice() : await this.real(id);
		if (choice !== this.choices) {
			source.end();
			return false;
		}
		this.leave();
		source.node.connect(this.listener);
		this.source = source;
		this.kind = id;
		return true;
	}

	async real(/** @type {string} */ id) {
		const stream = await openDevice("microphone", id, {
			audio: { ...CLEAN, ...(id ? { deviceId: { exact: id } } : {}) },
		});
		const [track] = stream.getAudioTracks();
		track.addEventListener("ended", () => {
			if (this.source?.stream === stream) {
				this.leave();
				this.dispatchEvent(new Event("lost"));
			}
		});
		return {
			stream,
			name: track.label,
			node: this.context.createMediaStreamSource(stream),
			end: () => stream.getTracks().forEach((one) => one.stop()),
		};
	}

	async practice() {
		const reply = await fetch(new URL("practice-voice.ogg", FOLDER));
		const node = this.context.createBufferSource();
		node.buffer = await this.context.decodeAudioData(await reply.arrayBuffer());
		node.loop = true;
		node.start();
		return { node, name: "Practice microphone", end: () => node.stop() };
	}

	/** The sound, for somebody who records it with a picture. */
	stream() {
		this.out ??= this.context.createMediaStreamDestination();
		this.source.node.connect(this.out);
		return this.out.stream;
	}

	leave() {
		this.choices += 1;
		if (!this.source) return;
		this.source.node.disconnect();
		this.source.end();
		this.source = null;
		this.kind = null;
	}

	hear(/** @type {any} */ { first, samples }) {
		this.measure(samples);
		for (const span of [...this.spans]) {
			const from = Math.max(first, span.from);
			const until = Math.min(first + samples.length, span.until);
			if (until > from) {
				const whole = Int16Array.from(samples.subarray(from - first, until - first), (value) =>
					Math.round(Math.max(-1, Math.min(1, value)) * 32767),
				);
				this.dispatchEvent(new CustomEvent("samples", { detail: whole }));
			}
			if (first + samples.length >= span.until) {
				this.spans.splice(this.spans.indexOf(span), 1);
				span.done();
			}
		}
	}

	measure(/** @type {Float32Array} */ samples) {
		let sum = 0;
		let peak = 0;
		for (const value of samples) {
			sum += value * value;
			peak = Math.max(peak, Math.abs(value));
		}
		const nowDb = levelDb(Math.sqrt(sum / samples.length));
		this.silent = nowDb > SILENT_DB ? 0 : this.silent + 1;
		// Told of is how loud somebody speaks, not how often they breathe.
		if (!this.silent) this.recent.push({ mean: sum / samples.length, peak });
		if (this.recent.length > LEVEL_BLOCKS) this.recent.shift();
		const mean = Math.sqrt(this.recent.reduce((all, one) => all + one.mean, 0) / Math.max(this.recent.length, 1));
		const settled = this.recent.length === LEVEL_BLOCKS;
		this.dispatchEvent(
			new CustomEvent("level", {
				detail: {
					now_db: nowDb,
					mean_db: levelDb(mean),
					peak_db: levelDb(Math.max(0, ...this.recent.map((one) => one.peak))),
					settled,
					silent: this.silent > SILENT_BLOCKS,
				},
			}),
		);
	}

	/** Records everything from sample `from` on. */
	record(/** @type {number} */ from) {
		/** @type {any} */
		const span = { from, until: Infinity };
		span.over = new Promise((done) => {
			span.done = done;
		});
		this.spans.push(span);
		this.span = span;
	}

	/** Records up to sample `until`; resolves when all of it has been reported. */
	async halt(/** @type {number} */ until) {
		if (!this.span) return;
		const { span } = this;
		this.span = null;
		span.until = Math.max(until, span.from);
		// Where the sound card stands still nothing more comes.
		await Promise.race([
			span.over,
			new Promise((done) => {
				setTimeout(done, 1500);
			}),
		]);
		this.spans = this.spans.filter((entry) => entry !== span);
	}
}

/** The microphones and cameras of this machine; without permission they have no names. */
export async function machineDevices(/** @type {string} */ kind) {
	const all = (await navigator.mediaDevices?.enumerateDevices().catch(() => [])) ?? [];
	const what = kind === "audioinput" ? "microphone" : "camera";
	return all
		.filter((device) => device.kind === kind && device.deviceId !== "communications")
		.map((device, number) => ({
			id: device.deviceId,
			name:
				device.label ||
				(number ? `${what} ${number + 1}` : `Your ${what}`).replace(/^./, (letter) => letter.toUpperCase()),
		}));
}
