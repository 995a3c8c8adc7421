// The Lectern: what only the presenter sees. It leads the House, times the run as a take, and shows what comes next.
import { Devices } from "../lectern/devices.js";
import { drawPaceLine } from "../lectern/pace-line.js";
import { Notes, drawArrivals, drawStops, waitingWords } from "../lectern/status-text.js";
import { wireTools } from "../lectern/tools.js";
import { Board } from "../player/ink-layer.js";
import { listen, stayAwake } from "../player/keys.js";
import { LocalLink } from "../player/screen-links.js";
import { goesOnAlone } from "../player/live.js";
import { Painter } from "../player/painter.js";
import { ShowPlayer } from "../player/player.js";
import { SharedRun } from "../player/shared-run.js";
import { restLayer } from "../player/frame-state.js";
import { Timing } from "../lectern/timing.js";
import { el } from "../ui/element.js";
import { keyOf, taken } from "../ui/free-keys.js";
import { get, startData } from "../ui/requests.js";
import { SOON_MS, endsAfterMs, paceWords, parseSlot, slipMs, slotWords } from "../ui/pace.js";
import { minutesText } from "../ui/times.js";
import { toast } from "../ui/toast.js";
import { countWords } from "../ui/wording.js";

const TICK_MS = 200;
const ANSWER_MS = 250;
const at = (/** @type {string} */ id) => document.getElementById(id);
const start = startData();
const base = `/shows/${start.show_id}`;
const asked = new URLSearchParams(location.search);
const page = document.querySelector(".lectern");

