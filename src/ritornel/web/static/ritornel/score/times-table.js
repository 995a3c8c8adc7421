// All times of the show as a readable table: every place of the score with its start and length.
import { el } from "../ui/element.js";
import { loadSheet } from "../ui/sheets.js";
import { clockText, secondsText } from "../ui/times.js";
import { placeRows } from "./places.js";

/** @type {{[pick: string]: string}} */
const WHAT = {
	transition: "Transition",
	wait: "Wait",
	slide: "Slide",
	end: "End",
	tie: "Carried",
	build: "Build",
	mark: "Mark",
};
/** @type {{[row: string]: string}} */
const ROWS = { voices: "Voice", music: "Music" };

/**
 * Opens the table over the page; a press on a slide's name goes there. Closing gives the focus back.
 * @param {ShowState} state
 */
export async function openTimes(state, /** @type {import("./ties.js").Ties} */ ties) {
	await loadSheet("media");
	const entries = placeRows(state, ties)
		.flatMap(({ name, places }) => places.map((place) => ({ ...place, row: name })))
		.sort((one, other) => one.at - other.at);
	const dialog = el("dialog", { class: "pairs-dialog times-table", "aria-label": "Times of the show" });
	const go = (/** @type {Place & {row: string}} */ place) => {
		dialog.close();
		state.open(place.open.slide, place.at);
	};
	const line = (/** @type {Place & {row: string}} */ place) =>
		el(
			"tr",
			{ "data-row": place.row },
			el("td", {}, clockText(place.at)),
			el("td", {}, ROWS[place.row] ?? WHAT[place.open.pick]),
			el(
				"th",
				{ scope: "row" },
				place.open.pick === "slide"
					? el("button", { class: "link", onclick: () => go(place) }, place.title)
					: place.title,
			),
			el("td", {}, place.to > place.at ? `${secondsText(place.to - place.at)} s` : ""),
		);
	dialog.append(
		el("h2", {}, "Times of the show"),
		el("p", { class: "said" }, `It lasts ${clockText(state.data.length_ms)}, ${state.way}.`),
		el(
			"div",
			{ class: "scrolls", tabindex: 0, role: "region", "aria-label": "The table" },
			el(
				"table",
				{},
				el(
					"thead",
					{},
					el(
						"tr",
						{},
						["Begins", "What", "Name", "Lasts"].map((words) => el("th", { scope: "col" }, words)),
					),
				),
				el("tbody", {}, entries.map(line)),
			),
		),
		el("div", { class: "row mt-3" }, el("button", { class: "push ml-auto", onclick: () => dialog.close() }, "Close")),
	);
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
}
