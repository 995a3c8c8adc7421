// The panel's first line: the show, the slide, and what is selected. Each step opens its own panel.
import { el } from "../ui/element.js";
import { textField } from "./fields.js";

const PASSAGES = { transition: "Transition", advance: "How it goes on" };

/** The selection, in words; empty where there is none. @param {ShowState} state */
function pickedWords(state) {
	if (state.pickedSpan) return "Music";
	if (state.pickedMark) return state.data.marks.find(({ id }) => id === state.pickedMark)?.name || "Mark";
	if (state.pickedSlides.size > 1) return `${state.pickedSlides.size} slides`;
	if (state.pickedFraming) {
		return state.slide?.framings.find(({ id }) => id === state.pickedFraming)?.name ?? "The whole slide";
	}
	const [first] = state.picked;
	if (state.picked.size > 1) return `${state.picked.size} objects`;
	return first ? (state.object(first)?.name ?? "") : "";
}

/** Draws the path; the step of the open panel is marked. @param {ShowState} state */
export function drawPath(state, /** @type {MadeElement} */ node) {
	const { slide, data } = state;
	// A name that is being written stays in its field.
	const about = [state.level, slide?.id, ...state.picked].join("/");
	const written = node.contains(document.activeElement) && document.activeElement?.matches("input");
	if (written && node.dataset.about === about) return;
	node.dataset.about = about;
	const number = slide ? data.numbers[slide.id] : 0;
	const name = slide ? `${slide.skipped ? "" : `${number} `}${slide.name || "Untitled"}` : "No slides";
	const picked = pickedWords(state);
	const step = (
		/** @type {string} */ words,
		/** @type {string} */ level,
		/** @type {boolean} */ last,
		/** @type {() => void} */ open,
	) => el("button", { "aria-current": last ? "true" : null, "data-level": level, title: words, onclick: open }, words);
	const between = () => el("i", { "aria-hidden": "true" }, "›");
	// The name of the one object that is picked is written where it stands.
	const named = () => {
		const slideId = slide.id;
		const [id] = state.picked;
		const write = (/** @type {string} */ fresh) =>
			state.edit({ do: "change objects", slide_id: slideId, object_ids: [id], changes: { name: fresh } });
		const field = textField(picked, write, { label: "Name of the object", cls: "name-field" });
		field.setAttribute("aria-current", "true");
		return field;
	};
	const one = state.picked.size === 1 && !state.pickedFraming && !state.pickedSpan && !state.pickedMark;
	const atSlide = state.level === "slide" && !state.passage;
	const third = state.passage
		? step(
				PASSAGES[/** @type {keyof typeof PASSAGES} */ (state.passage)],
				"passage",
				state.level === "slide",
				() => undefined,
			)
		: picked
			? state.level === "object" && one
				? named()
				: step(picked, "object", state.level === "object", () => state.showPanel("object"))
			: el("span", { class: "said" }, "no object picked");
	node.replaceChildren(
		step("Show", "show", state.level === "show", () => state.showPanel("show")),
		between(),
		step(name, "slide", atSlide, () => state.showPanel("slide")),
		...(slide ? [between(), third] : []),
	);
}
