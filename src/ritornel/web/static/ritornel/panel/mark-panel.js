// The selected mark: its name and its place.
import { el, icon } from "../ui/element.js";
import { markMs } from "../score/marks.js";
import { clockText } from "../ui/times.js";
import { pair, textField, timeField } from "./fields.js";

/** @param {ShowState} state */
export function markPanel(state) {
	const { data } = state;
	const mark = /** @type {Core.NamedMark} */ (data.marks.find((entry) => entry.id === state.pickedMark));
	const line = data.slides[mark.slide_id];
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit(() => ({
			do: "put mark",
			mark: { ...state.data.marks.find((entry) => entry.id === mark.id), ...changes },
		}));
	const at = markMs(data, mark);
	return [
		el(
			"section",
			{ class: "grid gap-2" },
			textField(mark.name, (name) => set({ name }), {
				label: "Name of the mark",
				placeholder: "Name this mark",
				cls: "name-field",
			}),
			el(
				"p",
				{ class: "said" },
				Number.isFinite(at)
					? `At ${clockText(at)}, on slide ${data.numbers[mark.slide_id]} ${line.name}`
					: "Its slide is skipped.",
			),
			pair(
				"On the slide",
				timeField(mark.offset_ms, (ms) => set({ offset_ms: ms }), { label: "From the slide's start" }),
			),
			el(
				"div",
				{ class: "row flex-wrap" },
				el(
					"button",
					{
						class: "push",
						disabled: !Number.isFinite(at),
						onclick: () => {
							const { pickedMark } = state;
							state.open(mark.slide_id, at).then(() => state.pick([], { mark: pickedMark }));
						},
					},
					"Go there",
				),
				el(
					"button",
					{ class: "push", onclick: () => state.edit({ do: "remove mark", mark_id: mark.id }) },
					icon("trash-2"),
					"Remove mark",
				),
			),
		),
	];
}
