// Snapping to the lines, gaps and sizes that the core sent in advance: the rules of core/layout/guides.py, checked by
// tests/vectors/snapping.json.

const EDGES = [0, 0.5, 1];

function counts(/** @type {any} */ guide, /** @type {any} */ moving) {
	if (guide.only) return moving.size === 1 && moving.has(guide.only);
	return !moving.has(guide.object_id);
}

/** The nearest of `distances`, each with what it belongs to, within reach; of equals the first. */
function nearest(/** @type {any} */ pairs, /** @type {number} */ reach) {
	let best = { distance: 0, found: null };
	for (const [distance, found] of pairs) {
		if (Math.abs(distance) <= reach && (!best.found || Math.abs(distance) < Math.abs(best.distance)))
			best = { distance, found };
	}
	return best;
}

function* toLines(/** @type {any} */ start, /** @type {any} */ size, /** @type {any} */ guides) {
	for (const guide of guides) for (const share of EDGES) yield [guide.at - (start + size * share), guide];
}

const along = (/** @type {StageBox} */ box, /** @type {string} */ axis) =>
	axis === "x"
		? [box.x, box.x + box.width, box.y, box.y + box.height]
		: [box.y, box.y + box.height, box.x, box.x + box.width];

function* toGaps(/** @type {StageBox} */ box, /** @type {string} */ axis, /** @type {any} */ gaps) {
	const [start, end, low, high] = along(box, axis);
	for (const gap of gaps) {
		if (gap.axis !== axis || gap.high <= low || gap.low >= high) continue;
		const wide = gap.end - gap.start;
		yield [gap.first - wide - end, { gap, way: "before" }];
		yield [gap.last + wide - start, { gap, way: "after" }];
		if (end - start < wide) yield [(gap.start + gap.end - start - end) / 2, { gap, way: "between" }];
	}
}

/**
 * @param {StageBox} box
 * @param {Core.Guides} guides
 * @param {Set<string>} moving
 * @param {number} reach
 * @returns {{dx: number, dy: number, x_guide: object|null, y_guide: object|null, x_gap: object|null, y_gap:
 * object|null}}
 */
export function snapBox(box, guides, moving, reach) {
	const still = guides.lines.filter((guide) => counts(guide, moving));
	const gaps = guides.gaps.filter((gap) => !gap.object_ids.some((/** @type {string} */ id) => moving.has(id)));
	const onAxis = (/** @type {string} */ axis, /** @type {any} */ start, /** @type {any} */ size) => {
		const line = nearest(
			toLines(
				start,
				size,
				still.filter((guide) => guide.axis === axis),
			),
			reach,
		);
		const gap = nearest(toGaps(box, axis, gaps), reach);
		if (gap.found && (!line.found || Math.abs(gap.distance) < Math.abs(line.distance)))
			return { way: gap.distance, guide: null, gap: gap.found };
		return { way: line.distance, guide: line.found, gap: null };
	};
	const x = onAxis("x", box.x, box.width);
	const y = onAxis("y", box.y, box.height);
	return { dx: x.way, dy: y.way, x_guide: x.guide, y_guide: y.guide, x_gap: x.gap, y_gap: y.gap };
}

/**
 * Where a handle goes: its edge comes to a line, or else its side becomes as long as another.
 * @param {number[]} handle 0, 0.5 or 1 along each axis
 * @param {number[]} way in px of the frame
 */
export function snapHandle(
	/** @type {StageBox} */ box,
	handle,
	way,
	/** @type {any} */ guides,
	/** @type {any} */ moving,
	/** @type {number} */ reach,
) {
	const result = /** @type {Record<string, any>} */ ({
		dx: way[0],
		dy: way[1],
		x_guide: null,
		y_guide: null,
		x_size: null,
		y_size: null,
	});
	if ((box.turn_deg ?? 0) % 360) return result;
	const still = guides.lines.filter((/** @type {any} */ guide) => counts(guide, moving));
	for (const [at, axis] of ["x", "y"].entries()) {
		const [start, end] = along(box, axis);
		if (handle[at] === 0.5) continue;
		const edge = (handle[at] ? end : start) + way[at];
		const line = nearest(
			still
				.filter((/** @type {any} */ guide) => guide.axis === axis)
				.map((/** @type {any} */ guide) => [guide.at - edge, guide]),
			reach,
		);
		let more = line.distance;
		/** @type {any} */
		let size = null;
		if (!line.found) {
			const length = end - start + (handle[at] ? way[at] : -way[at]);
			const near = nearest(
				guides.sizes
					.filter((/** @type {any} */ other) => other.axis === axis && !moving.has(other.object_id))
					.map((/** @type {any} */ other) => [other.length - length, other]),
				reach,
			);
			size = near.found;
			more = size ? (size.length - length) * (handle[at] ? 1 : -1) : 0;
		}
		result[`d${axis}`] = way[at] + more;
		result[`${axis}_guide`] = line.found;
		result[`${axis}_size`] = size;
	}
	return result;
}
