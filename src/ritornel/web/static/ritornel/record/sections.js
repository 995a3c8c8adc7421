// The sections on the left: their progress, chosen by a press, moved by arrows.
import { el, icon } from "../ui/element.js";
import { clockText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";

/** @type {{[mark: string]: string}} */
const MARKS = {
	recording: "●",
	paused: "❙❙",
	kept: "●",
	long: "›",
	ready: "○",
	partly: "◐",
	waiting: "⌒",
	nothing: "○",
};

/** @param {SectionLine[]} lines @param {string} chosen id @param {{choose: (id: string) => void, move: ((number: number, by: number) => void) | null}} acts */
export function drawSections(lines, chosen, { choose, move }) {
	const slides = lines.reduce((all, line) => all + line.slide_ids.length, 0);
	const plan = lines.reduce((all, line) => all + line.plan_ms, 0);
	const kept = lines.filter((line) => line.state.mark === "kept").length;
	document.getElementById("sections-told").textContent =
		`${countWords(slides, "slide")} · plan ${clockText(plan)} · ${kept} of ${lines.length} kept`;
	document.getElementById("sections").replaceChildren(
		...lines.map((line, number) =>
			el(
				"li",
				{ "aria-current": line.id === chosen ? "true" : null },
				el(
					"div",
					{ class: "moves" },
					move
						? /** @type {[string, number, boolean][]} */ ([
								["up", -1, number === 0],
								["down", 1, number === lines.length - 1],
							]).map(([words, by, off]) =>
								el(
									"button",
									{
										"aria-label": `Move “${line.name}” ${words}`,
										title: `Move the section ${words}`,
										disabled: off,
										class: words,
										onclick: () => move(number, by),
									},
									icon("chevron-right"),
								),
							)
						: null,
				),
				el(
					"button",
					{ class: "section", onclick: () => choose(line.id) },
					el("span", { class: "numeral" }, line.number),
					el("b", {}, line.name),
					el("b", { class: "time" }, line.picked ? clockText(line.picked_ms) : "–"),
					el(
						"span",
						{ class: "about" },
						`${line.who ? `${line.who} · ` : ""}${line.first === line.last ? `slide ${line.first}` : `slides ${line.first}–${line.last}`}`,
					),
					el("span", { class: "plan" }, `of ${clockText(line.plan_ms)}`),
					el(
						"span",
						{ class: "state", "data-mark": line.state.mark },
						el("i", { "aria-hidden": "true" }, MARKS[line.state.mark]),
						el("span", { title: line.state.words }, line.state.words),
					),
					el(
						"span",
						{ class: "takes-count" },
						line.takes === 1 ? "1 take" : line.takes ? `${line.takes} takes` : "no takes",
					),
				),
			),
		),
	);
}
