// Record: the voice of a section, with a camera if wanted, recorded slide by slide with every cue. Each second is
// stored as it comes.
import { restLayer } from "../player/frame-state.js";
import { Painter } from "../player/painter.js";
import { stayAwake } from "../player/keys.js";
import { Camera } from "../record/camera.js";
import { CameraEnds } from "../record/camera-ends.js";
import { CameraPlaces } from "../record/camera-places.js";
import { wireControls } from "../record/controls.js";
import { choosing } from "../record/selecting.js";
import { Courier, keptWords } from "../record/uploader.js";
import { Devices } from "../record/devices.js";
import { Hearing } from "../record/playback.js";
import { Lines } from "../record/lines.js";
import { Microphone } from "../record/microphone.js";
import { Peaks } from "../record/peaks.js";
import { Placing } from "../record/placing.js";
import { drawSections } from "../record/sections.js";
import { Take } from "../record/take.js";
import { drawComing, drawNotes, drawStops } from "../record/status-text.js";
import { drawSum, drawTransport, drawWaits, progressWords } from "../record/transport.js";
import { later } from "../ui/lazy-modules.js";
import { newId } from "../ui/element.js";
import { PacedStatus } from "../ui/progress-line.js";
import { get, post, startData } from "../ui/requests.js";
import { clockText } from "../ui/times.js";
import { toast } from "../ui/toast.js";

const at = (/** @type {string} */ id) => document.getElementById(id);
const COUNTS_S = [3, 5, 0];
const TICK_MS = 100;
const LOOK_MS = 2000;
const data = startData();
const base = `/shows/${data.show_id}`;
const page = document.querySelector(".record");
const surface = document.querySelector("#record-picture svg.show");
const writer = newId();
at("record-picture").style.setProperty("--ratio", data.frame.width_px / data.frame.height_px);
const keeping = later(() => import("../record/sections-foot.js"));

const microphone = new Microphone();
const camera = new Camera(at("camera-video"), at("camera-whole"));
const courier = new Courier(base, writer);
const hearing = new Hearing(base, surface);
const peaks = new Peaks(base, () => drawLines());
const placing = new Placing(
	at("camera-place"),
	at("record-picture"),
	data.frame,
	{ shape: "off", across_pct: 86, down_pct: 74, size_pct: 20 },
	() => {
		devices.numbers();
		places.ask();
	},
);
const places = new CameraPlaces({ base, placing, section: () => section?.id, said: at("camera-aside") });
const devices = new Devices({ microphone, camera, placing, lost, changed: tellTransport });
let { section } = data;
/** @type {any} */
let show = null;
/** @type {any} */
let slideId = null;
/** @type {any} */
let take = null;
const { pick, keep, remove, moveSection } = choosing({
	base,
	data,
	get section() {
		return section;
	},
	get take() {
		return take;
	},
	load,
	leaveTake,
	drawLines,
	drawList: () => drawList(),
	tell,
	tellSum,
	slideOf: (/** @type {string} */ id) => slideOf(id),
});
const lines = new Lines(at("lines"), {
	pick,
	hear,
	choose,
	remove,
	peaksOf: (/** @type {string} */ id) => peaks.of(id),
});
/** @type {"idle" | "paused" | "counting" | "recording" | "hearing"} */
let mode = /** @type {any} */ ("idle");
/** The mode that was announced last. */
let saidMode = "";
const progress = new PacedStatus(60_000);
const cameraEnds = new CameraEnds();
let countIn = COUNTS_S[0];
let looked = 0;
/** Whether the present slide starts again once its take is there. */
let again = false;
/** False while a recording is about to start. */
let resting = true;
/** The slide and beat that are played now. */
/** @type {any} */
let heard = null;

const slideOf = (/** @type {string} */ id) =>
	section.slides.find((/** @type {RecordedSlideLine} */ slide) => slide.id === id);
const leaving = () =>
	Object.fromEntries(section.slides.map((/** @type {RecordedSlideLine} */ slide) => [slide.id, slide.cues.at(-1)]));
const openTake = () =>
	section.takes.findLast((/** @type {any} */ entry) => entry.progress === "paused" || entry.progress === "interrupted");

/* What there is. */
async function choose(/** @type {string} */ id) {
	if (mode === "recording" || mode === "counting") {
		toast("A take is being recorded. Pause or stop it first.");
		return;
	}
	slideId = id;
	if (mode === "paused" && take?.laid && take.player.state && take.show.slides[take.player.state.index].id !== id)
		take.player.goTo(take.show.slides.findIndex((/** @type {RecordedSlideLine} */ slide) => slide.id === id));
	tell();
}

