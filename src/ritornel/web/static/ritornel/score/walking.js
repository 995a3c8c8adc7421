// The score by keys: one place in it has the focus. The arrows walk along a row and from row to row, Alt and the arrows
// move what stands there, Enter opens its number, Space opens it in the panel.
import { el } from "../ui/element.js";
import { loadSheet } from "../ui/sheets.js";
import { parseClockMs, secondsText } from "../ui/times.js";
import { numberOf } from "./numbers.js";
import { placeRows } from "./places.js";

loadSheet("media");
const STEP_MS = 100;
const TEN = 10;
/** How long a number stays beside what was moved. */
const SHOWN_MS = 2500;
const ROW_PX = 24;
/** Kinds of numbers that are bar lines and no typed times. */
const BARS = new Set(["spanStart", "spanEnd"]);

export class Walker {
	/** @param {import("./score.js").Score} score @param {HTMLElement} node what has the keyboard in it */
	constructor(score, node) {
		this.score = score;
		this.state = score.state;
		this.node = node;
		this.id = null;
		this.known = "";
		/** @type {{name: string, places: Place[]}[]} */
		this.found = [];
		this.at = 0;
		this.row = "slides";
		// Two take turns: what gets the keyboard is read out, what has it already and is called otherwise is not.
		this.other = el("div", { class: "score-place", role: "button", tabindex: -1 });
		node.after(this.other);
		const here = () => document.activeElement === this.node && this.put();
		for (const one of [node, this.other]) one.addEventListener("focus", here);
		this.state.addEventListener("show", here);
		this.go(this.place() ?? this.onStage());
		this.put();
	}

	/** The places row by row, found once for each state of the show. */
	get rows() {
		const { data, way } = this.state;
		const now = `${data.revision} ${way}`;
		if (this.known !== now) {
			this.known = now;
			this.found = placeRows(this.state, this.score.ties);
		}
		return this.found;
	}

	/** The focused place as it is now; where it is gone, the nearest of its row. */
	place(rows = this.rows) {
		const all = rows.flatMap(({ places }) => places);
		const found = all.find(({ id }) => id === this.id);
		if (found || !this.id) return found ?? null;
		return nearest(rows.find(({ name }) => name === this.row)?.places ?? all, this.at);
	}

	onStage() {
		const id = `slide ${this.state.slide?.id}`;
		const all = this.rows.flatMap(({ places }) => places);
		return all.find((place) => place.id === id) ?? all[0] ?? null;
	}

	/** The place of a drawn part of the score that got the focus by a press. */
	placeOf(/** @type {any} */ node) {
		const { pick, slide, build, beat, span, mark, object } = node?.closest?.("[data-pick]")?.dataset ?? {};
		if (!pick) return null;
		/** @type {{[pick: string]: string}} */
		const ids = {
			slide: `slide ${slide}`,
			build: `build ${slide} ${build}`,
			wait: `wait ${slide} ${beat}`,
			transition: `transition ${slide}`,
			span: `spanStart ${span}`,
			mark: `mark ${mark}`,
			tie: `tie ${slide} ${object}`,
			end: "end",
		};
		const id = ids[pick];
		return this.rows.flatMap(({ places }) => places).find((place) => place.id === id) ?? null;
	}

	go(/** @type {Place | null} */ place) {
		if (!place) return;
		this.id = place.id;
		this.at = place.at;
		this.row = this.rows.find(({ places }) => places.some((/** @type {any} */ { id }) => id === place.id))?.name ?? "";
	}

	/** @param {string} key @param {{alt: boolean, shift: boolean, from: Element}} held */
	key(key, { alt, shift, from }) {
		const pressed = from === this.node || from === this.other ? null : this.placeOf(from);
		if (pressed) this.go(pressed);
		if (alt) {
			if (key === "ArrowLeft" || key === "ArrowRight") this.move("number", key === "ArrowRight" ? 1 : -1, shift);
			else if (key === "ArrowUp" || key === "ArrowDown") this.move("length", key === "ArrowUp" ? 1 : -1, shift);
			this.focus();
		} else if (key === "Enter") this.openNumber();
		else if (key === " ") this.open();
		else this.walk(key);
	}

