// A frame drawn over the stage: everything wholly inside is selected.
import { svg } from "../ui/element.js";
import { around } from "./bounds.js";
import { track } from "./tracking.js";

/** @param {import("./picking.js").Picking} picking @param {PointerEvent} event @param {string[]} before what stays picked with it */
export function drawMarquee(picking, event, before) {
	const { stage, state } = picking;
	const from = stage.point(event);
	const rect = svg("rect", { class: "marquee" });
	/** @type {any} */
	let box = null;
	track(
		stage,
		event,
		(/** @type {any} */ way) => {
			box = {
				x: Math.min(from.x, from.x + way.x),
				y: Math.min(from.y, from.y + way.y),
				width: Math.abs(way.x),
				height: Math.abs(way.y),
			};
			for (const [name, value] of Object.entries(box)) rect.setAttribute(name, String(value));
			rect.setAttribute("stroke-width", String(1 / stage.scale));
			stage.overlay.append(rect);
		},
		(/** @type {any} */ way) => {
			rect.remove();
			if (!way || !box) return;
			const inside = state.slide.objects.filter((/** @type {Core.SlideObject} */ item) => {
				if (item.aside || item.locked) return false;
				const own = around([stage.boxOf(item)]);
				return (
					own.x >= box.x &&
					own.y >= box.y &&
					own.x + own.width <= box.x + box.width &&
					own.y + own.height <= box.y + box.height
				);
			});
			state.pick([
				...new Set([
					...before,
					...inside.flatMap((/** @type {Core.SlideObject} */ item) => picking.withGroup(item.id)),
				]),
			]);
		},
	);
}
