// The panel of a slide: its running order first, then its details, its notes and its voice.
import { el } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";
import { textField } from "./fields.js";
import { runningOrder } from "./running-order.js";

const TABS = [
	["order", "Running order"],
	["slide", "Slide"],
	["notes", "Notes"],
	["voice", "Voice"],
];
const parts = {
	slide: later(() => import("./slide-details.js")),
	voice: later(() => import("./voice-panel.js")),
	transition: later(() => import("./transition-panel.js")),
	advance: later(() => import("./advance-panel.js")),
};

/**
 * Changes the slide on the stage; `changes` may be a function of the slide, called when their turn comes.
 * @param {ShowState} state
 */
export function slideChanger(state) {
	const { id } = state.slide;
	return (/** @type {{[name: string]: any}} */ changes) =>
		state.edit(() => {
			const now = state.slide?.id === id ? state.slide : state.data.slides[id];
			return { do: "change slides", slide_ids: [id], changes: typeof changes === "function" ? changes(now) : changes };
		});
}

/** @param {() => void} again draws the panel once more; null while a part is on its way */
export function slidePanel(/** @type {ShowState} */ state, again) {
	const { slide, slideTab, passage } = state;
	const change = slideChanger(state);
	const withPart = (/** @type {string} */ name, /** @type {(value: any) => any} */ draw) => {
		const part = /** @type {any} */ (parts)[name];
		if (part.ready) return draw(part.ready);
		part.get().then(again);
		return null;
	};
	if (passage === "transition")
		return withPart(passage, (/** @type {any} */ part) => part.transitionPanel(state, change, again));
	if (passage === "advance") return withPart(passage, (/** @type {any} */ part) => part.advancePanel(state, change));
	const body = /** @type {Record<string, any>} */ ({
		order: () => runningOrder(state),
		slide: () => withPart("slide", (/** @type {any} */ { slideDetails }) => slideDetails(state, change, again)),
		notes: () => [
			el(
				"section",
				{ class: "grid gap-2" },
				textField(slide.notes, (notes) => change({ notes }), {
					label: "Notes",
					rows: 12,
					placeholder: "What you will say here",
				}),
				el("p", { class: "said" }, "You see them on the Lectern, and while you rehearse and record."),
			),
		],
		voice: () =>
			withPart("voice", (/** @type {any} */ { voiceFields }) => [
				el("section", { class: "grid gap-2" }, ...voiceFields(state, change, again)),
			]),
	})[slideTab]();
	if (!body) return null;
	const tabs = TABS.map(([key, words]) =>
		el(
			"button",
			{ role: "tab", "aria-selected": String(key === slideTab), onclick: () => state.showPanel("slide", { tab: key }) },
			words,
			key === "notes" && slide.notes ? el("i", { class: "has", title: "This slide has notes" }) : null,
			key === "voice" && slide.voice ? el("i", { class: "has", title: "This slide has a voice" }) : null,
		),
	);
	return [el("div", { class: "tabs", role: "tablist" }, tabs), ...body];
}
