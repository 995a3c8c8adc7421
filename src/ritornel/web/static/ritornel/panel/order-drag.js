// Dragging in the running order.

/** Dropping under a wait's row makes the entry the opener of that beat, and the old opener together. */
export function enableDrag(state, list) {
	let dragged = null;
	const rows = () => [...list.querySelectorAll("li")];
	const clear = () => rows().forEach((row) => delete row.dataset.drop);
	list.addEventListener("dragstart", (event) => {
		dragged = event.target.closest(".entry");
		event.dataTransfer.effectAllowed = "move";
		event.dataTransfer.setData("text/plain", dragged.dataset.build);
		requestAnimationFrame(() => dragged.classList.add("dragged"));
	});
	list.addEventListener("dragend", () => {
		dragged?.classList.remove("dragged");
		dragged = null;
		clear();
		state.endAttempt();
	});
	const moveOf = (spot) => {
		const id = dragged.dataset.build;
		const before = rows().slice(0, rows().indexOf(spot.row) + (spot.side === "after" ? 1 : 0));
		const to = before.filter((row) => row.classList.contains("entry") && row.dataset.build !== id).length;
		return {
			do: "move build",
			slide_id: state.slide.id,
			build_id: id,
			to,
			opens: spot.row.classList.contains("wait") && spot.side === "after",
		};
	};
	const spotOf = (event) => {
		const row = event.target.closest("li");
		if (!row || !dragged) return null;
		if (!row.classList.contains("entry")) return { row, side: "after" };
		const box = row.getBoundingClientRect();
		return { row, side: event.clientY < box.top + box.height / 2 ? "before" : "after" };
	};
	list.addEventListener("dragover", (event) => {
		const spot = spotOf(event);
		if (!spot) return;
		event.preventDefault();
		clear();
		spot.row.dataset.drop = spot.side;
		state.attempt(moveOf(spot));
	});
	list.addEventListener("drop", (event) => {
		const spot = spotOf(event);
		if (!spot) return;
		event.preventDefault();
		state.edit(moveOf(spot));
	});
}
