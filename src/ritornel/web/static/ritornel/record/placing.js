// The place of the camera's picture on the slide: dragged, moved by arrows, typed. The geometry is that of
// core/document/camera.py, checked by tests/vectors/recording.json.

const SNAP_PCT = 1.6;
const EDGE_PCT = 2;

/** The camera's box in px of a frame, as {x, y, width, height}. */
export function cameraBox(
	/** @type {Core.Frame} */ frame,
	/** @type {any} */ { shape, across_pct: across, down_pct: down, size_pct: size },
) {
	const width = (frame.width_px * size) / 100;
	const height = shape === "round" ? width : (width * 3) / 4;
	return {
		x: (frame.width_px * across) / 100 - width / 2,
		y: (frame.height_px * down) / 100 - height / 2,
		width,
		height,
	};
}

const round1 = (/** @type {any} */ value) => Math.round(value * 10) / 10;
const within = (/** @type {any} */ value, /** @type {number} */ least, /** @type {number} */ most) =>
	Math.min(Math.max(value, least), most);

/** A middle after snapping: to the frame's middle or to the usual distance from an edge. */
export function snapPct(/** @type {any} */ value, /** @type {number} */ half) {
	const places = [half + EDGE_PCT, 50, 100 - half - EDGE_PCT];
	return places.find((place) => Math.abs(place - value) < SNAP_PCT) ?? value;
}

export class Placing {
	/**
	 * @param {HTMLElement} node the picture over the stage
	 * @param {HTMLElement} stage
	 * @param {Core.Frame} frame
	 * @param {CameraPlacement} placement
	 * @param {(placement: CameraPlacement) => void} changed
	 */
	constructor(node, stage, frame, placement, changed) {
		this.node = node;
		this.stage = stage;
		this.frame = frame;
		this.placement = placement;
		this.changed = changed;
		/** @type {{[slideId: string]: Core.Box}} */
		this.aside = {};
		/** @type {string | null} */
		this.slideId = null;
		node.addEventListener("pointerdown", (event) => this.drag(event));
		node.addEventListener("keydown", (event) => this.key(event));
		new ResizeObserver(() => this.draw()).observe(stage);
	}

	put(/** @type {Partial<CameraPlacement>} */ change, told = true) {
		const next = { ...this.placement, ...change };
		next.across_pct = round1(within(next.across_pct, 0, 100));
		next.down_pct = round1(within(next.down_pct, 0, 100));
		next.size_pct = round1(within(next.size_pct, 5, 100));
		this.placement = next;
		this.aside = {};
		this.draw();
		if (told) this.changed(next);
	}

	/** Where it steps aside for text of the visible slide, as {x, y, width, height}; null where it need not. */
	get asideBox() {
		return this.node.hasAttribute("data-dragged") ? null : (this.aside[String(this.slideId)] ?? null);
	}

	/** The placement at its visible place: a move starts from there. */
	stands() {
		const box = this.asideBox;
		if (!box) return this.placement;
		const { width_px: width, height_px: height } = this.frame;
		return {
			...this.placement,
			across_pct: round1(((box.x + box.width / 2) / width) * 100),
			down_pct: round1(((box.y + box.height / 2) / height) * 100),
			size_pct: round1((box.width / width) * 100),
		};
	}

	/** Another slide is visible, or the boxes by slide have arrived. */
	see({ slideId = this.slideId, aside = this.aside }) {
		Object.assign(this, { slideId, aside });
		this.draw();
	}

	draw() {
		const { shape } = this.placement;
		this.node.hidden = shape === "off";
		this.node.dataset.shape = shape;
		const scale = this.stage.clientWidth / this.frame.width_px;
		const box =
			shape === "apart"
				? { x: 0, y: 0, width: this.frame.width_px * 0.16, height: this.frame.width_px * 0.12 }
				: (this.asideBox ?? cameraBox(this.frame, this.placement));
		this.node.toggleAttribute("data-aside", shape !== "apart" && this.asideBox !== null);
		for (const [name, value] of Object.entries({ left: box.x, top: box.y, width: box.width, height: box.height }))
			this.node.style.setProperty(name, `${value * scale}px`);
	}

	drag(/** @type {any} */ down) {
		if (this.placement.shape === "apart") return;
		down.preventDefault();
		this.node.focus();
		this.node.setPointerCapture(down.pointerId);
		const begun = this.stands();
		const { width, height } = this.stage.getBoundingClientRect();
		const box = cameraBox(this.frame, begun);
		this.node.toggleAttribute("data-dragged", true);
		this.placement = begun;
		this.draw();
		const move = (/** @type {PointerEvent} */ event) => {
			const across = begun.across_pct + ((event.clientX - down.clientX) / width) * 100;
			const downPct = begun.down_pct + ((event.clientY - down.clientY) / height) * 100;
			this.put({
				across_pct: snapPct(across, (box.width / this.frame.width_px) * 50),
				down_pct: snapPct(downPct, (box.height / this.frame.height_px) * 50),
			});
		};
		this.node.addEventListener("pointermove", move);
		const end = () => {
			this.node.removeEventListener("pointermove", move);
			this.node.removeAttribute("data-dragged");
			this.draw();
			this.changed(this.placement);
		};
		this.node.addEventListener("lostpointercapture", end, { once: true });
	}

	key(/** @type {KeyboardEvent} */ event) {
		const step = event.shiftKey ? 10 : 1;
		const { across_pct: across, down_pct: down, size_pct: size } = this.stands();
		/** @type {{[key: string]: Partial<CameraPlacement>}} */
		const moves = {
			ArrowLeft: { across_pct: across - step },
			ArrowRight: { across_pct: across + step },
			ArrowUp: { down_pct: down - step },
			ArrowDown: { down_pct: down + step },
			"+": { size_pct: size + 1 },
			"-": { size_pct: size - 1 },
		};
		if (!moves[event.key]) return;
		event.preventDefault();
		event.stopPropagation();
		this.put(moves[event.key]);
	}
}
