// Marks as SVG nodes, and what moves on a mark itself: outlines that are drawn, letters that are typed.
const SVG = "http://www.w3.org/2000/svg";
let numbered = 0;

/**
 * An id that is unique on the page.
 * @param {string} word
 */
export const newName = (word) => `${word}-${(numbered += 1)}`;

/** @param {string} name @param {any} [attributes] */
export function make(name, attributes = {}) {
	const node = document.createElementNS(SVG, name);
	for (const [key, value] of Object.entries(attributes)) node.setAttribute(key, value);
	return node;
}

/**
 * Sets an attribute where it differs, so that still things cost nothing.
 * @param {any} node
 * @param {string} name
 * @param {any} value
 */
export function set(node, name, value) {
	if (node.getAttribute(name) !== value) node.setAttribute(name, value);
}

/** @param {string} colour */
export const plain = (colour) => colour.slice(0, 7);
/** @param {string} colour */
export const alpha = (colour) => (colour.length === 9 ? parseInt(colour.slice(7), 16) / 255 : 1);

/** @param {Core.Mark} mark @param {SVGElement} defs */
function pathNode(mark, defs) {
	const node = make("path", { d: mark.d, "fill-rule": "nonzero", fill: "none" });
	if (typeof mark.fill === "string") {
		node.setAttribute("fill", plain(mark.fill));
		node.setAttribute("fill-opacity", String(alpha(mark.fill)));
	} else if (mark.fill) {
		const id = newName("shade");
		const { first, second, x1, y1, x2, y2 } = mark.fill;
		const gradient = make("linearGradient", { id, gradientUnits: "userSpaceOnUse", x1, y1, x2, y2 });
		gradient.append(
			make("stop", { offset: 0, "stop-color": plain(first), "stop-opacity": alpha(first) }),
			make("stop", { offset: 1, "stop-color": plain(second), "stop-opacity": alpha(second) }),
		);
		defs.append(gradient);
		node.setAttribute("fill", `url(#${id})`);
	}
	if (mark.stroke && mark.stroke_px) {
		node.setAttribute("stroke", plain(mark.stroke));
		node.setAttribute("stroke-opacity", String(alpha(mark.stroke)));
		node.setAttribute("stroke-width", String(mark.stroke_px));
		node.setAttribute("stroke-miterlimit", "4");
		if (mark.dash?.length) node.setAttribute("stroke-dasharray", mark.dash.join(" "));
		if (mark.round) node.setAttribute("stroke-linecap", "round");
	}
	return node;
}

/** @param {Core.Mark} mark @param {any} node @param {{x: number, y: number, width: number, height: number}} box */
function placeImage(node, mark, { x, y, width, height }) {
	for (const [name, value] of Object.entries({ x, y, width, height })) node.setAttribute(name, value);
	if (!mark.flip_x && !mark.flip_y) return;
	const [cx, cy] = [x + width / 2, y + height / 2];
	node.setAttribute(
		"transform",
		`translate(${cx} ${cy})scale(${mark.flip_x ? -1 : 1} ${mark.flip_y ? -1 : 1})translate(${-cx} ${-cy})`,
	);
}

/** @param {Core.Mark} mark @param {SVGElement} defs @param {Media} media */
function imageNode(mark, defs, media) {
	const node =
		mark.kind === "clip"
			? make("foreignObject")
			: make("image", { href: media[mark.asset_id] ?? "", preserveAspectRatio: "none" });
	placeImage(node, mark, mark);
	if (!mark.clip) return node;
	const id = newName("clip");
	const clip = make("clipPath", { id });
	clip.append(make("path", { d: mark.clip }));
	defs.append(clip);
	const group = make("g", { "clip-path": `url(#${id})` });
	group.append(node);
	return group;
}

/** @param {Core.Mark} mark */
function textNode(mark) {
	const node = make("text", {
		x: mark.x,
		y: mark.baseline,
		fill: mark.colour ? plain(mark.colour) : "none",
		"fill-opacity": mark.colour ? alpha(mark.colour) : 1,
		"font-family": `"${mark.family}"`,
		"font-size": mark.size_px,
		"font-weight": mark.weight,
		"font-style": mark.italic ? "italic" : "normal",
	});
	if (mark.rtl) {
		// The mark's x is its left edge, which is where text that runs to the left ends.
		for (const [name, value] of Object.entries({ direction: "rtl", "unicode-bidi": "isolate", "text-anchor": "end" }))
			node.setAttribute(name, value);
	}
	if (mark.stroke && mark.stroke_px) {
		for (const [name, value] of Object.entries({
			stroke: plain(mark.stroke),
			"stroke-opacity": alpha(mark.stroke),
			"stroke-width": mark.stroke_px,
			"stroke-linejoin": "round",
		}))
			node.setAttribute(name, String(value));
	}
	if (mark.link) node.dataset.link = mark.link;
	node.textContent = mark.text;
	node.classList.add("slide-text");
	return node;
}

/** @param {Core.Mark} mark @param {SVGElement} defs @param {Media} media */
export function markNode(mark, defs, media) {
	if (mark.kind === "path") return pathNode(mark, defs);
	return mark.kind === "text" ? textNode(mark) : imageNode(mark, defs, media);
}

