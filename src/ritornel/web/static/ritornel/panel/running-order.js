// The running order: every build one line, under the waits that open its beat; dragged, or moved by Alt and the arrows.
import { el, icon, newId } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { fermata, sign } from "../stage/signs.js";
import { holdEdit } from "../score/holds.js";
import { beatAt, goToBeat } from "../stage/stops.js";
import { svg } from "../ui/element.js";
import { selectField, timeField } from "./fields.js";
import { later } from "../ui/lazy-modules.js";

const drags = later(() => import("./order-drag.js"));
const tenths = (ms) => (ms / 1000).toFixed(1);

/** How a build starts, in words. */
export function startsWords(build) {
	const after = build.after_ms ? ` +${secondsText(build.after_ms)}` : "";
	return { cue: "on cue", together: "together", follows: "follows" }[build.starts.rule] + after;
}

/** Sets the hold of the cue before beat `beat`, or before the slide is left. */
export function setHold(state, line, beat, ms) {
	return state.edit(() => holdEdit(state.data.slides[line.id], beat, ms));
}

function waitRow(state, beat, wait, now) {
	const sourceWords = {
		"own hold": "own hold",
		take: state.data.settings.follows_take || "take",
		default: "default hold",
		"voice mark": "voice mark",
	}[wait.source];
	const stop =
		beat === null
			? el("span", { class: "stop", "aria-hidden": "true" }, "→")
			: el(
					"button",
					{
						class: "stop",
						"aria-current": beat === now ? "true" : null,
						"aria-label": `Show beat ${beat}`,
						onclick: () => goToBeat(state, beat),
					},
					String(beat),
				);
	const beatNumber = beat ?? state.line.schedule.beats.length;
	return el(
		"li",
		{ class: "wait" },
		stop,
		svg("svg", { width: 18, height: 14, viewBox: "0 0 18 14", "aria-hidden": "true" }, fermata(1, 11)),
		el("b", { class: "font-semibold" }, beat === null ? "Leaves on cue" : "On cue"),
		timeField(wait.hold_ms, (ms) => setHold(state, state.line, beatNumber, ms), {
			label: beat === null ? "Hold before leaving" : `Hold before beat ${beat}`,
			cls: "hold-field",
		}),
		el("span", { class: "when ml-auto" }, sourceWords),
	);
}

/** How a build starts, changed in place. */
function startsField(state, build) {
	const field = selectField(
		build.starts.rule,
		[
			["cue", "on cue"],
			["together", "together"],
			["follows", "follows"],
		].map(([rule, words]) => [rule, rule === build.starts.rule ? startsWords(build) : words]),
		(rule) =>
			state.edit({
				do: "change build",
				slide_id: state.slide.id,
				build_id: build.id,
				changes: { starts: rule === "cue" ? { rule, cue_id: newId(), hold_ms: null } : { rule } },
			}),
		{ label: `How ${build.name} starts` },
	);
	field.className = "starts";
	return field;
}

/** The exact times of the picked build, under its line. */
function timesRow(state, build) {
	const set = (changes) => state.edit({ do: "change build", slide_id: state.slide.id, build_id: build.id, changes });
	return el(
		"li",
		{ class: "times" },
		"After",
		timeField(build.after_ms, (ms) => set({ after_ms: ms }), { label: `${build.name}: after` }),
		...(build.clip
			? []
			: [
					"lasts",
					timeField(build.kind === "views" ? build.runs_ms : build.lasts_ms, (ms) => set({ lasts_ms: ms }), {
						label: `${build.name}: lasts`,
					}),
				]),
	);
}

