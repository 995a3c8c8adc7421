// Empty places of the layout: they say what they are for, are filled by one press or a drop, and are never part of the
// show.
import { el, icon } from "../ui/element.js";
import { heldKeys } from "./held-keys.js";

export class Places {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
		this.layer = el("div", { class: "places" });
		/** @type {Map<string, HTMLElement>} what stands there, by what it says */
		this.nodes = new Map();
		stage.canvas.append(this.layer);
	}

	/** The button of a place. One that stays the same is kept: a press under way, or the focus, stays on it. */
	nodeOf(/** @type {any} */ place, /** @type {boolean} */ full) {
		const key = JSON.stringify([place.name, place.title, place.wants, full]);
		const node =
			this.nodes.get(key) ??
			el(
				"button",
				{ class: full ? "empty-place full" : "empty-place", "data-place": place.name },
				el("b", {}, place.title),
				el("span", {}, place.wants !== "words" ? `Press to choose a ${place.wants}, or drop one` : "Press to write"),
			);
		this.nodes.set(key, node);
		node.onclick = () => this.fill(place);
		return node;
	}

	draw() {
		const { stage } = this;
		const { scale } = stage;
		const places = stage.state.data.viewing?.places ?? [];
		const now = places.map((place) => {
			const { x, y, width, height } = place.box;
			const node = this.nodeOf(place, width >= stage.frame.width_px && height >= stage.frame.height_px);
			Object.assign(node.style, {
				left: `${x * scale}px`,
				top: `${y * scale}px`,
				width: `${width * scale}px`,
				height: `${height * scale}px`,
			});
			return node;
		});
		for (const [key, node] of this.nodes) if (!now.includes(node)) this.nodes.delete(key);
		// What stays is not touched: a node that is put in again loses the focus.
		for (const node of /** @type {any[]} */ ([...this.layer.children])) if (!now.includes(node)) node.remove();
		this.layer.append(...now.filter((node) => !node.isConnected), ...this.badges(scale));
	}

	/** A sign on every object that a press does something on. */
	badges(/** @type {any} */ scale) {
		const { state } = this.stage;
		return (state.slide?.objects ?? [])
			.filter((item) => item.press && !item.aside)
			.map((item) => {
				const words = {
					next: "A press gives the next cue",
					slide: "A press goes to a slide",
					address: "A press opens an address",
					sound: "A press plays a sound",
					clip: "A press plays a clip",
				}[/** @type {Core.PressAction} */ (item.press).do];
				const node = el(
					"span",
					{ class: "press-badge", title: words, role: "img", "aria-label": `${item.name}: ${words.toLowerCase()}` },
					icon("mouse-pointer-click"),
				);
				Object.assign(node.style, {
					left: `${(item.box.x + item.box.width) * scale - 20}px`,
					top: `${item.box.y * scale + 2}px`,
				});
				return node;
			});
	}

	async fill(/** @type {any} */ place) {
		if (place.wants !== "words") {
			this.stage.state.dispatchEvent(new CustomEvent("want", { detail: { place } }));
			return;
		}
		const typed = heldKeys();
		(await import("./adding.js")).addTextIn(this.stage, place, typed);
	}

	/** The empty place for a picture at a point of the frame, if there is one. */
	pictureAt(/** @type {any} */ { x, y }) {
		return (
			(this.stage.state.data.viewing?.places ?? []).find(
				({ wants, box }) =>
					wants !== "words" && x >= box.x && y >= box.y && x <= box.x + box.width && y <= box.y + box.height,
			) ?? null
		);
	}
}