/**
 * The opacity of a fill while an outline is drawn: core/render/strokes.py.
 * @param {number} drawn
 */
export const filledShare = (drawn) => Math.max(0, Math.min(drawn * 2 - 1, 1));

/** A mark's node while its outline is drawn, or its letters typed. */
export class MarkView {
	/** @param {Core.Mark} mark @param {SVGElement} defs @param {Media} media */
	constructor(mark, defs, media) {
		this.mark = mark;
		this.node = markNode(mark, defs, media);
		this.drawn = 1;
		this.letters = null;
		/** @type {{line: SVGPathElement, length: number}[] | null} */
		this.contours = null;
		this.drifted = 0;
		if (mark.kind !== "clip") return;
		const place = this.node.matches("foreignObject") ? this.node : this.node.querySelector("foreignObject");
		/** Resolves when the clip can be seen. */
		this.ready = import("./footage.js").then(({ Footage }) => {
			this.footage = new Footage(place, media[mark.asset_id] ?? "", mark.rate_pct);
			this.footage.show(this.shownMs ?? 0);
			return this.footage.loaded;
		});
		this.play(null);
	}

	/**
	 * The picture of a clip: `at_ms` of the core's ClipMark.
	 * @param {number | null} played
	 */
	play(played) {
		if (!this.ready) return;
		const { in_ms: from = 0, out_ms: to = 1, poster_ms: poster = 0 } = this.mark;
		this.shownMs = played === null ? poster : Math.min(from + played * (to - from), to - 1);
		this.footage?.show(this.shownMs);
	}

	/**
	 * How far a picture has drifted.
	 * @param {number} share
	 */
	drift(share) {
		if (share === this.drifted || !this.mark.drift_to) return;
		this.drifted = share;
		const { mark, node } = this;
		const to = this.mark.drift_to;
		const [x, y, width, height] = [mark.x, mark.y, mark.width, mark.height].map(
			(from, at) => from + (to[at] - from) * share,
		);
		placeImage(node.matches("image, foreignObject") ? node : node.querySelector("image, foreignObject"), mark, {
			x,
			y,
			width,
			height,
		});
	}

	/** @param {number} drawn */
	draw(drawn) {
		if (drawn === this.drawn) return;
		this.drawn = drawn;
		const { mark, node } = this;
		if (mark.kind !== "path") {
			node.setAttribute("opacity", String(drawn < 1 ? filledShare(drawn) : 1));
			return;
		}
		const whole = typeof mark.fill === "string" ? alpha(mark.fill) : 1;
		if (mark.fill) node.setAttribute("fill-opacity", String(drawn < 1 ? whole * filledShare(drawn) : whole));
		const { stroke } = mark;
		if (!stroke || !mark.stroke_px) return;
		node.setAttribute("stroke-opacity", String(drawn < 1 ? 0 : alpha(stroke)));
		if (drawn >= 1) {
			this.contours?.forEach(({ line }) => line.remove());
			return;
		}
		// Dashes begin anew with each contour, so each is a line of its own: a dash as long as what is drawn, and a gap
		// longer than the rest.
		this.contours ??= mark.d
			.split("M ")
			.slice(1)
			.map((d) => {
				const line = /** @type {SVGPathElement} */ (
					make("path", {
						d: `M ${d.trim()}`,
						fill: "none",
						stroke: plain(stroke),
						"stroke-opacity": alpha(stroke),
						"stroke-width": mark.stroke_px,
						"stroke-miterlimit": 4,
					})
				);
				return { line, length: line.getTotalLength() };
			});
		if (!this.contours[0]?.line.isConnected) node.after(...this.contours.map(({ line }) => line));
		for (const { line, length } of this.contours) {
			line.setAttribute("stroke-dasharray", `${length * drawn} ${length + 10}`);
			line.setAttribute("visibility", drawn <= 0 ? "hidden" : "inherit");
		}
	}

	/**
	 * The number of visible letters; null: all. A mark without letters is visible or not.
	 * @param {any} letters
	 */
	type(letters) {
		if (letters === this.letters) return;
		this.letters = letters;
		if (this.mark.kind === "text")
			this.node.textContent = letters === null ? this.mark.text : [...this.mark.text].slice(0, letters).join("");
		else set(this.node, "visibility", letters === 0 ? "hidden" : "inherit");
	}
}

/** The number of letters in a text; a character outside the first 65 536 is one letter, as in Python. */
export const letterCount = (text = "") => [...text].length;

/**
 * Letters given out mark after mark: core/render/typed_letters.py, checked by tests/vectors/players.json. Null: all.
 * @param {{marks: MarkView[]}[]} views
 * @param {number} share
 */
export function lettersOf(views, share) {
	if (share >= 1) return null;
	const total = views.reduce(
		(sum, { marks }) =>
			sum + marks.reduce((/** @type {number} */ count, { mark }) => count + letterCount(mark.text), 0),
		0,
	);
	return { left: Math.floor(share * total + 1e-9) };
}

/** @param {{left: number} | null} budget @param {number} count */
export function take(budget, count) {
	if (!budget) return count;
	const taken = Math.min(budget.left, count);
	budget.left -= taken;
	return taken;
}
