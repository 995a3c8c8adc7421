// What a file of another format cannot hold, by slide.
import { el } from "./element.js";

/**
 * The list: the whole show first, then slide by slide; what applies to many slides stands once.
 * @param {any[]} losses
 */
export function lossList(losses) {
	const slides = new Map();
	for (const { slide, words } of losses) slides.set(words, [...(slides.get(words) ?? []), slide]);
	/** @param {number[]} numbers */
	const where = (numbers) =>
		numbers.includes(0)
			? "Everywhere"
			: numbers.length === 1
				? `Slide ${numbers[0]}`
				: `Slides ${numbers.slice(0, 12).join(", ")}${numbers.length > 12 ? ` and ${numbers.length - 12} more` : ""}`;
	const lines = [...slides].sort(([, a], [, b]) => a[0] - b[0]);
	return el(
		"div",
		{ class: "scrolls" },
		el(
			"table",
			{},
			el(
				"tbody",
				{},
				lines.map(([words, numbers]) =>
					el(
						"tr",
						{},
						el("th", { scope: "row" }, where(numbers)),
						el("td", {}, words[0].toUpperCase() + words.slice(1)),
					),
				),
			),
		),
	);
}

/**
 * Asks, with the list visible. `go` is called where somebody wants it all the same.
 * @param {string} title
 * @param {any[]} losses
 * @param {string} words
 * @param {any} go
 */
export function askAbout(title, losses, words, go) {
	const dialog = el("dialog", { class: "pairs-dialog losses", "aria-label": title });
	dialog.append(
		el("h2", {}, title),
		el("p", { class: "said" }, "This cannot be carried over:"),
		lossList(losses),
		el(
			"div",
			{ class: "row" },
			el(
				"button",
				{
					class: "push main",
					autofocus: true,
					onclick: () => {
						dialog.close("go");
						go();
					},
				},
				words,
			),
			el("button", { class: "push", onclick: () => dialog.close() }, "Leave it"),
		),
	);
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
	return dialog;
}
