// The order of the next film: its kind, size, frames and timing.
import { pair, selectField, textField, tick } from "../panel/fields.js";
import { el } from "../ui/element.js";

const KINDS = [
	["mp4", "Film, MP4"],
	["webm", "Film, WebM"],
	["webp", "Animated picture, WebP"],
	["pdf", "Pages, PDF"],
	["zip", "A still of each beat, PNG"],
];
export const STYLES = [
	["slides", "A slide a page"],
	["notes", "Slides with their notes"],
	["beats", "Each beat a page"],
];
const SIZES = [
	["640x360", "640 × 360"],
	["1280x720", "1280 × 720"],
	["1920x1080", "1920 × 1080"],
	["3840x2160", "3840 × 2160"],
];
const RATES = [
	["24", "24 a second"],
	["25", "25 a second"],
	["30", "30 a second"],
	["60", "60 a second"],
];

export class FilmForm {
	#title;
	/** @type {Object<string, any>} */
	#wish;

	/**
	 * @param {string} title
	 * @param {{order: (wish: object) => void, redraw: () => void}} more what orders the film; what draws the page
	 */
	constructor(title, { order, redraw }) {
		this.#title = title;
		this.#wish = {
			name: title,
			kind: "mp4",
			size: "1280x720",
			rate: "30",
			constant_rate: false,
			style: "slides",
			take: null,
		};
		this.order = order;
		this.redraw = redraw;
	}

	/** The order for the server. */
	get asked() {
		const { size, ...rest } = this.#wish;
		const [width_px, height_px] = size.split("x").map(Number);
		return { ...rest, width_px, height_px };
	}

	/** @param {TakeLine[]} takes */
	draw(takes) {
		const wish = this.#wish;
		const [film, moves, paged] = [
			["mp4", "webm"].includes(wish.kind),
			["mp4", "webm", "webp"].includes(wish.kind),
			wish.kind === "pdf",
		];
		/** @param {string} field @param {string[][]} choices */
		const choice = (field, choices) =>
			selectField(wish[field], choices, (/** @type {string} */ value) => {
				wish[field] = value;
			});
		const ask = () => this.order(this.asked);
		return el(
			"section",
			{ class: "grid gap-2" },
			el("h2", { class: "text-lg" }, "Film, pages, stills"),
			pair("Name", this.#nameField()),
			pair("Kind", this.#kindField()),
			paged ? pair("Each page", choice("style", STYLES)) : pair("Size", choice("size", SIZES)),
			moves ? pair("Frames", choice("rate", film ? RATES : [["12", "12 a second"], ...RATES.slice(0, 2)])) : null,
			moves && takes.length ? pair("Timing", this.#takeField(takes)) : null,
			film
				? tick(
						"Every frame, for players that need a constant rate",
						wish.constant_rate,
						(/** @type {boolean} */ on) => {
							wish.constant_rate = on;
						},
					)
				: null,
			el("div", {}, el("button", { class: "push main", onclick: ask }, film ? "Make the film" : "Make it")),
		);
	}

	#nameField() {
		return textField(
			this.#wish.name,
			(/** @type {string} */ name) => {
				this.#wish.name = name.trim() || this.#title;
			},
			{ label: "Name of the film" },
		);
	}

	#kindField() {
		const wish = this.#wish;
		return selectField(wish.kind, KINDS, (/** @type {string} */ kind) => {
			wish.kind = kind;
			if (kind === "webp") Object.assign(wish, { size: "640x360", rate: "12" });
			else if (wish.rate === "12") Object.assign(wish, { size: "1280x720", rate: "30" });
			this.redraw();
		});
	}

	/** @param {TakeLine[]} takes */
	#takeField(takes) {
		return selectField(
			String(this.#wish.take ?? ""),
			[["", "As the show has it"], ...takes.map(({ number }) => [String(number), `As take ${number} ran`])],
			(/** @type {string} */ number) => {
				this.#wish.take = number ? Number(number) : null;
			},
		);
	}
}