	/**
	 * Whether the focused place is another thing than Delete would remove: then it is selected, and that is
	 * announced.
	 */
	keeps(/** @type {any} */ from) {
		if (from !== this.node) return false;
		const open = this.place()?.open ?? { pick: "" };
		const { state } = this;
		/** @type {{[pick: string]: any}} */
		const picked = {
			build: state.pickedBuild && state.pickedBuild === open.build,
			span: state.pickedSpan && state.pickedSpan === open.span,
			mark: state.pickedMark && state.pickedMark === open.mark,
			slide: state.slide?.id === open.slide && state.level === "slide",
		};
		if (picked[open.pick]) return false;
		if (open.pick in picked) {
			this.open();
			this.say("Picked. Delete once more removes it.");
		} else this.say("It cannot be removed.");
		return true;
	}

	walk(/** @type {string} */ key) {
		const { rows } = this;
		const place = this.place(rows);
		if (!place) return;
		const at = rows.findIndex(({ places }) => places.some((/** @type {any} */ { id }) => id === place.id));
		const { places } = rows[at];
		const here = places.findIndex((/** @type {any} */ { id }) => id === place.id);
		/** @type {{[key: string]: () => Place | null | undefined}} */
		const ways = {
			ArrowRight: () => places[here + 1],
			ArrowLeft: () => places[here - 1],
			Home: () => places[0],
			End: () => places.at(-1),
			ArrowUp: () => nearest(rows[at - 1]?.places ?? [], place.at),
			ArrowDown: () => nearest(rows[at + 1]?.places ?? [], place.at),
		};
		this.go(ways[key]() ?? place);
		this.focus();
	}

	/** Focuses the place, so that it is read out. */
	focus() {
		[this.node, this.other] = [this.other, this.node];
		this.other.tabIndex = -1;
		this.node.tabIndex = 0;
		this.put();
		this.node.focus({ preventScroll: true });
	}

	/** Announces and shows the focused place. */
	put() {
		const place = this.place();
		if (!place) return;
		this.go(place);
		const { score, node } = this;
		node.setAttribute("aria-label", place.words ?? "");
		node.setAttribute("aria-description", describe(place));
		const row = /** @type {any} */ (score.rows)[this.row] ?? { top: 0, height: score.rows.slides.top };
		const drawn = place.open.build ? this.drawnBuild(place.open.build) : null;
		const [x, end] = [score.scale.x(place.at), score.scale.x(place.to)];
		const box = drawn ?? {
			left: x - 5,
			width: Math.max(end - x, 0) + 10,
			top: row.top,
			height: place.open.pick === "wait" ? ROW_PX : row.height,
		};
		for (const [name, value] of Object.entries(box)) node.style.setProperty(name, `${value}px`);
		if (document.activeElement !== node) return;
		const { scrollLeft: left, clientWidth: width } = score.scroll;
		if (box.left < left || box.left > left + width - 40) score.scroll.scrollLeft = Math.max(0, box.left - width / 3);
	}

	drawnBuild(/** @type {string} */ id) {
		const halo = this.score.seen.node.querySelector(`.build[data-build="${CSS.escape(id)}"] .halo`);
		if (!halo) return null;
		const [a, b] = [halo.getBoundingClientRect(), this.score.spacer.getBoundingClientRect()];
		return { left: a.left - b.left, top: a.top - b.top, width: a.width, height: a.height };
	}

	open() {
		const place = this.place();
		if (place) this.score.pickNode({ dataset: place.open });
	}

	say(/** @type {string} */ words) {
		const box = this.node.getBoundingClientRect();
		this.score.showNumber(words, { clientX: box.left, clientY: Math.max(box.top, 40) });
		document.getElementById("announced")?.replaceChildren(words);
		clearTimeout(this.silence);
		this.silence = setTimeout(() => this.score.showNumber(""), SHOWN_MS);
	}

	/** Moves the place, or its length, by a step or by ten; where bar lines count, by that many of them. */
	async move(/** @type {"number" | "length"} */ which, /** @type {number} */ way, /** @type {boolean} */ ten) {
		const { state } = this;
		const { id } = this;
		const by = way * (ten ? TEN : 1);
		if (!this.place()?.[which]) {
			this.say(which === "length" ? "It has no length of its own." : "It stands where the slides put it.");
			return;
		}
		let said = "";
		let outcome = null;
		const made = await state.edit(() => {
			// As it is when its turn has come: the edits before it may have moved it.
			const named = this.rows.flatMap(({ places }) => places).find((place) => place.id === id)?.[which];
			if (!named) return null;
			const number = numberOf(state, named[0], named[1]);
			const value = number.bars
				? barFrom(state, named[0], number.from, by)
				: number.from + by * STEP_MS * Math.sign(number.share ?? 1);
			said = number.words(Math.max(0, value));
			outcome = value < 0 || value === number.from ? null : said;
			return outcome && number.edit(Math.max(0, value));
		});
		// Told once the edit is there: what is announced of the edit before it must not take these words.
		if (made) state.outcome = outcome;
		this.put();
		this.say(said);
	}

