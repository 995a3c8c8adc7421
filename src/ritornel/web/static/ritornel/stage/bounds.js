// The box around boxes, as in core/layout/guides.py, checked by tests/vectors/snapping.json.

/** The box around several boxes as they are seen, so that objects moved together snap as one. */
export function around(/** @type {any} */ boxes) {
	const edges = boxes.map((/** @type {StageBox} */ box) => {
		const turn = ((box.turn_deg ?? 0) * Math.PI) / 180;
		const [c, s] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
		const [w, h] = [(box.width * c + box.height * s) / 2, (box.width * s + box.height * c) / 2];
		const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
		return [cx - w, cy - h, cx + w, cy + h];
	});
	const [x, y] = [
		Math.min(...edges.map((/** @type {any} */ edge) => edge[0])),
		Math.min(...edges.map((/** @type {any} */ edge) => edge[1])),
	];
	return {
		x,
		y,
		width: Math.max(...edges.map((/** @type {any} */ edge) => edge[2])) - x,
		height: Math.max(...edges.map((/** @type {any} */ edge) => edge[3])) - y,
	};
}
