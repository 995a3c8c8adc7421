// Black, spot, pen and inks on the Lectern's large picture. The House shows the same.
import { el, svg } from "../ui/element.js";

/** @param {string} id */
const at = (id) => document.getElementById(id);

/**
 * @param {import("../player/ink-layer.js").Board} board
 * @param {import("../player/shared-run.js").SharedRun} run
 * @param {import("../player/player.js").ShowPlayer} player
 * @param {{[name: string]: Ink}} inks
 */
export function wireTools(board, run, player, inks) {
	const kept = localStorage.getItem("ritornel-keep-drawings") !== "no";
	board.keep = kept;
	/** @param {Ink} ink */
	const sample = (ink) =>
		svg(
			"svg",
			{ viewBox: "0 0 30 14", width: 30, height: 14, "aria-hidden": "true" },
			...[
				[ink.edge, ink.width_px * 0.7 + 2],
				[ink.colour, ink.width_px * 0.7],
			].map(([stroke, width]) =>
				svg("path", {
					d: "M 3 9 Q 9 1 15 7 T 27 5",
					fill: "none",
					stroke,
					"stroke-width": width,
					"stroke-linecap": "round",
					"stroke-dasharray": ink.dash_px.length ? "5 5" : null,
				}),
			),
		);
	const buttons = Object.entries(inks).map(([name, ink]) =>
		el(
			"button",
			{
				class: "push dim ink",
				"data-ink": name,
				onclick: () => {
					board.ink = /** @type {Core.InkStroke["ink"]} */ (name);
					if (board.mode !== "pen") board.setMode("pen");
					else tell();
				},
			},
			sample(ink),
			ink.title,
		),
	);
	at("inks").replaceChildren(...buttons);
	const tell = () => {
		for (const mode of ["spot", "pen", "rub"]) at(mode).setAttribute("aria-pressed", String(board.mode === mode));
		for (const button of buttons) button.setAttribute("aria-pressed", String(button.dataset.ink === board.ink));
		at("keep-drawings").setAttribute("aria-pressed", String(board.keep));
		at("black").setAttribute("aria-pressed", String(player.black));
		at("pause").firstChild.data = player.paused ? "Go on " : "Pause ";
	};
	board.addEventListener("mode", tell);
	for (const kind of ["acted", "paused", "moment"]) player.addEventListener(kind, tell);
	run.addEventListener("adopted", tell);
	for (const mode of ["spot", "pen", "rub"])
		at(mode).addEventListener("click", () => {
			board.setMode(mode);
			at(mode).blur();
		});
	at("keep-drawings").addEventListener("click", () => keep());
	at("black").addEventListener("click", () => {
		player.setBlack(!player.black);
		at("black").blur();
	});
	function keep() {
		board.keep = !board.keep;
		localStorage.setItem("ritornel-keep-drawings", board.keep ? "yes" : "no");
		tell();
	}
	board.addEventListener("spot", (event) => run.say({ kind: "spot", at: event.detail }));
	board.addEventListener("drawing", (event) => run.say({ kind: "drawing", ...event.detail }));
	board.addEventListener("drawings", (event) => run.say({ kind: "drawings", drawings: event.detail }));
	tell();
	return {
		s: () => board.setMode("spot"),
		p: () => board.setMode("pen"),
		e: () => board.setMode("rub"),
		i: () => board.nextInk(),
		k: keep,
		tell,
	};
}
