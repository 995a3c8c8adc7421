// Page up and Page down: the slide before and the slide after.

/** @param {ShowState} state @param {1 | -1} way @param {boolean} picks whether the slides on the way are picked, too */
export function turnPage(state, way, picks) {
	const { order } = state.data;
	const from = order.indexOf(state.slide?.id);
	if (!picks) {
		const next = order[from + way];
		if (next) state.open(next);
		return;
	}
	// The slides from the one on the stage up to here are picked together.
	const picked = order
		.filter((/** @type {string} */ id) => state.pickedSlides.has(id))
		.map((/** @type {string} */ id) => order.indexOf(id));
	const end = picked.length ? (picked[0] === from ? picked[picked.length - 1] : picked[0]) : from;
	const to = Math.max(0, Math.min(end + way, order.length - 1));
	state.pickSlides(order.slice(Math.min(from, to), Math.max(from, to) + 1));
}
