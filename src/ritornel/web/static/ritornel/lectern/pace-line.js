// The pace line: the plan below, this run above, and lines between their bar lines. An upright line is on tempo, one
// that leans right is late.
import { svg } from "../ui/element.js";

const [TOP, BOTTOM, HEIGHT] = [18, 42, 60];
const LEFT = 66;
const MOST_BEYOND = 1.6;

/**
 * @param {SVGSVGElement} node @param {PlayedShow} show
 * @param {{arrivals: {index: number, at_ms: number}[], from_ms: number, now_ms: number, index: number, ends_ms: number,
 * slot_ms: number|null}} run `from_ms` is where in the plan it
 * began; the other times count from its start
 */
export function drawPaceLine(
	node,
	show,
	{ arrivals, from_ms: from, now_ms: now, index, ends_ms: ends, slot_ms: slot },
) {
	const width = node.clientWidth || 900;
	const reach = Math.max(show.length_ms - from, ends, now, 1);
	// A slot that ends long after the show would press all of it into a corner; it is told in words.
	const seen = slot !== null && slot > 0 && slot < reach * MOST_BEYOND;
	const longest = seen ? Math.max(reach, slot) : reach;
	/** @param {number} ms */
	const x = (ms) => LEFT + (ms / longest) * (width - LEFT - 8);
	/** @param {number} x1 @param {number} y1 @param {number} x2 @param {number} y2 @param {string} cls */
	const line = (x1, y1, x2, y2, cls) => svg("path", { d: `M ${x1} ${y1} L ${x2} ${y2}`, class: cls });
	/** @param {number} at @param {number} y @param {string} text @param {string} [cls] */
	const words = (at, y, text, cls = "") => svg("text", { x: at, y, class: cls }, text);
	const parts = [
		words(0, TOP + 4, "This run"),
		words(0, BOTTOM + 4, "Plan"),
		line(x(0), BOTTOM, x(show.length_ms - from), BOTTOM, "plan"),
		line(x(0), TOP, x(now), TOP, "ran"),
		line(x(now), TOP, x(ends), TOP, "coming"),
	];
	const reached = new Map(arrivals.map((entry) => [entry.index, entry.at_ms]));
	const late = ends - (show.length_ms - from);
	const ended = show.length_ms - from;
	let named = -Infinity;
	show.starts_ms.forEach((planned, number) => {
		const start = planned - from;
		if (start < 0) return;
		const ran = reached.get(number);
		parts.push(line(x(start), BOTTOM - 4, x(start), BOTTOM + 4, "plan"));
		if (ran !== undefined)
			parts.push(line(x(start), BOTTOM, x(ran), TOP, "met"), line(x(ran), TOP - 5, x(ran), TOP + 5, "ran"));
		else if (number > index) parts.push(line(x(start), BOTTOM, x(start + late), TOP, "forecast"));
		// Names only where there is room for them, the present one always.
		const name = show.slides[number].name ?? "";
		const room = x((show.starts_ms[number + 1] ?? show.length_ms) - from) - x(start);
		if (number === index || (room > 70 && x(start) > named)) {
			parts.push(
				words(
					x(start) + 3,
					HEIGHT - 2,
					name.length * 6.4 > room && number !== index ? `${name.slice(0, Math.max(3, Math.floor(room / 7)))}…` : name,
					number === index ? "present" : "",
				),
			);
			named = x(start) + Math.max(room, name.length * 6.6);
		}
	});
	const planned = Math.min(Math.max(now - late, 0), ended);
	parts.push(
		svg("path", { d: `M ${x(planned)} ${BOTTOM} L ${x(now)} ${TOP} L ${x(now)} ${BOTTOM} Z`, class: "slip" }),
		line(x(now), TOP - 8, x(now), BOTTOM + 2, "head"),
	);
	if (seen)
		parts.push(
			line(x(slot), TOP - 8, x(slot), BOTTOM + 4, "slot-thin"),
			line(x(slot) + 4, TOP - 8, x(slot) + 4, BOTTOM + 4, "slot-end"),
		);
	node.setAttribute("viewBox", `0 0 ${width} ${HEIGHT}`);
	node.replaceChildren(...parts);
}
