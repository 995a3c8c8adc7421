// A short recording by camera or microphone, checked before it is used.
import { el, icon, newId } from "../ui/element.js";
import { post } from "../ui/requests.js";
import { clockText } from "../ui/times.js";
import { loadSheet } from "../ui/sheets.js";
import { toast } from "../ui/toast.js";
import { Camera } from "./camera.js";
import { Courier } from "./uploader.js";
import { levelWords } from "./level.js";
import { Microphone, machineDevices, refusal } from "./microphone.js";
import { closeDevices, lastDevice, rememberDevice } from "./opened-devices.js";
import { PRACTICE } from "./practice.js";
import { smallPlayer } from "../ui/small-player.js";

const COUNT_S = 3;
const TITLES = {
	greeting: "A greeting before the show",
	farewell: "A farewell after the show",
	slide: "A clip or voice for this slide",
};
const PUT = { greeting: "Put it before the show", farewell: "Put it after the show", slide: "Put it on this slide" };

/**
 * Opens the recorder over the page.
 * @param {{base: string, role: "greeting"|"farewell"|"slide", slideId?: string | null, viewing?: string | null, used:
 * (reply: any) => void, shelved?: (reply: any) => void}} about
 * `used` gets what the server answered when it was put somewhere, `shelved` when it came onto the shelf
 */
