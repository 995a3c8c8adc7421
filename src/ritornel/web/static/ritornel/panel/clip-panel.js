// The panel of a clip: where it begins and ends, found by watching, by pulling or by typing; how it starts, goes on and
// sounds.
import { el, newId } from "../ui/element.js";
import { get, send } from "../ui/requests.js";
import { toast } from "../ui/toast.js";
import { clockText, secondsText } from "../ui/times.js";
import { playsFirst } from "../stage/adding.js";
import { changeBuild } from "./builds-panel.js";
import { choice, numberField, pair, tick, timeField } from "./fields.js";

const STEP_MS = 100;
const LEAST_MS = 100;
const ASK_AGAIN_MS = 700;

export function clipPanel(state, item, change) {
	const asset = state.asset(item.asset_id);
	if (!asset) return [el("p", { class: "wrong" }, "The clip is missing from the shelf.")];
	const lasts = asset.lasts_ms;
	const set = (changes) => change(changes);
	const watch = new Watch(state, item, asset, set);
	const poster = item.poster_ms ?? item.in_ms;
	return [
		el(
			"p",
			{ class: "said" },
			`${asset.name}, ${secondsText(lasts)} s${asset.silent ? ", without sound" : ""}`,
			watch.said,
		),
		watch.video,
		watch.strip,
		el(
			"div",
			{ class: "row flex-wrap" },
			watch.playButton,
			el(
				"button",
				{ class: "push", title: "It begins with the picture that is seen now", onclick: () => watch.here("in_ms") },
				"In here",
			),
			el(
				"button",
				{ class: "push", title: "The picture that is seen now is the last", onclick: () => watch.here("out_ms") },
				"Out here",
			),
			el("button", { class: "push", title: "Plays it as it will be seen", onclick: () => watch.test() }, "Test"),
		),
		pair(
			"From, to",
			el(
				"div",
				{ class: "two" },
				timeField(item.in_ms, (ms) => set({ in_ms: ms }), { label: "Clip from" }),
				timeField(item.out_ms, (ms) => set({ out_ms: ms }), { label: "Clip to" }),
			),
		),
		pair(
			"Before",
			el(
				"div",
				{ class: "row" },
				el(
					"span",
					{ class: "said" },
					item.poster_ms === null || item.poster_ms === undefined
						? "its first picture"
						: `the picture at ${clockText(poster)}`,
				),
				el(
					"button",
					{
						class: "push",
						title: "What is seen before it plays: the picture above",
						onclick: () => set({ poster_ms: watch.atMs() }),
					},
					"This picture",
				),
				item.poster_ms === null || item.poster_ms === undefined
					? null
					: el("button", { class: "link", onclick: () => set({ poster_ms: null }) }, "Its first"),
			),
		),
		...starting(state, item),
		pair(
			"Speed",
			numberField(item.rate_pct ?? 100, (rate) => set({ rate_pct: rate }), {
				label: "Speed of the clip",
				least: 25,
				most: 400,
				unit: "%",
			}),
		),
		tick("Once more and once more, until the slide ends", Boolean(item.repeats), (repeats) => set({ repeats })),
		tick("What comes after it waits for its end", item.holds !== false, (holds) => set({ holds })),
		...(asset.silent ? [] : sounding(item, set)),
		captioned(state, item, set),
	];
}

/** What it plays on: the slide's arrival, a cue of its own, or a press on it. */
function starting(state, item) {
	const build = state.line.builds.find((entry) => entry.kind === "plays" && entry.object_id === item.id);
	const slide = state.slide.id;
	const pressed = item.press?.do === "clip" && item.press.object_id === item.id;
	const now = item.with_slide
		? "slide"
		: !build
			? pressed
				? "press"
				: ""
			: build.starts.rule === "cue"
				? "cue"
				: build.beat === 0
					? "arrival"
					: "order";
	const press = (does) => ({ do: "change objects", slide_id: slide, object_ids: [item.id], changes: { press: does } });
	const alone = {
		do: "change objects",
		slide_id: slide,
		object_ids: [item.id],
		changes: { with_slide: !item.with_slide },
	};
	const free = [...(pressed ? [press(null)] : []), ...(item.with_slide ? [alone] : [])];
	const first = () =>
		build
			? [
					{ do: "change build", slide_id: slide, build_id: build.id, changes: { starts: { rule: "follows" } } },
					{ do: "move build", slide_id: slide, build_id: build.id, to: 0 },
				]
			: playsFirst(state, item.id);
	const ways = {
		arrival: () => [...free, ...first()],
		cue: () => {
			const starts = { rule: "cue", cue_id: newId(), hold_ms: null };
			return [
				...free,
				build
					? { do: "change build", slide_id: slide, build_id: build.id, changes: { starts } }
					: {
							do: "add build",
							slide_id: slide,
							build: { id: newId(), object_id: item.id, effect: "plays clip", starts },
						},
			];
		},
		slide: () => [
			...(pressed ? [press(null)] : []),
			...(build ? [{ do: "remove build", slide_id: slide, build_id: build.id }] : []),
			alone,
		],
		press: () => [
			...(item.with_slide ? [alone] : []),
			...(build ? [{ do: "remove build", slide_id: slide, build_id: build.id }] : []),
			press({ do: "clip", object_id: item.id }),
		],
	};
	const start = (how) =>
		ways[how] &&
		state.edit({
			do: "several",
			label: `Let ${item.name} play on ${{ arrival: "arrival", slide: "its slide's start" }[how] ?? `a ${how}`}`,
			edits: ways[how](),
		});
	return [
		pair(
			"Plays on",
			choice(
				now,
				[
					["arrival", "Arrival"],
					["cue", "Cue"],
					["press", "A press"],
					["slide", "Its slide"],
					...(now === "order" ? [["order", "Its turn"]] : []),
				],
				start,
				{ label: "Plays on" },
			),
		),
		now ? null : el("p", { class: "wrong" }, "Nothing plays it yet."),
		build
			? pair(
					"After",
					timeField(build.after_ms, (ms) => changeBuild(state, build, { after_ms: ms }), {
						label: "Waits before it plays",
					}),
				)
			: null,
	];
}

