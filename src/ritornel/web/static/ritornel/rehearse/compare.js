// Takes side by side, slide by slide, and the timing taken from them.
import { el, icon, svg } from "../ui/element.js";
import { get, post } from "../ui/requests.js";
import { clockText, parseClockMs } from "../ui/times.js";
import { toast } from "../ui/toast.js";

const SPREAD_PX = 190;
const WAYS = [
	["own holds", "as the show's own holds"],
	["followed take", "as the take this show follows"],
];
const secondsText = (/** @type {number} */ ms) => (ms / 1000).toFixed(1);
const signed = (/** @type {number} */ ms) => `${ms < 0 ? "−" : "+"}${secondsText(Math.abs(ms))} s`;
const time = (/** @type {number} */ ms) => (ms === null ? "–" : secondsText(ms));

export class Compare {
	/** @type {Set<string>} */
	picked;

	/**
	 * @param {{base: string, node: HTMLElement, changed: () => void}} parts `changed`: the show has another timing now
	 */
	constructor({ base, node, changed }) {
		this.base = base;
		this.node = node;
		this.changed = changed;
		this.source = null;
		this.way = "own holds";
		this.opened = new Set();
		this.left = new Set();
		/** @type {any} */
		this.told = null;
		/** @type {any} */
		this.field = null;
		/** @type {any} */
		this.button = null;
		node.addEventListener("keydown", (event) => {
			if (event.key === "Escape" && !event.target?.closest("input")) this.close();
		});
	}

	async open() {
		try {
			this.all = await get(`${this.base}/takes/compare.json`);
		} catch (error) {
			toast(error.message, { wrong: true });
			return;
		}
		this.picked ??= new Set(this.all.slides.map((/** @type {any} */ line) => line.slide_id));
		await this.fetch();
		this.node.hidden = false;
		this.draw();
		this.node.querySelector("h2").focus();
	}

	close() {
		this.node.hidden = true;
		this.node.replaceChildren();
	}

	get numbers() {
		return this.all.takes
			.map((/** @type {any} */ take) => take.number)
			.filter((/** @type {number} */ number) => !this.left.has(number));
	}

	async fetch() {
		this.data = this.left.size ? await get(`${this.base}/takes/compare.json?takes=${this.numbers.join()}`) : this.all;
	}

	async toggle(/** @type {number} */ number) {
		if (!this.left.delete(number) && this.numbers.length > 1) this.left.add(number);
		if (this.left.has(this.source)) this.source = null;
		await this.fetch();
		this.draw();
	}

	draw() {
		const { data } = this;
		const longest = Math.max(
			...data.slides.map((/** @type {any} */ line) => Math.max(line.planned_ms, line.spread?.greatest_ms ?? 0)),
			1,
		);
		const chips = this.all.takes.map((/** @type {any} */ take) =>
			el(
				"button",
				{ class: "push", "aria-pressed": String(!this.left.has(take.number)), onclick: () => this.toggle(take.number) },
				take.name,
			),
		);
		const all = el("input", {
			type: "checkbox",
			"aria-label": "All slides",
			checked: this.picked.size === data.slides.length,
		});
		all.addEventListener("change", () => {
			this.picked = new Set(all.checked ? data.slides.map((/** @type {any} */ line) => line.slide_id) : []);
			this.draw();
		});
		const head = el(
			"tr",
			{},
			el("td", {}, all),
			...[
				"Slide",
				"Plan",
				...data.takes.map((/** @type {any} */ take) => take.name),
				"Median",
				"Least to greatest",
			].map((words) => el("th", { scope: "col" }, words)),
		);
		const total = el(
			"tr",
			{ class: "total" },
			el("td"),
			el("th", { scope: "row" }, "In all"),
			el("td", {}, clockText(data.length_ms)),
			data.takes.map((/** @type {any} */ take) => el("td", {}, clockText(take.length_ms))),
			el("td"),
			el("td"),
		);
		this.told = el("p", { class: "told", "aria-live": "polite" });
		this.node.replaceChildren(
			el(
				"div",
				{ class: "row" },
				el("h2", { class: "text-xl", tabindex: -1 }, "Takes side by side"),
				el("span", { class: "said" }, "seconds"),
				el("span", { class: "row", role: "group", "aria-label": "Takes that count" }, chips),
				el(
					"button",
					{ class: "push bare ml-auto", "aria-label": "Close the comparison", onclick: () => this.close() },
					icon("x"),
				),
			),
			el(
				"div",
				{ class: "lines" },
				el(
					"table",
					{},
					el("thead", {}, head),
					el(
						"tbody",
						{},
						data.slides.flatMap((/** @type {any} */ line, /** @type {number} */ at) => this.lines(line, at, longest)),
						total,
					),
				),
			),
			this.foot(),
		);
		this.tryOut();
	}

