// The overview: the whole show like a printed page of music, its bars to scale and broken into lines. Slides are
// selected, moved and changed together here.
import { keepPlace } from "../ui/focus.js";
import { closeAtEscape } from "../ui/menu.js";
import { el, icon } from "../ui/element.js";
import { get } from "../ui/requests.js";
import { clockText, minutesText, secondsText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { Thumbs } from "../ui/thumbs.js";
import { reorder } from "../ui/reorder.js";
import { dragOn } from "../score/drags.js";
import { leavesWords } from "../score/holds.js";
import { Scale } from "../score/scale.js";
import { fermata } from "../stage/signs.js";
import { svg } from "../ui/element.js";

const LEAST_PX = 120;
const MOST_PX_S = 12;
const TICK_PX = 9;
const TICKS_S = [1, 5, 10, 30, 60, 300, 900];

/** @type {[number, string][]} */
const ROMAN = [
	[100, "C"],
	[90, "XC"],
	[50, "L"],
	[40, "XL"],
	[10, "X"],
	[9, "IX"],
	[5, "V"],
	[4, "IV"],
	[1, "I"],
];
const roman = (/** @type {number} */ number) => {
	let left = number;
	return ROMAN.map(([value, sign]) => {
		const count = Math.floor(left / value);
		left -= count * value;
		return sign.repeat(count);
	}).join("");
};

/** The time within a bar: a tick every few seconds, far enough apart to be seen. */
function ruler(/** @type {any} */ length_ms, /** @type {number} */ px) {
	const step = TICKS_S.find((each) => (each * 1000 * px) / length_ms >= TICK_PX) ?? TICKS_S[TICKS_S.length - 1];
	const ticks = Array.from({ length: Math.floor(length_ms / (step * 1000)) + 1 }, (_, at) => at);
	const d = ticks.map((at) => `M ${(at * step * 1000 * px) / length_ms} 0 V ${at % 5 ? 4 : 7}`).join(" ");
	return svg(
		"svg",
		{ class: "ov-ruler", width: px, height: 8, "aria-hidden": "true" },
		svg("title", {}, `A tick every ${step} s`),
		svg("path", { d, stroke: "#7d8f88", fill: "none" }),
	);
}

export class Overview {
	/** @param {ShowState} state */
	constructor(state, /** @type {{node: any, button: any}} */ { node, button }) {
		this.state = state;
		this.node = node;
		this.button = button;
		/** @type {any[]} */
		this.notes = [];
		this.thumbs = new Thumbs(() => {
			if (!node.hidden) this.draw("pictures");
		});
		this.head = el("div", { class: "ov-head" });
		this.page = el("div", { class: "ov-page", role: "group", "aria-label": "Slides" });
		this.margin = el("aside", { class: "ov-margin", "aria-label": "Inconsistencies" });
		node.append(this.head, this.page, this.margin);
		button.addEventListener("click", () => (node.hidden ? this.open() : this.close()));
		this.tag = el("div", { class: "ov-tag", hidden: true });
		node.append(this.tag);
		for (const kind of ["show", "pick", "trial"])
			state.addEventListener(kind, () => {
				if (!node.hidden) this.draw(kind);
			});
		new ResizeObserver(() => {
			if (!node.hidden) this.draw("size");
		}).observe(this.page);
		this.page.addEventListener("keydown", (/** @type {any} */ event) => this.key(event));
		this.page.addEventListener("pointerdown", (/** @type {any} */ event) => {
			if (event.target === this.page) this.state.pickSlides([]);
		});
		closeAtEscape(node, () => this.close());
		this.drag();
	}

	open() {
		this.node.hidden = false;
		this.button.setAttribute("aria-expanded", "true");
		if (!this.state.pickedSlides.size && this.state.slide) this.state.pickSlides([this.state.slide.id]);
		this.draw("show");
		this.bar(this.state.slide?.id)?.focus();
	}

	close() {
		this.node.hidden = true;
		this.several = false;
		this.button.setAttribute("aria-expanded", "false");
		this.state.pick([]);
		this.button.focus();
	}

	bar(/** @type {string} */ id) {
		return id ? this.page.querySelector(`[data-slide="${CSS.escape(id)}"]`) : null;
	}

	/** Draws the present show, or during a drag the show as it would be. */
	draw(/** @type {string} */ kind) {
		const { state } = this;
		const real = state.data;
		state.data = state.trial ?? real;
		try {
			this.drawShow(kind);
		} finally {
			state.data = real;
		}
	}

	drawShow(/** @type {string} */ kind) {
		const { data } = this.state;
		const focused = this.page.contains(document.activeElement) ? document.activeElement?.dataset.slide : null;
		this.drawHead();
		this.drawPage();
		if (focused) this.bar(focused)?.focus({ preventScroll: true });
		if (kind === "show") {
			get(`${this.state.base}/differences.json`).then(
				(reply) => {
					this.notes = reply.notes;
					this.drawMargin();
				},
				() => undefined,
			);
		} else this.drawMargin();
		this.node.dataset.slides = data.order.length;
	}

	drawHead() {
		const { data } = this.state;
		const skipped = data.order.filter((/** @type {string} */ id) => data.slides[id].skipped).length;
		const waits = this.state.shown.flatMap((/** @type {string} */ id) =>
			[
				...data.slides[id].schedule.beats.slice(1).map((/** @type {any} */ beat) => beat.wait),
				data.slides[id].schedule.last_wait,
			].filter(Boolean),
		);
		const without = waits.filter((/** @type {any} */ wait) => wait.source === "default").length;
		const fact = (/** @type {string} */ name, /** @type {any} */ value, more = "") =>
			el("span", {}, `${name} `, el("b", {}, value), more);
		const keepsPlace = keepPlace(this.head);
		this.head.replaceChildren(
			el("h2", {}, "Overview"),
			fact("Length", clockText(data.length_ms)),
			fact("Slides", String(data.order.length), skipped ? `, ${skipped} skipped` : ""),
			fact("Waits", String(waits.length), without ? `, ${without} without a hold` : ""),
			el(
				"button",
				{
					class: "push ml-auto",
					"aria-pressed": String(Boolean(this.several)),
					title: "Each press adds a slide to those that are picked, or takes it away",
					onclick: () => {
						this.several = !this.several;
						this.drawHead();
					},
				},
				"Pick several",
			),
			el("button", { class: "push", onclick: () => print() }, icon("download"), "Cue sheet"),
			el("button", { class: "push bare", "aria-label": "Close the overview", onclick: () => this.close() }, icon("x")),
		);
		keepsPlace();
	}

	/**
	 * Lines never break inside a bar. A bar is wide enough to be read, however short its slide is; the ruler below
	 * each shows its time.
	 */
	drawPage() {
		const { data } = this.state;
		const room = this.page.clientWidth - 110;
		const width = (/** @type {any} */ line) =>
			Math.min(Math.max((line.schedule.length_ms / 1000) * MOST_PX_S, LEAST_PX), Math.max(room, LEAST_PX));
		/** @type {any[]} */
		const lines = [];
		let used = Infinity;
		/** @type {any} the section that the lines are in */
		let section = null;
		data.order.forEach((/** @type {string} */ id, /** @type {number} */ at) => {
			const line = data.slides[id];
			const px = width(line);
			if (line.opens_section)
				section = { number: (section?.number ?? 0) + 1, name: line.opens_section, ids: this.sectionFrom(at) };
			const broken = used + px > room;
			if (broken) {
				lines.push(
					el("div", { class: "ov-line" }, el("span", { class: "ov-time" }, minutesText(data.starts_ms[id] ?? 0))),
				);
				used = 0;
			}
			used += px;
			if (section && (line.opens_section || broken)) {
				lines.at(-1).append(this.heading(section, !line.opens_section));
				lines.at(-1).dataset.headed = "";
			}
			lines.at(-1).append(this.drawBar(line, px));
		});
		this.page.replaceChildren(...(lines.length ? lines : [el("p", { class: "said p-6" }, "No slides yet.")]));
		lines
			.at(-1)
			?.append(
				el(
					"span",
					{ class: "ov-end", "data-end": data.settings.end },
					{ hold: "holds", loop: "from the start again", black: "to black" }[/** @type {"hold"} */ (data.settings.end)],
				),
			);
	}

	/** The slides of the section that begins at a place in the order. */
	sectionFrom(/** @type {number} */ at) {
		const { order, slides } = this.state.data;
		const end = order.findIndex(
			(/** @type {string} */ id, /** @type {number} */ number) => number > at && slides[id].opens_section,
		);
		return order.slice(at, end < 0 ? undefined : end);
	}

	/**
	 * A section's name over its first bar, or over a line on which it continues. A press on it selects its slides.
	 */
	heading(
		/** @type {{number: number, name: string, ids: string[]}} */ { number, name, ids },
		/** @type {boolean} */ goesOn,
	) {
		const { slides } = this.state.data;
		const ms = ids.reduce(
			(/** @type {number} */ sum, /** @type {string} */ id) =>
				sum + (slides[id].skipped ? 0 : slides[id].schedule.length_ms),
			0,
		);
		const words = goesOn
			? [el("i", {}, `${roman(number)}, continued`)]
			: [el("i", {}, roman(number)), " ", el("b", {}, name), ` ${clockText(ms)}`];
		return el(
			"span",
			{ class: "ov-section" },
			el("button", { title: "Pick its slides", onclick: () => this.state.pickSlides(ids) }, words),
		);
	}

	drawBar(/** @type {any} */ line, /** @type {number} */ px) {
		const { state } = this;
		const scale = (px * 1000) / Math.max(line.schedule.length_ms, 1);
		const x = (/** @type {number} */ ms) => (ms / 1000) * scale;
		const waits = state.waitsOf(line.id);
		const leaves = state.waitsToLeave(line.id) && !line.schedule.last_wait;
		const signs = [
			...line.schedule.beats.slice(1).map((/** @type {any} */ beat) => beat.wait),
			line.schedule.last_wait,
		].filter(Boolean);
		const marks = svg(
			"svg",
			{ class: "ov-signs", width: px, height: 16, "aria-hidden": "true" },
			line.schedule.transition_ms
				? svg("path", {
						d: `M 0 3 Q ${Math.max(x(line.schedule.transition_ms), 10) / 2} 17 ${Math.max(x(line.schedule.transition_ms), 10)} 3`,
						fill: "none",
						stroke: "var(--color-ink)",
						"stroke-width": 1.6,
					})
				: null,
			signs.map((wait) =>
				svg("rect", { x: x(wait.start_ms), y: 0, width: Math.max(x(wait.hold_ms), 2), height: 16, fill: "#8a24561a" }),
			),
			signs.map((wait) => fermata(x(wait.start_ms), 13)),
			leaves ? fermata(Math.min(x(line.schedule.done_ms), px - 16), 13) : null,
		);
		const facts = `${secondsText(line.schedule.length_ms)} s${waits ? ` · ${countWords(waits, "wait")}` : ""}`;
		const picked = state.pickedSlides.has(line.id);
		const node = el(
			"button",
			{
				class: "ov-bar",
				"data-slide": line.id,
				"data-opens": line.opens_section ? "" : null,
				"aria-pressed": String(picked),
				"data-skipped": line.skipped || null,
				tabindex: line.id === (state.slide?.id ?? state.data.order[0]) ? 0 : -1,
				"aria-label": `${state.data.numbers[line.id]} ${line.name || "Untitled"}, ${facts}${line.skipped ? ", skipped" : ""}${line.given_to ? `, given to ${line.given_to}` : ""}`,
				onclick: (/** @type {any} */ event) => this.pick(line.id, event),
				ondblclick: () => {
					this.close();
					state.open(line.id);
				},
			},
			marks,
			el("img", { src: this.thumbs.of(line), alt: "", loading: "lazy", width: 82, height: 46 }),
			el("b", { title: line.name }, `${state.data.numbers[line.id]} ${line.name || "Untitled"}`),
			el("span", { class: "facts" }, line.skipped ? "skipped" : facts),
			line.given_to ? el("span", { class: "facts", title: `Given to ${line.given_to}` }, line.given_to) : null,
			line.skipped ? null : ruler(line.schedule.length_ms, px),
		);
		node.style.width = `${px}px`;
		const handle = (/** @type {any} */ drag, /** @type {number} */ left, /** @type {string} */ words, more = {}) => {
			const grip = el("span", {
				class: "ov-grip",
				title: `${words}. Pull to change.`,
				"data-drag": drag,
				"data-slide": line.id,
				onpointerdown: (/** @type {any} */ event) => this.pull(event, scale),
				onclick: (/** @type {any} */ event) => event.stopPropagation(),
			});
			Object.assign(grip.dataset, more);
			grip.style.left = `${left}px`;
			return grip;
		};
		if (line.skipped) return node;
		const { schedule } = line;
		if (schedule.transition_ms)
			node.append(
				handle(
					"slur",
					Math.max(x(schedule.transition_ms), 10) - 4,
					`${line.transition.name}, ${secondsText(schedule.transition_ms)} s`,
				),
			);
		schedule.beats
			.slice(1)
			.forEach((/** @type {any} */ { wait }, /** @type {number} */ beat) =>
				node.append(
					handle("hold", x(wait.start_ms + wait.hold_ms) - 4, `Cue ${beat + 1}: hold ${secondsText(wait.hold_ms)} s`, {
						beat: beat + 1,
						ms: wait.hold_ms,
					}),
				),
			);
		node.append(handle("bar", px - 5, leavesWords(line, state.waitsToLeave(line.id))));
		return node;
	}

	/** Drags a bar line, a slur's end or a hold's edge, as on the score. */
	pull(/** @type {any} */ event, /** @type {number} */ scale) {
		if (event.button !== 0) return;
		event.stopPropagation();
		dragOn(
			{
				state: this.state,
				scale: new Scale(scale),
				scroll: this.page,
				draw: () => this.draw("trial"),
				showLine: () => undefined,
				showNumber: (/** @type {string} */ words, /** @type {PointerEvent} */ at) => {
					this.tag.textContent = words;
					this.tag.hidden = !words;
					const box = this.node.getBoundingClientRect();
					this.tag.style.left = `${Math.min(at.clientX - box.left + 14, box.width - 170)}px`;
					this.tag.style.top = `${at.clientY - box.top - 30}px`;
				},
			},
			event.currentTarget,
			event,
			() => this.pick(event.target.dataset.slide, event),
		);
	}

	pick(/** @type {string} */ id, event = /** @type {any} */ ({})) {
		const { order } = this.state.data;
		const now = this.state.pickedSlides;
		if (event.shiftKey && this.anchor) {
			const [a, b] = [order.indexOf(this.anchor), order.indexOf(id)].sort((one, other) => one - other);
			this.state.pickSlides(order.slice(a, b + 1));
		} else if (event.ctrlKey || event.metaKey || this.several) {
			this.state.pickSlides(now.has(id) ? [...now].filter((one) => one !== id) : [...now, id]);
			this.anchor = id;
		} else {
			this.state.pickSlides([id]);
			this.anchor = id;
		}
	}

	key(/** @type {any} */ event) {
		const id = document.activeElement?.dataset.slide;
		if (!id) return;
		const { order } = this.state.data;
		const at = order.indexOf(id);
		const way = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 1, ArrowUp: -1 }[/** @type {"ArrowUp"} */ (event.key)];
		if (way && event.altKey) {
			event.preventDefault();
			const ids = order.filter((/** @type {any} */ one) => this.state.pickedSlides.has(one) || one === id);
			const first = order.indexOf(ids[0]);
			this.state.edit({ do: "move slides", slide_ids: ids, to: Math.max(0, first + way) });
		} else if (way) {
			event.preventDefault();
			const next = order[at + way];
			if (!next) return;
			this.bar(next)?.focus();
			if (event.shiftKey) this.state.pickSlides([...this.state.pickedSlides, id, next]);
		} else if (event.key === " ") {
			event.preventDefault();
			this.pick(id, { ctrlKey: true });
		} else if (event.key === "Enter") {
			event.preventDefault();
			this.close();
			this.state.open(id);
		} else if (event.key === "Delete") {
			event.preventDefault();
			event.stopPropagation();
			this.state.edit({
				do: "remove slides",
				slide_ids: order.filter((/** @type {any} */ one) => this.state.pickedSlides.has(one)),
			});
		}
	}

	/** Drags bars to another place; dragging a selected one moves all selected ones. */
	drag() {
		reorder(this.page, {
			item: "[data-slide].ov-bar",
			idOf: (bar) => bar.dataset.slide,
			moved: (id) =>
				this.state.pickedSlides.has(id)
					? this.state.data.order.filter((/** @type {any} */ one) => this.state.pickedSlides.has(one))
					: [id],
			flows: true,
			put: (ids, to) => this.state.edit({ do: "move slides", slide_ids: ids, to }),
		});
	}

	drawMargin() {
		const notes = this.notes.map((note) => {
			const light = (/** @type {boolean} */ on) => {
				const bar = this.bar(note.slide_id);
				if (bar) {
					if (on) bar.dataset.lit = "";
					else delete bar.dataset.lit;
				}
			};
			return el(
				"section",
				{
					onpointerenter: () => light(true),
					onpointerleave: () => light(false),
					onfocusin: () => light(true),
					onfocusout: () => light(false),
				},
				el("h3", {}, note.title),
				el("p", { class: "said" }, note.why),
				note.fix
					? el(
							"button",
							{
								class: "push",
								onclick: () => this.state.edit({ do: "several", label: note.fix_words, edits: [note.fix] }),
							},
							note.fix_words,
						)
					: null,
			);
		});
		this.margin.replaceChildren(
			el("p", { class: "ov-margin-head" }, "Inconsistencies"),
			...(notes.length
				? notes
				: [el("p", { class: "said" }, "Nothing: all joins, waits and lengths are alike or have their reasons.")]),
		);
	}
}
