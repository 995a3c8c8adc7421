// Playing over the full window: from the start or from a slide, as the show runs or as asked for.
import { sayMoment } from "../player/spoken-words.js";
import { Board } from "../player/ink-layer.js";
import { listen, stayAwake } from "../player/keys.js";
import { meterOf } from "../player/meter.js";
import { ShowPlayer } from "../player/player.js";
import { slimControls } from "../player/control-bar.js";
import { el } from "../ui/element.js";
import { keyOf, taken } from "../ui/free-keys.js";
import { KEYS } from "../ui/page-keys.js";
import { get, startData } from "../ui/requests.js";
import { keepChoice, playChoice } from "../ui/play-choice.js";

const house = document.querySelector(".house");
const asked = new URLSearchParams(location.search);
const base = location.pathname.replace(/play$/, "");

function leave() {
	// Who may only watch has nowhere to be but their list of shows.
	if (!startData().may_edit) {
		location.href = "/";
		return;
	}
	const [back, point] = [asked.get("back"), asked.get("revision")];
	if (point) {
		location.href = `${base}history/${encodeURIComponent(point)}`;
		return;
	}
	location.href = back ? `${base}?slide=${encodeURIComponent(back)}` : base;
}

async function main() {
	const revision = asked.get("revision");
	const show = await get(`${base}performance.json${revision ? `?revision=${encodeURIComponent(revision)}` : ""}`);
	if (!show.slides.length) {
		house.append(
			el(
				"p",
				{ class: "absolute text-white" },
				"This show has no slides to play. ",
				el("a", { class: "link text-white", href: base }, "Back to Compose"),
			),
		);
		return;
	}
	const mode = asked.get("mode") ?? show.runs;
	const player = new ShowPlayer(show, house.querySelector("svg"), { mode });
	const index = Math.max(
		0,
		show.slides.findIndex((/** @type {any} */ slide) => slide.id === asked.get("from")),
	);
	const words = house.querySelector("[data-words]");
	const board = new Board(house, show.frame, startData());
	/** @type {{[key: string]: () => void}} */
	const drawing = {
		s: () => board.setMode("spot"),
		p: () => board.setMode("pen"),
		e: () => board.setMode("rub"),
		i: () => board.nextInk(),
	};
	addEventListener("keydown", (event) => {
		if (!event.ctrlKey && !event.metaKey && !event.altKey && !taken(event)) drawing[keyOf(event).toLowerCase()]?.();
	});
	player.addEventListener("moment", (event) => {
		const { index: at } = event.detail;
		house.dataset.slide = show.slides[at]?.id ?? "";
		board.show(house.dataset.slide);
		house.dataset.beat = event.detail.beat;
		house.dataset.phase = event.detail.phase;
		sayMoment(words, show, event.detail, `Slide ${at + 1}`);
	});
	listen(player, house, {
		leave: () => {
			if (board.mode) board.setMode(null);
			else leave();
		},
	});
	const drawn = [
		["spot", "Spot", "S"],
		["pen", "Pen", "P"],
		["rub", "Rub out", "E"],
	].map(([name, title, key]) =>
		el(
			"button",
			{ class: "px-2", "aria-pressed": "false", title: `${title} (${key})`, onclick: () => board.setMode(name) },
			title,
		),
	);
	board.addEventListener("mode", () =>
		drawn.forEach((button, number) =>
			button.setAttribute("aria-pressed", String(board.mode === ["spot", "pen", "rub"][number])),
		),
	);
	const other = mode === "on cue" ? "self-running" : "on cue";
	const swap = el(
		"button",
		{
			class: "px-2",
			onclick: () => {
				const id = base.split("/").at(-2) ?? "";
				keepChoice(id, { ...playChoice(id, show.runs), mode: other });
				asked.set("mode", other);
				asked.set("from", player.show.slides[player.moment().index].id);
				location.search = asked.toString();
			},
		},
		`Play ${other}`,
	);
	const tools = [...drawn, ...(player.sound ? [meterOf(player)] : []), swap];
	slimControls(player, house, { leave, keys: KEYS.play, tools });
	stayAwake();
	await player.begin(index);
	if (mode === "self-running" && asked.has("at")) player.seek(Number(asked.get("at")) || 0);
	house.dataset.ready = "yes";
}

main().catch((error) => house.append(el("p", { class: "absolute text-white", role: "alert" }, error.message)));
