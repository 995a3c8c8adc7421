// The camera: one of the machine's, or a practice one that moves. Its picture is recorded piece by piece, in parts of a
// second.
import { openDevice } from "./opened-devices.js";
import { PRACTICE } from "./practice.js";

const FORMS = ["video/webm;codecs=vp8", "video/webm", "video/mp4"];
const BITS = 900_000;
const EVERY_MS = 1000;
/** Pictures a second of the practice camera. */
const PER_S = 15;

/** The practice camera: somebody at a crank, drawn. */
function practiceStream() {
	const canvas = document.createElement("canvas");
	canvas.width = 480;
	canvas.height = 360;
	const pen = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
	// It is drawn in a square of 480, which stands in the middle.
	pen.scale(0.75, 0.75);
	pen.translate(80, 0);
	const disc = (
		/** @type {number} */ x,
		/** @type {number} */ y,
		/** @type {number} */ r,
		/** @type {string} */ colour,
	) => {
		pen.fillStyle = colour;
		pen.beginPath();
		pen.arc(x, y, r, 0, Math.PI * 2);
		pen.fill();
	};
	let [request, drawnMs] = [0, -Infinity];
	const draw = (/** @type {number} */ ms) => {
		request = requestAnimationFrame(draw);
		// No more pictures than are recorded.
		if (ms - drawnMs < 1000 / PER_S - 4) return;
		drawnMs = ms;
		const turn = ms / 700;
		pen.fillStyle = "#d9c9a5";
		pen.fillRect(-80, 0, 640, 480);
		pen.fillStyle = "#c4b189";
		for (let row = 0; row < 12; row += 1)
			for (let at = row % 2 ? -90 : -120; at < 560; at += 60) pen.fillRect(at + 2, row * 40 + 2, 56, 36);
		disc(240, 470, 150, "#2f6f74");
		disc(240, 230 + 4 * Math.sin(turn), 96, "#8d5a3c");
		disc(240, 176 + 4 * Math.sin(turn), 92, "#2c1d17");
		disc(240, 240 + 4 * Math.sin(turn), 78, "#9c6747");
		const open = 4 + 7 * Math.abs(Math.sin(ms / 130)) * (Math.sin(ms / 900) > -0.4 ? 1 : 0.1);
		pen.fillStyle = "#5b2a26";
		pen.beginPath();
		pen.ellipse(240, 286 + 4 * Math.sin(turn), 22, open, 0, 0, Math.PI * 2);
		pen.fill();
		for (const x of [210, 270]) disc(x, 232 + 4 * Math.sin(turn), ms % 3400 < 130 ? 2 : 8, "#1d1310");
		pen.strokeStyle = "#16262e";
		pen.lineWidth = 14;
		pen.beginPath();
		pen.moveTo(400, 400);
		pen.lineTo(400 + 46 * Math.cos(turn), 400 + 46 * Math.sin(turn));
		pen.stroke();
		disc(400, 400, 16, "#a86a12");
		disc(400 + 46 * Math.cos(turn), 400 + 46 * Math.sin(turn), 18, "#9c6747");
	};
	draw(performance.now());
	const stream = canvas.captureStream(PER_S);
	return {
		stream,
		end: () => {
			cancelAnimationFrame(request);
			stream.getTracks().forEach((track) => track.stop());
		},
	};
}

/** Events: "part" (detail: piece, from_ms, blob), "lost" when it was pulled out. */
export class Camera extends EventTarget {
	/** @param {...HTMLVideoElement} videos where what it sees is shown */
	constructor(...videos) {
		super();
		this.videos = videos;
		this.kind = null;
		this.choices = 0;
	}

	get open() {
		return this.kind !== null;
	}

	/** Opens a camera by its id; false where another was chosen while it opened. Throws what `refusal` puts into words. */
	async use(/** @type {string} */ id) {
		this.choices += 1;
		const choice = this.choices;
		let source;
		if (id === PRACTICE) source = practiceStream();
		else {
			const stream = await openDevice("camera", id, {
				video: { width: { ideal: 640 }, height: { ideal: 480 }, ...(id ? { deviceId: { exact: id } } : {}) },
			});
			stream.getVideoTracks()[0].addEventListener("ended", () => {
				if (this.source?.stream === stream) {
					this.leave();
					this.dispatchEvent(new Event("lost"));
				}
			});
			source = { stream, end: () => stream.getTracks().forEach((one) => one.stop()) };
		}
		if (choice !== this.choices) {
			source.end();
			return false;
		}
		this.leave();
		this.source = source;
		this.kind = id;
		await this.show(source.stream);
		return true;
	}

	leave() {
		this.choices += 1;
		this.endPiece();
		this.source?.end();
		this.source = null;
		this.kind = null;
		this.show(null);
	}

	async show(/** @type {any} */ stream) {
		for (const video of this.videos) video.srcObject = stream;
		if (stream) await Promise.all(this.videos.map((video) => video.play().catch(() => undefined)));
	}

	/**
	 * Starts another piece, with `heard` where that belongs into it: the piece before ends when this one has started,
	 * so that nothing is lost between.
	 */
	/** @param {number} piece @param {number} fromMs @param {MediaStream | null} heard */
	beginPiece(piece, fromMs, heard = null) {
		if (!this.source) return;
		const before = this.recorder;
		const stream = heard
			? new MediaStream([...this.source.stream.getVideoTracks(), ...heard.getAudioTracks()])
			: this.source.stream;
		const forms = heard ? FORMS.map((form) => form.replace("vp8", "vp8,opus")) : FORMS;
		const recorder = new MediaRecorder(stream, {
			mimeType: forms.find((form) => MediaRecorder.isTypeSupported(form)),
			videoBitsPerSecond: BITS,
		});
		recorder.addEventListener("dataavailable", ({ data }) => {
			if (data.size) this.dispatchEvent(new CustomEvent("part", { detail: { piece, from_ms: fromMs, blob: data } }));
		});
		recorder.start(EVERY_MS);
		this.recorder = recorder;
		if (before && before.state !== "inactive") before.stop();
	}

	pause() {
		if (this.recorder?.state === "recording") this.recorder.pause();
	}

	resume() {
		if (this.recorder?.state === "paused") this.recorder.resume();
	}

	/** Ends the piece; resolves when its last part has been reported. */
	async endPiece() {
		const { recorder } = this;
		this.recorder = null;
		if (!recorder || recorder.state === "inactive") return;
		await new Promise((done) => {
			recorder.addEventListener("stop", done, { once: true });
			recorder.stop();
		});
	}
}
