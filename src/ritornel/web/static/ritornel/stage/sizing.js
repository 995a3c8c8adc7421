// How a box changes when a handle is dragged: the rules of core/layout/sizing.py, checked by tests/vectors/sizing.json.

const LEAST_PX = 8;
const tenths = (/** @type {any} */ value) => Math.floor(value * 10 + 0.5) / 10;

/**
 * @param {StageBox} box
 * @param {number[]} handle 0, 0.5 or 1 along width and height
 * @param {number[]} way in px of the frame
 * @param {boolean} keep whether a corner keeps the proportion @param {number[]} least the shortest sides
 */
export function pullHandle(box, [sx, sy], way, keep, least = [LEAST_PX, LEAST_PX]) {
	const turn = ((box.turn_deg ?? 0) * Math.PI) / 180;
	const [c, s] = [Math.cos(turn), Math.sin(turn)];
	const across = way[0] * c + way[1] * s;
	const down = -way[0] * s + way[1] * c;
	let width = sx === 0.5 ? box.width : Math.max(box.width + (sx ? across : -across), least[0]);
	let height = sy === 0.5 ? box.height : Math.max(box.height + (sy ? down : -down), least[1]);
	if (keep && sx !== 0.5 && sy !== 0.5 && box.width && box.height) {
		const share = Math.max(width / box.width, height / box.height);
		[width, height] = [box.width * share, box.height * share];
	}
	const gx = (sx - 0.5) * (width - box.width);
	const gy = (sy - 0.5) * (height - box.height);
	const cx = box.x + box.width / 2 + gx * c - gy * s;
	const cy = box.y + box.height / 2 + gx * s + gy * c;
	return {
		x: tenths(cx - width / 2),
		y: tenths(cy - height / 2),
		width: tenths(width),
		height: tenths(height),
		turn_deg: box.turn_deg ?? 0,
	};
}

/** The box turned so that its top faces the pointer, to the nearest `stepDeg` (0: to a tenth of a degree). */
export function turnBox(/** @type {StageBox} */ box, /** @type {any} */ pointer, /** @type {number} */ stepDeg) {
	const [dx, dy] = [pointer[0] - (box.x + box.width / 2), pointer[1] - (box.y + box.height / 2)];
	const step = stepDeg || 0.1;
	let angle = Math.floor((Math.atan2(dx, -dy) * 180) / Math.PI / step + 0.5) * step;
	angle = tenths(angle);
	return { ...box, turn_deg: angle >= 180 ? angle - 360 : angle };
}

/**
 * Where a box goes when the box around its group is pulled from `old` to `fresh`: core/document/alignment.py
 * `scale_within`.
 */
export function scaleWithin(/** @type {StageBox} */ box, /** @type {any} */ old, /** @type {StageBox} */ fresh) {
	const sx = old.width ? fresh.width / old.width : 1;
	const sy = old.height ? fresh.height / old.height : 1;
	const [ownX, ownY] = (box.turn_deg ?? 0) % 180 ? [Math.min(sx, sy), Math.min(sx, sy)] : [sx, sy];
	const cx = fresh.x + (box.x + box.width / 2 - old.x) * sx;
	const cy = fresh.y + (box.y + box.height / 2 - old.y) * sy;
	const [width, height] = [box.width * ownX, box.height * ownY];
	return {
		x: tenths(cx - width / 2),
		y: tenths(cy - height / 2),
		width: tenths(width),
		height: tenths(height),
		turn_deg: box.turn_deg ?? 0,
	};
}