async function main() {
	const show = await get(`${base}/performance.json`);
	if (!show.slides.length) {
		at("now-name").textContent = "This show has no slides yet.";
		return;
	}
	const player = new ShowPlayer(show, document.querySelector("#now-picture svg.show"), { mode: "on cue" });
	const run = new SharedRun(player, { role: "lectern", revision: show.revision });
	const board = new Board(at("now-picture"), show.frame, start);
	const preview = new Painter(at("after-picture"), show);
	const notes = new Notes();
	const timing = new Timing({ base, player, board, number: start.next_take });
	// Where in the plan the run began.
	const from = () => show.starts_ms[player.first];
	const tools = wireTools(board, run, player, start.inks);

	/* What is now, and what comes. */
	const beats = (/** @type {number} */ index) => start.bars[index].beats;
	const nameOf = (/** @type {number} */ index) => `${index + 1}  ${show.slides[index].name || "Untitled"}`;
	const following = (/** @type {number} */ index) =>
		index + 1 < show.slides.length
			? nameOf(index + 1)
			: { loop: `Again from ${nameOf(0)}`, black: "Black", hold: "The end: this stays" }[
					/** @type {Core.Show["end"]} */ (show.end)
				];
	/** @type {any} */
	let peeked = null;
	function drawAfter() {
		const { index, beat } = player.state;
		const [slide, next] =
			peeked !== null
				? [peeked, 0]
				: player.ready
					? [index, 0]
					: beat + 1 < beats(index).length
						? [index, beat + 1]
						: [index + 1, 0];
		const there = slide < show.slides.length ? slide : show.end === "loop" ? 0 : null;
		at("after-title").textContent =
			peeked === null ? (player.ready ? "When you begin" : "After the next cue") : `A look at ${nameOf(peeked)}`;
		at("after-beat").textContent = peeked === null && there === index ? next : "";
		preview.paint({
			layers: [restLayer(show, there ?? index, there === null ? beat : next)],
			blackness: there === null && show.end === "black" ? 1 : 0,
		});
	}
	let told = "";
	function tellPlace() {
		const { index, beat, over } = player.state;
		const { ready } = player;
		// That a wait has opened changes nothing here: drawn anew only where something else is told, or what has the focus
		// would lose it.
		const now = `${index}/${beat}/${ready}/${over}/${goesOnAlone(show, player.state)}`;
		if (told === now) return;
		told = now;
		page.dataset.phase = ready ? "ready" : over ? "over" : "running";
		at("next-cue").firstChild.data = ready ? "Begin " : "Next cue ";
		const bar = start.bars[index];
		Object.assign(page.dataset, { slide: bar.id, beat });
		at("now-name").textContent = nameOf(index) + (bar.given_to ? ` · ${bar.given_to}` : "");
		board.show(bar.id);
		drawStops(bar, ready ? -1 : beat, following(index), (number) => player.standAt(index, number));
		const coming = ready ? bar.beats[0] : (bar.beats[beat + 1] ?? null);
		const planned = coming?.planned_ms ?? show.starts_ms[index + 1] ?? show.length_ms;
		drawArrivals(coming, following(index), waitingWords(show, player.state, ready, planned));
		notes.show(bar, ready ? -1 : beat);
		drawAfter();
		drawComing();
		at("voice").textContent = (show.voices ?? []).some((/** @type {any} */ voice) => voice.index === index)
			? show.voices_live
				? "speaks on this slide"
				: "silent when played on cue"
			: "none on this slide";
		const start_ms = show.starts_ms[index];
		at("music").textContent = show.music.some(
			(/** @type {any} */ span) => span.start_ms <= start_ms && span.end_ms > start_ms,
		)
			? "sounds on this slide"
			: "none on this slide";
	}

	/** @type {any} */
	let comingFrom = null;
	function drawComing() {
		const { index } = player.state;
		if (comingFrom === index) return;
		comingFrom = index;
		const focused = at("coming").contains(document.activeElement) ? document.activeElement?.dataset.number : null;
		const going = (/** @type {number} */ number) => {
			at("go").value = "";
			document.activeElement?.blur();
			player.goTo(number);
		};
		const peek = (/** @type {number | null} */ number) => {
			peeked = number;
			drawAfter();
		};
		at("coming").replaceChildren(
			...show.slides.map((/** @type {any} */ slide, /** @type {number} */ number) => {
				const { cues } = start.bars[number];
				const button = el(
					"button",
					{
						"data-number": number,
						"data-opens": start.bars[number].opens_section || null,
						title: start.bars[number].opens_section || null,
						"aria-current": number === index ? "true" : null,
						onclick: () => going(number),
					},
					el("b", {}, nameOf(number)),
					el("img", { src: start.bars[number].thumb, alt: "", loading: "lazy", width: 44, height: 25 }),
					el("span", {}, minutesText(slide.schedule.length_ms), el("i", {}, cues ? countWords(cues, "cue") : "no cue")),
				);
				for (const kind of ["pointerenter", "focus"]) button.addEventListener(kind, () => peek(number));
				for (const kind of ["pointerleave", "blur"]) button.addEventListener(kind, () => peek(null));
				return el("li", {}, button);
			}),
		);
		const next = at("coming").querySelector(`[data-number="${Math.min(index + 1, show.slides.length - 1)}"]`);
		at("coming").scrollLeft = next.offsetLeft - at("coming").offsetLeft;
		if (focused !== null) at("coming").querySelector(`[data-number="${focused}"]`)?.focus({ preventScroll: true });
	}

	/* Time. */
	// The slot's end is kept as an instant: a length counts from when it was typed.
	const slotKey = `ritornel-slot-${start.show_id}`;
	const kept = JSON.parse(sessionStorage.getItem(slotKey) || "null");
	at("slot").value = kept?.words ?? "";
	let slotEnds = kept?.ends ?? null;
	const takeSlot = () => {
		const now = new Date();
		const words = at("slot").value;
		const left = parseSlot(words, now.getHours() * 60 + now.getMinutes());
		const isClock = /[:.]|\d\s*[ap]m/i.test(words);
		slotEnds = left === null ? null : now.getTime() + left * 60_000 - (isClock ? now.getSeconds() * 1000 : 0);
		at("slot").toggleAttribute("aria-invalid", Boolean(words.trim()) && left === null);
		sessionStorage.setItem(slotKey, JSON.stringify({ words, ends: slotEnds }));
		tellTime();
	};
	at("slot").addEventListener("change", takeSlot);
	at("slot").addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
		event.stopPropagation();
		if (["Enter", "Escape"].includes(event.key)) at("slot").blur();
	});
	const slotLeftMs = (/** @type {number} */ now) => (slotEnds === null ? null : slotEnds - now);
	const two = (/** @type {number} */ number) => String(number).padStart(2, "0");
	const clockOf = (/** @type {Date} */ date) =>
		`${date.getHours()}:${two(date.getMinutes())}:${two(date.getSeconds())}`;
	function tellTime() {
		if (!player.running || !player.state) return;
		const elapsed = player.clock.now();
		const { index } = player.state;
		const { length_ms: length } = show.slides[index].schedule;
		const onSlide = Math.max(0, elapsed - player.state.began_ms);
		// A run that began in the middle is held against the plan from there on.
		/** @type {[number, number, number, number]} */
		const times = [show.starts_ms[index] - from(), length, onSlide, elapsed];
		const planned = show.length_ms - from();
		const ends = player.ready ? planned : endsAfterMs(planned, ...times);
		const now = Date.now();
		at("on-slide").textContent = player.ready
			? `${minutesText(length)} planned`
			: `On this slide for ${minutesText(onSlide)} of ${minutesText(length)}`;
		at("elapsed").textContent = minutesText(elapsed);
		at("planned").textContent = `elapsed, ${minutesText(planned)} planned`;
		at("pace").textContent = player.ready
			? "Ready"
			: player.state.over
				? "The show is over"
				: paceWords(slipMs(...times));
		// What is left is counted to where the section should end by the plan, or the slide where there are no sections.
		const section = start.sections.find((/** @type {any} */ entry) => show.starts_ms[index] < entry.ends_ms);
		const rest = section ? section.ends_ms - from() - elapsed : length - onSlide;
		at("left").textContent =
			player.ready || player.state.over
				? ""
				: `${minutesText(Math.abs(rest))} ${rest >= 0 ? "left for" : "over on"} this ${section ? "section" : "slide"}`;
		at("clock").textContent = clockOf(new Date(now));
		const left = slotLeftMs(now);
		at("slot-left").textContent = left === null ? "" : slotWords(left);
		at("slot-left").dataset.soon = left !== null && left <= SOON_MS ? "yes" : "";
		at("forecast").textContent = player.state.over
			? `It lasted ${minutesText(player.state.began_ms)}`
			: `${player.ready ? "Begun now" : "At this pace"} the show ends ${clockOf(new Date(now + ends - elapsed))}`;
		drawPaceLine(at("pace-line"), show, {
			arrivals: timing.arrivals,
			from_ms: from(),
			now_ms: elapsed,
			index,
			ends_ms: ends,
			slot_ms: left === null ? null : elapsed + left,
		});
	}

	/* The House, and other devices. */
	const devices = new Devices({ base, run, button: at("devices"), panel: at("devices-panel"), told: tellConnected });
	// The House sounds; where there is none, the Lectern does.
	const level = () => {
		if (player.sound) player.sound.levelDb = run.has("house") ? -60 : Number(at("level").value);
	};
	function tellConnected() {
		level();
		const house = [...run.others.values()].find((other) => other.role === "house");
		const words = [
			house
				? `House connected. It shows slide ${(house.index ?? 0) + 1}, beat ${house.beat ?? 0}`
				: "No House on this computer",
		];
		if (house?.silent) words.push("silent until somebody presses in it");
		const far = devices.state;
		if (far && !far.up) words.push("the line to other devices is cut; it is looked for again by itself");
		else if (far)
			words.push(`${far.following} device${far.following === 1 ? "" : "s"} follow${far.following === 1 ? "s" : ""}`);
		if (at("connected").textContent !== words.join(" · ")) at("connected").textContent = words.join(" · ");
		at("connected").dataset.house = house ? "yes" : "";
		at("open-house").firstChild.data = house ? "House is open " : "Open the House ";
	}
	/** @type {any} */
	let screen = null;
	const openHouse = () => {
		if (run.has("house")) {
			screen?.focus();
			toast("The House is open already.");
			return;
		}
		screen = window.open(start.house, `ritornel-house-${start.show_id}`, "popup,width=1280,height=720");
		if (!screen)
			toast(
				"The browser kept the House from opening. Let this page open windows, or open the House's address yourself: " +
					start.house,
				{ wrong: true },
			);
	};
	run.addEventListener("met", tellConnected);
	run.addEventListener("lost", (event) => {
		tellConnected();
		if (event.detail.role === "house") toast("The House was closed. The run goes on.");
	});
	run.addEventListener("adopted", () => {
		tellPlace();
		tellTime();
	});
	player.addEventListener("started", tellTime);
	run.addEventListener("hello", () => {
		run.say({ kind: "drawings", drawings: board.drawings });
		run.say({ kind: "level", db: Number(at("level").value) });
	});
	const acts = {
		next: () => player.next(),
		back: () => player.previous(),
		black: () => player.setBlack(!player.black),
	};
	run.addEventListener("other", (event) => {
		const { kind, act, index } = event.detail;
		if (kind === "press" && act === "go") player.goTo(index);
		else if (kind === "press") /** @type {any} */ (acts)[act]?.();
		else if (kind === "drawings") board.hear(event.detail);
	});
	at("level").addEventListener("input", () => {
		const db = Number(at("level").value);
		at("level-said").textContent = db <= -60 ? "silent" : `${db} dB`;
		run.say({ kind: "level", db });
		level();
	});

	/* Going about it. */
	async function end() {
		const take = await timing.finish();
		run.close();
		const back = asked.get("back");
		// A run that was begun in Compose ends there; what became of it is told there.
		if (take && back) sessionStorage.setItem("ritornel-note", "The run is kept as a take. You find it in Rehearse.");
		if (back) location.href = `${base}/?slide=${encodeURIComponent(back)}`;
		else location.href = take ? `${base}/rehearse` : `${base}/`;
	}
	const press = (/** @type {string} */ id, /** @type {any} */ act) =>
		at(id).addEventListener("click", () => {
			at(id).blur();
			act();
		});
	press("next-cue", () => player.next());
	press("back-one", () => player.previous());
	press("pause", () => (player.paused ? player.resume() : player.pause()));
	press("end-run", end);
	press("open-house", openHouse);
	press("larger", () => notes.resize(2));
	press("smaller", () => notes.resize(-2));
	press("help", async () => {
		const [{ openKeys }, { KEYS }] = await Promise.all([import("../ui/key-list.js"), import("../ui/page-keys.js")]);
		openKeys(...KEYS.lectern);
	});
	at("go").addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
		event.stopPropagation();
		if (event.key === "Escape") at("go").blur();
		if (event.key !== "Enter") return;
		const words = at("go").value.trim().toLowerCase();
		const index = /^\d+$/.test(words)
			? Number(words) - 1
			: show.slides.findIndex((/** @type {any} */ slide) => words && slide.name.toLowerCase().includes(words));
		if (index < 0 || index >= show.slides.length) {
			toast(`No slide is called “${at("go").value}”, and there are ${show.slides.length}.`, { wrong: true });
			return;
		}
		at("go").value = "";
		at("go").blur();
		player.goTo(index);
	});
	/** @type {{[key: string]: any}} */
	const keys = {
		s: tools.s,
		p: tools.p,
		e: tools.e,
		i: tools.i,
		k: tools.k,
		h: openHouse,
		t: () => timing.toggle(),
		T: () => timing.throwAway(),
		"+": () => notes.resize(2),
		"=": () => notes.resize(2),
		"-": () => notes.resize(-2),
		".": () => (player.paused ? player.resume() : player.pause()),
		"/": () => at("go").focus(),
	};
	addEventListener("keydown", (event) => {
		if (event.ctrlKey || event.metaKey || event.altKey || taken(event)) return;
		const act = keys[keyOf(event)];
		if (!act) return;
		event.preventDefault();
		act();
	});
	listen(player, at("now-picture"), {
		leave: () => {
			if (board.mode) board.setMode(null);
			else end();
		},
	});
	player.addEventListener("moment", tellPlace);
	stayAwake();

	/* Where the House is in a run already, the Lectern goes on with it; else it stands ready. */
	run.add(new LocalLink(`ritornel ${start.show_id}`, (message) => run.hear(message)));
	// A House that runs answers at once; where there is none, nobody does.
	await Promise.race([
		new Promise((done) => {
			run.addEventListener("adopted", done, { once: true });
		}),
		new Promise((done) => {
			setTimeout(done, ANSWER_MS);
		}),
	]);
	if (!player.running && !run.beginning) {
		const first = Math.max(
			0,
			show.slides.findIndex((/** @type {any} */ slide) => slide.id === asked.get("from")),
		);
		await player.begin(first, { ready: true });
		run.seq += 1;
		run.sayState();
	}
	setInterval(() => {
		tellTime();
		tellConnected();
	}, TICK_MS);
	new ResizeObserver(() => {
		tellTime();
		notes.hold();
	}).observe(page);
	page.dataset.ready = "yes";
	tellConnected();
	addEventListener("pagehide", () => run.close());
	addEventListener("pageshow", (event) => {
		if (event.persisted) location.reload();
	});
}

main().catch((error) => toast(error.message, { wrong: true }));
