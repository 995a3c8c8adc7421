// The panel of a clip: its in and out point, set by watching, dragging or typing; how it starts, goes on and sounds.
import { el, newId } from "../ui/element.js";
import { send } from "../ui/file-requests.js";
import { toast } from "../ui/toast.js";
import { clockText, secondsText } from "../ui/times.js";
import { playsFirst } from "../stage/adding.js";
import { changeBuild } from "./build-timing.js";
import { watchOf } from "./clip-watch.js";
import { choice, numberField, pair, tick, timeField } from "./fields.js";

/** @param {ShowState} state */
export function clipPanel(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	const asset = state.asset(item.asset_id);
	if (!asset) return [el("p", { class: "wrong" }, "The clip is missing from the shelf.")];
	const lasts = asset.lasts_ms;
	const set = (/** @type {{[name: string]: any}} */ changes) => change(changes);
	const watch = watchOf(state, item, asset, set);
	const poster = item.poster_ms ?? item.in_ms;
	return [
		el(
			"p",
			{ class: "said" },
			`${asset.name}, ${secondsText(lasts)} s${asset.silent ? ", without sound" : ""}`,
			watch.said,
		),
		watch.player.node,
		watch.strip,
		el(
			"div",
			{ class: "row flex-wrap" },
			el(
				"button",
				{
					class: "push",
					title: "It begins with the picture that is seen now, and plays on",
					onclick: () => watch.inHere(),
				},
				"In here",
			),
			el(
				"button",
				{
					class: "push",
					title: "The picture that is seen now is the last; it stops there",
					onclick: () => watch.outHere(),
				},
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
						onclick: () => set({ poster_ms: watch.player.atMs }),
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

/** How it is started: by the slide's arrival, a cue of its own, or a press on it. @param {ShowState} state */
function starting(state, /** @type {Core.SlideObject} */ item) {
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
	const press = (/** @type {object | null} */ does) => ({
		do: "change objects",
		slide_id: slide,
		object_ids: [item.id],
		changes: { press: does },
	});
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
	/** @type {{[how: string]: () => any[]}} */
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
	const start = (/** @type {any} */ how) =>
		ways[how] &&
		state.edit({
			do: "several",
			label: `Let ${item.name} play on ${how === "arrival" ? how : how === "slide" ? "its slide's start" : `a ${how}`}`,
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

function sounding(/** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ set) {
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

/** Its captions, imported from a WebVTT or SRT file. @param {ShowState} state */
function captioned(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ set) {
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
		? `${captions.length}, from ${clockText(captions[0].start_ms)} to ${clockText(captions[captions.length - 1].end_ms)}`
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
