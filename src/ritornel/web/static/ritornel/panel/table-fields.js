// The settings of a table besides its text: columns, a heading, backgrounds and lines.
import { el, icon } from "../ui/element.js";
import { paintField, strokeFields } from "./colours.js";
import { numberField, pair, selectField, tick } from "./fields.js";

const ALIGNS = [
	["", "As the table"],
	["left", "Left"],
	["centre", "Centre"],
	["right", "Right"],
];

/** @param {ShowState} state */
export function tableFields(state, /** @type {Core.SlideObject} */ item, /** @type {(value: any) => any} */ change) {
	const edit = (/** @type {object} */ act) => state.edit({ slide_id: state.slide.id, object_id: item.id, ...act });
	const several = item.columns.length > 1;
	const columns = item.columns.map(({ width = 1, align = null }, at) =>
		pair(
			`Column ${at + 1}`,
			el(
				"div",
				{ class: "grid grid-cols-[4.5rem_1fr_auto] gap-2" },
				numberField(width, (n) => edit({ do: "change column", at, width: n }), {
					label: `Width of column ${at + 1}, as a share`,
					least: 0.05,
					most: 100,
					decimals: 2,
					unit: "×",
				}),
				selectField(align ?? "", ALIGNS, (way) => edit({ do: "change column", at, align: way || null }), {
					label: `Words of column ${at + 1}`,
				}),
				el(
					"button",
					{
						class: "push shrink-0",
						disabled: !several,
						"aria-label": `Remove column ${at + 1}`,
						title: several ? `Remove column ${at + 1} with its words` : "The last column stays",
						onclick: () => edit({ do: "remove column", at }),
					},
					icon("x"),
				),
			),
		),
	);
	return [
		el("p", { class: "said" }, "Each line of its words is a row; Tab goes on to the next column."),
		...columns,
		pair(
			"Columns",
			el(
				"button",
				{ class: "push", onclick: () => edit({ do: "add column", at: item.columns.length }) },
				icon("plus"),
				"Add a column",
			),
		),
		tick("The first row is a heading", item.heading, (heading) => change({ heading })),
		item.heading
			? pair(
					"Heading",
					paintField(state, item.heading_fill, (fill) => change({ heading_fill: fill }), {
						label: "Ground of the heading",
						none: "None",
					}),
				)
			: null,
		pair(
			"Second rows",
			paintField(state, item.band_fill, (fill) => change({ band_fill: fill }), {
				label: "Ground of every second row",
				none: "None",
			}),
		),
		...strokeFields(state, item.stroke, (stroke) => change({ stroke }), {
			title: "Lines",
			add: "Add lines between rows",
		}),
	];
}
