// Rehearsing: a run on cue with notes and a clock. Every cue is timed, and the run becomes a take.
import { listen, stayAwake } from "../player/keys.js";
import { meterOf } from "../player/meter.js";
import { goesOnAlone } from "../player/live.js";
import { ShowPlayer } from "../player/player.js";
import { el, icon } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";
import { closeMenu } from "../ui/menu.js";
import { get, post, startData } from "../ui/requests.js";
import { paceWords, slipMs } from "../ui/pace.js";
import { clockText, minutesText, roundHalfUp } from "../ui/times.js";
import { toast } from "../ui/toast.js";

const at = (/** @type {string} */ id) => document.getElementById(id);
const data = startData();
const base = `/shows/${data.show_id}`;
const surface = document.querySelector(".run svg.show");
/** @type {any} */
let show = null;
/** @type {any} */
let player = null;
/** @type {any[]} */
let events = [];
let ticking = 0;
/** @type {() => void} */
let unlisten;

const idle = (/** @type {boolean} */ off) => {
	for (const id of ["back-one", "next-cue", "pause", "end-run"]) at(id).disabled = off;
};

async function prepare() {
	show = await get(`${base}/performance.json`);
	if (!show.slides.length) {
		at("now-name").textContent = "This show has no slides yet.";
		at("start-run").disabled = true;
		return;
	}
	const { restLayer } = await import("../player/frame-state.js");
	const { Painter } = await import("../player/painter.js");
	new Painter(surface, show).paint({ layers: [restLayer(show, 0, 0)], blackness: 0 });
	at("now-name").textContent = "Ready";
	at("now-place").textContent = `${show.slides.length} slides, planned ${minutesText(data.plan.length_ms)}`;
	at("coming").textContent = "Start a run, then press Space at each cue.";
	at("start-run").disabled = false;
}

async function start() {
	player = new ShowPlayer(show, surface, { mode: "on cue" });
	events = [];
	const whole = (/** @type {any} */ detail) =>
		Object.fromEntries(
			Object.entries(detail).map(([key, value]) => [
				key,
				typeof value === "number" ? Math.max(0, roundHalfUp(value)) : value,
			]),
		);
	player.addEventListener("arrived", (/** @type {Event} */ event) =>
		events.push({ event: "arrived", ...whole(event.detail) }),
	);
	player.addEventListener("cued", (/** @type {Event} */ event) =>
		events.push({ event: "cued", ...whole(event.detail) }),
	);
	player.addEventListener("moment", tell);
	player.addEventListener("paused", () => {
		at("pause").textContent = player.paused ? "Go on" : "Pause";
	});
	unlisten = listen(player, document.querySelector(".run"), { leave: end });
	stayAwake();
	at("start-run").disabled = true;
	await player.begin(0);
	document.querySelector(".run .meter")?.remove();
	if (player.sound) at("coming").after(meterOf(player));
	idle(false);
	document.activeElement?.blur();
	ticking = setInterval(tell, 200);
}

function tell() {
	if (!player?.running) return;
	const now = player.clock.now();
	const { index, beat } = player.state;
	const slide = show.slides[index];
	at("now-name").textContent = `${index + 1}  ${slide.name}`;
	at("now-place").textContent =
		`On this slide for ${clockText(now - player.state.began_ms)} of ${clockText(slide.schedule.length_ms)}`;
	at("elapsed").textContent = minutesText(now);
	at("planned").textContent = `of ${minutesText(show.length_ms)} planned`;
	if (at("notes").textContent !== slide.notes) at("notes").textContent = slide.notes;
	at("pace").textContent = paceWords(
		slipMs(show.starts_ms[index], slide.schedule.length_ms, now - player.state.began_ms, now),
	);
	const more = beat + 1 < slide.schedule.beats.length;
	const alone = goesOnAlone(show, player.state) ? "Goes on by itself. " : "";
	at("coming").textContent = more
		? `Next cue: beat ${beat + 1} of this slide`
		: alone +
			(index + 1 < show.slides.length
				? `Next: ${show.slides[index + 1].name}`
				: "The last beat. End the run when you are done.");
	document.querySelector(".rehearse").dataset.slide = slide.id;
	document.querySelector(".rehearse").dataset.beat = beat;
}

async function end() {
	if (!player?.running) return;
	const endedMs = Math.max(0, roundHalfUp(player.clock.now()));
	clearInterval(ticking);
	unlisten();
	player.stop();
	player = null;
	idle(true);
	try {
		const take = await post(`${base}/takes`, { events, ended_ms: endedMs });
		data.takes.unshift(take);
		toast(`Kept as ${take.name}, ${clockText(take.length_ms)}.`, { act: "Remove it", onact: () => remove(take) });
	} catch (error) {
		toast(error.message, {
			wrong: true,
			act: "Keep it again",
			onact: () =>
				post(`${base}/takes`, { events, ended_ms: endedMs }).then((take) => {
					data.takes.unshift(take);
					drawTakes();
				}),
		});
	}
	drawTakes();
	await prepare();
}

/** The result of an edit of the show's timing. */
async function retimed(/** @type {any} */ asked, /** @type {string} */ words) {
	try {
		const reply = await asked;
		data.plan = reply.plan;
		drawTakes();
		await prepare();
		toast([`${words}: ${clockText(reply.plan.length_ms)}.`, ...reply.notices].join(" "), {
			act: "Undo",
			onact: undoUse,
		});
	} catch (error) {
		toast(error.message, { wrong: true });
	}
}