async function chooseSection(/** @type {string} */ id) {
	if (mode === "recording" || mode === "counting") {
		toast("A take is being recorded. Pause or stop it first.");
		return;
	}
	await leaveTake();
	await load(id);
	history.replaceState(null, "", `?section=${encodeURIComponent(id)}`);
}

async function load(/** @type {string} */ id, fresh = null) {
	const state = fresh ?? (await get(`${base}/record.json?section=${encodeURIComponent(id)}`));
	Object.assign(data, state);
	section = state.section;
	await open();
}

/** Opens a section: its show, and the take that was left open in it. */
async function open() {
	if (!section) {
		at("kept-first").textContent = "This show has no slides yet.";
		return;
	}
	show = await get(`${base}/record/show.json?section=${encodeURIComponent(section.id)}`);
	if (take || busy() || hearing.key) {
		drawLines();
		return;
	}
	const left = openTake();
	mode = left ? "paused" : "idle";
	slideId = left?.pieces.at(-1)?.slide_id ?? section.slides[0].id;
	if (!slideOf(slideId)) slideId = section.slides[0].id;
	drawAll();
}

const drawList = () =>
	drawSections(data.sections, section.id, { choose: chooseSection, move: data.may_edit ? moveSection : null });

function drawAll() {
	drawList();
	places.ask();
	at("play-all").hidden = data.sections.length < 2 || !data.may_edit;
	keeping.get().then(({ drawFoot }) => drawFoot({ base, data, section, changed: () => load(section.id) }));
	drawLines();
	tell();
}

/** The section with the recording in progress. */
function living() {
	if (!take) return section;
	const now = {
		id: take.id,
		number: take.number,
		length_ms: take.nowMs,
		cues: take.events.filter((/** @type {any} */ event) => event.event === "cued").length,
		progress: take.going ? "recording" : "paused",
		not_fitting: [],
		pieces: take.pieces,
	};
	const picks = { ...section.picks };
	for (const piece of take.pieces)
		if (!take.rivals.has(`${piece.slide_id}/${piece.number}`)) picks[piece.slide_id] = [take.id, piece.number];
	return {
		...section,
		takes: [...section.takes.filter((/** @type {any} */ entry) => entry.id !== take.id), now],
		picks,
	};
}

function place() {
	if (hearing.key) return hearing.head();
	if (!take?.laid) return null;
	const { piece } = take;
	return piece ? { slide_id: piece.slide_id, at_ms: take.nowMs - piece.from_ms } : null;
}

function drawLines() {
	if (!section) return;
	lines.draw(living(), place(), slideId);
	tellSum();
}

function tellSum() {
	const { takes, picks, slides } = living();
	drawSum(
		slides.map((/** @type {RecordedSlideLine} */ slide) => lines.pieceOf(takes, picks[slide.id])?.lasts_ms ?? null),
		slides.reduce((/** @type {number} */ all, /** @type {RecordedSlideLine} */ slide) => all + slide.plan_ms, 0),
		busy(),
	);
}

/* What is told of the present slide and beat. */
function tell() {
	const index = show.slides.findIndex((/** @type {RecordedSlideLine} */ slide) => slide.id === slideId);
	const slide = slideOf(slideId);
	const next = section.slides[section.slides.indexOf(slide) + 1] ?? null;
	const beat = heard ? heard.beat : take?.laid ? take.player.state.beat : 0;
	const waits = take?.piece?.waits ?? {};
	const waited = new Map(
		slide.cues
			.slice(0, -1)
			.flatMap((/** @type {string} */ id, /** @type {number} */ number) =>
				number < beat && id in waits ? [[number + 1, waits[id]]] : [],
			),
	);
	if (!take && !hearing.key)
		new Painter(surface, show).paint({ layers: [restLayer(show, Math.max(index, 0), 0)], blackness: 0 });
	drawStops(slide, beat, next);
	drawNotes(slide, beat, waited);
	drawComing(slide, beat, next);
	Object.assign(page.dataset, { slide: slideId, beat, mode });
	lines.head(place());
	lines.chosen(slideId);
	places.see({ slideId });
	tellTransport();
}

function tellTransport() {
	const left = take ?? openTake();
	const number = left?.number ?? Math.max(0, ...section.takes.map((/** @type {any} */ entry) => entry.number)) + 1;
	const slide = slideOf(slideId);
	const atMs = take ? take.nowMs : (left?.length_ms ?? 0);
	const piece = take ? take.piece : left?.pieces.at(-1);
	const goesOn = Boolean(mode === "paused" && piece && piece.slide_id === slideId && !piece.whole);
	const ready = microphone.open;
	drawTransport({ mode, number, atMs, slide, piece: piece ?? null, goesOn, left: Boolean(left), ready });
	sayProgress(atMs, slide);
	page.dataset.mode = mode;
}