export function runningOrder(state) {
	const { line } = state;
	const now = beatAt(state);
	const list = el("ul", { class: "order" });
	if (line.builds.length)
		list.append(
			el(
				"li",
				{ class: "heads", "aria-hidden": "true" },
				el("span", {}, "Object"),
				el("span", {}, "Effect"),
				el("span", {}, "Starts"),
				el("span", {}, "Seconds"),
			),
		);
	line.schedule.beats.forEach((beat, index) => {
		if (index === 0) {
			const stop = el(
				"button",
				{
					class: "stop",
					"aria-current": now === 0 ? "true" : null,
					"aria-label": "Show beat 0",
					onclick: () => goToBeat(state, 0),
				},
				"0",
			);
			list.append(
				el(
					"li",
					{ class: "arrival" },
					stop,
					el("b", { class: "font-semibold" }, "On arrival"),
					el(
						"span",
						{ class: "when ml-auto" },
						line.schedule.transition_ms
							? `after the ${line.transition.name}, ${secondsText(line.schedule.transition_ms)} s`
							: "at once",
					),
				),
			);
		} else list.append(waitRow(state, index, beat.wait, now));
		for (const build of line.builds.filter((entry) => entry.beat === index)) {
			list.append(entryRow(state, build, beat.start_ms));
			if (build.id === state.timedBuild) list.append(timesRow(state, build));
		}
	});
	if (line.schedule.last_wait) list.append(waitRow(state, null, line.schedule.last_wait, now));
	else if (state.waitsToLeave(line.id))
		list.append(el("li", { class: "arrival" }, el("span", { class: "said" }, "Waits for your cue to go on")));
	if (!line.builds.length)
		list.append(
			el("li", {}, el("span", { class: "said" }, "No builds: all is there on arrival. Pick an object to give it one.")),
		);
	drags.get().then(({ enableDrag }) => enableDrag(state, list));
	return list;
}

function entryRow(state, build, beatStart) {
	const from = beatStart + build.offset_ms;
	const row = el(
		"li",
		{
			class: "entry",
			"data-build": build.id,
			draggable: "true",
			"aria-current": state.pickedBuild === build.id ? "true" : null,
		},
		icon("grip-vertical"),
		sign(build.kind),
		el(
			"button",
			{ class: "who", onclick: () => state.pickBuild(build), title: `${build.name}: ${build.title.toLowerCase()}` },
			build.name,
		),
		el("span", { class: "when" }, build.title),
		startsField(state, build),
		el(
			"button",
			{
				class: "when seconds",
				"aria-expanded": String(state.timedBuild === build.id),
				title: "Change its times",
				"aria-label": `Times of ${build.name}`,
				onclick: () => {
					state.timedBuild = state.timedBuild === build.id ? null : build.id;
					state.tell("pick");
				},
			},
			`${tenths(from)}–${tenths(from + build.runs_ms)}`,
		),
	);
	row.addEventListener("keydown", (event) => {
		const way = { ArrowUp: -1, ArrowDown: 1 }[event.key];
		if (!event.altKey || !way) return;
		event.preventDefault();
		const at = state.line.builds.findIndex((entry) => entry.id === build.id);
		state.edit({ do: "move build", slide_id: state.slide.id, build_id: build.id, to: at + way }).then(() => {
			document.querySelector(`.order [data-build="${CSS.escape(build.id)}"] .who`)?.focus();
		});
	});
	row.addEventListener("pointerenter", () => light(build.id, true));
	row.addEventListener("pointerleave", () => light(build.id, false));
	return row;
}

/** Shows on list and score alike which build is meant. */
export function light(buildId, on) {
	for (const node of document.querySelectorAll(`[data-build="${CSS.escape(buildId)}"]`)) {
		if (on) node.dataset.lit = "";
		else delete node.dataset.lit;
	}
}

/** While something is pulled, the list says when and how each build would start. */
export function showTrial(state) {
	const line = state.trial?.slides[state.slide?.id] ?? state.line;
	for (const row of document.querySelectorAll(".order .entry")) {
		const build = line?.builds.find((entry) => entry.id === row.dataset.build);
		if (!build) continue;
		const times = [...row.querySelectorAll(".when")].at(-1);
		const rule = row.querySelector(".starts");
		const from = line.schedule.beats[build.beat].start_ms + build.offset_ms;
		rule.selectedOptions[0].textContent = startsWords(build);
		times.textContent = `${tenths(from)}–${tenths(from + build.runs_ms)}`;
		row.classList.toggle("would", Boolean(state.trial));
	}
}