function sounding(item, set) {
	return [
		tick("Without its sound", Boolean(item.muted), (muted) => set({ muted })),
		...(item.muted
			? []
			: [
					pair(
						"Level",
						numberField(item.gain_db ?? 0, (gain) => set({ gain_db: gain }), {
							label: "Level of the clip",
							least: -60,
							most: 24,
							unit: "dB",
						}),
					),
					pair(
						"Fades",
						el(
							"div",
							{ class: "two" },
							timeField(item.fade_in_ms ?? 0, (ms) => set({ fade_in_ms: ms }), { label: "Sound fades in over" }),
							timeField(item.fade_out_ms ?? 0, (ms) => set({ fade_out_ms: ms }), { label: "Sound fades out over" }),
						),
					),
				]),
	];
}

/** Its captions: brought in from a WebVTT or SRT file. */
function captioned(state, item, set) {
	const captions = item.captions ?? [];
	const file = el("input", {
		type: "file",
		accept: ".vtt,.srt,text/vtt",
		class: "sr-only",
		"aria-label": "Captions from a WebVTT or SRT file",
		tabindex: -1,
	});
	file.addEventListener("change", async () => {
		try {
			const { captions: read, notices } = await send(`${state.base}/captions`, file.files[0]);
			if (await set({ captions: read })) toast([`${read.length} captions came in.`, ...notices].join(" "));
		} catch (error) {
			toast(error.message, { wrong: true });
		}
		file.value = "";
	});
	const words = captions.length
		? `${captions.length}, from ${clockText(captions[0].start_ms)} to ${clockText(captions.at(-1).end_ms)}`
		: "none";
	return pair(
		"Captions",
		el(
			"div",
			{ class: "row flex-wrap" },
			el("span", { class: "said" }, words),
			file,
			el(
				"button",
				{ class: "push", title: "WebVTT or SRT", onclick: () => file.click() },
				captions.length ? "Others" : "From a file",
			),
			captions.length ? el("button", { class: "link", onclick: () => set({ captions: [] }) }, "Without") : null,
		),
	);
}

/** Watching a clip: the video itself, and its filmstrip with a grip at each end. */
class Watch {
	constructor(state, item, asset, set) {
		Object.assign(this, { state, item, asset, set });
		this.video = el("video", {
			src: asset.shown,
			preload: "auto",
			playsinline: true,
			class: "clip-video",
			"aria-label": `Watch ${asset.name}`,
		});
		this.video.muted = Boolean(item.muted);
		this.video.playbackRate = (item.rate_pct ?? 100) / 100;
		// After an edit the panel is drawn anew; what was being looked at stays in view.
		const before = state.watched?.id === item.id ? state.watched.ms : item.in_ms;
		this.video.addEventListener("loadedmetadata", () => this.show(before), { once: true });
		this.playButton = el("button", { class: "push", onclick: () => this.toggle() }, "Play");
		this.line = el("i", { class: "now" });
		this.said = el("span");
		this.cover = [el("i", { class: "shade" }), el("i", { class: "shade" })];
		this.grips = { in_ms: this.grip("in_ms", "Begins"), out_ms: this.grip("out_ms", "Ends") };
		this.strip = el(
			"div",
			{ class: "clip-strip", role: "group", "aria-label": "Filmstrip" },
			this.cover,
			this.line,
			this.grips.in_ms,
			this.grips.out_ms,
		);
		this.strip.addEventListener("pointerdown", (event) => {
			if (!event.target.closest("[role=slider]")) this.show(this.msAt(event));
		});
		this.lay(item.in_ms, item.out_ms);
		this.video.addEventListener("timeupdate", () => this.lay());
		for (const kind of ["play", "pause"])
			this.video.addEventListener(kind, () => this.playButton.replaceChildren(this.video.paused ? "Play" : "Stop"));
		this.askStrip();
	}

