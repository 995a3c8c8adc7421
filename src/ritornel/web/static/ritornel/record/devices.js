// Which microphone and camera are used, the level, and the camera's place.
import { el } from "../ui/element.js";
import { toast } from "../ui/toast.js";
import { FLOOR_DB, levelWords } from "./level.js";
import { machineDevices, refusal } from "./microphone.js";
import { lastDevice, rememberDevice } from "./opened-devices.js";
import { PRACTICE } from "./practice.js";

const at = (/** @type {string} */ id) => document.getElementById(id);
const BARS = 40;
const WORDS_EVERY_MS = 1000;
const NUMBERS = { "camera-across": "across_pct", "camera-down": "down_pct", "camera-size": "size_pct" };

/** @type {{[shape: string]: string}} */
const WHOLE = {
	round: "Recorded whole, shown in a circle.",
	rectangle: "Recorded whole, shown in a frame.",
	apart: "Recorded whole, onto the shelf.",
};

export class Devices {
	/**
	 * @param {{microphone: Microphone, camera: Camera, placing: Placing, lost: (device: object) => void, changed: () => void}}
	 * parts
	 */
	constructor(parts) {
		this.microphone = parts.microphone;
		this.camera = parts.camera;
		this.placing = parts.placing;
		this.lost = parts.lost;
		this.changed = parts.changed;
		this.toldAt = 0;
		at("level").append(
			...Array.from({ length: BARS }, (_, number) => {
				const db = FLOOR_DB + ((number + 1) * -FLOOR_DB) / BARS;
				return el("i", { "data-zone": db <= -30 ? "soft" : db <= -12 ? "good" : "loud" });
			}),
		);
		this.microphone.addEventListener("level", (/** @type {any} */ { detail }) => this.tellLevel(detail));
		for (const button of at("camera-shape").children)
			button.addEventListener("click", () => this.shape(button.dataset.shape));
		for (const [id, field] of Object.entries(NUMBERS)) {
			at(id).addEventListener("change", () => {
				const value = Number(at(id).value.replace("%", "").replace(",", ".").trim());
				if (Number.isFinite(value) && at(id).value.trim()) this.placing.put({ [field]: value });
				at(id).dataset.told = at(id).value;
				this.numbers();
			});
		}
		at("camera-whole").addEventListener("resize", () => this.numbers());
		navigator.mediaDevices?.addEventListener("devicechange", () => this.draw());
		this.draw();
		this.numbers();
		this.openLast();
	}

	/** Chooses the last devices again: at the first press or key, since a browser opens no sound before one. */
	openLast() {
		const found = Promise.all([lastDevice("microphone"), machineDevices("audioinput")]).then(([id, machine]) =>
			id === PRACTICE || machine.some((one) => one.id === id) ? id : null,
		);
		const begin = new AbortController();
		const open = async () => {
			begin.abort();
			const id = await found;
			if (id && !this.microphone.open) this.use(this.microphone, id, "microphone");
		};
		for (const kind of ["pointerup", "keydown"]) addEventListener(kind, open, { signal: begin.signal });
	}

	async draw() {
		const [microphones, cameras] = await Promise.all([machineDevices("audioinput"), machineDevices("videoinput")]);
		this.list(
			"microphones",
			[...microphones, { id: PRACTICE, name: "Practice microphone" }],
			this.microphone,
			"microphone",
		);
		this.list("cameras", [...cameras, { id: PRACTICE, name: "Practice camera" }], this.camera, "camera");
	}

	list(/** @type {string} */ id, /** @type {any} */ entries, /** @type {any} */ device, /** @type {string} */ what) {
		at(id).replaceChildren(
			...entries.map((/** @type {any} */ entry) =>
				el(
					"label",
					{},
					el("input", {
						type: "radio",
						name: id,
						value: entry.id,
						checked: device.kind === entry.id,
						onchange: () => this.use(device, entry.id, what),
					}),
					entry.name,
				),
			),
		);
	}

	async use(/** @type {any} */ device, /** @type {string} */ id, /** @type {string} */ what) {
		try {
			if (await device.use(id)) rememberDevice(what, id);
			if (what === "camera" && this.placing.placement.shape === "off") this.placing.put({ shape: "round" });
		} catch (error) {
			toast(refusal(error, what), { wrong: true });
		}
		await this.draw();
		this.numbers();
		this.changed();
	}

	async shape(/** @type {string} */ shape) {
		this.placing.put({ shape: /** @type {CameraPlacement["shape"]} */ (shape) });
		if (shape === "off") this.camera.leave();
		else if (!this.camera.open) await this.use(this.camera, PRACTICE, "camera");
		await this.draw();
		this.numbers();
	}

	numbers() {
		const { placement } = this.placing;
		for (const [id, field] of Object.entries(NUMBERS)) {
			// What is being typed stays, also where a camera that has just come is told meanwhile.
			if (at(id) === document.activeElement && at(id).value !== (at(id).dataset.told ?? "")) continue;
			const pct = /** @type {any} */ (placement)[field];
			at(id).value = `${pct} %`;
			at(id).dataset.told = at(id).value;
		}
		at("camera-sees").hidden = placement.shape === "off";
		at("camera-sees").dataset.shape = placement.shape;
		const { videoWidth: width, videoHeight: height } = at("camera-whole");
		at("camera-sees").toggleAttribute("data-tall", width < height * (placement.shape === "round" ? 1 : 4 / 3));
		at("camera-whole-words").textContent = WHOLE[placement.shape] ?? "";
		at("camera-numbers").hidden = placement.shape === "off" || placement.shape === "apart";
		for (const button of at("camera-shape").children)
			button.setAttribute("aria-pressed", button.dataset.shape === placement.shape);
	}

	tellLevel(/** @type {any} */ { now_db: nowDb, mean_db: meanDb, peak_db: peakDb, settled, silent }) {
		const lit = Math.round(((nowDb - FLOOR_DB) / -FLOOR_DB) * BARS);
		[...at("level").children].forEach((bar, number) => bar.toggleAttribute("data-lit", number < lit));
		at("level").setAttribute("aria-valuenow", Math.round(nowDb));
		if (performance.now() - this.toldAt < WORDS_EVERY_MS) return;
		this.toldAt = performance.now();
		const words = silent ? "Nothing is heard" : settled ? levelWords(meanDb, peakDb) : "Listening";
		at("level-words").textContent = words;
		at("level-words").dataset.good = words === "Good level" ? "yes" : "";
		at("level-db").textContent = settled
			? `${Math.round(meanDb)} dB, peak ${Math.round(peakDb)}`.replaceAll("-", "−")
			: "";
	}
}
