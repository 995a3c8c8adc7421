// Copies of objects, and duplicating the selection.
import { duplicateSlide } from "../panel/slide-acts.js";
import { newId } from "../ui/element.js";
import { addObjects } from "./adding.js";

/** Copies of objects with new ids and the lineage of their originals; groups become new groups. */
export function copiesOf(/** @type {any} */ items, dx = 0, dy = 0) {
	const groups = new Map();
	const names = new Map(items.map((/** @type {Core.SlideObject} */ item) => [item.id, newId()]));
	return items.map((/** @type {Core.SlideObject} */ item) => {
		const id = names.get(item.id);
		const copy = {
			...structuredClone(item),
			id,
			lineage: item.lineage || item.id,
			place: "",
			box: { ...item.box, x: item.box.x + dx, y: item.box.y + dy },
		};
		if (copy.paragraphs)
			copy.paragraphs = copy.paragraphs.map(
				(/** @type {WrittenParagraph} */ paragraph, /** @type {number} */ index) => ({
					...paragraph,
					id: `${id}-${index + 1}`,
				}),
			);
		// A press plays the copy of a clip; where the clip was left behind, it does nothing.
		if (copy.press?.do === "clip")
			copy.press = names.has(copy.press.object_id)
				? /** @type {any} */ ({ do: "clip", object_id: names.get(copy.press.object_id) })
				: null;
		if (copy.group) {
			if (!groups.has(copy.group)) groups.set(copy.group, newId());
			copy.group = groups.get(copy.group);
		}
		return copy;
	});
}

/** @type {any} */
let lastCopies = null;

/**
 * Copies the selection with its builds; repeated after the copy was moved, the next copy moves on in the same way.
 * @param {Stage} stage
 */
export async function duplicatePicked(stage) {
	const { state } = stage;
	await state.waiting; // a nudge on its way counts for the step
	if (state.pickedSlides.size > 1) {
		await state.edit({
			do: "duplicate slides",
			slide_ids: state.data.order.filter((id) => state.pickedSlides.has(id)),
			stem: newId().slice(0, 12),
		});
		return;
	}
	const items = stage.picked();
	if (!items.length) {
		await duplicateSlide(state);
		return;
	}
	const again =
		lastCopies &&
		lastCopies.slide === state.slide.id &&
		items.length === lastCopies.pairs.length &&
		items.every((item) => lastCopies.pairs.some((/** @type {any} */ [, copy]) => copy === item.id));
	let step = { x: 20, y: 20 };
	if (again) {
		const [from, to] = lastCopies.pairs[0].map((/** @type {string} */ id) => state.object(id));
		if (from && to) step = { x: to.box.x - from.box.x, y: to.box.y - from.box.y };
	}
	const copies = copiesOf(items, step.x, step.y);
	const of = Object.fromEntries(
		copies.map((/** @type {any} */ copy, /** @type {number} */ at) => [copy.id, items[at].id]),
	);
	if (await addObjects(state, copies, "Duplicate", { copies: of }))
		lastCopies = { slide: state.slide.id, pairs: items.map((item, at) => [item.id, copies[at].id]) };
}
