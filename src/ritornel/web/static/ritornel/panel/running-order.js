// The running order: the transition in, every build as one line under the wait that opens its beat, and how the slide
// advances. A brace joins builds that start together; a build that follows stands below.
import { el, icon, newId, svg } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { fermata, sign } from "../stage/signs.js";
import { holdEdit } from "../score/holds.js";
import { beatAt, goToBeat } from "../stage/stops.js";
import { selectField, timeField } from "./fields.js";
import { later } from "../ui/lazy-modules.js";

const drags = later(() => import("./order-drag.js"));
const tenths = (/** @type {number} */ ms) => (ms / 1000).toFixed(1);
const BAR_PX = 58;
/** @type {{[key: string]: string}} */
const HOLD_WORDS = { "own hold": "own hold", default: "default hold", "voice mark": "voice mark" };

/** The source of a wait's length where nobody presses. */
const sourceOf = (/** @type {ShowState} */ state, /** @type {any} */ { source }) =>
	source === "take" ? state.data.settings.follows_take || "take" : HOLD_WORDS[source];
const STARTS = { cue: "on cue", together: "together", follows: "follows" };

/** How a build starts, in words. */
export function startsWords(/** @type {BuildLine} */ build) {
	const after = build.after_ms ? ` +${secondsText(build.after_ms)}` : "";
	return STARTS[build.starts.rule] + after;
}

/** Sets the hold of the cue before beat `beat`, or before the slide is left. @param {ShowState} state */
export function setHold(state, /** @type {SlideLine} */ line, /** @type {number} */ beat, /** @type {number} */ ms) {
	return state.edit(() => holdEdit(state.data.slides[line.id], beat, ms));
}

const stopOf = (/** @type {ShowState} */ state, /** @type {number} */ beat, /** @type {any} */ now) =>
	el(
		"button",
		{
			class: "stop",
			"aria-current": beat === now ? "true" : null,
			"aria-label": `Show beat ${beat}`,
			title: `Show the slide as it is after beat ${beat}`,
			onclick: () => goToBeat(state, beat),
		},
		String(beat),
	);

/** The line that opens a beat: arrival, or a wait for a cue. @param {ShowState} state */
export function beatRow(
	state,
	/** @type {SlideLine} */ line,
	/** @type {Core.Beat} */ beat,
	/** @type {number} */ index,
	/** @type {any} */ now,
) {
	const builds = line.builds.filter((entry) => entry.beat === index);
	const facts = builds.length
		? `${countWords(builds.length, "build")}, ${secondsText(beat.end_ms - beat.start_ms)} s`
		: "no build";
	if (!index) {
		return el(
			"li",
			{ class: "beat", "data-beat": 0 },
			stopOf(state, 0, now),
			el("b", {}, "On arrival"),
			el("span", { class: "when ml-auto" }, facts),
		);
	}
	const wait = /** @type {Core.Wait} */ (beat.wait);
	const source = sourceOf(state, wait);
	return el(
		"li",
		{ class: "beat wait", "data-beat": index, "data-cue": wait.cue_id },
		stopOf(state, index, now),
		svg("svg", { width: 18, height: 14, viewBox: "0 0 18 14", "aria-hidden": "true" }, fermata(1, 11)),
		el("b", {}, "Wait for a cue"),
		timeField(wait.hold_ms, (ms) => setHold(state, line, index, ms), {
			label: `Hold before beat ${index}`,
			cls: "hold-field",
		}),
		el("span", { class: "when ml-auto", title: `How long it waits when nobody presses: ${source}` }, source),
	);
}

/** When a build runs within its beat, drawn to scale. */
function barOf(/** @type {Core.Beat} */ beat, /** @type {number} */ from, /** @type {any} */ runs) {
	const x = (/** @type {number} */ ms) => ((ms - beat.start_ms) / Math.max(beat.end_ms - beat.start_ms, 1)) * BAR_PX;
	const begins = Math.min(x(from), BAR_PX - 3);
	const bar = { height: 3, y: 1.5, rx: 1.5 };
	return svg(
		"svg",
		{ class: "run", width: BAR_PX, height: 6, viewBox: `0 0 ${BAR_PX} 6`, "aria-hidden": "true" },
		svg("rect", { ...bar, width: BAR_PX, class: "whole" }),
		svg("rect", { ...bar, x: begins, width: Math.max(Math.min(x(from + runs), BAR_PX) - begins, 3) }),
	);
}

