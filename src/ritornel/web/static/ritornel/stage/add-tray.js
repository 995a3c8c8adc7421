// The trays for adding: layouts of a new slide, forms and pens, and the music of the shelf.
import { keepPlace } from "../ui/focus.js";
import { closeAtEscape } from "../ui/menu.js";
import { el, icon, svg } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { addShape, addSlide, addTable, addText } from "./adding.js";
import { putMusic, stretches } from "../panel/music-spans.js";
import { smallPlayer } from "../ui/small-player.js";

const FORMS = {
	rectangle: "M 4 6 H 36 V 24 H 4 Z",
	"rounded rectangle": "M 9 6 H 31 Q 36 6 36 11 V 19 Q 36 24 31 24 H 9 Q 4 24 4 19 V 11 Q 4 6 9 6 Z",
	ellipse: "M 20 4 a 16 11 0 1 0 0.1 0 Z",
	line: "M 4 15 H 36",
	"line with a head": "M 4 15 H 34 M 28 9 L 35 15 L 28 21",
	arrow: "M 4 11 H 22 V 5 L 36 15 L 22 25 V 19 H 4 Z",
	bubble: "M 7 4 H 33 Q 36 4 36 7 V 17 Q 36 20 33 20 H 20 L 12 28 L 13 20 H 7 Q 4 20 4 17 V 7 Q 4 4 7 4 Z",
	bracket: "M 25 3 Q 20 3 20 8 V 12 Q 20 15 15 15 Q 20 15 20 18 V 22 Q 20 27 25 27",
	polygon: "M 12 3 H 28 L 36 15 L 28 27 H 12 L 4 15 Z",
	star: "M 20 2 L 24 11 L 34 11 L 26 17 L 29 27 L 20 21 L 11 27 L 14 17 L 6 11 L 16 11 Z",
	ring: "M 20 3 a 12 12 0 1 0 0.1 0 Z M 20 8 a 7 7 0 1 1 -0.1 0 Z",
	arch: "M 4 24 A 16 18 0 0 1 36 24 H 29 A 9 11 0 0 0 11 24 Z",
	wheel:
		"M 18 2 h 4 v 3 l 4 2 3 -2 3 3 -2 3 2 4 h 3 v 4 h -3 l -2 4 2 3 -3 3 -3 -2 -4 2 v 3 h -4 v -3 l -4 -2 -3 2 -3 -3 2 -3 -2 -4 h -3 v -4 h 3 l 2 -4 -2 -3 3 -3 3 2 4 -2 Z",
};
const STROKED = new Set(["line", "line with a head", "bracket"]);
const capital = (/** @type {string} */ word) => word[0].toUpperCase() + word.slice(1);

export class Tray {
	/** @type {string | null} */
	open;

	/** @param {ShowState} state @param {Stage} stage */
	constructor(state, stage, /** @type {any} */ { bar, node }) {
		this.state = state;
		this.stage = stage;
		this.bar = bar;
		this.node = node;
		bar.addEventListener("click", (/** @type {StageEvent} */ event) => {
			const button = event.target.closest("button");
			if (!button) return;
			if (button.dataset.tray) this.toggle(button.dataset.tray);
			else if (button.dataset.add) {
				this.close();
				(button.dataset.add === "text" ? addText : addTable)(stage);
			}
		});
		closeAtEscape(node, () => {
			const { open } = this;
			this.close();
			bar.querySelector(`[data-tray="${open}"]`)?.focus();
		});
		state.addEventListener("show", () => {
			if (this.open) this.draw();
		});
		state.addEventListener("music", () => {
			this.open = "music";
			this.draw();
		});
	}

	toggle(/** @type {string} */ kind) {
		this.open = this.open === kind ? null : kind;
		this.draw();
		this.node.querySelector("button, input")?.focus();
	}

	close() {
		this.open = null;
		this.draw();
	}

	draw() {
		this.node.hidden = !this.open;
		for (const button of this.bar.querySelectorAll("[data-tray]"))
			button.setAttribute("aria-expanded", String(button.dataset.tray === this.open));
		const parts =
			{ slide: () => this.layouts(), shape: () => this.forms(), music: () => this.sounds() }[
				/** @type {"slide" | "shape" | "music"} */ (this.open)
			]?.() ?? [];
		const keepsPlace = keepPlace(this.node);
		this.node.replaceChildren(...parts);
		keepsPlace();
	}

