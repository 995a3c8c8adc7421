// The pairs of a carry: which objects move from their old place to their new one and why, links made and removed by
// hand, and refused pairs.
import { el, icon } from "../ui/element.js";
import { pair, selectField } from "./fields.js";
import { loadSheet } from "../ui/sheets.js";

loadSheet("media");

/** @type {{[key: string]: string}} */
const WHY = {
	"by hand": "linked by hand",
	lineage: "a copy of it",
	picture: "the same picture",
	words: "the same words or form",
};

/** @param {ShowState} state */
export function carryFields(state, /** @type {(value: any) => any} */ change) {
	const { carry } = state.data.viewing;
	if (!carry) return [];
	const { slide } = state;
	const same = (/** @type {any} */ link, /** @type {any} */ entry) =>
		link.before === entry.before && link.after === entry.after;
	const unlink = (/** @type {any} */ entry) =>
		change((/** @type {any} */ old) => ({
			links: (old.links ?? []).filter((/** @type {any} */ link) => !same(link, entry)),
			unlinks: [
				...(old.unlinks ?? []).filter((/** @type {any} */ link) => !same(link, entry)),
				{ before: entry.before, after: entry.after },
			],
		}));
	const link = (/** @type {any} */ before, /** @type {any} */ after) =>
		change((/** @type {any} */ old) => ({
			links: [
				...(old.links ?? []).filter((/** @type {any} */ entry) => entry.before !== before && entry.after !== after),
				{ before, after },
			],
			unlinks: (old.unlinks ?? []).filter((/** @type {any} */ entry) => !same(entry, { before, after })),
		}));
	const rows = carry.pairs.map((entry) =>
		el(
			"li",
			{},
			el("span", { class: "truncate" }, el("b", {}, state.object(entry.after)?.name ?? ""), ` · ${WHY[entry.why]}`),
			el(
				"button",
				{
					class: "quiet",
					"aria-label": `Unlink ${state.object(entry.after)?.name ?? ""}`,
					title: "Unlink",
					onclick: () => unlink(entry),
				},
				icon("x"),
			),
		),
	);
	const refused = carry.refusals.map((entry) => el("li", { class: "wrong" }, `Not carried: ${entry.why}`));
	const loose = slide.objects.filter((item) => !carry.pairs.some((entry) => entry.after === item.id));
	const free = carry.before.filter((item) => !carry.pairs.some((entry) => entry.before === item.id));
	let from = free[0]?.id ?? "";
	const hand =
		loose.length && free.length
			? el(
					"div",
					{ class: "grid grid-cols-[1fr_1fr_auto] gap-2" },
					selectField(
						from,
						free.map((item) => [item.id, item.name]),
						(id) => {
							from = id;
						},
						{ label: "Object of the slide before" },
					),
					selectField(
						"",
						[["", "becomes …"], ...loose.map((item) => [item.id, item.name])],
						(id) => {
							if (id) link(from, id);
						},
						{ label: "Object of this slide" },
					),
				)
			: null;
	const undo = (slide.unlinks ?? []).length
		? el(
				"button",
				{ class: "link", onclick: () => change({ unlinks: [] }) },
				`Find the ${slide.unlinks.length} unlinked again`,
			)
		: null;
	return [
		el(
			"ul",
			{ class: "pairs", "aria-label": "Carried" },
			rows.length
				? rows
				: el(
						"li",
						{ class: "said" },
						"Nothing is on both slides, so nothing is carried: it goes and comes like a dissolve.",
					),
			refused,
		),
		hand ? pair("Link", hand) : null,
		undo,
	];
}
