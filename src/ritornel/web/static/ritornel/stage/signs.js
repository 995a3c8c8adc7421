// The signs of builds, the same in the list, the panel and the score: the shape says the kind.
import { svg } from "../ui/element.js";

/** A sign's marks from x1 to x2, `half` above and below y. @returns {SVGElement} */
export function signPath(
	/** @type {string} */ kind,
	/** @type {number} */ x1,
	/** @type {number} */ x2,
	/** @type {number} */ y,
	/** @type {number} */ half,
) {
	switch (kind) {
		case "enters":
			return svg("path", { d: `M ${x1} ${y} L ${x2} ${y - half} L ${x2} ${y + half} Z`, fill: "currentColor" });
		case "leaves":
			return svg("path", {
				d: `M ${x1} ${y - half} L ${x2} ${y} L ${x1} ${y + half} Z`,
				fill: "none",
				stroke: "currentColor",
				"stroke-width": 1.6,
				"stroke-linejoin": "round",
			});
		case "accents":
			return svg("path", {
				d: `M ${x1} ${y - half} L ${x2} ${y} L ${x1} ${y + half}`,
				fill: "none",
				stroke: "currentColor",
				"stroke-width": 2,
			});
		case "plays":
			return svg("path", {
				d: `M ${x1} ${y - half} V ${y + half} M ${x2} ${y - half} V ${y + half} M ${x1} ${y - half} H ${x2} M ${x1} ${y + half} H ${x2} M ${(x1 + x2) / 2 - half / 2} ${y - half / 2} L ${(x1 + x2) / 2 + half / 2} ${y} L ${(x1 + x2) / 2 - half / 2} ${y + half / 2} Z`,
				fill: "none",
				stroke: "currentColor",
				"stroke-width": 1.6,
			});
		case "views": {
			const corner = Math.min((x2 - x1) / 3, half);
			return svg("path", {
				d: `M ${x1 + corner} ${y - half} H ${x1} V ${y + half} H ${x1 + corner} M ${x2 - corner} ${y - half} H ${x2} V ${y + half} H ${x2 - corner} M ${x1 + corner} ${y} H ${x2 - corner}`,
				fill: "none",
				stroke: "currentColor",
				"stroke-width": 1.6,
			});
		}
		default: {
			const waves = Math.max(2, Math.round((x2 - x1) / 9));
			const step = (x2 - x1) / waves / 2;
			const d = Array.from(
				{ length: waves * 2 },
				(_, i) => `q ${step / 2} ${i % 2 ? half * 1.6 : -half * 1.6} ${step} 0`,
			).join(" ");
			return svg("path", { d: `M ${x1} ${y} ${d}`, fill: "none", stroke: "currentColor", "stroke-width": 2 });
		}
	}
}

/** A sign by itself. */
export function sign(/** @type {string} */ kind) {
	return svg("svg", { class: "sign", viewBox: "0 0 20 12", "aria-hidden": "true" }, signPath(kind, 2, 18, 6, 5));
}

/** A fermata: an arc with a dot, its left end at x. */
export function fermata(/** @type {number} */ x, /** @type {number} */ y) {
	return svg(
		"g",
		{},
		svg("path", {
			d: `M ${x} ${y} A 8 8 0 0 1 ${x + 16} ${y}`,
			fill: "none",
			stroke: "var(--color-plum)",
			"stroke-width": 2,
		}),
		svg("circle", { cx: x + 8, cy: y - 1.5, r: 2, fill: "var(--color-plum)" }),
	);
}

/**
 * An arrow that goes on over a bar line: the slide goes on by itself, also where the show waits for cues. Its left end
 * is at x.
 */
export function onward(/** @type {number} */ x, /** @type {number} */ y) {
	return svg("path", {
		d: `M ${x} ${y - 5} h 14 m -5 -5 l 5 5 l -5 5`,
		fill: "none",
		stroke: "var(--color-glass)",
		"stroke-width": 2,
	});
}

export const KIND_WORDS = { enters: "Enters", accents: "Accents", travels: "Travels", leaves: "Leaves" };