	layouts() {
		const { frame } = this.state.data.settings;
		const tall = frame.height_px > frame.width_px * 1.05;
		const [w, h] = tall ? [22, 39] : [52, 29];
		return this.state.data.layouts.map((layout) =>
			el(
				"button",
				{
					class: "item layout",
					"data-layout": layout.name,
					onclick: () => {
						this.close();
						addSlide(this.state, layout.name, layout.title);
					},
				},
				svg(
					"svg",
					{ viewBox: `0 0 ${w} ${h}`, "aria-hidden": "true" },
					svg("rect", { width: w, height: h, rx: 2, fill: "#f6f1e4" }),
					layout.places.map((place) => {
						const [x, y, width, height] = tall ? place.tall : place.wide;
						const box = { x: x * w, y: y * h, width: width * w, height: height * h };
						if (place.wants !== "words") return svg("rect", { ...box, fill: "#8fb2ae" });
						const lines =
							place.look === "title" || place.look === "heading" ? 1 : Math.max(1, Math.floor(box.height / 4));
						const high = lines === 1 ? Math.min(box.height * 0.6, 4.5) : 1.6;
						return Array.from({ length: lines }, (_, at) =>
							svg("rect", {
								x: box.x,
								y: box.y + (lines === 1 ? (box.height - high) / 2 : at * 4),
								width: box.width * (at === lines - 1 && lines > 1 ? 0.6 : lines === 1 ? 0.75 : 1),
								height: high,
								fill: lines === 1 ? "#16262e" : "#7b8a8f",
							}),
						);
					}),
				),
				layout.title,
			),
		);
	}

	forms() {
		const pens = [
			["free", "Freehand", "M 5 22 C 12 4 18 28 24 14 S 32 6 36 12"],
			["points", "From point to point", "M 5 24 L 14 7 L 26 20 L 36 6"],
		];
		const sign = (/** @type {string} */ d, /** @type {boolean} */ open) =>
			svg(
				"svg",
				{ viewBox: "0 0 40 30", "aria-hidden": "true" },
				svg("path", {
					d,
					fill: open ? "none" : "currentColor",
					stroke: open ? "currentColor" : "none",
					"stroke-width": 3,
				}),
			);
		return [
			...Object.entries(FORMS).map(([form, d]) =>
				el(
					"button",
					{
						class: "item",
						onclick: () => {
							this.close();
							addShape(this.stage, form);
						},
					},
					sign(d, STROKED.has(form)),
					capital(form),
				),
			),
			...pens.map(([kind, words, d]) =>
				el(
					"button",
					{
						class: "item",
						onclick: () => {
							this.close();
							this.stage.draw(kind);
						},
					},
					sign(d, true),
					words,
				),
			),
		];
	}

	/** Sounds from files, from the shelf and from the catalogue, each put under a stretch of the show in one act. */
	sounds() {
		const { state } = this;
		const ways = stretches(state);
		const place = async (/** @type {ShelfAsset} */ asset, /** @type {any} */ stretch) => {
			if (await putMusic(state, asset, stretch)) this.close();
		};
		const input = el("input", { type: "file", accept: "audio/*", class: "sr-only", "aria-label": "Choose a sound" });
		input.addEventListener("change", async () => {
			const [asset] = await state.addFiles([...input.files].map((file) => ({ file })));
			if (asset?.kind === "sound") await place(asset, ways.whole);
		});
		const seek = (/** @type {any} */ detail) => {
			this.close();
			state.dispatchEvent(new CustomEvent("shelf", { detail }));
		};
		const to = (/** @type {ShelfAsset} */ asset) => {
			const field = el(
				"select",
				{ class: "field", "aria-label": `${asset.name}: from this slide to …` },
				el("option", { value: "" }, "From here to …"),
				ways.ends.map(([value, words]) => el("option", { value }, words)),
			);
			field.addEventListener("change", () => field.value && place(asset, ways.to(field.value)));
			return field;
		};
		const items = state.data.assets.filter((asset) => asset.kind === "sound");
		return [
			el(
				"div",
				{ class: "grid gap-1 shrink-0" },
				el("label", { class: "push dim cursor-pointer" }, icon("upload"), "A file", input),
				el(
					"button",
					{ class: "push dim", onclick: () => seek({ kind: "sounds", catalogue: "music" }) },
					icon("search"),
					"Catalogue",
				),
			),
			...items.map((asset) =>
				el(
					"div",
					{ class: "item sound" },
					el("b", { class: "truncate", title: asset.name }, `${asset.name}, ${secondsText(asset.lasts_ms)} s`),
					smallPlayer({ src: asset.address, name: asset.name, lastsMs: asset.lasts_ms, preload: "none" }),
					el(
						"div",
						{ class: "row" },
						ways.slide
							? el(
									"button",
									{ class: "push dim", title: "Under the slide on the stage", onclick: () => place(asset, ways.slide) },
									"This slide",
								)
							: null,
						ways.slide ? to(asset) : null,
						el("button", { class: "push dim", onclick: () => place(asset, ways.whole) }, "Under the whole show"),
					),
				),
			),
		];
	}
}
