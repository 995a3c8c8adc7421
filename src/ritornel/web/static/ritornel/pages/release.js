// Release: the show as a stranger sees it, its editions, and films.
import { el, icon } from "../ui/element.js";
import { get, post, startData } from "../ui/requests.js";
import { clockText } from "../ui/times.js";
import { toast } from "../ui/toast.js";
import { countWords } from "../ui/wording.js";
import { tick } from "../panel/fields.js";
import {
	LOOKS,
	accessSection,
	askAudience,
	embedKey,
	embedSection,
	embeddedSize,
	strangersFrame,
} from "../release/access.js";
import { fileForm } from "../release/files.js";
import { FilmForm } from "../release/film-form.js";
import { FilmList, isUnderWay } from "../release/films.js";
import { listHandIns } from "../release/hand-ins.js";
import { Checks } from "../release/checks.js";

const at = (/** @type {string} */ id) => document.getElementById(id);
let look = "wide";
let data = startData();
const base = `/shows/${data.show_id}`;

async function act(/** @type {any} */ work, done = "") {
	try {
		data = await work();
		draw();
		if (done) toast(done);
	} catch (error) {
		toast(error.message, { wrong: true });
	}
}

/** Puts a film or an edition into the bin; a message offers to restore it. */
async function remove(/** @type {any} */ place, /** @type {any} */ kind, /** @type {string} */ name) {
	let id = "";
	await act(async () => {
		const reply = await post(`${base}/${place}/remove`);
		id = reply.in_bin;
		return reply;
	});
	if (!id) return;
	toast(`${name} lies in the bin.`, {
		act: "Put it back",
		onact: () =>
			act(async () => {
				await post(`${base}/bin/${kind}/${id}/back`);
				return get(`${base}/films`);
			}),
	});
}

const day = (/** @type {string} */ text) =>
	new Date(text).toLocaleDateString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

function seen() {
	const newest = data.editions[0];
	const key = `${newest?.number}/${data.withdrawn}/${data.starts_itself}/${data.starts_silent}/${data.loops}/${data.audience}/${look}/${look === "embedded" ? embedKey() : ""}`;
	if (at("seen").dataset.key === key || at("seen").dataset.key === "place") return;
	at("seen").dataset.key = key;
	const looks = el(
		"div",
		{ class: "choice dim ml-auto", role: "group", "aria-label": "How they see it" },
		LOOKS.map(([name, words]) =>
			el(
				"button",
				{
					"aria-pressed": name === look ? "true" : "false",
					onclick: () => {
						look = name;
						seen();
					},
				},
				words,
			),
		),
	);
	const title = el(
		"div",
		{ class: "row" },
		el("span", { class: "font-serif italic" }, "As a stranger sees it"),
		newest && !data.withdrawn ? looks : null,
	);
	if (!newest || data.withdrawn) {
		at("seen").replaceChildren(
			title,
			el(
				"div",
				{ class: "grid place-items-center content-center gap-3 text-center" },
				el("p", { class: "font-serif text-2xl" }, newest ? "Withdrawn" : "Not released yet"),
				el(
					"p",
					{ class: "text-[#b9c6c3] max-w-[420px]" },
					newest
						? "Whoever opens the address is told that there is no show. Reopen it on the right; the address stays."
						: "Make an edition: the show as it is now gets an address of its own. Who may see it, you choose first. Later edits change nothing in it.",
				),
			),
			el("span"),
		);
		return;
	}
	const frame = strangersFrame(data, look);
	at("seen").replaceChildren(
		title,
		el(
			"div",
			{ class: "window", "data-look": look },
			el(
				"div",
				{ class: "bg-gutter text-ink flex items-center px-3" },
				el("span", { class: "bg-white rounded px-3 truncate" }, data.address),
			),
			frame,
		),
		el(
			"p",
			{ class: "text-[#b9c6c3]" },
			`Edition ${newest.number}, ${countWords(newest.slides, "slide")}, ${clockText(newest.length_ms)}, opened ${countWords(newest.opened, "time")}.${look === "embedded" ? ` ${embeddedSize()}` : ""}`,
		),
	);
}

/** The present show, from a little before an instant: the place of a finding. */
const BEFORE_MS = 2000;
function playFrom(/** @type {number} */ ms) {
	const from = Math.max(0, ms - BEFORE_MS);
	const frame = el("iframe", {
		src: `${base}/play?mode=self-running&at=${from}`,
		title: `${data.title}, as it is now`,
		allow: "autoplay; fullscreen; screen-wake-lock",
	});
	at("seen").dataset.key = "place";
	at("seen").replaceChildren(
		el(
			"div",
			{ class: "row" },
			el("span", { class: "font-serif italic" }, `As it is now, from ${clockText(from)}`),
			el(
				"button",
				{
					class: "push dim ml-auto",
					onclick: () => {
						at("seen").dataset.key = "";
						seen();
					},
				},
				"As a stranger sees it",
			),
		),
		el("div", { class: "window" }, el("span"), frame),
		el("span"),
	);
}

