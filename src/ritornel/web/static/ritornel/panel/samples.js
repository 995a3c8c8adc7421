// Small samples of effects and transitions: still in the middle, moving while their button is hovered or focused.
import { svg } from "../ui/element.js";

/**
 * @param {string} name an effect's, or a transition's
 * @param {HTMLElement} button moves while this is pointed at or focused
 * @returns {SVGSVGElement}
 */
export function sample(name, button) {
	/** @type {any} */
	const node = svg("svg", { class: "sample", "aria-hidden": "true" });
	import("./moving-sample.js").then(({ paintSample }) => paintSample(node, name, button));
	return node;
}
