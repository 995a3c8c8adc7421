// The panel of several slides: what they have in common, changed together.
import { el, icon, newId } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { choice, pair, selectField, timeField } from "./fields.js";
import { readThrough } from "./lengths.js";
import { personField } from "./person-field.js";
import { DRIFTS } from "./picture-fields.js";

/** @param {ShowState} state */
export function slidesPanel(state) {
	const ids = state.data.order.filter((id) => state.pickedSlides.has(id));
	const lines = ids.map((id) => state.data.slides[id]);
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit({ do: "change slides", slide_ids: ids, changes, stem: newId().slice(0, 12) });
	const alike = (/** @type {any} */ read) =>
		lines.every((line) => read(line) === read(lines[0])) ? read(lines[0]) : "";
	const mixed = (/** @type {any} */ read) =>
		alike((/** @type {SlideLine} */ line) => String(read(line))) === "" ? null : read(lines[0]);
	const skipped = lines.every((line) => line.skipped);
	const first = state.data.order.indexOf(ids[0]);
	const move = (/** @type {number} */ to) => state.edit({ do: "move slides", slide_ids: ids, to });
	const transitions = [["", "Different now"], ...state.data.transitions.map((entry) => [entry.name, entry.title])];
	const layouts = [["", "Different now"], ...state.data.layouts.map((entry) => [entry.name, entry.title])];
	// Of the slides as they are when the edit's turn comes: somebody else may have changed them since the panel was
	// drawn.
	const each = (/** @type {string} */ label, /** @type {(line: SlideLine) => object | null} */ fresh) =>
		state.edit(() => {
			const now = ids.map((id) => state.data.slides[id]).filter(Boolean);
			const edits = now
				.map((line) => /** @type {[SlideLine, object | null]} */ ([line, fresh(line)]))
				.filter(([, changes]) => changes)
				.map(([line, changes]) => ({ do: "change slides", slide_ids: [line.id], changes }));
			return edits.length
				? { do: "several", label: `${label} of ${edits.length} slide${edits.length === 1 ? "" : "s"}`, edits }
				: null;
		});
	// Only what was chosen changes: each slide keeps its own length, pace and sound, and those settings that the other
	// transition has too.
	const settle = (/** @type {string} */ name) => {
		const kind = state.data.transitions.find((entry) => entry.name === name);
		if (!kind) return;
		const known = (/** @type {any} */ settings) =>
			Object.fromEntries(
				Object.entries(settings).filter(([key, value]) =>
					kind.controls.some(
						(control) => control.name === key && (!control.choices || control.choices.includes(value)),
					),
				),
			);
		each("Change transition", (/** @type {any} */ { transition }) =>
			transition.name === name
				? null
				: {
						transition: {
							...transition,
							name,
							lasts_ms: transition.lasts_ms || kind.lasts_ms,
							settings: known(transition.settings),
						},
					},
		);
	};
	const advance = (/** @type {string} */ rule) =>
		each("Change how to advance", (/** @type {SlideLine} */ line) =>
			line.advance.rule === rule
				? null
				: {
						advance: {
							after: { rule, after_ms: line.advance.after_ms ?? 5000 },
							cue: { rule, cue_id: newId(), hold_ms: null },
							voice: { rule },
						}[rule],
					},
		);
	const after = (/** @type {number} */ ms) =>
		each("Change length", (/** @type {SlideLine} */ line) => ({
			advance: line.advance.rule === "after" ? { ...line.advance, after_ms: ms } : { rule: "after", after_ms: ms },
		}));
	const total = lines.reduce((sum, line) => sum + line.schedule.length_ms, 0);
	return [
		el(
			"section",
			{},
			el("h2", {}, `${ids.length} slide${ids.length === 1 ? "" : "s"}`),
			el(
				"p",
				{ class: "said" },
				`${lines
					.map((line) => line.name || "Untitled")
					.slice(0, 6)
					.join(", ")}${ids.length > 6 ? " …" : ""} · together ${secondsText(total)} s`,
			),
		),
		el(
			"section",
			{ class: "grid gap-2" },
			pair(
				"Transition",
				selectField(
					alike((/** @type {SlideLine} */ line) => line.transition.name),
					transitions,
					settle,
					{ label: "Transition" },
				),
			),
			pair(
				"Length",
				timeField(
					mixed((/** @type {SlideLine} */ line) => line.transition.lasts_ms),
					(ms) =>
						each("Change transition", (/** @type {SlideLine} */ line) => ({
							transition: { ...line.transition, lasts_ms: ms },
						})),
					{ label: "Length of the transitions", placeholder: "different now" },
				),
			),
			pair(
				"Advance",
				choice(
					alike((/** @type {SlideLine} */ line) => line.advance.rule),
					[
						["after", "After"],
						["cue", "On cue"],
						["voice", "Voice"],
					],
					advance,
					{ label: "Advance" },
				),
			),
			pair(
				"After",
				timeField(
					mixed((/** @type {SlideLine} */ line) => line.advance.after_ms ?? null),
					after,
					{ label: "All advance after", placeholder: "different now" },
				),
			),
			pair(
				"Given to",
				personField(
					state,
					alike((/** @type {SlideLine} */ line) => line.given_to) ?? "",
					(/** @type {string} */ name) =>
						state.edit({ do: "change slides", slide_ids: ids, changes: { given_to: name } }),
					"Whom the slides are given to",
				),
			),
			pair(
				"Layout",
				selectField(
					alike((/** @type {SlideLine} */ line) => line.layout),
					layouts,
					(layout) => layout && state.edit({ do: "change layout", slide_ids: ids, layout }),
					{ label: "Layout of the slides" },
				),
			),
			pair(
				"Drift",
				selectField(
					"",
					[["", "Pictures …"], ["in turn", "Drift, each another way"], ...DRIFTS.filter(([way]) => way !== "own")],
					(way) => way && state.edit({ do: "drift slides", slide_ids: ids, way }),
					{ label: "Drift of the pictures" },
				),
			),
			el("button", { class: "push", onclick: () => readThrough(state, ids) }, "Lengths from reading"),
			el("button", { class: "push", onclick: () => set({ background: null }) }, "Background of the theme on all"),
		),
		el(
			"section",
			{},
			el(
				"div",
				{ class: "row flex-wrap" },
				el(
					"button",
					{ class: "push", disabled: first === 0, onclick: () => move(Math.max(0, first - 1)) },
					icon("arrow-left"),
					"Earlier",
				),
				el("button", { class: "push", onclick: () => move(first + 1) }, "Later", icon("arrow-right")),
				el(
					"button",
					{
						class: "push",
						onclick: () => state.edit({ do: "duplicate slides", slide_ids: ids, stem: newId().slice(0, 12) }),
					},
					icon("copy"),
					"Duplicate",
				),
				el(
					"button",
					{ class: "push", onclick: () => set({ skipped: !skipped }) },
					icon("eye-off"),
					skipped ? "Show again" : "Skip",
				),
				el(
					"button",
					{ class: "push", onclick: () => state.edit({ do: "remove slides", slide_ids: ids }) },
					icon("trash-2"),
					"Remove slides",
				),
			),
		),
	];
}