/** Announces the recorded time: at the start, each minute, and at a pause. */
function sayProgress(/** @type {number} */ atMs, /** @type {RecordedSlideLine} */ slide) {
	if (saidMode !== mode) progress.rest();
	saidMode = mode;
	if (mode === "recording" || mode === "paused") progress.say(progressWords(atMs, slide, mode === "recording"));
}

function tick() {
	if (mode === "recording") {
		tellTransport();
		const { piece } = take;
		if (piece && !lines.grow(take, piece)) drawLines();
		lines.head(place());
		const slide = slideOf(slideId);
		drawWaits({
			phase: take.player.moment().phase,
			beat: take.player.state.beat,
			beats: slide.beats.length,
			overMs: piece ? piece.lasts_ms - slide.plan_ms : 0,
		});
	}
	if (hearing.key) {
		lines.head(hearing.head());
		page.dataset.heard = hearing.head()?.slide_id ?? "";
	}
	tellKept();
	// What somebody else records is seen to come.
	if (
		!take &&
		mode !== "counting" &&
		mode !== "hearing" &&
		(data.sections.some((/** @type {any} */ line) => line.state.mark === "recording") ||
			cameraEnds.waits(section.takes)) &&
		Date.now() - looked > LOOK_MS
	) {
		looked = Date.now();
		look().catch(() => undefined);
	}
}

/** Loads the present state, unless somebody has started to record or to listen in the meantime. */
async function look() {
	const { id } = section;
	const state = await get(`${base}/record.json?section=${encodeURIComponent(id)}`);
	if (!resting || take || busy() || hearing.key || section.id !== id) return;
	await load(id, state);
	cameraEnds.tell(section.takes, ({ slide_id: ended }) => ({
		number: slideOf(ended).number,
		again: () => {
			choose(ended);
			go();
		},
	}));
}

function tellKept() {
	const number = take?.number ?? openTake()?.number;
	const [first, second] = courier.id
		? keptWords(courier, number ?? "", clockText)
		: microphone.open
			? ["Ready. Every second that is recorded is kept on the server as it comes.", ""]
			: [
					"Choose a microphone first; the practice one speaks by itself.",
					"Nothing is recorded before you press Record.",
				];
	if (at("kept-first").textContent !== first) at("kept-first").textContent = first;
	at("kept-second").textContent = second;
	page.dataset.trouble = courier.trouble;
}

/* Recording. */
async function count() {
	if (!countIn) return;
	mode = "counting";
	tellTransport();
	at("count").hidden = false;
	for (let left = countIn; left > 0 && mode === "counting"; left -= 1) {
		at("count").textContent = left;
		await new Promise((done) => {
			setTimeout(done, 1000);
		});
	}
	at("count").hidden = true;
}

async function go() {
	if (at("record-go").disabled) return;
	hearing.stop();
	resting = false;
	try {
		if (!take) {
			const left = openTake();
			const begun = await post(`${base}/record/begin`, {
				section: section.id,
				writer,
				go_on: left?.id ?? null,
				placement: placing.placement,
			});
			take = new Take({ show, surface, microphone, camera, courier, leaving: leaving() }, begun);
			take.rivals = new Set(
				take.pieces
					.filter((/** @type {Piece} */ piece) => {
						const picked = section.picks[piece.slide_id];
						return picked && (picked[0] !== take.id || picked[1] !== piece.number);
					})
					.map((/** @type {Piece} */ piece) => `${piece.slide_id}/${piece.number}`),
			);
			take.addEventListener("moved", () => {
				slideId = show.slides[take.player.state.index].id;
				tell();
				if (mode === "recording") drawLines();
			});
			take.addEventListener("done", () => stop());
			if (!begun.bytes) peaks.fresh(take.id);
			await take.lay(slideId);
			if (again) take.restart();
			again = false;
		}
		await count();
		if (countIn && mode !== "counting") return;
		take.go();
		mode = "recording";
		document.activeElement?.blur();
		drawLines();
		tell();
	} catch (error) {
		await leaveTake();
		mode = openTake() ? "paused" : "idle";
		tellTransport();
		toast(error.message, { wrong: true });
	} finally {
		resting = true;
	}
}

async function pause() {
	if (mode === "counting") {
		mode = "paused";
		tellTransport();
		return;
	}
	if (mode !== "recording") return;
	mode = "paused";
	const safe = take.pause();
	drawLines();
	tell();
	await safe;
	tellKept();
	const fresh = await get(`${base}/record.json?section=${encodeURIComponent(section.id)}`).catch(() => null);
	if (!fresh || busy()) return;
	data.sections = fresh.sections;
	drawList();
}

