// Help: the keys of a screen, from the same list as the dialog of its `?`.
import { el } from "../ui/element.js";
import { KEYS } from "../ui/page-keys.js";

for (const table of document.querySelectorAll("table[data-keys]")) {
	const [title, rows] = KEYS[table.dataset.keys];
	table.append(
		el("caption", { class: "sr-only" }, title),
		el(
			"tbody",
			{},
			rows.map(([keys, does]) => el("tr", {}, el("th", { scope: "row" }, keys), el("td", {}, does))),
		),
	);
}
