// Voices for many slides, paired by the numbers in their file names. The pairs are shown before anything happens, and
// can be changed.
import { el, icon } from "../ui/element.js";
import { post } from "../ui/requests.js";
import { countWords } from "../ui/wording.js";
import { loadSheet } from "../ui/sheets.js";

loadSheet("media");

const whole = (/** @type {ShelfAsset} */ asset) => ({ asset_id: asset.id, in_ms: 0, out_ms: asset.lasts_ms });

/**
 * @param {ShowState} state
 * @param {{name: string, file?: File, asset?: object}[]} voices files, or what lies on the shelf already
 */
export async function showPairs(state, voices) {
	const { rows } = await post(`${state.base}/voices/pairs`, { names: voices.map(({ name }) => name) });
	const slides = rows.filter((/** @type {any} */ row) => row.slide !== null);
	const troubles = new Map(
		rows
			.filter((/** @type {any} */ row) => row.slide === null)
			.map((/** @type {any} */ row) => [row.file, row.trouble]),
	);
	const chosen = slides.map((/** @type {any} */ row) => row.file);
	const dialog = el("dialog", { class: "pairs-dialog", "aria-label": "Which voice goes where" });
	const body = el("tbody");
	const left = el("ul", { class: "pairs", "aria-label": "Voices without a slide" });
	const give = el("button", { class: "push main" });

	const choose = (/** @type {any} */ at, /** @type {number | null} */ file) => {
		const before = file === null ? -1 : chosen.indexOf(file);
		if (before >= 0) chosen[before] = null;
		chosen[at] = file;
		draw();
	};
	const shift = (/** @type {number} */ way) => {
		if (way < 0) chosen.push(chosen.shift());
		else chosen.unshift(chosen.pop());
		draw();
	};
	const draw = () => {
		body.replaceChildren(
			...slides.map((/** @type {any} */ row, /** @type {any} */ at) => {
				const name = state.data.slides[state.data.order[row.slide]].name || "Untitled";
				const field = el(
					"select",
					{ class: "field", "aria-label": `Voice of slide ${row.slide + 1} ${name}` },
					el("option", { value: "" }, "No voice"),
					voices.map((voice, file) => el("option", { value: file, selected: chosen[at] === file }, voice.name)),
				);
				field.addEventListener("change", () => choose(at, field.value === "" ? null : Number(field.value)));
				const trouble = chosen[at] === null ? row.trouble : "";
				return el(
					"tr",
					{ class: trouble ? "wrong" : "" },
					el("td", {}, String(row.slide + 1)),
					el("td", {}, name),
					el("td", {}, field),
					el("td", {}, trouble),
				);
			}),
		);
		left.replaceChildren(
			...voices.flatMap(({ name }, file) =>
				chosen.includes(file) ? [] : [el("li", {}, el("b", {}, name), troubles.get(file) ?? "left out")],
			),
		);
		const count = chosen.filter((/** @type {number | null} */ file) => file !== null).length;
		give.disabled = !count;
		give.textContent = count === 1 ? "Give 1 slide its voice" : `Give ${countWords(count, "slide")} their voices`;
	};

	give.addEventListener("click", () => {
		dialog.close();
		giveVoices(
			state,
			slides.flatMap((/** @type {any} */ row, /** @type {any} */ at) =>
				chosen[at] === null ? [] : [{ slide: state.data.order[row.slide], voice: voices[chosen[at]] }],
			),
		);
	});
	const moved = (/** @type {number} */ way, /** @type {any} */ sign, /** @type {string} */ words) =>
		el("button", { class: "push", title: words, onclick: () => shift(way) }, icon(sign), words);
	dialog.append(
		el("h2", {}, "Which voice goes where"),
		el(
			"div",
			{ class: "row" },
			moved(-1, "arrow-left", "All one slide earlier"),
			moved(1, "arrow-right", "All one slide later"),
		),
		el(
			"div",
			{ class: "scrolls" },
			el(
				"table",
				{},
				el(
					"thead",
					{},
					el(
						"tr",
						{},
						["Slide", "", "Voice", ""].map((words) => el("th", { scope: "col" }, words)),
					),
				),
				body,
			),
			left,
		),
		el("p", { class: "said" }, "Each of these slides then lasts as long as its voice, and a breath."),
		el("div", { class: "row" }, give, el("button", { class: "push", onclick: () => dialog.close() }, "Leave it")),
	);
	draw();
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
}

/**
 * One undo removes all files. A file that cannot be used is named, and its slide stays as it was.
 * @param {ShowState} state
 */
async function giveVoices(state, /** @type {any} */ pairs) {
	const added = new Map(
		pairs.flatMap((/** @type {any} */ { slide, voice }) => (voice.asset ? [[slide, voice.asset]] : [])),
	);
	const files = pairs.filter((/** @type {any} */ { voice }) => voice.file);
	if (files.length)
		await state.addFiles(
			files.map((/** @type {any} */ { slide, voice }) => ({
				file: voice.file,
				came: (/** @type {ShelfAsset} */ asset) => {
					if (asset.kind === "sound") added.set(slide, asset);
				},
			})),
		);
	const edits = [...added].map(([slide_id, asset]) => ({
		do: "put voice",
		slide_id,
		voice: whole(asset),
		follow: true,
	}));
	const label = edits.length === 1 ? "Give 1 slide its voice" : `Give ${edits.length} slides their voices`;
	if (edits.length) await state.edit({ do: "several", label, edits });
}
