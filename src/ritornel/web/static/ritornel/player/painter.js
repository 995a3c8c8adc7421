// The browser's painter: marks as SVG, tracks as transforms. It follows and decides nothing.
import { Depth, FLAT, homography, inDepth } from "./depth.js";
import { letterCount, lettersOf, make, MarkView, newName, set, take } from "./marks.js";
import { STILL } from "./sampling.js";
import { shadowAddress, Tint, Veil } from "./overlays.js";

/**
 * Moves, then turns and scales about the pivot: the same order as the server's painter.
 * @param {any} values
 * @param {number} pivotX
 * @param {number} pivotY
 * @param {number} [turnDeg]
 */
function transformOf(values, pivotX, pivotY, turnDeg = 0) {
	const turn = values.turn + turnDeg;
	const wide = values.scale * values.wide;
	let text = values.x || values.y ? `translate(${values.x} ${values.y})` : "";
	if (turn || values.scale !== 1 || wide !== 1)
		text += `translate(${pivotX} ${pivotY})rotate(${turn})scale(${wide} ${values.scale})translate(${-pivotX} ${-pivotY})`;
	return text;
}

/** An object's nodes: its place, its moving group, its shadow and opacity, its tint, and its parts with their marks. */
class ObjectView {
	/** @param {Core.ObjectDrawing} item @param {SVGElement} defs @param {Media} media */
	constructor(item, defs, media) {
		this.item = item;
		const reach = item.reach_px ?? 0;
		const region = [-reach, -reach, item.width + 2 * reach, item.height + 2 * reach];
		this.place = make("g", { "data-object": item.object_id, transform: `translate(${item.x} ${item.y})` });
		this.group = make("g");
		this.cast = make("g", item.shadow ? { filter: shadowAddress(item.shadow, item, defs) } : {});
		const tinted = make("g");
		this.cast.append(tinted);
		this.group.append(this.cast);
		this.place.append(this.group);
		this.veil = new Veil(this.group, defs, region);
		this.tint = new Tint(tinted, defs, region);
		this.parts = item.parts.map((part) => {
			const node = make("g");
			if (part.part) node.dataset.part = part.part;
			const marks = part.marks.map((mark) => new MarkView(mark, defs, media));
			node.append(...marks.map((view) => view.node));
			tinted.append(node);
			return {
				part,
				node,
				marks,
				key: part.part ? `${item.object_id}/${part.part}` : null,
				veil: new Veil(node, defs, region),
				tint: new Tint(node, defs, region),
			};
		});
	}

	/**
	 * What a press on it does, for people who press with keys.
	 * @param {string} kind
	 */
	press(kind) {
		const words = this.item.parts
			.flatMap((part) => part.marks)
			.map((mark) => mark.text ?? "")
			.join(" ")
			.trim();
		for (const [name, value] of Object.entries({
			"data-press": kind,
			tabindex: 0,
			role: "button",
			"aria-label": words || "Press",
		}))
			this.place.setAttribute(name, String(value));
	}

	/** @param {any} objects */
	apply(objects) {
		const { item } = this;
		const own = objects.get(item.object_id) ?? STILL;
		set(this.place, "visibility", own.shown ? "visible" : "hidden");
		set(this.place, "data-away", own.shown ? "no" : "yes");
		if (!own.shown) return;
		set(this.group, "transform", transformOf(own, item.width / 2, item.height / 2, item.turn_deg));
		set(this.cast, "opacity", String(own.opacity * item.opacity));
		this.veil.apply(own);
		this.tint.apply(own);
		const letters = lettersOf(this.parts, own.typed);
		for (const view of this.parts) this.applyPart(view, objects, own, letters);
	}

	/** @param {any} view @param {any} objects @param {any} own @param {any} letters */
	applyPart(view, objects, own, letters) {
		const moved = view.key ? (objects.get(view.key) ?? STILL) : STILL;
		if (view.key) {
			set(view.node, "visibility", moved.shown ? "inherit" : "hidden");
			set(view.node, "transform", transformOf(moved, view.part.pivot_x, view.part.pivot_y));
			set(view.node, "opacity", String(moved.opacity));
			view.veil.apply(moved);
			view.tint.apply(moved);
		}
		const drawn = moved.drawn * (view.part.part?.startsWith("+") ? 1 : own.drawn);
		const ownLetters = lettersOf([view], moved.typed);
		const typing = Boolean(letters || ownLetters);
		for (const mark of view.marks) {
			mark.draw(drawn);
			mark.drift(own.drift);
			mark.play(own.played);
			const count = letterCount(mark.mark.text);
			const shown = Math.min(take(letters, count), take(ownLetters, count));
			if (mark.mark.kind === "text") mark.type(typing ? shown : null);
			else if (view.key) mark.type(typing ? 0 : null);
		}
	}
}