	/** The strip's pictures come from the worker; it is asked until they are there. */
	async askStrip(ask = true) {
		const { ready } = await get(`${this.asset.derived}/strip.json${ask ? "?ask=1" : ""}`).catch(() => ({
			ready: true,
		}));
		if (ready) this.strip.style.backgroundImage = `url("${this.asset.derived}/strip")`;
		else
			setTimeout(() => {
				if (this.strip.isConnected) this.askStrip(false);
			}, ASK_AGAIN_MS);
	}

	atMs() {
		return Math.round(this.video.currentTime * 1000);
	}

	show(ms) {
		clearInterval(this.watching);
		this.video.pause();
		this.video.currentTime = ms / 1000;
		this.lay();
	}

	toggle() {
		clearInterval(this.watching);
		if (this.video.paused) this.video.play().catch(() => undefined);
		else this.video.pause();
	}

	/** “In here”, “out here”: what is seen is the first, or the last. */
	here(field) {
		this.video.pause();
		const { asset, item } = this;
		const at = this.atMs();
		if (field === "in_ms") this.set(at < item.out_ms ? { in_ms: at } : { in_ms: at, out_ms: asset.lasts_ms });
		else
			this.set(
				at + 1 > item.in_ms
					? { out_ms: Math.min(at + 1, asset.lasts_ms) }
					: { out_ms: Math.min(at + 1, asset.lasts_ms), in_ms: 0 },
			);
	}

	/** Plays from in to out, and stops there. */
	async test() {
		const { item, video } = this;
		this.show(item.in_ms);
		await video.play().catch(() => undefined);
		this.watching = setInterval(() => {
			if (video.currentTime * 1000 >= item.out_ms - 20 || video.ended) {
				clearInterval(this.watching);
				this.show(item.out_ms - 1);
			}
		}, 15);
	}

	msAt(event) {
		const box = this.strip.getBoundingClientRect();
		return Math.round(Math.max(0, Math.min((event.clientX - box.left) / box.width, 1)) * this.asset.lasts_ms);
	}

	grip(field, words) {
		const { item, asset } = this;
		const node = el("span", {
			class: `grip ${field === "in_ms" ? "first" : "last"}`,
			role: "slider",
			tabindex: 0,
			"aria-label": `${words} at`,
			"aria-valuemin": 0,
			"aria-valuemax": asset.lasts_ms,
		});
		const within = (ms) =>
			field === "in_ms"
				? Math.max(0, Math.min(ms, item.out_ms - LEAST_MS))
				: Math.min(asset.lasts_ms, Math.max(ms, item.in_ms + LEAST_MS));
		const see = (ms) => {
			this.video.currentTime = (field === "in_ms" ? ms : ms - 1) / 1000;
			this.lay(field === "in_ms" ? ms : item.in_ms, field === "out_ms" ? ms : item.out_ms);
		};
		node.addEventListener("pointerdown", (event) => {
			event.preventDefault();
			node.setPointerCapture(event.pointerId);
			this.video.pause();
			let ms = item[field];
			const move = (next) => {
				ms = within(this.msAt(next));
				see(ms);
			};
			const stop = (keep) => {
				node.removeEventListener("pointermove", move);
				node.removeEventListener("pointerup", up);
				removeEventListener("keydown", key, true);
				if (keep && ms !== item[field]) this.set({ [field]: ms });
				else this.lay(item.in_ms, item.out_ms);
			};
			const up = () => stop(true);
			const key = (pressed) => {
				if (pressed.key === "Escape") {
					pressed.stopPropagation();
					stop(false);
				}
			};
			node.addEventListener("pointermove", move);
			node.addEventListener("pointerup", up);
			addEventListener("keydown", key, true);
			node.focus();
		});
		node.addEventListener("keydown", (event) => {
			const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
			if (!way) return;
			event.preventDefault();
			event.stopPropagation();
			this.set({ [field]: within(item[field] + way * (event.shiftKey ? STEP_MS * 10 : STEP_MS)) });
		});
		return node;
	}

	/** Grips, shades and the line of what is seen, where they belong. */
	lay(from = this.from, to = this.to) {
		Object.assign(this, { from, to });
		const share = (ms) => `${(ms / this.asset.lasts_ms) * 100}%`;
		this.said.textContent = ` · ${clockText(from)} to ${clockText(to)}`;
		this.cover[0].style.width = share(from);
		this.cover[1].style.left = share(to);
		this.grips.in_ms.style.left = share(from);
		this.grips.out_ms.style.left = share(to);
		this.line.style.left = share(this.atMs());
		if (this.video.readyState) this.state.watched = { id: this.item.id, ms: this.atMs() };
		for (const [field, ms] of [
			["in_ms", from],
			["out_ms", to],
		]) {
			this.grips[field].setAttribute("aria-valuenow", ms);
			this.grips[field].setAttribute("aria-valuetext", clockText(ms));
		}
	}
}
