// Compose: wires the parts of the page together, and the keys.
import { Panel } from "../panel/panel.js";
import { Score } from "../score/score.js";
import { ShowState } from "../editor/show-state.js";
import { Stage } from "../stage/stage.js";
import { drawStops } from "../stage/stops.js";
import { el } from "../ui/element.js";
import { keyOf, taken } from "../ui/free-keys.js";
import { onFirst } from "../ui/lazy-modules.js";
import { startData } from "../ui/requests.js";
import { choiceWords, keepChoice, playChoice } from "../ui/play-choice.js";
import { loadSheet } from "../ui/sheets.js";

const at = (/** @type {string} */ id) => document.getElementById(id);
const state = new ShowState(startData());
const stage = new Stage(state, at("theatre"));
const score = new Score(state, { names: at("score-names"), scroll: at("score-scroll") });
new Panel(state, at("panel"));
const bar = document.querySelector(".bring");
const [shelf, themes, overview] = ["shelf", "themes", "overview"].map((name) => ({
	node: at(name),
	button: at(`open-${name}`),
}));
onFirst(
	[
		[state, "music"],
		...Array.from(
			bar.querySelectorAll("[data-tray], [data-add]"),
			(button) => /** @type {Source} */ ([button, "click"]),
		),
	],
	async () => {
		const { Tray } = await import("../stage/add-tray.js");
		new Tray(state, stage, { bar, node: at("tray") });
	},
);
bar.addEventListener("pointerenter", () => import("../stage/add-tray.js"), { once: true });
onFirst(
	[
		[shelf.button, "click"],
		[at("open-pictures"), "click"],
		[at("open-clips"), "click"],
		[state, "want"],
		[state, "shelf"],
	],
	async () => {
		const [{ Shelf }] = await Promise.all([import("../shelf/shelf.js"), loadSheet("shelf")]);
		new Shelf(state, stage, { ...shelf, picture: at("open-pictures"), clip: at("open-clips") });
	},
);
onFirst([[overview.button, "click"]], async () => {
	const [{ Overview }] = await Promise.all([import("../overview/overview.js"), loadSheet("overview")]);
	new Overview(state, overview);
});
at("bring-recorded").addEventListener("click", async () => {
	if (state.slide)
		(await import("../record/clip.js")).recordClip({
			base: state.base,
			role: "slide",
			slideId: state.slide.id,
			viewing: state.slide.id,
			used: (reply) => state.take(reply),
			shelved: (reply) => state.take(reply),
		});
});
onFirst([[themes.button, "click"]], async () => {
	const [{ Themes }] = await Promise.all([import("../shelf/themes.js"), loadSheet("shelf")]);
	new Themes(state, themes);
});
// What is over the stage is told to the page as a whole; of shelf and themes only one at a time.
const overs = ["shelf", "themes", "overview"];
const watch = new MutationObserver((changes) => {
	const opened = changes.map(({ target }) => /** @type {HTMLElement} */ (target)).find((node) => !node.hidden);
	const other = { shelf: "themes", themes: "shelf" }[/** @type {"shelf" | "themes"} */ (opened?.id)];
	if (other && !at(other).hidden) {
		at(other).hidden = true;
		at(`open-${other}`).setAttribute("aria-expanded", "false");
	}
	at("compose").dataset.over = overs.filter((id) => !at(id).hidden).join(" ");
});
for (const id of overs) watch.observe(at(id), { attributeFilter: ["hidden"] });
for (const [kind, by] of [
	["pointerdown", "hand"],
	["keydown", "keys"],
])
	addEventListener(
		kind,
		() => {
			document.body.dataset.by = by;
		},
		true,
	);
onFirst([[state, "run"]], async () => {
	const { Run } = await import("../stage/preview.js");
	const run = new Run(state);
	state.addEventListener("run", (event) => run.start(event.detail.from, event.detail.to));
});
state.addEventListener("cut", (event) => {
	state.cutting = state.cutting === event.detail.id ? null : event.detail.id;
	state.tell("pick");
});
state.addEventListener("write", (event) => stage.editWords(state.object(event.detail.id)));

for (const kind of ["show", "time"]) state.addEventListener(kind, () => drawStops(state, at("stops")));
drawStops(state, at("stops"));
const sayRevision = () => {
	at("compose").dataset.revision = state.data.revision;
};
state.addEventListener("show", sayRevision);
sayRevision();
let seen = state.slide?.id;
state.addEventListener("show", () => {
	if (state.slide && state.slide.id !== seen) {
		seen = state.slide.id;
		score.draw();
		requestAnimationFrame(() => score.reveal(seen));
	}
});

// Who is at the show: alone at one of one's own there is nobody to tell.
/** @type {any} */
let company = null;
const meet = async (/** @type {any} */ people = []) => {
	company ??= import("../stage/presence.js").then(
		({ Others }) => new Others(state, { node: at("others"), theatre: at("theatre") }),
	);
	(await company).hear(people);
};
state.addEventListener("people", ({ detail }) => {
	if (company || detail.some((/** @type {any} */ one) => one.window !== state.window)) meet(detail);
});
if (state.data.shared) meet();