/** An earlier edition, for its maker alone: the address leads everybody to the newest. */
function seeEdition(/** @type {any} */ edition) {
	const frame = el("iframe", {
		src: `${data.address}?edition=${edition.number}`,
		title: `${data.title}, edition ${edition.number}`,
		allow: "autoplay; fullscreen; screen-wake-lock",
	});
	at("seen").dataset.key = "place";
	at("seen").replaceChildren(
		el(
			"div",
			{ class: "row" },
			el("span", { class: "font-serif italic" }, `Edition ${edition.number}, as it was on ${day(edition.at)}`),
			el(
				"button",
				{
					class: "push dim ml-auto",
					onclick: () => {
						at("seen").dataset.key = "";
						seen();
					},
				},
				"As a stranger sees it",
			),
		),
		el("div", { class: "window" }, el("span"), frame),
		el("p", { class: "text-[#b9c6c3]" }, "Only you see this one: the address leads to the newest."),
	);
}

const filesOf = (/** @type {any} */ edition) =>
	el(
		"a",
		{
			class: "link",
			href: `${base}/editions/${edition.number}.zip`,
			download: true,
			title: "Static files for any web server, or a disk",
			"aria-label": `Files of edition ${edition.number}`,
		},
		"Files",
	);
const earlier = (/** @type {any} */ edition) =>
	el(
		"li",
		{ class: "said", "data-edition": edition.number },
		`${edition.number} · ${day(edition.at)} · ${clockText(edition.length_ms)}, opened ${countWords(edition.opened, "time")} `,
		el(
			"button",
			{ class: "link", "aria-label": `See edition ${edition.number}`, onclick: () => seeEdition(edition) },
			"See it",
		),
		" ",
		filesOf(edition),
		" ",
		el(
			"button",
			{
				class: "link",
				"aria-label": `Put edition ${edition.number} into the bin`,
				onclick: () => remove(`editions/${edition.number}`, "edition", `Edition ${edition.number}`),
			},
			"Remove",
		),
	);

/** Makes an edition. Findings that would stop the show are named, and asked about once. */
async function makeEdition(/** @type {any} */ anyway = [], audience = /** @type {any} */ (null)) {
	if (!data.editions.length && !data.audience && !audience) {
		askAudience((chosen) => makeEdition(anyway, chosen));
		return;
	}
	try {
		const reply = await post(`${base}/editions`, { anyway, ...audience });
		if (reply.stoppers) {
			askStoppers(reply.stoppers, audience);
			return;
		}
		data = reply;
		draw();
		toast("The edition is made. Its address is on the right.");
	} catch (error) {
		toast(error.message, { wrong: true });
	}
}

function askStoppers(/** @type {any} */ stoppers, /** @type {any} */ audience) {
	const dialog = el("dialog", { class: "pairs-dialog", "aria-label": "This would stop the show" });
	const line = (/** @type {any} */ { title, why, number }) =>
		el(
			"tr",
			{},
			el("th", { scope: "row" }, number ? `Slide ${number}` : "The whole"),
			el("td", {}, el("b", {}, title), el("p", { class: "said" }, why)),
		);
	dialog.append(
		el("h2", {}, "This would stop the show"),
		el("div", { class: "scrolls" }, el("table", {}, el("tbody", {}, stoppers.map(line)))),
		el(
			"div",
			{ class: "row" },
			el("button", { class: "push main", autofocus: true, onclick: () => dialog.close() }, "See to it first"),
			el(
				"button",
				{
					class: "push",
					onclick: () => {
						dialog.close();
						makeEdition(
							stoppers.map((/** @type {any} */ { id }) => id),
							audience,
						);
					},
				},
				"Release it all the same",
			),
		),
	);
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
}

