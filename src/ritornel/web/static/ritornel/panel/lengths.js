// Lengths by a rule: all alike, from reading, fitted to a length or to the music.
import { el } from "../ui/element.js";
import { post } from "../ui/requests.js";
import { clockText, parseClockMs } from "../ui/times.js";
import { pair } from "./fields.js";

const ask = (/** @type {ShowState} */ state, /** @type {any} */ body) =>
	state.inTurn(async () => state.take(await post(`${state.base}/lengths`, { ...body, viewing: state.slide?.id })));

/** For the whole show: a target, and the music's end where there is one span of it. @param {ShowState} state */
export function fitting(state) {
	const { data } = state;
	const field = el("input", {
		class: "field",
		placeholder: clockText(data.length_ms),
		"aria-label": "Length to fit the show to",
		autocomplete: "off",
	});
	const spread = () => {
		const target = parseClockMs(field.value);
		if (!target) {
			field.setAttribute("aria-invalid", "true");
			field.title = "Write minutes and seconds, such as 5:00.";
			return;
		}
		ask(state, { by: "spreading", target_ms: target });
	};
	field.addEventListener("keydown", (event) => {
		if (event.key === "Enter") spread();
	});
	const [span] = data.spans;
	const asset = data.spans.length === 1 ? state.asset(span.asset_id) : null;
	const begins = span?.start.at === "slide" ? span.start.slide_id : data.order[0];
	const start = data.starts_ms[begins] ?? 0;
	return [
		pair(
			"Fit to a length",
			el(
				"div",
				{ class: "grid grid-cols-[1fr_auto] gap-2" },
				field,
				el("button", { class: "push", title: "Stretches holds and lengths, never what moves", onclick: spread }, "Fit"),
			),
		),
		asset
			? el(
					"button",
					{
						class: "push",
						onclick: () => ask(state, { by: "spreading", target_ms: start + asset.lasts_ms, from: begins }),
					},
					`Fit to the end of ${asset.name}`,
				)
			: null,
		el("button", { class: "push", onclick: () => readThrough(state, data.order) }, "Lengths from reading, all slides"),
	];
}

export const readThrough = (/** @type {ShowState} */ state, /** @type {string[]} */ ids) =>
	ask(state, { by: "reading", slide_ids: ids });
