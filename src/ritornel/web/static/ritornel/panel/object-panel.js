// The panel of an object: its builds, its look and its place.
import { el, icon } from "../ui/element.js";
import { builds } from "./builds-panel.js";
import { clipPanel } from "./clip-panel.js";
import { look } from "./look-panel.js";
import { place, pressFields } from "./place-panel.js";

export { changeBuild } from "./build-timing.js";

const TABS = [
	["builds", "Builds"],
	["look", "Look"],
	["place", "Place"],
	["press", "When pressed"],
];
/** @type {{[key: string]: string}} */
const FIELD_WORDS = {
	box: "place",
	size_px: "size",
	family: "font",
	colour: "colour",
	weight: "weight",
	italic: "slant",
	align: "alignment",
	stand: "standing",
	line_spacing: "line height",
	paragraph_gap: "gaps",
	overflow: "fitting",
	fit: "fit",
};

/** @param {ShowState} state */
export function objectPanel(state, /** @type {Panel} */ panel) {
	const item = state.object([...state.picked][0]);
	const slideId = state.slide.id;
	// Changes may be a function of the object as it is when their turn comes.
	const change = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit(() => {
			const now = state.object(item.id);
			return now
				? {
						do: "change objects",
						slide_id: slideId,
						object_ids: [item.id],
						changes: typeof changes === "function" ? changes(now) : changes,
					}
				: null;
		});
	const isClip = item.kind === "clip";
	const tab = isClip ? panel.clipTab : panel.tab;
	const tabs = el(
		"div",
		{ class: "tabs", role: "tablist" },
		(isClip ? [["clip", "Clip"], ...TABS] : TABS).map(([key, words]) =>
			el(
				"button",
				{ role: "tab", "aria-selected": String(tab === key), onclick: () => panel.openTab(key, isClip) },
				words,
			),
		),
	);
	const body = /** @type {Record<string, any>} */ ({
		clip: () => clipPanel(state, item, change),
		builds: () => builds(state, item, panel),
		look: () => [...look(state, item, change), differs(state, [item])],
		place: () => place(state, item, change),
		press: () => pressFields(state, item, change),
	})[tab]();
	return [tabs, el("section", { class: "grid gap-2", role: "tabpanel" }, body)];
}

/** Differences from the theme, with one press to return to it. @param {ShowState} state */
export function differs(state, /** @type {any} */ items) {
	const found = items.filter((/** @type {Core.SlideObject} */ item) => state.data.viewing.differs[item.id]);
	if (!found.length) return null;
	const fields = [
		...new Set(found.flatMap((/** @type {Core.SlideObject} */ item) => state.data.viewing.differs[item.id])),
	].map((name) => FIELD_WORDS[name] ?? name);
	const all = {
		do: "follow theme",
		slide_id: state.slide.id,
		object_ids: found.map((/** @type {Core.SlideObject} */ item) => item.id),
	};
	return el(
		"p",
		{ class: "differs" },
		el("span", {}, `Differs from the theme: ${fields.join(", ")}`),
		el("button", { class: "link", onclick: () => state.edit(all) }, "Return to it"),
	);
}

/** Buttons that act on the selection, one object or several. @param {ShowState} state */
export function commonActions(state, /** @type {any} */ items) {
	const ids = items.map((/** @type {Core.SlideObject} */ item) => item.id);
	const slide = state.slide.id;
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit({ do: "change objects", slide_id: slide, object_ids: ids, changes });
	const locked = items.every((/** @type {Core.SlideObject} */ item) => item.locked);
	const aside = items.every((/** @type {Core.SlideObject} */ item) => item.aside);
	return el(
		"div",
		{ class: "row flex-wrap" },
		el(
			"button",
			{ class: "push", onclick: () => set({ locked: !locked }) },
			icon(locked ? "lock-open" : "lock"),
			locked ? "Unlock" : "Lock",
		),
		el(
			"button",
			{
				class: "push",
				onclick: () => set({ aside: !aside }),
				title: "Out of the way while composing; it plays as ever",
			},
			icon(aside ? "eye" : "eye-off"),
			aside ? "Bring back" : "Put aside",
		),
		el(
			"button",
			{ class: "push", onclick: () => state.edit({ do: "remove objects", slide_id: slide, object_ids: ids }) },
			icon("trash-2"),
			items.length > 1 ? "Remove them" : `Remove ${items[0].name}`,
		),
	);
}
