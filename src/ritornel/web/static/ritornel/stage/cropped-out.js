// The part of a picture that is cropped away.
import { svg } from "../ui/element.js";

/**
 * The whole picture behind its cropped part, faintly, so that what was cut off can be shown again.
 * @param {Stage} stage
 */
export function drawGhost(stage, /** @type {Core.SlideObject} */ item) {
	const drawn = stage.state.staged.drawing.objects.find((entry) => entry.object_id === item.id);
	const mark = drawn?.parts[0].marks.find((entry) => entry.kind === "image");
	if (!mark) return;
	const { x, y, width, height } = mark;
	const middle = [x + width / 2, y + height / 2];
	const flip =
		mark.flip_x || mark.flip_y
			? `translate(${middle[0]} ${middle[1]})scale(${mark.flip_x ? -1 : 1} ${mark.flip_y ? -1 : 1})translate(${-middle[0]} ${-middle[1]})`
			: "";
	const { box } = item;
	stage.overlay.prepend(
		svg(
			"g",
			{
				class: "ghost",
				opacity: 0.35,
				transform: `translate(${box.x} ${box.y})rotate(${box.turn_deg ?? 0} ${box.width / 2} ${box.height / 2})`,
			},
			svg("image", {
				href: stage.state.asset(item.asset_id)?.address,
				x,
				y,
				width,
				height,
				preserveAspectRatio: "none",
				transform: flip,
			}),
		),
	);
}

export class Ghost {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
	}

	draw() {
		const { state } = this.stage;
		if (state.cutting && state.picked.has(state.cutting) && state.object(state.cutting))
			drawGhost(this.stage, state.object(state.cutting));
	}
}
