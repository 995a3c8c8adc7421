// Sends the recording to the server every second, in order. What has no answer yet is kept here and sent again.
const EVERY_MS = 1000;
const AGAIN_MS = 1500;
const SAMPLES_MOST = 1_500_000;
/** Bytes of the camera's film in one request: the server takes 4 MB. */
const CAMERA_MOST = 3_000_000;
const csrf = () => document.querySelector("meta[name=csrf]")?.content ?? "";

/**
 * Events: "told" whenever something was stored or could not be: `keptMs`, `waitingMs`, `trouble` ("", "line", "full"
 * or "taken") and `words` give the state.
 */
export class Courier extends EventTarget {
	/** @type {string} */
	writer;
	/** @type {Float32Array<ArrayBuffer>[]} */
	sound;
	/** @type {number} */
	waiting;
	/** @type {any[]} */
	seen;
	/** @type {Map<any, number>} */
	segments;
	/** @type {any[]} */
	events;
	/** @type {number} */
	sent;
	/** @type {number} */
	unchanged;
	/** @type {number} */
	at;
	/** @type {string | null} */
	stateSent;
	/** @type {number} */
	tried;

	/** @param {string} base the show's address @param {string} writer this window */
	constructor(base, writer) {
		super();
		this.base = base;
		this.writer = writer;
		/** @type {string | null} */
		this.id = null;
		this.trouble = "";
		this.words = "";
		this.keptMs = 0;
		this.state = "paused";
		this.clear();
	}

	clear() {
		this.sound = [];
		this.waiting = 0;
		this.seen = [];
		this.segments = new Map();
		this.events = [];
		this.sent = 0;
		this.unchanged = Infinity;
		this.at = 0;
		this.stateSent = null;
	}

	/** Everything from here on belongs to this recording, of which so much is stored already. */
	begin(/** @type {any} */ { id, bytes, take }) {
		this.clear();
		Object.assign(this, {
			id,
			at: bytes,
			events: [...take.events],
			sent: take.events.length,
			keptMs: Math.floor(bytes / 96),
			trouble: "",
			words: "",
			state: "recording",
		});
		clearInterval(this.timer);
		this.timer = setInterval(() => this.send(), EVERY_MS);
	}

	get waitingMs() {
		return Math.floor(this.waiting / 48);
	}

	/** Whether everything has been answered. */
	get idle() {
		return !this.waiting && !this.seen.length && this.sent === this.events.length && this.stateSent === this.state;
	}

	/** Adds an event, never before the last one, however the clocks were rounded. */
	say(/** @type {any} */ event) {
		this.events.push({ ...event, at_ms: Math.max(event.at_ms, this.events.at(-1)?.at_ms ?? 0) });
	}

	/** Takes the last event back; where it was sent already, the next one replaces it. */
	retract() {
		this.events.pop();
		this.sent = Math.min(this.sent, this.events.length);
		this.unchanged = Math.min(this.unchanged, this.events.length);
	}

	hear(/** @type {Float32Array<ArrayBuffer>} */ samples) {
		this.sound.push(samples);
		this.waiting += samples.length;
	}

	see(/** @type {any} */ part) {
		this.seen.push(part);
	}

	end() {
		clearInterval(this.timer);
	}

	/** Sends what there is now. */
	async send() {
		if (this.sending || this.trouble === "taken" || !this.id || this.idle) return;
		if (this.trouble && Date.now() - this.tried < AGAIN_MS) return;
		this.tried = Date.now();
		this.sending = this.sendOnce().catch(() => this.tell("line", ""));
		await this.sending;
		this.sending = null;
	}

	/** Resolves when everything recorded so far is stored, or cannot be for now. */
	async flush() {
		await this.sending;
		while (!this.idle) {
			if (!this.id) return false;
			// What is on its way ends first, also what the clock has sent meanwhile: to ask for nothing again and again would
			// stop the page.
			await (this.sending ?? this.send());
			if (this.trouble) return false;
		}
		return true;
	}

