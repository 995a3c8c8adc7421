// Easing curves, with exactly the steps of core/motion/easing.py.

/** @param {number} progress @param {number[]} curve x1, y1, x2, y2 @returns {number} the eased progress */
export function ease(progress, [x1, y1, x2, y2]) {
	if (progress <= 0) return 0;
	if (progress >= 1) return 1;
	if (x1 === y1 && x2 === y2) return progress;
	const cx = 3 * x1;
	const bx = 3 * (x2 - x1) - cx;
	const ax = 1 - cx - bx;
	let low = 0,
		high = 1,
		t = progress;
	for (let step = 0; step < 40; step += 1) {
		const error = ((ax * t + bx) * t + cx) * t - progress;
		if (error > -1e-10 && error < 1e-10) break;
		if (error < 0) low = t;
		else high = t;
		const slope = (3 * ax * t + 2 * bx) * t + cx;
		t = slope > 1e-6 ? t - error / slope : low;
		if (t <= low || t >= high) t = (low + high) / 2;
	}
	const cy = 3 * y1;
	const by = 3 * (y2 - y1) - cy;
	return (((1 - cy - by) * t + by) * t + cy) * t;
}