	/** Opens a field for the number of the place; where it cannot be typed, the panel has it. */
	openNumber() {
		const place = this.place();
		if (!place?.number || BARS.has(place.number[0])) {
			this.open();
			return;
		}
		const number = numberOf(this.state, place.number[0], place.number[1]);
		const field = el("input", {
			class: "field",
			inputmode: "decimal",
			value: secondsText(number.from),
			"aria-label": `${place.words}. Seconds, or minutes and seconds`,
		});
		const said = el("span", { role: "alert" });
		this.form = el("form", { class: "number-tag typed" }, field, said);
		const { left } = this.node.getBoundingClientRect();
		const parent = this.score.scroll.parentElement;
		const box = parent.getBoundingClientRect();
		this.form.style.left = `${Math.min(Math.max(left - box.left, 4), box.width - 200)}px`;
		this.form.style.top = `${Math.max(this.node.getBoundingClientRect().top - box.top - 34, 2)}px`;
		this.form.addEventListener("submit", async (event) => {
			event.preventDefault();
			const ms = parseClockMs(field.value);
			if (ms === null) {
				field.setAttribute("aria-invalid", "true");
				said.textContent = `“${field.value}” is no time. Write 3.5 or 1:20.`;
				return;
			}
			const { id } = this;
			this.closeNumber();
			this.focus();
			let outcome = null;
			const made = await this.state.edit(() => {
				const named = this.rows.flatMap(({ places }) => places).find((entry) => entry.id === id)?.number;
				const fresh = named && numberOf(this.state, named[0], named[1]);
				outcome = fresh && fresh.from !== ms ? fresh.words(ms) : null;
				return outcome && fresh?.edit(ms);
			});
			if (made) this.state.outcome = outcome;
		});
		this.form.addEventListener("keydown", (event) => {
			event.stopPropagation();
			if (event.key !== "Escape") return;
			this.closeNumber();
			this.focus();
		});
		this.form.addEventListener("focusout", () => this.closeNumber());
		parent.append(this.form);
		field.focus();
		field.select();
	}

	closeNumber() {
		const { form } = this;
		this.form = null;
		form?.remove();
	}
}

const nearest = (/** @type {Place[]} */ places, /** @type {number} */ at) =>
	places.reduce(
		(best, place) => (!best || Math.abs(place.at - at) < Math.abs(best.at - at) ? place : best),
		/** @type {Place | null} */ (null),
	);

/**
 * The bar line so many after the one where music begins or ends; at most the first or the last.
 * @param {ShowState} state
 */
function barFrom(state, /** @type {string} */ kind, /** @type {any} */ from, /** @type {number} */ by) {
	const bars = state.shown.map(
		(id) => state.data.starts_ms[id] + (kind === "spanEnd" ? state.data.slides[id].schedule.length_ms : 0),
	);
	const beyond = by > 0 ? bars.filter((ms) => ms > from) : bars.filter((ms) => ms < from).reverse();
	return beyond[Math.min(Math.abs(by), beyond.length) - 1] ?? from;
}

function describe(/** @type {Place} */ place) {
	const said = ["Space opens it in the panel."];
	if (place.number) said.push("Alt and left or right move it.");
	if (place.length) said.push("Alt and up or down change its length.");
	if (place.number && !BARS.has(place.number[0])) said.push("Enter opens its number.");
	return said.join(" ");
}

/** Passes a key to the focused place. */
export function walk(/** @type {Score} */ score, /** @type {string} */ key, /** @type {any} */ held) {
	score.walker ??= new Walker(score, score.cursor);
	score.walker.key(key, held);
}

/** The score gets the focus: its place is announced. */
export function arrive(/** @type {Score} */ score) {
	score.walker ??= new Walker(score, score.cursor);
	score.walker.put();
}
