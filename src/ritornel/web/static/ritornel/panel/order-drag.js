// Moving builds in the running order, by a pointer or by Alt and the arrows. Where one would go, and how it would start
// there, is shown before it is let go; the drop does just that.
import { el, newId } from "../ui/element.js";
import { pull, scrollAtEdge } from "../ui/pull.js";

const BRACE_PX = 44;

const idOf = (row) => row.dataset.build;

/** The words for a place, as they stand beside the pointer. */
function placeWords(state, place) {
	const name = (id) => state.build(id)?.name ?? "";
	if (!place.beside) return place.side === "before" ? "on arrival, before all" : "on a cue of its own, after all";
	if (place.joins) return `together with ${name(place.beside)}`;
	const beat = state.build(place.beside).beat;
	if (place.opens) return beat ? `first on cue ${beat}` : "first on arrival";
	return `${place.side} ${name(place.beside)}, by itself`;
}

const editOf = (state, id, place) => ({
	do: "place build",
	slide_id: state.slide.id,
	build_id: id,
	beside: place.beside ?? null,
	side: place.side,
	joins: Boolean(place.joins),
	cue_id: place.beside || place.side === "before" ? null : newId(),
});

/** Where a build would go that is held at a height over the list; null where it would stay as it is. */
function placeAt(list, held, x, y) {
	const rows = [...list.querySelectorAll(".beat, .entry")];
	const box = list.getBoundingClientRect();
	const row = rows.findLast((one) => one.getBoundingClientRect().top <= y) ?? rows[0];
	const last = rows.at(-1).getBoundingClientRect();
	if (y > last.bottom + 6 || y > box.bottom) return { side: "after", at: rows.at(-1), line: "end" };
	if (row.classList.contains("beat")) {
		const first = row.nextElementSibling;
		if (!first?.matches(".entry")) return { side: "before", at: row, line: "after" };
		if (first === held) return null;
		return { beside: idOf(first), side: "before", opens: true, at: row, line: "after" };
	}
	if (row === held) {
		// Pulled out of its brace, or at home.
		const alone = row.dataset.brace === "alone";
		if (x - box.left > BRACE_PX || alone) return null;
		const mate = row.dataset.brace === "first" ? row.nextElementSibling : row.previousElementSibling;
		return { beside: idOf(mate), side: row.dataset.brace === "first" ? "before" : "after", at: row, line: "own" };
	}
	const { top, height } = row.getBoundingClientRect();
	const side = y < top + height / 2 ? "before" : "after";
	const joins = x - box.left > BRACE_PX;
	return { beside: idOf(row), side, joins, at: row, line: joins ? `${side}-in` : side };
}

/** Where Alt and an arrow take a build: out of a brace, past its end, into the next. */
function placeBeyond(row, way) {
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

export function enableDrag(state, list) {
	let held = null;
	let place = null;
	let asked = "";
	const tag = el("div", { class: "order-tag", hidden: true });
	const clear = () => {
		for (const row of list.querySelectorAll("[data-drop]")) delete row.dataset.drop;
	};

	const showPlace = (x, y) => {
		clear();
		place = placeAt(list, held, x, y);
		tag.hidden = !place;
		if (!place) {
			state.endAttempt();
			asked = "";
			return;
		}
		place.at.dataset.drop = place.line;
		tag.textContent = placeWords(state, place);
		Object.assign(tag.style, { left: `${x + 14}px`, top: `${y + 12}px` });
		const words = JSON.stringify([place.beside, place.side, place.joins, place.opens]);
		if (words !== asked) state.attempt(editOf(state, idOf(held), place));
		asked = words;
	};

	const end = () => {
		held.classList.remove("dragged");
		clear();
		tag.remove();
		state.endAttempt();
		state.letGo();
		held = null;
		asked = "";
	};

	list.addEventListener("pointerdown", (down) => {
		const row = down.target.closest(".entry");
		if (!row || down.button || down.target.closest("input, select")) return;
		pull(down, {
			lift() {
				held = row;
				place = null;
				state.hold();
				row.classList.add("dragged");
				document.body.append(tag);
			},
			move(event) {
				scrollAtEdge(list, event.clientY);
				showPlace(event.clientX, event.clientY);
			},
			drop() {
				const [build, wanted] = [idOf(held), place];
				end();
				if (wanted) state.edit(editOf(state, build, wanted));
			},
			back: end,
		});
	});

	list.addEventListener("keydown", async (event) => {
		const way = { ArrowUp: -1, ArrowDown: 1 }[event.key];
		const row = event.target.closest(".entry");
		if (!way || !row) return;
		event.preventDefault();
		event.stopPropagation();
		const rows = [...list.querySelectorAll(".entry")];
		if (!event.altKey) {
			rows[rows.indexOf(row) + way]?.querySelector(".who").focus();
			return;
		}
		const id = idOf(row);
		await state.edit(editOf(state, id, placeBeyond(row, way)));
		document.querySelector(`.order [data-build="${CSS.escape(id)}"] .who`)?.focus();
	});
}
