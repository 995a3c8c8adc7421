// The keys of a page, told in a dialog: `?` opens it on every page.
import { el } from "./element.js";

/**
 * @param {string} title
 * @param {[string, string][]} keys what to press, and what it does
 */
export function openKeys(title, keys) {
	const dialog = el(
		"dialog",
		{ class: "keys-told dark", "aria-label": title },
		el("h2", {}, title),
		el(
			"dl",
			{},
			keys.flatMap(([press, words]) => [el("dt", {}, press), el("dd", {}, words)]),
		),
		el("form", { method: "dialog" }, el("button", { class: "push dim" }, "Close")),
	);
	// What is pressed here is meant for nothing beneath.
	dialog.addEventListener("keydown", (event) => event.stopPropagation());
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
	return dialog;
}