/* What is saved, and what undo would take back. */
function saySaved() {
	let words = "Saved";
	if (state.unanswered) words = "Not saved yet: no answer. It is kept here and sent again by itself.";
	else if (state.pending) words = "Saving …";
	if (at("kept").textContent !== words) at("kept").textContent = words;
	const { undo, redo } = state.data.history;
	at("undo").disabled = !undo;
	at("redo").disabled = !redo;
	at("undo").title = undo ? `Undo: ${undo} (Ctrl Z)` : "Nothing to undo";
	at("redo").title = redo ? `Do again: ${redo} (Ctrl Shift Z)` : "Nothing to do again";
}
addEventListener("beforeunload", (event) => {
	if (state.pending) event.preventDefault();
});
for (const kind of ["kept", "show"]) state.addEventListener(kind, saySaved);
saySaved();
import("../editor/sending-kept.js").then(({ sendKept }) => sendKept(state));
at("undo").addEventListener("click", () => state.undo());
at("redo").addEventListener("click", () => state.redo());

const title = at("show-title");
title.addEventListener("change", () => state.edit({ do: "change show", changes: { title: title.value.trim() } }));
state.addEventListener("show", () => {
	if (document.activeElement !== title) title.value = state.data.settings.title;
});

const play = (/** @type {string} */ query) => {
	location.href = `${state.base}/play?${query}&back=${encodeURIComponent(state.slide?.id ?? "")}`;
};
at("open-lectern").addEventListener("click", () => {
	at("open-lectern").search = `?from=start&back=${encodeURIComponent(state.slide?.id ?? "")}`;
});
const chosen = () => playChoice(state.showId, state.data.settings.runs);
const playAs = (/** @type {any} */ { from, mode }) =>
	play(`from=${encodeURIComponent((from === "here" && state.slide?.id) || "start")}&mode=${encodeURIComponent(mode)}`);
const sayPlay = () => {
	const [from, mode] = choiceWords(chosen()).split(", ");
	at("play").lastElementChild.replaceChildren(from, el("span", {}, `, ${mode}`));
};
state.addEventListener("show", sayPlay);
sayPlay();
at("play").addEventListener("click", () => playAs(chosen()));
at("play-others").addEventListener("pointerenter", () => import("../ui/play-menu.js"), { once: true });
onFirst([[at("play-others"), "toggle"]], async () =>
	(await import("../ui/play-menu.js")).playMenu(at("play-others"), chosen, (choice) => {
		keepChoice(state.showId, choice);
		playAs(choice);
	}),
);

import("../editor/below-stage.js").then(({ pullHeight, shareSheet }) => {
	pullHeight(at("compose"), at("pull"), at("score"));
	shareSheet(at("compose"), { onShow: () => score.draw() });
});

/* Keys. */

const inOverview = () => !at("overview").hidden;

function removePicked() {
	// In the overview slides are picked, and nothing of the slide that is hidden beneath it.
	if (inOverview())
		return state.pickedSlides.size
			? state.edit({ do: "remove slides", slide_ids: state.data.order.filter((id) => state.pickedSlides.has(id)) })
			: null;
	if (state.pickedBuild)
		return state.edit({ do: "remove build", slide_id: state.slide.id, build_id: state.pickedBuild });
	if (state.pickedMark) return state.edit({ do: "remove mark", mark_id: state.pickedMark });
	if (state.pickedSpan) return state.edit({ do: "remove span", span_id: state.pickedSpan });
	if (state.pickedSlides.size > 1)
		return state.edit({ do: "remove slides", slide_ids: state.data.order.filter((id) => state.pickedSlides.has(id)) });
	if (state.slide?.framings.some((framing) => framing.id === state.pickedFraming))
		return state.edit({ do: "remove framing", slide_id: state.slide.id, framing_id: state.pickedFraming });
	if (state.picked.size)
		return state.edit({ do: "remove objects", slide_id: state.slide.id, object_ids: [...state.picked] });
	return null;
}
// Wanted only when something is copied; it is there long before.
import("../stage/clipboard.js").then(({ Clipboard }) => new Clipboard(stage, removePicked));

/** @type {{[key: string]: (event: KeyboardEvent) => any}} */
const withControl = {
	z: (/** @type {KeyboardEvent} */ event) => (event.shiftKey ? state.redo() : state.undo()),
	y: () => state.redo(),
	d: async () => !inOverview() && (await import("../stage/copying.js")).duplicatePicked(stage),
	a: () =>
		inOverview()
			? state.pickSlides(state.data.order)
			: state.pick(state.slide?.objects.filter((item) => !item.aside).map((item) => item.id) ?? []),
};

/** @type {{[key: string]: number[]}} */
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

addEventListener("keydown", (event) => {
	if (taken(event)) return;
	const control = event.ctrlKey || event.metaKey;
	const key = keyOf(event).toLowerCase();
	if (control && withControl[key]) {
		event.preventDefault();
		withControl[key](event);
		return;
	}
	if (control || event.altKey) return;
	if ((event.key === "Delete" || event.key === "Backspace") && removePicked()) event.preventDefault();
	else if (event.key === "Escape") state.pick([]);
	else if (event.key === "Enter" && event.target === document.body && stage.picked()[0]?.paragraphs) {
		event.preventDefault();
		stage.editWords(stage.picked()[0]);
	} else if (ARROWS[event.key] && state.picked.size && !inOverview() && !event.target?.closest?.(".score, .panel")) {
		event.preventDefault();
		const [dx, dy] = ARROWS[event.key].map((way) => way * (event.shiftKey ? 10 : 1));
		stage.moveBy(dx, dy);
	} else if ((event.key === "PageDown" || event.key === "PageUp") && state.slide) {
		event.preventDefault();
		const way = event.key === "PageDown" ? 1 : -1;
		import("../editor/turning.js").then(({ turnPage }) => turnPage(state, way, event.shiftKey));
	}
});

import("../editor/announcer.js").then(({ Announcer }) => new Announcer(state));
import("../editor/arrival.js").then(({ tellOnArrival }) => tellOnArrival(state));
state.follow();
