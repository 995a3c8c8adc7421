// Overlays on a node: masks that reveal it, a tint, a shadow. Each is made when it is first needed.
import { alpha, make, newName, plain, set } from "./marks.js";
import { maskOutline, softEdge } from "./masks.js";

/** A mask on a node: a clip for a hard edge, a mask with a gradient for a soft one. */
export class Veil {
	/** @param {any} node @param {SVGElement} defs @param {Region} region */
	constructor(node, defs, region) {
		this.node = node;
		this.defs = defs;
		this.region = region;
		/** @type {string | null} */
		this.kind = null;
	}

	/** @param {{mask: Core.Mask | null, reveal: number}} values */
	apply({ mask, reveal }) {
		if (!mask || reveal >= 1) {
			this.use(null);
			return;
		}
		const edge = softEdge(mask, reveal, this.region);
		if (!edge) {
			this.use("clip-path");
			set(this.outline, "d", maskOutline(mask, reveal, this.region) || "M 0 0 Z");
			return;
		}
		this.use("mask");
		["x1", "y1", "x2", "y2"].forEach((name, at) => set(this.gradient, name, String(edge[at])));
	}

	/** @param {string | null} kind */
	use(kind) {
		if (this.kind === kind) return;
		if (this.kind) this.node.removeAttribute(this.kind);
		this.kind = kind;
		if (kind) this.node.setAttribute(kind, `url(#${kind === "mask" ? this.softName() : this.hardName()})`);
	}

	hardName() {
		if (!this.hard) {
			this.outline = make("path");
			this.hard = make("clipPath", { id: newName("veil") });
			this.hard.append(this.outline);
			this.defs.append(this.hard);
		}
		return this.hard.id;
	}

	softName() {
		if (!this.soft) {
			const [x, y, width, height] = this.region;
			const reach = { x: x - width, y: y - height, width: width * 3, height: height * 3 };
			this.gradient = make("linearGradient", { id: newName("edge"), gradientUnits: "userSpaceOnUse" });
			this.gradient.append(
				make("stop", { offset: 0, "stop-color": "#ffffff" }),
				make("stop", { offset: 1, "stop-color": "#ffffff", "stop-opacity": 0 }),
			);
			// Painted white, a mask's brightness is its opacity: what the server's painter takes straight from alpha.
			this.soft = make("mask", { id: newName("veil"), maskUnits: "userSpaceOnUse", ...reach });
			this.soft.append(make("rect", { ...reach, fill: `url(#${this.gradient.id})` }));
			this.defs.append(this.gradient, this.soft);
		}
		return this.soft.id;
	}
}

/** A tint over everything a node shows. */
export class Tint {
	/** @param {any} node @param {SVGElement} defs @param {Region} region */
	constructor(node, defs, region) {
		this.node = node;
		this.defs = defs;
		this.region = region;
		this.on = false;
	}

	/** @param {{tint: number, colour: string}} values */
	apply({ tint, colour }) {
		const on = tint > 0 && Boolean(colour);
		if (on) {
			const name = this.name();
			set(this.flood, "flood-color", plain(colour));
			set(this.flood, "flood-opacity", String(Math.min(tint, 1)));
			if (!this.on) this.node.setAttribute("filter", `url(#${name})`);
		} else if (this.on) this.node.removeAttribute("filter");
		this.on = on;
	}

	name() {
		if (!this.filter) {
			const [x, y, width, height] = this.region;
			this.flood = make("feFlood", { result: "colour" });
			this.filter = make("filter", {
				id: newName("tint"),
				filterUnits: "userSpaceOnUse",
				x: x - 200,
				y: y - 200,
				width: width + 400,
				height: height + 400,
				"color-interpolation-filters": "sRGB",
			});
			const merge = make("feMerge");
			merge.append(make("feMergeNode", { in: "SourceGraphic" }), make("feMergeNode", { in: "over" }));
			this.filter.append(
				this.flood,
				make("feComposite", { in: "colour", in2: "SourceAlpha", operator: "in", result: "over" }),
				merge,
			);
			this.defs.append(this.filter);
		}
		return this.filter.id;
	}
}

/**
 * A group's shadow, cast as the server's painter does, from everything the object shows. Returns the filter's
 * address.
 * @param {Core.ShadowMark} shadow
 * @param {{width: number, height: number}} size
 * @param {SVGElement} defs
 */
export function shadowAddress(shadow, { width, height }, defs) {
	const id = newName("shadow");
	const reach = Math.abs(shadow.dx) + Math.abs(shadow.dy) + shadow.sigma_px * 3 + Math.max(width, height) * 2 + 200;
	const filter = make("filter", {
		id,
		filterUnits: "userSpaceOnUse",
		x: -reach,
		y: -reach,
		width: width + reach * 2,
		height: height + reach * 2,
		"color-interpolation-filters": "sRGB",
	});
	filter.append(
		make("feDropShadow", {
			dx: shadow.dx,
			dy: shadow.dy,
			stdDeviation: shadow.sigma_px,
			"flood-color": plain(shadow.colour),
			"flood-opacity": alpha(shadow.colour),
		}),
	);
	defs.append(filter);
	return `url(#${id})`;
}
