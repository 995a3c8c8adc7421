// Two fingers on the score zoom around the place between them.

/** @param {import("./score.js").Score} score @param {PointerEvent} first the first finger that ever came down on it */
export function pinch(score, first) {
	const { scroll } = score;
	const fingers = new Map([[first.pointerId, first.clientX]]);
	const across = () => {
		const [a, b] = [...fingers.values()];
		return { width: Math.max(Math.abs(a - b), 20), middle: (a + b) / 2 - scroll.getBoundingClientRect().left };
	};
	/** @type {any} */
	let before = null;
	scroll.addEventListener(
		"pointerdown",
		(/** @type {PointerEvent} */ event) => {
			if (event.pointerType !== "touch") return;
			fingers.set(event.pointerId, event.clientX);
			before = fingers.size === 2 ? across() : null;
		},
		true,
	);
	addEventListener("pointermove", (event) => {
		if (!fingers.has(event.pointerId)) return;
		fingers.set(event.pointerId, event.clientX);
		if (!before) return;
		const now = across();
		score.zoom(now.width / before.width, now.middle);
		before = now;
	});
	for (const kind of /** @type {const} */ (["pointerup", "pointercancel"]))
		addEventListener(kind, (event) => {
			if (fingers.delete(event.pointerId)) before = null;
		});
}