	lines(/** @type {any} */ line, /** @type {number} */ at, /** @type {any} */ longest) {
		const tick = el("input", {
			type: "checkbox",
			"aria-label": `Take the timing of slide ${at + 1}`,
			checked: this.picked.has(line.slide_id),
		});
		tick.addEventListener("change", () => {
			if (tick.checked) this.picked.add(line.slide_id);
			else this.picked.delete(line.slide_id);
			this.draw();
		});
		const open = this.opened.has(line.slide_id);
		const name = line.holds.length
			? el(
					"button",
					{
						"aria-expanded": String(open),
						title: "Its waits",
						onclick: () => {
							if (!this.opened.delete(line.slide_id)) this.opened.add(line.slide_id);
							this.draw();
						},
					},
					`${at + 1}  ${line.name}`,
					el("i", {}, ` ${line.holds.length} wait${line.holds.length > 1 ? "s" : ""}`),
				)
			: `${at + 1}  ${line.name}`;
		const row = (
			/** @type {any} */ entry,
			/** @type {string} */ cls,
			/** @type {any} */ first,
			/** @type {any} */ title,
			/** @type {number} */ most,
		) =>
			el(
				"tr",
				{ class: cls },
				el("td", {}, first),
				el("th", { scope: "row" }, title),
				el("td", {}, time(entry.planned_ms)),
				entry.taken_ms.map((/** @type {number} */ ms) => el("td", {}, time(ms))),
				el("td", { class: "font-semibold" }, time(entry.spread?.median_ms ?? null)),
				el("td", {}, drawSpread(entry, most)),
			);
		const most = Math.max(
			...line.holds.map((/** @type {any} */ hold) => Math.max(hold.planned_ms, hold.spread?.greatest_ms ?? 0)),
			1,
		);
		return [
			row(line, "slide", tick, name, longest),
			...(open ? line.holds.map((/** @type {any} */ hold) => row(hold, "hold", "", `wait: ${hold.title}`, most)) : []),
		];
	}

	foot() {
		const source = el(
			"select",
			{ class: "field", "aria-label": "Whose timing" },
			el("option", { value: "" }, `the median of ${this.data.takes.length}`),
			this.data.takes.map((/** @type {any} */ take) => el("option", { value: take.number }, take.name)),
		);
		source.value = this.source ?? "";
		source.addEventListener("change", () => {
			this.source = source.value ? Number(source.value) : null;
			this.tryOut();
		});
		const target = el("input", {
			class: "field w-[84px]",
			placeholder: "no target",
			value: this.target ?? "",
			"aria-label": "Target length",
			autocomplete: "off",
		});
		target.addEventListener("change", () => {
			this.target = target.value.trim();
			this.tryOut();
		});
		target.addEventListener("keydown", (/** @type {any} */ event) => {
			if (event.key === "Enter") target.blur();
		});
		this.field = target;
		const ways = el(
			"select",
			{ class: "field", "aria-label": "How the show takes it" },
			WAYS.map(([value, words]) => el("option", { value }, words)),
		);
		ways.value = this.way;
		ways.addEventListener("change", () => {
			this.way = ways.value;
			this.draw();
		});
		const follows = this.way === "followed take";
		if (follows) this.target = "";
		const picked =
			this.picked.size === this.data.slides.length
				? "all slides"
				: `${this.picked.size} slide${this.picked.size === 1 ? "" : "s"}`;
		this.button = el(
			"button",
			{ class: "push main ml-auto", disabled: !this.picked.size, onclick: () => this.use() },
			`Take this timing for ${picked}`,
		);
		const aim = follows ? null : el("label", { class: "row" }, "Target length", target);
		return el(
			"div",
			{ class: "foot" },
			el("div", { class: "row" }, el("label", { class: "row" }, "Timing of", source), ways, aim, this.button),
			this.told,
		);
	}

