// Voices for many slides, paired by the numbers in their files' names: what goes where is shown before anything
// happens.
import { el } from "../ui/element.js";
import { post } from "../ui/requests.js";

const whole = (asset) => ({ asset_id: asset.id, in_ms: 0, out_ms: asset.lasts_ms });

export async function showPairs(state, files) {
	const { rows } = await post(`${state.base}/voices/pairs`, { names: files.map((file) => file.name) });
	const fits = rows.filter((row) => row.slide !== null && row.file !== null);
	const dialog = el("dialog", { class: "pairs-dialog", "aria-label": "Which voice goes where" });
	const line = (row) =>
		el(
			"tr",
			{ class: row.trouble ? "wrong" : "" },
			el("td", {}, row.slide === null ? "–" : String(row.slide)),
			el(
				"td",
				{},
				row.slide === null ? "no slide" : state.data.slides[state.data.order[row.slide - 1]].name || "Untitled",
			),
			el("td", {}, row.file === null ? "no file" : files[row.file].name),
			el("td", {}, row.trouble),
		);
	const give = async () => {
		dialog.close();
		const added = new Map();
		// All files are one step to undo; what cannot be taken in is told and leaves its slide as it was.
		await state.addFiles(
			fits.map((row) => ({
				file: files[row.file],
				came: (asset) => {
					if (asset.kind === "sound") added.set(row.slide, asset);
				},
			})),
		);
		const edits = [...added].map(([number, asset]) => ({
			do: "put voice",
			slide_id: state.data.order[number - 1],
			voice: whole(asset),
			follow: true,
		}));
		if (edits.length) await state.edit({ do: "several", label: `Give ${edits.length} slides their voices`, edits });
	};
	dialog.append(
		el("h2", {}, "Which voice goes where"),
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
						["Slide", "", "File", ""].map((words) => el("th", { scope: "col" }, words)),
					),
				),
				el("tbody", {}, rows.map(line)),
			),
		),
		el("p", { class: "said" }, `Each of the ${fits.length} slides then lasts as long as its voice, and a breath.`),
		el(
			"div",
			{ class: "row" },
			el(
				"button",
				{ class: "push main", disabled: !fits.length, onclick: give },
				fits.length === 1 ? "Give 1 slide its voice" : `Give ${fits.length} slides their voices`,
			),
			el("button", { class: "push", onclick: () => dialog.close() }, "Leave it"),
		),
	);
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
}