async function stop() {
	if (mode !== "recording" && mode !== "paused") return;
	mode = "idle";
	const left = openTake();
	if (take) await take.pause("ended");
	else if (left) {
		// It was left open in an earlier window: it is taken over, so as to end it.
		const begun = await post(`${base}/record/begin`, {
			section: section.id,
			writer,
			go_on: left.id,
			placement: left.placement,
		});
		courier.begin(begun);
		courier.state = "ended";
		await courier.flush();
	}
	if (courier.trouble === "line" || courier.trouble === "full") {
		mode = "paused";
		tell();
		return;
	}
	await leaveTake();
	cameraEnds.expect();
	await load(section.id);
}

function restart() {
	if (mode === "recording") {
		pause().then(() => {
			take.restart();
			go();
		});
		return;
	}
	if (take?.laid) {
		take.restart();
		tell();
		drawLines();
	} else {
		slideId = openTake().pieces.at(-1).slide_id;
		again = true;
		go();
	}
}
async function leaveTake() {
	if (!take) return;
	take.leave();
	take = null;
}

function lost(/** @type {any} */ what) {
	if (mode === "recording") pause();
	toast(
		`The ${what} was pulled out. What was recorded until then is kept; plug it in again, or choose another one, and go on.`,
		{ wrong: true, stays: false },
	);
}

courier.addEventListener("told", () => {
	if ((courier.trouble === "full" || courier.trouble === "taken") && mode === "recording") {
		pause();
		toast(courier.words, { wrong: true });
	}
	tellKept();
});
microphone.addEventListener("samples", ({ detail }) => {
	courier.hear(detail);
	if (take) peaks.hear(take.id, detail);
});
microphone.addEventListener("lost", () => {
	lost("microphone");
	devices.draw();
});
camera.addEventListener("part", ({ detail }) => courier.see(detail));
camera.addEventListener("lost", () => {
	lost("camera");
	devices.draw();
});

/* Hearing. */
const busy = () => mode === "recording" || mode === "counting";

hearing.addEventListener("begun", () => {
	mode = "hearing";
	at("play-picked").lastElementChild.textContent = "Stop";
	// What was recorded is looked at, with the camera as it was then.
	page.dataset.looking = "yes";
	tellTransport();
});
hearing.addEventListener("reached", ({ detail }) => {
	heard = detail;
	if (!slideOf(detail.slide_id)) return;
	slideId = detail.slide_id;
	tell();
});
hearing.addEventListener("ended", () => {
	heard = null;
	delete page.dataset.looking;
	if (mode === "hearing") mode = openTake() ? "paused" : "idle";
	at("play-picked").lastElementChild.textContent = "Play the selected takes";
	tell();
});
hearing.addEventListener("changed", () => lines.head(place()));

/** Leaves a paused take, to be continued later. */
async function putDown() {
	if (!take) return;
	await leaveTake();
	await load(section.id);
}

async function hear(/** @type {RecordedTake} */ row, /** @type {Piece} */ piece) {
	if (busy()) return;
	await putDown();
	hearing.piece(row, piece).catch((error) => {
		hearing.stop();
		toast(`This piece cannot be heard: ${error.message}`, { wrong: true });
	});
}

/** @param {string} what a section, or "all" */
async function playPicked(what = section.id) {
	if (busy()) return;
	if (hearing.key) {
		hearing.stop();
		return;
	}
	await putDown();
	hearing.picked(what).catch((error) => {
		hearing.stop();
		toast(error.message, { wrong: true });
	});
}

/* Going about it. */
wireControls(
	{
		"record-go": go,
		pause,
		stop,
		"next-cue": () => take?.next(),
		"restart-slide": restart,
		"play-picked": () => playPicked(),
		"play-all": () => playPicked("all"),
		"keep-picked": keep,
		"count-in": () => {
			countIn = COUNTS_S[(COUNTS_S.indexOf(countIn) + 1) % COUNTS_S.length];
			at("count-in-s").textContent = countIn ? `${countIn} s` : "None";
		},
	},
	{
		" ": () => (mode === "recording" ? take.next() : mode === "counting" ? null : go()),
		ArrowRight: () => take?.next(),
		PageDown: () => take?.next(),
		".": () => (mode === "recording" ? pause() : go()),
		Escape: pause,
	},
);
surface.addEventListener("click", () => take?.next());
at("play-section").addEventListener("click", (/** @type {Event} */ event) => {
	event.preventDefault();
	location.href = `${base}/play?from=${encodeURIComponent(section.slides[0].id)}`;
});
addEventListener("beforeunload", (event) => {
	if (mode === "recording" || courier.waitingMs > 0) event.preventDefault();
});
addEventListener("resize", drawLines);
stayAwake();
setInterval(tick, TICK_MS);
open()
	.then(() => {
		page.dataset.ready = "yes";
		tellKept();
	})
	.catch((error) => toast(error.message, { wrong: true }));