function editions() {
	const newest = data.editions[0];
	const set = (/** @type {object} */ body, done = "") => act(() => post(`${base}/release/settings`, body), done);
	if (!newest)
		return el(
			"section",
			{},
			el("h2", { class: "text-lg" }, "Editions"),
			el("p", { class: "said" }, "None yet."),
			weighs,
		);
	return el(
		"section",
		{ class: "grid gap-2" },
		el(
			"div",
			{ class: "row" },
			el("h2", { class: "text-lg mr-auto" }, `Edition ${newest.number}`),
			el(
				"span",
				{ class: "said" },
				data.withdrawn
					? "Withdrawn"
					: {
							anyone: "Open to anyone with the address",
							invited: "For invited people",
							domain: `For everybody at ${data.domain}`,
						}[/** @type {Audience} */ (data.audience)],
			),
		),
		el(
			"div",
			{ class: "row" },
			el("input", {
				class: "field",
				readonly: true,
				value: data.address,
				"aria-label": "Address",
				onfocus: (event) => event.target.select(),
			}),
			el(
				"button",
				{
					class: "push",
					onclick: async () => {
						await navigator.clipboard?.writeText(data.address).catch(() => undefined);
						toast("The address was copied.");
					},
				},
				icon("copy"),
				"Copy",
			),
		),
		el(
			"div",
			{ class: "grid grid-cols-2" },
			tick("Starts by itself", data.starts_itself, (on) => set({ starts_itself: on })),
			tick("Loops", data.loops, (on) => set({ loops: on })),
		),
		data.starts_itself
			? tick("In silence where sound needs a press; the first press turns it on", data.starts_silent, (on) =>
					set({ starts_silent: on }),
				)
			: null,
		el(
			"div",
			{ class: "row" },
			el("a", { class: "push", href: data.address, target: "_blank", rel: "noopener" }, "Open it"),
			el(
				"button",
				{
					class: "push",
					onclick: () =>
						set(
							{ withdrawn: !data.withdrawn },
							data.withdrawn ? "Open again at the same address." : "Withdrawn. Nobody can open it now.",
						),
				},
				data.withdrawn ? "Reopen" : "Withdraw",
			),
			filesOf(newest),
		),
		weighs,
		data.editions.length > 1
			? el(
					"details",
					{},
					el("summary", { class: "said cursor-pointer" }, `${data.editions.length - 1} earlier`),
					el("ul", {}, data.editions.slice(1).map(earlier)),
				)
			: null,
	);
}

/** The loudness of the whole show, measured by the worker: its mix, and its film. */
const minus = (/** @type {number} */ number) => number.toFixed(1).replace("-", "−");
const heard = el("section", { class: "heard" });
async function hear(ask = true) {
	const found = await get(`${base}/loudness.json${ask ? "?ask=1" : ""}`).catch(() => null);
	if (!found) {
		heard.hidden = true;
		return;
	}
	const { ready, lufs, peak_dbtp: peak, lands_at_lufs: lands, limits, target_lufs: target } = found;
	const sum = (/** @type {string} */ words, /** @type {any[]} */ ...more) =>
		heard.replaceChildren(
			el("h2", { class: "text-lg mb-1" }, "Sound"),
			el("p", {}, words),
			...more.map((line) => el("p", { class: "said" }, line)),
		);
	if (!ready) {
		sum("Being measured …");
		setTimeout(() => hear(false), 1000);
	} else if (lufs === null) sum("The show is silent.");
	else
		sum(
			`${minus(lufs)} LUFS, peaks at ${minus(peak)} dBTP`,
			`A film lands at ${minus(lands)} LUFS (wanted: ${minus(target)} ± 0.5) and at most −1 dBTP${limits ? "; its loudest peaks are held down for that" : ""}. Measured by ITU-R BS.1770.`,
		);
}
hear();

/** The size of a new edition for its visitors, and its largest media. */
const weighs = el("p", { class: "said", id: "weighs" });
async function weigh() {
	try {
		const { bytes, heaviest } = await get(`${base}/offline.json`);
		const mega = (/** @type {number} */ count) => (count / 1e6).toFixed(1);
		const most = heaviest
			.filter((/** @type {any} */ entry) => entry.bytes > 50_000)
			.map((/** @type {any} */ entry) => `“${entry.name}” ${mega(entry.bytes)}`)
			.join(", ");
		weighs.textContent = `As it is now it weighs ${mega(bytes)} MB${most ? `: ${most}` : ""}. Visitors get each part before its slide comes.`;
	} catch (error) {
		weighs.textContent = error.message;
	}
}
weigh();

const handIns = el("section", { "data-hand-ins": "" });
const drawHandIns = () => listHandIns(handIns, data, tellHanded);

const filmForm = new FilmForm(data.title, {
	order: (asked) => act(() => post(`${base}/films`, asked)),
	redraw: () => draw(),
});
const films = new FilmList({
	base,
	act,
	remove: (film) => remove(`films/${film.id}`, "film", film.name),
	handedIn: (handed) => tellHanded(handed),
});

function tellHanded(/** @type {any} */ handed) {
	data.handed = handed;
	drawHandIns();
	films.draw(data);
}

function draw() {
	seen();
	drawHandIns();
	at("make-edition").textContent = `Make edition ${(data.editions[0]?.number ?? 0) + 1}`;
	films.draw(data);
	const access = data.editions.length
		? [
				accessSection(data, { base, redraw: draw, set: (body) => act(() => post(`${base}/release/settings`, body)) }),
				embedSection(data, draw),
			]
		: [];
	at("side").replaceChildren(
		editions(),
		...access,
		filmForm.draw(data.takes),
		films.element,
		handIns,
		heard,
		fileForm(base, data.exports),
	);
}

async function follow() {
	if (isUnderWay(data.films) && document.visibilityState === "visible") {
		try {
			data = await get(`${base}/films`);
			films.draw(data);
		} catch {
			/* told again at the next try */
		}
	}
	setTimeout(follow, 400);
}

at("make-edition").addEventListener("click", () => makeEdition());
new Checks(at("checks"), base, playFrom);
draw();
follow();
