// Moving builds in the running order, by a pointer or by Alt and the arrows. Before the drop, the rows stand in the new
// order with their new starts. The drop does exactly that.
import { attempt, endAttempt } from "../editor/attempts.js";
import { el, newId } from "../ui/element.js";
import { pull, scrollAtEdge } from "../ui/pull.js";
import { beatAt } from "../stage/stops.js";
import { beatRow, placeInBrace } from "./running-order.js";

const BRACE_PX = 44;

const idOf = (/** @type {any} */ row) => row.dataset.build;

/** @type {{[key: string]: number}} */
const WAYS = { ArrowUp: -1, ArrowDown: 1 };

/** The words for a place, shown beside the pointer. @param {ShowState} state */
function placeWords(state, /** @type {any} */ place) {
	const name = (/** @type {string} */ id) => state.build(id)?.name ?? "";
	if (place.beat) return place.before ? `before cue ${place.before.beat}` : "after all";
	if (!place.beside) return place.side === "before" ? "on arrival, before all" : "on a cue of its own, after all";
	if (place.alone) return `on a cue of its own, before ${name(place.beside)}`;
	if (place.joins) return `together with ${name(place.beside)}`;
	const beat = state.build(place.beside)?.beat;
	if (place.opens) return beat ? `first on cue ${beat}` : "first on arrival";
	return `${place.side} ${name(place.beside)}, by itself`;
}

const editOf = (/** @type {ShowState} */ state, /** @type {any} */ row, /** @type {any} */ place) =>
	place.beat
		? { do: "move beat", slide_id: state.slide.id, cue_id: row.dataset.cue, before: place.before?.cue ?? null }
		: {
				do: "place build",
				slide_id: state.slide.id,
				build_id: idOf(row),
				beside: place.beside ?? null,
				side: place.side,
				joins: Boolean(place.joins),
				cue_id: place.alone || (!place.beside && place.side === "after") ? newId() : null,
			};

/**
 * The rows at the start of a drag, with heights from the top of the list. The pointer's goals are these rows: a new
 * order that is shown meanwhile moves no goal.
 */
function rowsOf(/** @type {any} */ list) {
	const top = list.getBoundingClientRect().top - list.scrollTop;
	return [...list.querySelectorAll(".beat, .entry")].map((row) => {
		const box = row.getBoundingClientRect();
		return { row, id: idOf(row), brace: row.dataset.brace, top: box.top - top, height: box.height };
	});
}

/** Where a dragged build would go at a place of the list; null where it would stay. */
function placeAt(/** @type {any} */ rows, /** @type {any} */ held, /** @type {number} */ x, /** @type {number} */ y) {
	const at = Math.max(
		rows.findLastIndex((/** @type {any} */ one) => one.top <= y),
		0,
	);
	const { row, id, brace, top, height } = rows[at];
	if (at === rows.length - 1 && y > top + height + 6) return { side: "after" };
	if (row.classList.contains("beat")) {
		const first = rows[at + 1];
		if (!first?.id) return { side: "before" };
		if (first.row === held) return null;
		const alone = at > 0 && y < top + height / 2;
		return { beside: first.id, side: "before", alone, opens: !alone };
	}
	if (row === held) {
		// Pulled out of its brace, or at home.
		if (x > BRACE_PX || brace === "alone") return null;
		const [mate, side] = brace === "first" ? [rows[at + 1], "before"] : [rows[at - 1], "after"];
		return { beside: mate.id, side };
	}
	return { beside: id, side: y < top + height / 2 ? "before" : "after", joins: x > BRACE_PX };
}

/** Where a whole beat, dragged by its wait, would go; null where it would stay. */
function placeOfBeat(/** @type {any} */ rows, /** @type {any} */ held, /** @type {number} */ y) {
	const waits = rows.filter((/** @type {any} */ { row }) => row.matches(".wait"));
	const own = waits.findIndex((/** @type {any} */ { row }) => row === held);
	const next = waits.findIndex((/** @type {any} */ { top, height }) => y < top + height / 2);
	const to = next < 0 ? waits.length : next;
	if (to === own || to === own + 1) return null;
	const { cue, beat } = waits[to]?.row.dataset ?? {};
	return { beat: true, before: cue ? { cue, beat } : null };
}

/** Shows the rows in the order of the trial, or in their own where there is none. @param {ShowState} state */
function arrangeRows(state, /** @type {any} */ list, /** @type {any} */ rows) {
	for (const row of list.querySelectorAll(".would-open")) row.remove();
	const line = state.trial?.slides[state.slide.id];
	list.classList.toggle("tried", Boolean(line));
	if (!line) {
		for (const { row, brace } of rows) {
			row.style.order = "";
			if (brace) row.dataset.brace = brace;
		}
		return;
	}
	const now = beatAt(state);
	let order = 0;
	line.schedule.beats.forEach((/** @type {Core.Beat} */ beat, /** @type {number} */ index) => {
		const opens = beatRow(state, line, beat, index, now);
		opens.classList.add("would-open");
		opens.style.order = String(order++);
		list.append(opens);
		line.builds.forEach((/** @type {BuildLine} */ build, /** @type {any} */ at) => {
			const { row } = rows.find((/** @type {any} */ { id }) => id === build.id) ?? {};
			if (!row || build.beat !== index) return;
			row.style.order = order++;
			row.dataset.brace = placeInBrace(line.builds, at);
		});
	});
	// A list that became shorter would scroll back under the pointer.
	const missing =
		rows.reduce((/** @type {number} */ sum, /** @type {any} */ { height }) => sum + height, 0) - order * rows[0].height;
	if (missing > 0) {
		const rest = el("li", { class: "would-open", "aria-hidden": "true" });
		Object.assign(rest.style, { order, height: `${missing}px` });
		list.append(rest);
	}
}