export async function recordClip({ base, role, slideId = null, viewing = null, used, shelved = () => undefined }) {
	await loadSheet("recorder");
	const video = el("video", { muted: true, playsinline: true });
	video.muted = true;
	const [microphone, camera, courier] = [
		new Microphone(),
		new Camera(/** @type {any} */ (video)),
		new Courier(base, newId()),
	];
	const said = el("p", { class: "said", role: "status" });
	const wrong = el("p", { class: "wrong", role: "alert" });
	const clock = el("b", { class: "big-clock", role: "timer" }, "0:00.0");
	const count = el("div", { class: "count", hidden: true });
	const heard = el("div", { class: "after", hidden: true });
	const choice = (/** @type {string} */ label, /** @type {any} */ entries) =>
		el(
			"label",
			{},
			label,
			el(
				"select",
				{ class: "field" },
				entries.map((/** @type {any} */ [value, words]) => el("option", { value }, words)),
			),
		);
	const [microphones, cameras] = await Promise.all([machineDevices("audioinput"), machineDevices("videoinput")]);
	const listed = (/** @type {any} */ entries, /** @type {any} */ what) => [
		["none", what === "camera" ? "No camera, voice only" : "Choose a microphone"],
		...entries.map((/** @type {any} */ { id, name }) => [id, name]),
		[PRACTICE, `Practice ${what}`],
	];
	const [withVoice, withCamera] = [
		choice("Microphone", listed(microphones, "microphone")),
		choice("Camera", listed(cameras, "camera")),
	];
	const begin = el("button", { class: "push main", disabled: true }, "Record");
	const stop = el("button", { class: "push", disabled: true }, "Stop");
	const again = el("button", { class: "push", hidden: true }, "Again");
	const use = el("button", { class: "push main", hidden: true }, PUT[role]);
	const dialog = el(
		"dialog",
		{ class: "clip-recorder", "aria-label": TITLES[role] },
		el(
			"header",
			{ class: "row" },
			el("h2", {}, TITLES[role]),
			el("button", { class: "push bare ml-auto", "aria-label": "Close", onclick: () => leave() }, icon("x")),
		),
		el("div", { class: "seen dark" }, video, heard, count),
		el("div", { class: "pair-of" }, withVoice, withCamera),
		wrong,
		said,
		el("footer", { class: "row" }, clock, again, use, begin, stop),
	);
	/** @type {any} */
	let recording = null;
	let began = 0;
	let ticking = 0;

	async function useDevice(/** @type {any} */ device, /** @type {any} */ select, /** @type {any} */ what) {
		wrong.textContent = "";
		try {
			if (select.value === "none") device.leave();
			else {
				const id = select.value;
				if (await device.use(id)) rememberDevice(what, id);
			}
		} catch (error) {
			wrong.textContent = refusal(error, what);
			select.value = "none";
		}
		video.hidden = !camera.open;
		// A greeting is seen; onto a slide a voice will do.
		begin.disabled = !microphone.open || (role !== "slide" && !camera.open);
		said.textContent = !microphone.open
			? "Choose a microphone; the practice one speaks by itself."
			: role !== "slide" && !camera.open
				? "Choose a camera; the practice one moves by itself."
				: camera.open
					? ""
					: "Only your voice is recorded.";
	}
	const [voiceSelect, cameraSelect] = [withVoice, withCamera].map((label) => label.querySelector("select"));
	voiceSelect.addEventListener("change", () => useDevice(microphone, voiceSelect, "microphone"));
	cameraSelect.addEventListener("change", () => useDevice(camera, cameraSelect, "camera"));
	microphone.addEventListener("level", ({ detail }) => {
		if (detail.settled && !recording)
			said.textContent = `${levelWords(detail.mean_db, detail.peak_db)}, ${Math.round(detail.mean_db)} dB`.replace(
				"-",
				"−",
			);
	});
	microphone.addEventListener("samples", ({ detail }) => {
		if (recording && !recording.film) courier.hear(detail);
	});
	camera.addEventListener("part", ({ detail }) => {
		if (recording) courier.see(detail);
	});
	for (const [what, device] of Object.entries({ microphone, camera }))
		device.addEventListener("lost", () => {
			if (recording) end();
			wrong.textContent = `The ${what} was pulled out. What was recorded until then is kept.`;
		});
	courier.addEventListener("told", () => {
		said.textContent = courier.trouble
			? courier.words || "The line is cut; what was recorded is kept here and sent again by itself."
			: recording
				? `${clockText(performance.now() - began)} so far, every second kept`
				: said.textContent;
	});

	begin.addEventListener("click", async () => {
		begin.disabled = true;
		[voiceSelect, cameraSelect].forEach((select) => {
			select.disabled = true;
		});
		heard.hidden = true;
		again.hidden = use.hidden = true;
		try {
			const begun = await post(`${base}/record/clip`, { writer: courier.writer });
			for (let left = COUNT_S; left; left -= 1) {
				Object.assign(count, { hidden: false, textContent: left });
				await new Promise((done) => {
					setTimeout(done, 1000);
				});
				if (!dialog.open) return;
			}
			count.hidden = true;
			courier.begin(begun);
			recording = { id: begun.id, film: camera.open };
			if (camera.open) camera.beginPiece(0, 0, microphone.stream());
			else microphone.record(microphone.frame);
			began = performance.now();
			ticking = setInterval(() => {
				clock.textContent = clockText(performance.now() - began);
			}, 100);
			stop.disabled = false;
			dialog.dataset.state = "recording";
		} catch (error) {
			count.hidden = true;
			wrong.textContent = error.message;
			begin.disabled = false;
		}
	});

	/** @type {any} */
	let ended = null;
	async function end() {
		if (!recording || ended === recording) return;
		ended = recording;
		stop.disabled = true;
		clearInterval(ticking);
		if (recording.film) await camera.endPiece();
		else await microphone.halt(microphone.frame);
		courier.state = "ended";
		const whole = await courier.flush();
		courier.end();
		const address = `${base}/record/${recording.id}/clip`;
		if (whole) await shelve();
		if (whole) {
			heard.replaceChildren(
				smallPlayer({ src: address, name: "what was recorded", film: Boolean(recording.film), preload: "auto" }),
			);
			heard.hidden = false;
			video.hidden = true;
			said.textContent = "Look at it before it is used.";
			dialog.dataset.state = "recorded";
		}
		again.hidden = use.hidden = !whole;
		begin.hidden = stop.hidden = whole;
	}
	/** The recording lies on the shelf before anybody decides about it. */
	async function shelve() {
		try {
			const reply = await post(`${base}/record/${recording.id}/place`, { role: "shelf", viewing });
			shelved(reply);
			said.textContent = "It lies on the shelf.";
		} catch (error) {
			wrong.textContent = error.message;
		}
	}
	stop.addEventListener("click", end);
	// Esc and Close end a recording as Stop does; what was recorded is never thrown away by them.
	const leave = async () => {
		const had = Boolean(recording);
		await end();
		dialog.close();
		if (had) toast("What you recorded lies on the shelf.");
	};
	dialog.addEventListener("cancel", (event) => {
		event.preventDefault();
		leave();
	});

	again.addEventListener("click", () => {
		recording = null;
		heard.replaceChildren();
		heard.hidden = again.hidden = use.hidden = true;
		begin.hidden = stop.hidden = false;
		[voiceSelect, cameraSelect].forEach((select) => {
			select.disabled = false;
		});
		video.hidden = !camera.open;
		begin.disabled = false;
		clock.textContent = "0:00.0";
		dialog.dataset.state = "";
	});
	use.addEventListener("click", async () => {
		use.disabled = true;
		try {
			const reply = await post(`${base}/record/${recording.id}/place`, { role, slide_id: slideId, viewing });
			dialog.close();
			used(reply);
		} catch (error) {
			wrong.textContent = error.message;
			use.disabled = false;
		}
	});
	dialog.addEventListener("close", () => {
		clearInterval(ticking);
		courier.end();
		microphone.leave();
		camera.leave();
		microphone.context?.close();
		closeDevices();
		dialog.remove();
	});
	document.body.append(dialog);
	dialog.showModal();
	for (const [device, select, what] of [
		[microphone, voiceSelect, "microphone"],
		[camera, cameraSelect, "camera"],
	]) {
		const last = await lastDevice(what);
		if ([...select.options].some(({ value }) => value === last)) select.value = last;
		await useDevice(device, select, what);
	}
}
