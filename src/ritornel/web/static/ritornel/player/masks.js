// Masks as outlines: the rules of core/motion/masks.py, checked by tests/vectors/masks.json.

const KAPPA = 0.5522847498307936;

/** @param {Core.Mask} mask @param {Region} region */
function ways(mask, [x, y, width, height]) {
	const angle = ((mask.angle_deg ?? 0) * Math.PI) / 180;
	const [c, s] = [Math.cos(angle), Math.sin(angle)];
	return {
		cx: x + width / 2,
		cy: y + height / 2,
		c,
		s,
		length: Math.abs(width * c) + Math.abs(height * s),
		half: (Math.abs(width * s) + Math.abs(height * c)) / 2,
	};
}

/** @param {[number, number][]} points */
const closed = (points) => `${points.map(([x, y], at) => `${at ? "L" : "M"} ${x} ${y}`).join(" ")} Z`;

/** @param {Core.Mask} mask @param {Region} region @param {number} first @param {number} last */
function strip(mask, region, first, last) {
	const { cx, cy, c, s, length, half } = ways(mask, region);
	const [a, b] = [(first - 0.5) * length, (last - 0.5) * length];
	return closed(
		[
			[a, -half],
			[b, -half],
			[b, half],
			[a, half],
		].map(([along, across]) => [cx + along * c - across * s, cy + along * s + across * c]),
	);
}

/** @param {number} cx @param {number} cy @param {number} r */
function circle(cx, cy, r) {
	const k = r * KAPPA;
	return (
		`M ${cx + r} ${cy} C ${cx + r} ${cy + k} ${cx + k} ${cy + r} ${cx} ${cy + r} C ${cx - k} ${cy + r} ${cx - r} ${cy + k} ${cx - r} ${cy} ` +
		`C ${cx - r} ${cy - k} ${cx - k} ${cy - r} ${cx} ${cy - r} C ${cx + k} ${cy - r} ${cx + r} ${cy - k} ${cx + r} ${cy} Z`
	);
}

/** @param {number} a @param {number} b @returns {number} */
const shared = (a, b) => (b ? shared(b, a % b) : a);

/** @param {number} count */
function cellOrder(count) {
	let step = Math.max(1, Math.floor(count * 0.618));
	while (shared(step, count) !== 1) step += 1;
	return step;
}

/**
 * The visible region as an outline; empty where nothing is visible.
 * @param {Core.Mask} mask
 * @param {number} reveal
 * @param {number[]} region x, y, width, height
 */
export function maskOutline(mask, reveal, region) {
	if (reveal <= 0) return "";
	const [x, y, width, height] = region;
	const count = mask.count ?? 8;
	if (mask.kind === "wipe") return strip(mask, region, 0, reveal);
	if (mask.kind === "iris") return circle(x + width / 2, y + height / 2, (Math.hypot(width, height) / 2) * reveal);
	if (mask.kind === "blinds")
		return Array.from({ length: count }, (_, n) => strip(mask, region, n / count, (n + reveal) / count)).join(" ");
	const rows = width ? Math.max(1, Math.floor((count * height) / width + 0.5)) : 1;
	const total = count * rows;
	const step = cellOrder(total);
	const [wide, high] = [width / count, height / rows];
	return Array.from({ length: Math.floor(reveal * total + 1e-9) }, (_, rank) => {
		const cell = (rank * step) % total;
		const [left, top] = [x + (cell % count) * wide, y + Math.floor(cell / count) * high];
		return closed([
			[left, top],
			[left + wide, top],
			[left + wide, top + high],
			[left, top + high],
		]);
	}).join(" ");
}

/**
 * The line along which a soft wipe fades, or null where the edge is hard.
 * @param {Core.Mask} mask
 * @param {number} reveal
 * @param {Region} region
 */
export function softEdge(mask, reveal, region) {
	const soft = mask.soft ?? 0;
	if (mask.kind !== "wipe" || soft <= 0) return null;
	const { cx, cy, c, s, length } = ways(mask, region);
	const last = reveal * (1 + soft);
	const [a, b] = [(last - soft - 0.5) * length, (last - 0.5) * length];
	return [cx + a * c, cy + a * s, cx + b * c, cy + b * s];
}
