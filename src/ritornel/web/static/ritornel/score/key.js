// The key of the score: every sign with its meaning.
import { el, svg } from "../ui/element.js";
import { KIND_WORDS, fermata, onward, sign } from "../stage/signs.js";

const drawn = (/** @type {any[]} */ ...marks) =>
	svg("svg", { class: "sign", viewBox: "0 0 34 16", "aria-hidden": "true" }, marks);
const line = (/** @type {any} */ d, more = {}) =>
	svg("path", { d, fill: "none", stroke: "currentColor", "stroke-width": 1.6, ...more });

const SIGNS = () => [
	[
		drawn(line("M 4 1 V 15"), line("M 30 1 V 15")),
		"Bar lines",
		"a slide, as wide as it is long; pull one to change its length",
	],
	[
		drawn(fermata(8, 12)),
		"Fermata",
		"a wait for a cue; the shade is its hold when nobody presses, its edge can be pulled",
	],
	[drawn(onward(10, 13)), "Goes on", "a slide of a spoken show that goes on by itself, also live"],
	...Object.entries(KIND_WORDS).map(([kind, words]) => [
		sign(kind),
		words,
		{
			enters: "an object comes on",
			accents: "it draws the eye",
			travels: "it goes along a path",
			leaves: "it goes off",
		}[kind],
	]),
	[sign("views"), "Flies", "the view goes to a part of a large slide"],
	[sign("plays"), "Plays", "a clip runs, as wide as it plays"],
	[drawn(line("M 4 4 Q 17 16 30 4")), "Slur", "a transition, as wide as it lasts"],
	[
		drawn(
			svg("circle", { cx: 6, cy: 8, r: 4, fill: "none", stroke: "currentColor", "stroke-width": 1.6 }),
			line("M 10 10 Q 20 16 31 8"),
		),
		"Tie",
		"an object carried over from the slide before",
	],
	[drawn(line("M 30 2 L 6 8 L 30 14")), "Hairpin", "music that swells, dies away or sinks under a voice"],
	[
		drawn(
			svg("rect", { x: 26, y: 1, width: 4, height: 14, fill: "currentColor" }),
			svg("circle", { cx: 20, cy: 5, r: 2, fill: "currentColor" }),
			svg("circle", { cx: 20, cy: 11, r: 2, fill: "currentColor" }),
		),
		"Repeat",
		"the show begins again",
	],
	[
		drawn(svg("path", { d: "M 6 1 H 28 L 25 5 L 28 9 H 6 Z", fill: "#8a5409" }), line("M 6 1 V 15")),
		"Flag",
		"a mark with a name, or where a cue falls on a voice",
	],
];

/** Opens the key; closing it gives the focus back to the button. */
export function openKey() {
	const dialog = el("dialog", { class: "pairs-dialog", "aria-label": "What the signs mean" });
	dialog.append(
		el("h2", {}, "What the signs mean"),
		el(
			"div",
			{ class: "scrolls" },
			el(
				"table",
				{},
				el(
					"tbody",
					{},
					SIGNS().map(([mark, words, what]) =>
						el("tr", {}, el("td", {}, mark), el("th", { scope: "row" }, words), el("td", {}, what)),
					),
				),
			),
		),
		el(
			"p",
			{ class: "said" },
			"Everything that can be pulled also has a field with its exact number. + and − zoom, Alt pulls without snapping, Esc takes a pull back.",
		),
		el("div", { class: "row" }, el("button", { class: "push main", onclick: () => dialog.close() }, "Close")),
	);
	dialog.addEventListener("close", () => {
		dialog.remove();
		document.querySelector('[aria-label="What the signs mean"]')?.focus();
	});
	document.body.append(dialog);
	dialog.showModal();
}
