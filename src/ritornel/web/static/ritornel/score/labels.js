// Text on the score: measured, shortened, and set into rows without overlap.

/** @type {any} */
const context = document.createElement("canvas").getContext("2d");
context.font = '12px "Hanken Grotesk"';
const widths = new Map();

export function widthOf(/** @type {string} */ words, font = '12px "Hanken Grotesk"') {
	const key = `${font}|${words}`;
	if (!widths.has(key)) {
		context.font = font;
		widths.set(key, context.measureText(words).width);
	}
	return widths.get(key);
}

/** The words shortened to a width; empty where fewer than three letters would be left. */
export function shorten(
	/** @type {string} */ words,
	/** @type {number} */ room,
	font = /** @type {string | undefined} */ (undefined),
) {
	if (widthOf(words, font) <= room) return words;
	for (let count = words.length - 1; count >= 3; count -= 1) {
		const short = `${words.slice(0, count).trimEnd()}…`;
		if (widthOf(short, font) <= room) return short;
	}
	return "";
}

/**
 * Sets things with a start, an end and words into rows. Each gets `row`, and the place of its words: `words` (""
 * where there is no room), `wordsX` and `anchor`.
 * @param {any[]} things with x1, x2 and name, in order of x1
 * @param {number} rows
 * @param {number} least
 * @param {number} most x where bars begin and end
 */
export function setInRows(things, rows, least, most) {
	/** @type {number[][][]} */
	const taken = Array.from({ length: rows }, () => []);
	const free = (/** @type {number} */ row, /** @type {number} */ from, /** @type {number} */ to) =>
		taken[row].every(([a, b]) => to <= a || from >= b);
	/** @type {any[]} */
	const placed = [];
	// Where no row is free, signs come before words: a row in which only words are in the way, and those vanish until a
	// closer zoom.
	const overWords = (/** @type {any} */ { x1, x2 }) => {
		const signs = (/** @type {number} */ row) =>
			placed.some((other) => other.row === row && other.x1 - 3 < x2 + 3 && other.x2 + 3 > x1 - 3);
		const row = Array.from({ length: rows }, (_, at) => at).find((at) => !signs(at)) ?? rows - 1;
		for (const other of placed) {
			if (other.row !== row || !other.words || other.from >= x2 + 3 || other.to <= x1 - 3) continue;
			Object.assign(other, { words: "", from: other.x1 - 3, to: other.x2 + 3 });
		}
		taken[row] = placed.filter((other) => other.row === row).map(({ from, to }) => [from, to]);
		return { row };
	};
	for (const thing of things) {
		const room = widthOf(thing.name) + 8;
		const tries = [];
		for (let row = 0; row < rows; row += 1) {
			if (!free(row, thing.x1 - 3, thing.x2 + 3)) continue;
			if (thing.x2 + 6 + room <= most && free(row, thing.x1 - 3, thing.x2 + 6 + room)) {
				tries.push({
					row,
					words: thing.name,
					wordsX: thing.x2 + 6,
					anchor: "start",
					from: thing.x1 - 3,
					to: thing.x2 + 6 + room,
				});
				break;
			}
		}
		for (let row = 0; !tries.length && row < rows; row += 1) {
			if (thing.x1 - 6 - room >= least && free(row, thing.x1 - 6 - room, thing.x2 + 3))
				tries.push({
					row,
					words: thing.name,
					wordsX: thing.x1 - 6,
					anchor: "end",
					from: thing.x1 - 6 - room,
					to: thing.x2 + 3,
				});
		}
		for (let row = 0; !tries.length && row < rows; row += 1) {
			if (!free(row, thing.x1 - 3, thing.x2 + 3)) continue;
			const next = Math.min(most, ...taken[row].filter(([a]) => a >= thing.x2).map(([a]) => a));
			const words = shorten(thing.name, next - thing.x2 - 12);
			tries.push({
				row,
				words,
				wordsX: thing.x2 + 6,
				anchor: "start",
				from: thing.x1 - 3,
				to: words ? next : thing.x2 + 3,
			});
		}
		const spot = tries[0] ?? {
			...overWords(thing),
			words: "",
			wordsX: 0,
			anchor: "start",
			from: thing.x1 - 3,
			to: thing.x2 + 3,
		};
		taken[spot.row].push([spot.from, spot.to]);
		placed.push({ ...thing, ...spot });
	}
	return placed;
}
