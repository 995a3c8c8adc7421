// One sheet of the score: everything drawn at one scale. The score has two: one is visible while the other is prepared
// over several frames.
import { el, svg } from "../ui/element.js";

/**
 * The layers from the back. Each bar is a drawing of its own, so that a new bar repaints no other; every other layer
 * is one drawing.
 */
const LAYERS = ["staff", "bars", "waves", "voices", "lines", "sounds", "ruler", "over"];
const HEAVY = "bars";

export class Sheet {
	constructor() {
		this.layers = Object.fromEntries(LAYERS.map((name) => [name, name === HEAVY ? el("div") : svg("svg")]));
		this.node = el("div", { class: "sheet" }, Object.values(this.layers));
		this.kept = Object.fromEntries(LAYERS.map((name) => [name, new Map()]));
	}

	get empty() {
		return !Object.values(this.kept).some((pieces) => pieces.size);
	}

	/**
	 * Draws what is wanted and removes the rest; unchanged pieces stay. Draws until `end` of performance.now(), and
	 * continues at the next call: a bar of many builds is too much for one frame.
	 * @param {Object<string, {id: string, looks: any[], draw: () => Iterable<SVGElement>}[]>} wanted by layer, from left
	 * to right
	 * @returns whether all of it is drawn
	 */
	show(wanted, end = Infinity) {
		return Object.entries(wanted).every(([name, pieces]) => this.showLayer(name, pieces, end));
	}

	showLayer(/** @type {string} */ name, /** @type {any} */ pieces, /** @type {number} */ end) {
		const [layer, kept] = [this.layers[name], this.kept[name]];
		const ids = new Set(pieces.map((/** @type {any} */ piece) => piece.id));
		for (const [id, { node }] of kept) {
			if (ids.has(id)) continue;
			node.remove();
			kept.delete(id);
		}
		/** @type {any} */
		let next = layer.firstChild;
		for (const { id, looks, draw } of pieces) {
			let entry = kept.get(id);
			if (!alike(entry, looks)) {
				if (performance.now() > end) return false;
				const node = svg(name === HEAVY ? "svg" : "g");
				if (entry?.node === next) next = node;
				entry?.node.replaceWith(node);
				kept.set(id, (entry = { node, looks, parts: draw()[Symbol.iterator]() }));
			}
			if (entry.node === next) next = next.nextSibling;
			else layer.insertBefore(entry.node, next);
			while (entry.parts) {
				const { value, done } = entry.parts.next();
				if (done) entry.parts = null;
				else if (value) entry.node.append(value);
				if (performance.now() > end) return false;
			}
		}
		return true;
	}

	clear() {
		for (const name of LAYERS) {
			this.layers[name].replaceChildren();
			this.kept[name].clear();
		}
	}
}

export const alike = (/** @type {any} */ entry, /** @type {any} */ looks) =>
	entry?.looks.length === looks.length &&
	entry.looks.every((/** @type {any} */ look, /** @type {number} */ at) => look === looks[at]);