/** The place of a build in its brace: alone, first, between or last. */
export function placeInBrace(/** @type {BuildLine[]} */ builds, /** @type {any} */ at) {
	const same = (/** @type {any} */ other) =>
		other && other.beat === builds[at].beat && other.cluster === builds[at].cluster;
	const [before, behind] = [same(builds[at - 1]), same(builds[at + 1])];
	if (before) return behind ? "mid" : "last";
	return behind ? "first" : "alone";
}

/** Buttons that move the selected build up or down without a drag. @param {ShowState} state */
function nudges(state, /** @type {BuildLine} */ build) {
	const nudge = (/** @type {number} */ way, /** @type {string} */ words) =>
		el(
			"button",
			{
				"data-way": way,
				title: words,
				"aria-label": `${words}: ${build.name}`,
				onclick: async ({ currentTarget }) => (await drags.get()).pressRow(state, currentTarget.closest(".entry"), way),
			},
			icon(way < 0 ? "arrow-left" : "arrow-right"),
		);
	return el("span", { class: "nudges" }, nudge(-1, "Earlier"), nudge(1, "Later"));
}

/** @param {ShowState} state */
function buildRow(state, /** @type {BuildLine[]} */ builds, /** @type {any} */ at) {
	const build = builds[at];
	const beat = state.line.schedule.beats[build.beat];
	const from = beat.start_ms + build.offset_ms;
	const does = `${build.title.toLowerCase()}${build.after_ms ? `, +${secondsText(build.after_ms)} s` : ""}`;
	const row = el(
		"li",
		{
			class: "entry",
			"data-build": build.id,
			"data-brace": placeInBrace(builds, at),
			"aria-current": state.pickedBuild === build.id ? "true" : null,
		},
		el("i", { class: "brace", "aria-hidden": "true" }),
		sign(build.kind),
		el(
			"button",
			{
				class: "who",
				title: `${build.name}: ${does}`,
				"aria-label": `${build.name}, ${does}, ${startsWords(build)}`,
				// Each press draws the panel anew, so a double press is told by its count.
				onclick: ({ detail }) => state.pickBuild(build, detail > 1 ? "object" : "slide"),
			},
			el("b", {}, build.name),
			el("span", { class: "does" }, does),
		),
		el("span", { class: "when" }, `${tenths(from)}–${tenths(from + build.runs_ms)}`),
		state.pickedBuild === build.id ? nudges(state, build) : barOf(beat, from, build.runs_ms),
	);
	row.addEventListener("pointerenter", () => light(build.id, true));
	row.addEventListener("pointerleave", () => light(build.id, false));
	return row;
}

/** @param {ShowState} state */
function transitionRow(state) {
	const { line } = state;
	const kind = state.data.transitions.find(({ name }) => name === line.transition.name);
	const ms = line.schedule.transition_ms;
	return el(
		"button",
		{ class: "passage", onclick: () => state.showPanel("slide", { passage: "transition" }) },
		el("span", { class: "said" }, "Transition"),
		el("b", {}, kind?.title ?? line.transition.name),
		el("span", { class: "said" }, ms ? line.transition.pace : ""),
		el("span", { class: "when ml-auto" }, ms ? `0.0–${tenths(ms)}` : "at once"),
		icon("chevron-right"),
	);
}

/** @param {ShowState} state */
function advanceRow(state) {
	const { schedule, advance } = state.line;
	const words = {
		after: () => `after ${secondsText(advance.after_ms)} s`,
		voice: () => "after its voice",
		cue: () => "on cue",
	}[advance.rule]();
	const more = schedule.last_wait
		? `hold ${secondsText(schedule.last_wait.hold_ms)} s, ${sourceOf(state, schedule.last_wait)}`
		: state.waitsToLeave(state.slide.id)
			? "waits for your cue"
			: schedule.extended_ms
				? `+${secondsText(schedule.extended_ms)} s`
				: "";
	return el(
		"button",
		{ class: "passage", onclick: () => state.showPanel("slide", { passage: "advance" }) },
		el("span", { class: "said" }, "Goes on"),
		el("b", {}, words),
		el("span", { class: "said" }, more),
		el("span", { class: "when ml-auto" }, tenths(schedule.length_ms)),
		icon("chevron-right"),
	);
}