/** One slide's SVG group: made once, then only moved. */
export class SlideView {
	/**
	 * @param {Core.SlideDrawing} drawing
	 * @param {{width_px: number, height_px: number}} frame
	 * @param {Media} media addresses by asset
	 * @param {Object<string, Core.PressAction>} presses what a press on an object does
	 * @param {boolean} pressed whether objects can be pressed here
	 */
	constructor(drawing, frame, media, presses = {}, pressed = false) {
		this.frame = frame;
		this.node = make("g", { class: "slide-layer", "data-layer": drawing.slide_id });
		const defs = make("defs");
		const whole = [0, 0, frame.width_px, frame.height_px];
		this.veil = new Veil(this.node, defs, whole);
		this.tint = new Tint(this.node, defs, whole);
		// Editions made before grounds had several marks keep their one background.
		this.ground = make("g");
		// What is on the slide, moved as the view is, and nothing of it beyond the frame.
		this.view = make("g");
		const frameClip = make("clipPath", { id: newName("frame") });
		frameClip.append(make("rect", { width: frame.width_px, height: frame.height_px }));
		defs.append(frameClip);
		const framed = make("g", { "clip-path": `url(#${frameClip.id})` });
		framed.append(this.view);
		this.grounds = (drawing.ground ?? [/** @type {any} */ (drawing).background]).map(
			(mark) => new MarkView(mark, defs, media),
		);
		this.ground.append(...this.grounds.map(({ node }) => node));
		this.view.append(this.ground);
		this.node.append(defs, framed);
		this.objects = drawing.objects.map((item) => new ObjectView(item, defs, media));
		for (const view of this.objects) {
			if (pressed && presses[view.item.object_id]) view.press(presses[view.item.object_id].do);
			this.view.append(view.place);
		}
	}

	/** @param {{objects: Map<string, object>, values: object}} layer */
	/** @param {Layer} layer */
	apply(layer) {
		const { values } = layer;
		set(
			this.node,
			"transform",
			inDepth(values) ? "" : transformOf(values, this.frame.width_px / 2, this.frame.height_px / 2),
		);
		set(this.node, "opacity", String(values.opacity));
		set(
			this.view,
			"transform",
			layer.view ? transformOf(layer.view, this.frame.width_px / 2, this.frame.height_px / 2) : "",
		);
		set(this.ground, "opacity", String(layer.ground ?? 1));
		for (const mark of this.grounds) mark.play(layer.ground_played ?? null);
		this.veil.apply(values);
		this.tint.apply(values);
		for (const view of this.objects) view.apply(layer.objects);
	}
}

/** A surface that shows frame states of a performance. */
export class Painter {
	/**
	 * @param {SVGSVGElement} svg
	 * @param {PlayedShow} show
	 * @param {{pressed?: boolean}} options whether objects can be pressed
	 */
	constructor(svg, show, { pressed = false } = {}) {
		this.svg = svg;
		this.pressed = pressed;
		this.show = show;
		this.views = new Map();
		this.depth = new Depth(svg, show.frame);
		const { width_px: width, height_px: height } = show.frame;
		svg.setAttribute("viewBox", `0 0 ${width} ${height}`);
		this.black = make("rect", { width, height, fill: "#000000", opacity: 0, "pointer-events": "none" });
		svg.replaceChildren(make("rect", { width, height, fill: "#000000" }), this.black);
	}

	/** @param {number} index */
	view(index) {
		if (!this.views.has(index)) {
			const { drawing, presses } = this.show.slides[index];
			this.views.set(index, new SlideView(drawing, this.show.frame, this.show.media, presses, this.pressed));
		}
		return this.views.get(index);
	}

	/**
	 * Prepares the pictures of a slide before they are needed.
	 * @param {number} index
	 */
	async ready(index) {
		const images = [...this.view(index).node.querySelectorAll("image")].map((node) => {
			const image = new Image();
			image.src = node.getAttribute("href");
			return image.decode().catch(() => undefined);
		});
		/** @type {SlideView} */
		const { objects, grounds } = this.view(index);
		const clips = [...grounds, ...objects.flatMap(({ parts }) => parts.flatMap(({ marks }) => marks))].map(
			(mark) => mark.ready,
		);
		await Promise.all([...images, ...clips]);
	}

	/** @param {FrameState} frameState */
	paint(frameState) {
		// Layers turned in depth, and all above them, are shown on sheets of their own over the surface.
		const first = frameState.layers.findIndex((layer) => inDepth(layer.values));
		const deep = first < 0 ? [] : frameState.layers.slice(first);
		const wanted = frameState.layers
			.slice(0, frameState.layers.length - deep.length)
			.map((layer) => this.view(layer.index));
		const present = [...this.svg.children].slice(1, -1);
		if (present.length !== wanted.length || wanted.some((view, i) => view.node !== present[i])) {
			present.forEach((node) => node.remove());
			wanted.forEach((view) => this.black.before(view.node));
		}
		frameState.layers.forEach((layer) => this.view(layer.index).apply(layer));
		if (deep.length)
			this.depth.show(
				deep.map(({ index, values }) => ({
					node: this.view(index).node,
					matrix: inDepth(values) ? homography(values, this.show.frame) : FLAT,
				})),
			);
		else this.depth.hide();
		set(this.black, "opacity", String(frameState.blackness));
	}
}