	async sendOnce() {
		const parts = [];
		let samples = 0;
		while (parts.length < this.sound.length && samples < SAMPLES_MOST) {
			samples += this.sound[parts.length].length;
			parts.push(this.sound[parts.length]);
		}
		const camera = this.seen[0];
		const pictures = camera?.blob.slice(0, CAMERA_MOST);
		// How many events are still as they are being sent when the answer comes.
		this.unchanged = Infinity;
		const { state } = this;
		const about = { writer: this.writer, first: this.sent, events: this.events.slice(this.sent), at: this.at, state };
		const form = new FormData();
		if (camera) {
			const key = `${camera.piece}/${camera.from_ms}`;
			Object.assign(about, {
				camera_piece: camera.piece,
				camera_from_ms: camera.from_ms,
				camera_at: this.segments.get(key) ?? 0,
			});
			form.append("camera", pictures, "camera");
		}
		if (samples) form.append("sound", new Blob(parts), "sound");
		form.append("about", JSON.stringify(about));
		const reply = await fetch(`${this.base}/record/${this.id}/more`, {
			method: "POST",
			headers: { "X-CSRFToken": csrf() },
			body: form,
		});
		const body = await reply.json();
		if (reply.status === 409 && body.size > this.at) {
			this.drop(body.size - this.at);
			this.at = body.size;
		}
		if (reply.status === 409 && body.camera_size !== undefined && camera) {
			// Of the camera the server has another length than was thought: what is sent goes on from there.
			const key = `${camera.piece}/${camera.from_ms}`;
			const known = Math.max(body.camera_size - (this.segments.get(key) ?? 0), 0);
			this.segments.set(key, body.camera_size);
			if (known >= camera.blob.size) this.seen.shift();
			else if (known) camera.blob = camera.blob.slice(known);
			return;
		}
		if (reply.status === 409 && body.size >= this.at && body.events === undefined) return;
		if (reply.status === 409 && body.events < this.sent) {
			this.sent = body.events;
			return;
		}
		if (reply.status === 507) {
			this.tell("full", body.error);
			return;
		}
		if (!reply.ok) {
			this.tell(reply.status < 500 ? "taken" : "line", body.error ?? "");
			return;
		}
		this.drop(body.bytes - this.at);
		this.at = body.bytes;
		this.sent = Math.min(about.first + about.events.length, this.unchanged);
		this.stateSent = state;
		if (camera) {
			const key = `${camera.piece}/${camera.from_ms}`;
			this.segments.set(key, (this.segments.get(key) ?? 0) + pictures.size);
			if (pictures.size === camera.blob.size) this.seen.shift();
			else camera.blob = camera.blob.slice(pictures.size);
		}
		this.keptMs = body.kept_ms;
		this.tell("", "");
	}

	/** Forgets so many bytes of sound: the server has them. */
	drop(/** @type {number} */ bytes) {
		let count = bytes / 2;
		while (count > 0 && this.sound.length) {
			const [first] = this.sound;
			const gone = Math.min(count, first.length);
			if (gone === first.length) this.sound.shift();
			else this.sound[0] = first.subarray(gone);
			this.waiting -= gone;
			count -= gone;
		}
	}

	tell(/** @type {any} */ trouble, /** @type {string} */ words) {
		Object.assign(this, { trouble, words });
		this.dispatchEvent(new Event("told"));
	}
}

/** The two sentences about what is stored. */
export function keptWords(/** @type {any} */ courier, /** @type {number} */ takeNumber, /** @type {any} */ clock) {
	if (courier.trouble === "full")
		return [courier.words, `${(courier.waitingMs / 1000).toFixed(1)} s kept here, waiting for room.`];
	if (courier.trouble === "taken") return [courier.words, "Load this page again to see how it stands."];
	if (courier.trouble === "line")
		return [
			`The line is cut. ${(courier.waitingMs / 1000).toFixed(1)} s kept here, waiting to send.`,
			`${clock(courier.keptMs)} of take ${takeNumber} is kept on the server. It is tried again by itself; keep this window open.`,
		];
	const whose = takeNumber ? ` of take ${takeNumber}` : "";
	return [
		`Every second so far, ${clock(courier.keptMs)}${whose}, is kept on the server, even if this window closes.`,
		courier.waitingMs > 2000
			? `${(courier.waitingMs / 1000).toFixed(1)} s are on their way.`
			: "Nothing is waiting to be sent.",
	];
}
