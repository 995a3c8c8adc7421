// Spares: objects without a place in the layout lie in a strip under the slide, one press from coming back.
import { el, icon } from "../ui/element.js";
import { loadSheet } from "../ui/sheets.js";

loadSheet("media");

const STRIP_PX = 44;

/** Draws the strip; returns how high it is. @param {Stage} stage */
export function drawSpares(stage) {
	const { state, theatre } = stage;
	const { slide } = state;
	const before = theatre.querySelector(".spares");
	const items = slide?.spares ?? [];
	const said = JSON.stringify(items.map(({ object }) => [object.id, object.name]));
	if (before?.dataset.said === said && items.length) return STRIP_PX;
	before?.remove();
	if (!items.length) return 0;
	const act = (/** @type {any} */ how, /** @type {any} */ object) =>
		state.edit({ do: how, slide_id: slide.id, object_id: object.id });
	theatre.append(
		el(
			"div",
			{ class: "spares", role: "group", "aria-label": "Beside the slide", "data-said": said },
			el("span", { title: "The slide's layout has no place for them; they are not shown" }, "Beside the slide"),
			items.map(({ object }) =>
				el(
					"span",
					{ class: "spare" },
					el(
						"button",
						{ title: `Bring ${object.name} back onto the slide`, onclick: () => act("bring back", object) },
						icon(object.kind === "text" ? "type" : object.kind === "shape" ? "shapes" : "image"),
						object.name,
					),
					el(
						"button",
						{ "aria-label": `Remove ${object.name}`, title: "Remove", onclick: () => act("remove spare", object) },
						icon("x"),
					),
				),
			),
		),
	);
	return STRIP_PX;
}