	body(/** @type {any} */ more) {
		const all = this.picked.size === this.data.slides.length;
		return {
			source: this.source,
			as: this.way,
			takes: this.numbers,
			slides: all ? null : [...this.picked],
			target_ms: this.target ? parseClockMs(this.target) : null,
			...more,
		};
	}

	async tryOut() {
		// Of several that are asked one after another only the last may answer.
		/** @type {number} */
		const turn = (this.turn ?? 0) + 1;
		this.turn = turn;
		const wrong = this.target && !parseClockMs(this.target);
		this.field.toggleAttribute("aria-invalid", Boolean(wrong));
		this.button.disabled = wrong || !this.picked.size;
		if (wrong) {
			this.told.textContent = "Write the target as minutes and seconds, such as 5:00.";
			return;
		}
		if (!this.picked.size) {
			this.told.textContent = "Pick at least one slide.";
			return;
		}
		try {
			const reply = await post(`${this.base}/takes/timing`, this.body({ try: true }));
			if (turn !== this.turn) return;
			const gives = reply.gives
				.slice(0, 5)
				.map((/** @type {any} */ entry) => `${entry.name} ${signed(entry.by_ms)}`)
				.join(", ");
			const more = reply.gives.length > 5 ? ` and ${reply.gives.length - 5} more` : "";
			const change = reply.reached_ms - this.data.length_ms;
			this.told.textContent = [
				`The show would last ${clockText(reply.reached_ms)}, ${change ? signed(change) : "as long as"} ${change ? "against the plan" : "now"}.`,
				gives
					? `For the target ${reply.gives[0].by_ms < 0 ? "these would have to give" : "these would gain"}: ${gives}${more}.`
					: "",
				...reply.notices,
			]
				.filter(Boolean)
				.join(" ");
		} catch (error) {
			if (turn !== this.turn) return;
			this.told.textContent = error.message;
			this.button.disabled = true;
		}
	}

	async use() {
		try {
			const reply = await post(`${this.base}/takes/timing`, this.body({}));
			const done = this.way === "followed take" ? "The show follows" : "The show now has the timing of";
			toast([`${done} ${reply.name}: ${clockText(reply.reached_ms)}.`, ...reply.notices].join(" "), {
				act: "Undo",
				onact: async () => {
					await post(`${this.base}/undo`, {});
					this.changed();
					this.open();
				},
			});
			this.changed();
			await this.open();
		} catch (error) {
			toast(error.message, { wrong: true });
		}
	}
}

/** Least to greatest as a bar, the median as a dot, the plan as an upright line. */
function drawSpread(/** @type {any} */ { planned_ms: planned, spread }, /** @type {number} */ most) {
	const x = (/** @type {number} */ ms) => 4 + (ms / most) * (SPREAD_PX - 8);
	const words = spread
		? `${secondsText(spread.least_ms)} to ${secondsText(spread.greatest_ms)} s, planned ${secondsText(planned)} s`
		: "not run";
	return svg(
		"svg",
		{ class: "spread", viewBox: `0 0 ${SPREAD_PX} 16`, width: SPREAD_PX, height: 16, role: "img", "aria-label": words },
		svg("title", {}, words),
		svg("path", { d: `M ${x(planned)} 1 V 15`, class: "planned" }),
		...(spread
			? [
					svg("path", {
						d: `M ${x(spread.least_ms)} 8 H ${Math.max(x(spread.greatest_ms), x(spread.least_ms) + 0.5)}`,
						class: "range",
					}),
					svg("circle", { cx: x(spread.median_ms), cy: 8, r: 4 }),
				]
			: []),
	);
}