/**
 * Under the order: the picked build's start and times, or what can be done to the order. Its height never changes.
 * @param {ShowState} state
 */
function foot(state) {
	const build = state.pickedBuild ? state.build(state.pickedBuild) : null;
	if (!build) {
		const run = () => {
			const from = state.data.starts_ms[state.slide.id] ?? 0;
			const detail = { from, to: from + state.line.schedule.length_ms };
			state.dispatchEvent(new CustomEvent("run", { detail }));
		};
		return el(
			"div",
			{ class: "order-foot" },
			addBuild(state),
			el("button", { class: "push round", onclick: run }, icon("play"), "Preview the slide"),
		);
	}
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit({ do: "change build", slide_id: state.slide.id, build_id: build.id, changes });
	const starts = selectField(
		build.starts.rule,
		Object.entries(STARTS),
		(rule) => set({ starts: rule === "cue" ? { rule, cue_id: newId(), hold_ms: null } : { rule } }),
		{ label: `How ${build.name} starts` },
	);
	return el(
		"div",
		{ class: "order-foot", role: "group", "aria-label": `Times of ${build.name}` },
		starts,
		el("span", {}, "after"),
		timeField(build.after_ms, (ms) => set({ after_ms: ms }), { label: `${build.name}: after` }),
		...(build.clip
			? []
			: [
					el("span", {}, "lasts"),
					timeField(build.kind === "views" ? build.runs_ms : build.lasts_ms, (ms) => set({ lasts_ms: ms }), {
						label: `${build.name}: lasts`,
					}),
				]),
		el(
			"button",
			{ class: "push", title: "Choose its effect, pace and sound", onclick: () => state.pickBuild(build) },
			"Effect",
			icon("chevron-right"),
		),
	);
}

/** Gives an object a build: the selected object at once, else one chosen by name. @param {ShowState} state */
function addBuild(state) {
	const words = ["Add a build", icon("chevron-down")];
	const choose = (/** @type {string} */ id) => state.pick([id]);
	if (state.picked.size)
		return el("button", { class: "push round", onclick: () => choose([...state.picked][0]) }, words[0]);
	const objects = [...state.slide.objects].reverse();
	return el(
		"details",
		{ class: "together upward" },
		el("summary", { class: "push round" }, ...words),
		el(
			"div",
			{ class: "scrolls" },
			objects.length
				? objects.map(({ id, name }) => el("button", { class: "menu-line", onclick: () => choose(id) }, name))
				: el("p", { class: "said" }, "Add something to the slide first, above the stage."),
		),
	);
}

/** @param {ShowState} state */
export function runningOrder(state) {
	const { line } = state;
	const now = beatAt(state);
	const list = el("ul", { class: "order", "aria-label": "Running order" });
	line.schedule.beats.forEach((beat, index) => {
		list.append(beatRow(state, line, beat, index, now));
		line.builds.forEach((build, at) => {
			if (build.beat === index) list.append(buildRow(state, line.builds, at));
		});
	});
	if (!line.builds.length) {
		list.append(
			el("li", { class: "said" }, "All of it is there on arrival. Give an object a build to let it come later."),
		);
	}
	drags.get().then(({ enableDrag }) => enableDrag(state, list));
	return [transitionRow(state), list, advanceRow(state), foot(state)];
}

/** Highlights a build on list and score. */
export function light(/** @type {string} */ buildId, /** @type {boolean} */ on) {
	for (const node of document.querySelectorAll(`[data-build="${CSS.escape(buildId)}"]`)) {
		if (on) node.dataset.lit = "";
		else delete node.dataset.lit;
	}
}

/** During a drag, the list shows when each build would run. @param {ShowState} state */
export function showTrial(state) {
	const line = state.trial?.slides[state.slide?.id] ?? state.line;
	for (const row of document.querySelectorAll(".order .entry")) {
		const build = line?.builds.find((/** @type {any} */ entry) => entry.id === row.dataset.build);
		if (!build) continue;
		const from = line.schedule.beats[build.beat].start_ms + build.offset_ms;
		row.querySelector(".when").textContent = `${tenths(from)}–${tenths(from + build.runs_ms)}`;
		row.classList.toggle("would", Boolean(state.trial));
	}
}
