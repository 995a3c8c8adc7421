// A row of the list of objects: here an object is selected, locked, put aside and moved to the front or back.
import { el, icon } from "../ui/element.js";

/** @type {{[key: string]: string}} */
const SIGNS = { text: "type", picture: "image", shape: "shapes" };

/** Why an object cannot be seen, in a word or two. @param {ShowState} state */
export function hiddenWords(state, /** @type {Core.SlideObject} */ item) {
	const { seen, away } = state.data.viewing;
	const found = seen[item.id];
	const cover = found?.covered_by && state.object(found.covered_by)?.name;
	return [
		item.aside ? "put aside" : null,
		away.includes(item.id) ? "away at first" : null,
		cover ? `covered by ${cover}` : null,
		found?.outside ? (found.outside === "wholly" ? "outside the frame" : "partly outside") : null,
	]
		.filter(Boolean)
		.join(" · ");
}

/** @param {ShowState} state */
export function objectRow(state, /** @type {Core.SlideObject} */ item) {
	const words = hiddenWords(state, item);
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit({ do: "change objects", slide_id: state.slide.id, object_ids: [item.id], changes });
	const pick = (/** @type {MouseEvent} */ event) => {
		const ids = [...state.picked];
		if (event.shiftKey || event.ctrlKey || event.metaKey)
			state.pick(ids.includes(item.id) ? ids.filter((id) => id !== item.id) : [...ids, item.id]);
		else state.pick([item.id]);
		document.querySelector(`[data-stage] [data-object="${CSS.escape(item.id)}"]`)?.scrollIntoView({ block: "nearest" });
	};
	const node = el(
		"li",
		{ "data-listed": item.id, "aria-current": state.picked.has(item.id) ? "true" : null },
		el(
			"button",
			{ class: "who", onclick: pick },
			icon(SIGNS[item.kind]),
			el("span", { class: "name" }, item.name),
			words ? el("span", { class: "why" }, words) : null,
		),
		el(
			"button",
			{
				class: "quiet",
				"aria-pressed": String(item.locked),
				"aria-label": item.locked ? `Unlock ${item.name}` : `Lock ${item.name}`,
				title: item.locked ? "Locked" : "Lock",
				onclick: () => set({ locked: !item.locked }),
			},
			icon(item.locked ? "lock" : "lock-open"),
		),
		el(
			"button",
			{
				class: "quiet",
				"aria-pressed": String(item.aside),
				"aria-label": item.aside ? `Bring ${item.name} back` : `Put ${item.name} aside`,
				title: item.aside ? "Put aside while composing" : "Put aside while composing",
				onclick: () => set({ aside: !item.aside }),
			},
			icon(item.aside ? "eye-off" : "eye"),
		),
	);
	node.addEventListener("keydown", (event) => {
		const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
		if (!event.altKey || !way) return;
		event.preventDefault();
		const at = state.slide.objects.findIndex((other) => other.id === item.id);
		restack(state, item.id, at + way).then(() =>
			document.querySelector(`[data-listed="${CSS.escape(item.id)}"] .who`)?.focus(),
		);
	});
	return node;
}

export const restack = (/** @type {ShowState} */ state, /** @type {string} */ id, /** @type {number} */ to) =>
	state.edit({ do: "stack objects", slide_id: state.slide.id, object_ids: [id], to: Math.max(0, to) });
