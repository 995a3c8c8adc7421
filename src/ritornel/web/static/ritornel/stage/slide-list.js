// The slide as a list for screen readers: its objects from the front to the back, their places and states. Pressing one
// selects it. The list is invisible, so the keyboard, which has Alt and the arrows, skips it.
import { el } from "../ui/element.js";
import { keepPlace } from "../ui/focus.js";
import { hiddenWords } from "../panel/object-rows.js";

const px = (/** @type {any} */ value) => String(Math.round(value));

/** When an object appears and disappears: "comes on cue 2", "there on arrival". @param {ShowState} state */
function comesWords(state, /** @type {Core.SlideObject} */ item) {
	const own = state.line.builds.filter((build) => build.object_id === item.id);
	const beat = (/** @type {any} */ { beat: number }) => (number ? `on cue ${number}` : "on arrival");
	const enters = own.find((build) => build.kind === "enters");
	const leaves = own.findLast((build) => build.kind === "leaves");
	return [enters ? `comes ${beat(enters)}` : null, leaves ? `leaves ${beat(leaves)}` : null].filter(Boolean).join(", ");
}

/**
 * "Ticks, text, “one tooth at a time”, at 84, 570, 400 wide, 60 high, comes on cue 2, locked".
 * @param {ShowState} state
 */
export function objectWords(state, /** @type {Core.SlideObject} */ item) {
	const { x, y, width, height, turn_deg: turn } = item.box;
	const text = (item.paragraphs ?? [])
		.map(({ runs }) =>
			runs
				.map((run) => run.text)
				.join("")
				.replaceAll("\t", ", "),
		)
		.join(" / ");
	return [
		item.name,
		item.kind,
		text && text !== item.name ? `“${text}”` : null,
		`at ${px(x)}, ${px(y)}`,
		`${px(width)} wide, ${px(height)} high`,
		turn ? `turned by ${px(turn)} degrees` : null,
		comesWords(state, item) || "there all the time",
		item.locked ? "locked" : null,
		hiddenWords(state, item) || null,
	]
		.filter(Boolean)
		.join(", ");
}

export class SlideList {
	/** @param {HTMLElement} stage the drawn slide, which the list describes */
	constructor(/** @type {ShowState} */ state, stage) {
		this.state = state;
		this.list = el("ol", { id: "slide-list", "aria-label": "Objects on the slide, from the front" });
		stage.setAttribute("aria-details", "slide-list");
		stage.closest("main").append(el("div", { class: "sr-only" }, this.list));
		for (const kind of ["show", "pick"]) state.addEventListener(kind, () => this.draw());
		this.draw();
	}

	draw() {
		const { state } = this;
		const items = [...(state.slide?.objects ?? [])].reverse();
		const keepsPlace = keepPlace(this.list);
		this.list.replaceChildren(
			...items.map((item) =>
				el(
					"li",
					{},
					el(
						"button",
						{ tabindex: -1, "aria-pressed": String(state.picked.has(item.id)), onclick: () => state.pick([item.id]) },
						objectWords(state, item),
					),
				),
			),
		);
		keepsPlace();
	}
}
