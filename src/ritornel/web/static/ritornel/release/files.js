// A show as files: for a disk, for other programs, and times from a table.
import { el, icon } from "../ui/element.js";
import { askAbout } from "../ui/losses.js";
import { send } from "../ui/file-requests.js";
import { get, post } from "../ui/requests.js";
import { toast } from "../ui/toast.js";

/**
 * The show's words and times as files, and times from one.
 * @param {string} base
 * @param {ReleaseData["exports"]} exports the formats that are of use to it
 */
export function fileForm(base, exports) {
	const save = (/** @type {ReleaseData["exports"][number]} */ { address, words, about }) =>
		el("a", { class: "push", href: `${base}/${address}`, download: true, title: about }, icon("download"), words);
	const input = el("input", {
		type: "file",
		accept: ".csv,.tsv,text/csv",
		class: "sr-only",
		"aria-label": "Read timings from a table",
	});
	input.addEventListener("change", () => {
		const [file] = input.files;
		input.value = "";
		if (file) readTimings(base, file);
	});
	return el(
		"section",
		{ class: "grid gap-2" },
		el("h2", { class: "text-lg" }, "Files"),
		el(
			"div",
			{ class: "row flex-wrap" },
			el(
				"button",
				{
					class: "push",
					title: "A page with everything in it, that plays from a disk without a network",
					onclick: () => saveOffline(base, "offline.html"),
				},
				icon("download"),
				"One file",
			),
			el(
				"button",
				{
					class: "push",
					title: "A page with its pictures and clips beside it, in a zip file",
					onclick: () => saveOffline(base, "offline.zip"),
				},
				icon("download"),
				"A folder",
			),
			el(
				"button",
				{
					class: "push",
					title: "An OpenDocument presentation (.odp); what it cannot hold is listed before",
					onclick: () => savePresentation(base),
				},
				icon("download"),
				"Presentation",
			),
		),
		el("div", { class: "row flex-wrap" }, exports.map(save)),
		el(
			"div",
			{},
			el(
				"label",
				{
					class: "push cursor-pointer",
					title: "Lengths and holds from a table like the one that is saved; one undo takes them back",
				},
				icon("upload"),
				"Read timings",
				input,
			),
		),
	);
}

/**
 * Saves the show for offline use, and shows its size.
 * @param {string} base
 * @param {string} name of the file
 */
async function saveOffline(base, name) {
	try {
		const { bytes, heaviest, single } = await get(`${base}/offline.json`);
		if (name === "offline.html" && !single) {
			toast("The show's media are too much for one file. Save it as a folder.", { wrong: true });
			return;
		}
		const most = heaviest[0] && heaviest[0].bytes > bytes / 3 ? `, most of it “${heaviest[0].name}”` : "";
		toast(
			`Saving it, ${(bytes / 1e6).toFixed(1)} MB of media${most}. It plays by a double press on its page, without a network.`,
		);
		location.href = `${base}/${name}`;
	} catch (error) {
		toast(error.message, { wrong: true });
	}
}

/** @param {string} base @param {File} file */
async function readTimings(base, file) {
	try {
		const reply = await send(`${base}/timings`, file);
		toast(
			[
				`The show has the timings of ${file.name} now: ${reply.length}.`,
				...reply.notices.slice(0, 3),
				reply.notices.length > 3 ? `And ${reply.notices.length - 3} more lines that did not fit.` : "",
			]
				.filter(Boolean)
				.join(" "),
			{
				act: "Undo",
				onact: async () => {
					await post(`${base}/undo`).catch((error) => toast(error.message, { wrong: true }));
					location.reload();
				},
			},
		);
	} catch (error) {
		toast(error.message, { wrong: true });
	}
}

/**
 * Saves the show as a presentation, once its losses were shown.
 * @param {string} base
 */
async function savePresentation(base) {
	try {
		const { losses } = await get(`${base}/presentation.json`);
		askAbout("As a presentation", losses, "Save it", () => {
			location.href = `${base}/presentation.odp`;
		});
	} catch (error) {
		toast(error.message, { wrong: true });
	}
}
