// Starting a show from pictures: they go onto the new show's shelf one after another, then become its slides. Sounds
// among them are offered as voices when the slides are there.
import { watchImport } from "../ui/import-progress.js";
import { ProgressLine } from "../ui/progress-line.js";
import { filesOf } from "../shelf/dropped-files.js";
import { askAbout } from "../ui/losses.js";
import { send } from "../ui/file-requests.js";
import { post } from "../ui/requests.js";
import { parseClockMs } from "../ui/times.js";
import { countWords } from "../ui/wording.js";

const form = document.getElementById("from-pictures");
const at = (/** @type {string} */ id) => document.getElementById(id);
const csrf = () => document.querySelector("[name=csrfmiddlewaretoken]").value;
/** @type {any[]} */
let files = [];
/** @type {any[]} */
let sounds = [];

function take(/** @type {any} */ list) {
	files = list.filter(
		(/** @type {any} */ { file }) => file.type.startsWith("image/") || /\.(svg|avif)$/i.test(file.name),
	);
	sounds = list.filter((/** @type {any} */ { file }) => file.type.startsWith("audio/"));
	const from = files[0]?.folder ? ` from ${files[0].folder}` : "";
	const voices = sounds.length ? ` and ${countWords(sounds.length, "voice")}, to be paired next` : "";
	at("chosen").textContent = files.length
		? `${countWords(files.length, "picture")}${voices}${from}`
		: "None of these is a picture";
	at("make").disabled = !files.length;
	if (files[0]?.folder && !at("album-title").value) at("album-title").value = files[0].folder;
}

function tell(/** @type {string} */ words) {
	at("trouble").textContent = words;
	at("trouble").hidden = !words;
}

async function begin(/** @type {string} */ title) {
	const body = new FormData();
	body.append("title", title);
	const reply = await fetch(form.dataset.new, {
		method: "POST",
		headers: { "X-CSRFToken": csrf(), Accept: "application/json" },
		body,
	});
	if (!reply.ok) throw new Error("The show could not be begun. Try again in a moment.");
	return (await reply.json()).id;
}

async function make() {
	const each = parseClockMs(at("each").value);
	if (!each) {
		tell("Write how long each picture lasts, such as 6 or 0:06.");
		return;
	}
	tell("");
	at("make").disabled = true;
	const line = new ProgressLine("Making the album");
	try {
		const base = `/shows/${await begin(at("album-title").value.trim() || "Album")}`;
		/** @type {any[]} */
		const refused = [];
		const all = [...files, ...sounds];
		for (const [index, { file, folder }] of all.entries()) {
			line.tell(`${index} of ${all.length} on the shelf · ${file.name}`, index / all.length);
			await send(`${base}/shelf`, file, { batch: "album", folder }).catch((error) => refused.push(error.message));
		}
		const name = at("comes").value;
		await post(`${base}/slides-from-pictures`, {
			each_ms: each,
			transition: { name, lasts_ms: name === "cut" ? 0 : 900 },
			fills: at("fills").checked,
		});
		if (refused.length)
			sessionStorage.setItem(
				"ritornel-told",
				`${refused[0]}${refused.length > 1 ? ` And ${refused.length - 1} more that could not be taken in.` : ""}`,
			);
		location.href = sounds.length ? `${base}/#voices` : `${base}/`;
	} catch (error) {
		tell(error.message);
		line.remove();
		at("make").disabled = false;
	}
}

/** A show from one file: a presentation, an outline or a PDF. Losses are shown first. */
async function fromFile(/** @type {any} */ kind, /** @type {any} */ file) {
	const said = at(`${kind}-said`);
	const address = at(`from-${kind}`).dataset.to;
	const tellHere = (/** @type {string} */ words, wrong = false) => {
		said.textContent = words;
		said.classList.toggle("wrong", wrong);
	};
	const open = (/** @type {any} */ made) => {
		if (made.notices.length && kind === "pdf") sessionStorage.setItem("ritornel-told", made.notices.join(" "));
		location.href = made.address;
	};
	tellHere(`Reading ${file.name} …`);
	try {
		const outline = kind === "outline";
		let found = await send(address, file, outline ? { look: 1 } : {});
		if (found.reading) {
			tellHere("");
			found = await watchImport(found.reading, file.name);
		}
		if (!found) {
			tellHere("Nothing was made.");
			return;
		}
		if (found.address) {
			open(found);
			return;
		}
		const plan = found.plan ?? found;
		const makeShow = async () => {
			tellHere(`Making slides of ${file.name} …`);
			try {
				open(outline ? await send(address, file) : await post(found.make));
			} catch (error) {
				tellHere(error.message, true);
			}
		};
		if (!plan.losses.length) {
			await makeShow();
			return;
		}
		const slides = `${plan.slides} slide${plan.slides === 1 ? "" : "s"}`;
		const dialog = askAbout(
			`“${plan.title}”, ${slides}${plan.media ? `, ${plan.media} from its media` : ""}`,
			plan.losses,
			`Make ${plan.slides === 1 ? "the slide" : `the ${slides}`}`,
			makeShow,
		);
		dialog.addEventListener("close", () => {
			if (dialog.returnValue === "go") return;
			tellHere("Nothing was made.");
			if (found.cancel) post(found.cancel).catch(() => undefined);
		});
	} catch (error) {
		tellHere(error.message, true);
	}
}

if (form) {
	for (const kind of ["presentation", "outline", "pdf"])
		at(kind).addEventListener("change", (/** @type {any} */ event) => {
			const [file] = event.target.files;
			event.target.value = "";
			if (file) fromFile(kind, file);
		});
	at("pictures").addEventListener("change", (/** @type {any} */ event) =>
		take([...event.target.files].map((file) => ({ file, folder: "" }))),
	);
	at("folder").addEventListener("change", (/** @type {any} */ event) =>
		take([...event.target.files].map((file) => ({ file, folder: file.webkitRelativePath.split("/").at(-2) ?? "" }))),
	);
	form.addEventListener("dragover", (/** @type {DragEvent} */ event) => event.preventDefault());
	form.addEventListener("drop", async (/** @type {any} */ event) => {
		event.preventDefault();
		take(await filesOf(event.dataTransfer));
	});
	form.addEventListener("submit", (/** @type {any} */ event) => {
		event.preventDefault();
		make();
	});
}