/** Where Alt and an arrow move a build: out of a brace, past its end, into the next. */
function placeBeyond(/** @type {any} */ row, /** @type {number} */ way) {
	const [edge, side] = way > 0 ? ["last", "after"] : ["first", "before"];
	const next = way > 0 ? row.nextElementSibling : row.previousElementSibling;
	const { brace } = row.dataset;
	const inside = brace === "mid" || (brace !== "alone" && brace !== edge);
	if (inside) return { beside: idOf(next), side, joins: true };
	if (brace === edge) {
		const mate = way > 0 ? row.previousElementSibling : row.nextElementSibling;
		return { beside: idOf(mate), side };
	}
	if (next?.matches(".entry")) return { beside: idOf(next), side: way > 0 ? "before" : "after", joins: true };
	const beyond = way > 0 ? next?.nextElementSibling : next?.previousElementSibling;
	if (beyond?.matches(".entry")) return { beside: idOf(beyond), side: way > 0 ? "before" : "after", joins: false };
	return way > 0 ? { side: "after" } : { side: "before" };
}

/** Where Alt and an arrow move a whole beat: past the one before it or after it. */
function beatBeyond(/** @type {any} */ rows, /** @type {any} */ row, /** @type {number} */ way) {
	const waits = rows.filter((/** @type {any} */ one) => one.matches(".wait"));
	const at = waits.indexOf(row);
	if (!waits[at + way]) return null;
	const before = waits[way < 0 ? at - 1 : at + 2];
	return { beat: true, before: before ? { cue: before.dataset.cue } : null };
}

/** The row of the same build or wait in the present list. */
function sameRow(/** @type {any} */ { dataset: { cue, build } }) {
	const same = cue ? `[data-cue="${CSS.escape(cue)}"]` : `[data-build="${CSS.escape(build)}"]`;
	return document.querySelector(`.order ${same}`);
}

/**
 * Moves a build one place earlier (-1) or later (1), a wait with its beat past another beat.
 * @param {ShowState} state
 */
export async function moveRow(state, /** @type {any} */ row, /** @type {number} */ way) {
	const rows = [...row.parentNode.querySelectorAll(".entry, .wait")];
	const place = row.dataset.cue ? beatBeyond(rows, row, way) : placeBeyond(row, way);
	if (place) await state.edit(editOf(state, row, place));
}

/** The same for a press; the button that was pressed keeps the focus. @param {ShowState} state */
export async function pressRow(state, /** @type {any} */ row, /** @type {number} */ way) {
	await moveRow(state, row, way);
	sameRow(row)?.querySelector(`[data-way="${way}"]`)?.focus();
}

/** @param {ShowState} state */
export function enableDrag(state, /** @type {any} */ list) {
	list.addEventListener("pointerdown", (/** @type {any} */ down) => {
		const held = down.target.closest(".entry, .wait");
		if (!held || down.button || down.target.closest("input, select")) return;
		const tag = el("div", { class: "order-tag", hidden: true });
		/** @type {any[]} */
		let rows = [];
		/** @type {any} */
		let place = null;
		let asked = "";
		const arrange = () => arrangeRows(state, list, rows);

		const showPlace = (/** @type {any} */ { clientX: x, clientY: y }) => {
			const box = list.getBoundingClientRect();
			const at = y - box.top + list.scrollTop;
			place = held.matches(".wait") ? placeOfBeat(rows, held, at) : placeAt(rows, held, x - box.left, at);
			tag.hidden = !place;
			if (!place) {
				endAttempt(state);
				asked = "";
				return;
			}
			tag.textContent = placeWords(state, place);
			Object.assign(tag.style, { left: `${x + 14}px`, top: `${y + 12}px` });
			const words = JSON.stringify(place);
			if (words !== asked) attempt(state, editOf(state, held, place));
			asked = words;
		};

		const end = () => {
			held.classList.remove("dragged");
			tag.remove();
			endAttempt(state);
			state.removeEventListener("trial", arrange);
		};

		// From the press on: an answer that comes now would draw the list anew under the pointer.
		state.hold();
		pull(down, {
			lift() {
				rows = rowsOf(list);
				state.addEventListener("trial", arrange);
				held.classList.add("dragged");
				document.body.append(tag);
			},
			move(event) {
				scrollAtEdge(list, event);
				showPlace(event);
			},
			drop() {
				// The rows stay as they are shown until the answer draws them.
				if (place) state.removeEventListener("trial", arrange);
				end();
				if (place) state.edit(editOf(state, held, place));
			},
			back: end,
			over: () => state.letGo(),
		});
	});

	list.addEventListener("keydown", async (/** @type {any} */ event) => {
		const way = WAYS[event.key];
		const row = event.target.closest(".entry, .wait");
		if (!way || !row || event.target.matches("input")) return;
		event.preventDefault();
		event.stopPropagation();
		const rows = [...list.querySelectorAll(".entry, .wait")];
		const handle = ".who, .stop";
		if (!event.altKey) {
			rows[rows.indexOf(row) + way]?.querySelector(handle).focus();
			return;
		}
		await moveRow(state, row, way);
		sameRow(row)?.querySelector(handle).focus();
	});
}
