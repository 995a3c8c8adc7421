// The keys of a page in a dialog: `?` opens it on every page.
import { el } from "./element.js";

/**
 * @param {string} title
 * @param {[string, string][]} keys what to press, and what it does
 * @param {string} help where the page of help about it is; none for strangers
 */
export function openKeys(title, keys, help = "") {
	const dialog = el(
		"dialog",
		{ class: "keys-told dark", "aria-label": title },
		el("h2", {}, title),
		el(
			"dl",
			{},
			keys.flatMap(([press, words]) => [el("dt", {}, press), el("dd", {}, words)]),
		),
		el(
			"form",
			{ method: "dialog", class: "row" },
			el("button", { class: "push dim" }, "Close"),
			help ? el("a", { class: "push dim", href: help }, "Help for this page") : null,
		),
	);
	// What is pressed here is meant for nothing beneath.
	dialog.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => event.stopPropagation());
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
	return dialog;
}
