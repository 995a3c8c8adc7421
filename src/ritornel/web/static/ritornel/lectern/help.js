// All keys of the Lectern.
import { el } from "../ui/element.js";

const KEYS = [
	["Space, →, Page down, Enter", "Begin; after that, the next cue"],
	["←, Page up", "Back one beat"],
	["Home, End", "First slide, last slide"],
	["A number, then Enter", "To that slide"],
	["/", "Go to a slide by its name"],
	["B", "Black, and back"],
	["S", "Spot: a light that follows the pointer"],
	["P, then I", "Pen, next ink"],
	["E", "Rub out what is touched"],
	["K", "Keep drawings, or let them go with their slide"],
	[".", "Pause, go on"],
	["H", "Open the House"],
	["+ and −", "Larger and smaller notes"],
	["T, Shift T", "Keep this run as a take, remove it"],
	["F", "Full screen"],
	["Esc", "Put the pen away; end the run"],
];

export function openHelp() {
	const dialog = el(
		"dialog",
		{ class: "keys-told dark", "aria-label": "Keys of the Lectern" },
		el("h2", {}, "Keys"),
		el(
			"dl",
			{},
			KEYS.flatMap(([keys, words]) => [el("dt", {}, keys), el("dd", {}, words)]),
		),
		el("form", { method: "dialog" }, el("button", { class: "push" }, "Close")),
	);
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
}