const USES = [
	["own holds", "As the show's own holds", "Holds and lengths are written into the slides."],
	[
		"followed take",
		"As the take this show follows",
		"Only waits without a hold of their own last as they did. Another take can be followed later.",
	],
];

const use = (/** @type {any} */ take, /** @type {any} */ as) =>
	retimed(
		post(`${base}/takes/${take.number}/use`, { as }),
		as === "own holds" ? `The show now has the timing of ${take.name}` : `The show now follows ${take.name}`,
	);

function useMenu(/** @type {any} */ take) {
	const menu = el(
		"details",
		{ class: "together" },
		el("summary", { class: "push" }, "Use this timing"),
		el(
			"div",
			{},
			USES.map(([as, title, words]) =>
				el(
					"button",
					{
						class: "menu-choice",
						onclick: () => {
							menu.open = false;
							use(take, as);
						},
					},
					el("b", {}, title),
					el("span", {}, words),
				),
			),
		),
	);
	closeMenu(menu);
	return menu;
}

async function undoUse() {
	await post(`${base}/undo`, {});
	location.reload();
}

async function remove(/** @type {any} */ take) {
	const { in_bin: id } = await post(`${base}/takes/${take.number}/remove`);
	const index = Math.max(0, data.takes.indexOf(take));
	data.takes = data.takes.filter((/** @type {any} */ entry) => entry.number !== take.number);
	drawTakes();
	toast(`${take.name[0].toUpperCase()}${take.name.slice(1)} lies in the bin.`, {
		act: "Put it back",
		onact: async () => {
			await post(`${base}/bin/take/${id}/back`);
			data.takes.splice(index, 0, take);
			drawTakes();
		},
	});
}

const comparing = later(() => import("../rehearse/compare.js"));
let comparison = null;

async function compare() {
	const { Compare } = await comparing.get();
	comparison ??= new Compare({ base, node: at("compare"), changed: replan });
	await comparison.open();
}

async function replan() {
	data.plan = await get(`${base}/takes/plan.json`);
	drawTakes();
	await prepare();
}

function drawTakes() {
	const { plan, takes } = data;
	const heading = el(
		"section",
		{},
		el("h1", { class: "text-xl" }, "Takes"),
		el(
			"p",
			{ class: "said" },
			takes.length
				? `${takes.length} kept. The plan is ${clockText(plan.length_ms)} long.`
				: "None yet. Every run is kept here with the time of each cue; its timing can then become the show's.",
		),
		plan.follows
			? el(
					"p",
					{},
					`The waits follow ${plan.follows}. `,
					el(
						"button",
						{ class: "link", onclick: () => retimed(post(`${base}/takes/follow-none`), "The show follows no take") },
						"Follow none",
					),
				)
			: null,
		takes.length
			? el(
					"button",
					{ class: "push mt-2", onclick: compare },
					takes.length > 1 ? "Compare the takes" : "Look at it slide by slide",
				)
			: null,
	);
	at("takes").replaceChildren(heading, ...takes.map((/** @type {any} */ take) => section(take, plan)));
}

function section(/** @type {any} */ take, /** @type {any} */ plan) {
	const rows = plan.slides.map((/** @type {any} */ slide, /** @type {number} */ index) => {
		const seen = take.slides.find((/** @type {any} */ entry) => entry.id === slide.id);
		const diff = seen?.ms == null ? null : seen.ms - slide.ms;
		const holds = (seen?.holds_ms ?? [])
			.map((/** @type {number} */ ms) => (ms === null ? "–" : (ms / 1000).toFixed(1)))
			.join(", ");
		return el(
			"tr",
			{},
			el("th", { scope: "row" }, `${index + 1}  ${slide.name}`),
			el("td", {}, clockText(slide.ms)),
			el("td", {}, seen?.ms == null ? "not run" : clockText(seen.ms)),
			el(
				"td",
				{ class: diff !== null && Math.abs(diff) > 2000 ? "font-semibold text-plum" : "said" },
				diff === null ? "" : `${diff < 0 ? "−" : "+"}${clockText(Math.abs(diff))}`,
			),
			el("td", { class: "said" }, holds),
		);
	});
	return el(
		"section",
		{ "data-take": take.number },
		el(
			"div",
			{ class: "row mb-2" },
			el("h2", { class: "text-lg" }, `Take ${take.number}`),
			el("span", { class: "said" }, clockText(take.length_ms)),
			take.drawings
				? el(
						"a",
						{ class: "link", href: take.drawings, title: "The slides that were drawn on, as pictures" },
						"Its drawings",
					)
				: null,
			el("span", { class: "ml-auto" }),
			useMenu(take),
			el(
				"button",
				{ class: "push bare", "aria-label": `Throw take ${take.number} away`, onclick: () => remove(take) },
				icon("trash-2"),
			),
		),
		el(
			"table",
			{},
			el(
				"thead",
				{},
				el(
					"tr",
					{},
					["Slide", "Plan", "Take", "Differs", "Holds, s"].map((words) => el("th", { scope: "col" }, words)),
				),
			),
			el("tbody", {}, rows),
		),
	);
}

at("start-run").addEventListener("click", start);
at("end-run").addEventListener("click", end);
at("next-cue").addEventListener("click", () => {
	player.next();
	at("next-cue").blur();
});
at("back-one").addEventListener("click", () => {
	player.previous();
	at("back-one").blur();
});
at("pause").addEventListener("click", () => {
	if (player.paused) player.resume();
	else player.pause();
	at("pause").blur();
});
at("start-run").disabled = true;
drawTakes();
prepare();
