// The films of a show: finished ones, and the progress of those in the making.
import { el, icon } from "../ui/element.js";
import { keepPlace } from "../ui/focus.js";
import { PacedStatus, progressBar } from "../ui/progress-line.js";
import { post } from "../ui/requests.js";
import { STYLES } from "./film-form.js";
import { handInForm } from "./hand-ins.js";

const STATES = {
	waiting: "Waiting for the worker",
	running: "Being made",
	ready: "Ready",
	cancelled: "Cancelled",
	failed: "Failed",
	interrupted: "Interrupted",
};
const CAN_BEGIN_AGAIN = ["failed", "cancelled", "interrupted"];
const isOpen = (/** @type {FilmLine} */ film) => film.state === "running" || film.state === "waiting";

/**
 * Whether anything about a film of these may change by itself.
 * @param {FilmLine[]} films
 */
export const isUnderWay = (films) => films.some((film) => isOpen(film) || film.resumes);

/** @param {FilmLine} film */
function kindOf(film) {
	if (film.kind === "pdf") return `PDF, ${STYLES.find(([name]) => name === film.style)?.[1].toLowerCase()}`;
	if (film.kind === "zip") return `Stills, ${film.size}`;
	const kind = { mp4: "MP4", webm: "WebM", webp: "Animated WebP" }[film.kind];
	return `${kind}, ${film.size}, ${film.rate} a second`;
}

/** @param {FilmLine} film */
function leftWords(film) {
	if (film.cancel_wanted) return "stopping";
	if (film.left_s === null) return film.slide ? `drawing slide ${film.slide}` : "beginning";
	return `drawing slide ${film.slide}, ${film.left_s < 1 ? "under 1" : Math.ceil(film.left_s)} s left`;
}

const share = (/** @type {FilmLine} */ film) => (film.total ? film.done / film.total : 0);

/** @param {FilmLine} film */
function stateWords(film) {
	if (film.state === "running") return `${Math.round(share(film) * 100)} %, ${leftWords(film)}`;
	if (film.message) return film.message;
	return film.state === "ready" ? `Ready, ${(film.size_bytes / 1e6).toFixed(1)} MB` : STATES[film.state];
}

export class FilmList {
	#status = new PacedStatus();
	#said = new Map();
	#drawn = new Map();

	/**
	 * @param {{base: string, act: (work: () => Promise<any>) => Promise<void>, remove: (film: FilmLine) => void,
	 * handedIn: (handed: HandInLine[]) => void}} page what the page does with a film
	 */
	constructor(page) {
		this.page = page;
		this.element = el("section", { "data-films": "" });
	}

	/**
	 * Draws the films of the page's data; an unchanged line keeps its node.
	 * @param {ReleaseData} data
	 */
	draw(data) {
		const { films } = data;
		this.#say(films);
		const again = keepPlace(this.element);
		const before = this.#drawn;
		// What the forms to hand a film in offer.
		const about = [data.people, data.section_owners, data.handed];
		this.#drawn = new Map(
			films.map((film) => {
				const words = JSON.stringify([film, film.state === "ready" ? about : null]);
				const kept = before.get(film.id);
				return [film.id, kept?.words === words ? kept : { words, line: this.#line(film, data) }];
			}),
		);
		const lines = [...this.#drawn.values()].map(({ line }) => line);
		this.element.replaceChildren(
			el("h2", { class: "text-lg mb-1" }, "Films"),
			...(lines.length ? lines : [el("p", { class: "said" }, "None yet.")]),
		);
		again();
	}

	/**
	 * Announces the progress of films at a calm pace, and each end at once.
	 * @param {FilmLine[]} films
	 */
	#say(films) {
		const words = (/** @type {FilmLine} */ film) => `${film.name}: ${stateWords(film)}`;
		const ended = films.filter((film) => !isOpen(film) && this.#said.get(film.id) === "open");
		const begun = films.filter((film) => isOpen(film) && this.#said.get(film.id) !== "open");
		if (ended.length || (begun.length && this.#said.size)) this.#status.rest();
		this.#said = new Map(films.map((film) => [film.id, isOpen(film) ? "open" : "ended"]));
		const told = ended.length ? ended : films.filter(isOpen);
		if (told.length) this.#status.say(told.map(words).join(". "));
	}

	/** @param {FilmLine} film @param {ReleaseData} data */
	#line(film, data) {
		const { page } = this;
		const to = (/** @type {string} */ way, /** @type {string} */ words) =>
			el(
				"button",
				{ class: "push", onclick: () => page.act(() => post(`${page.base}/films/${film.id}/${way}`)) },
				words,
			);
		const head = el(
			"div",
			{ class: "row" },
			el(
				"div",
				{ class: "mr-auto min-w-0" },
				el("b", { class: "font-semibold" }, film.name),
				el("p", { class: "said" }, kindOf(film) + (film.timing ? `, as ${film.timing} ran` : "")),
			),
			isOpen(film) ? to("cancel", "Cancel") : null,
			film.state === "ready"
				? el("a", { class: "push", href: film.file, download: true }, icon("download"), "Save")
				: null,
			CAN_BEGIN_AGAIN.includes(film.state) ? to("again", "Start again") : null,
			isOpen(film)
				? null
				: el(
						"button",
						{ class: "push bare", "aria-label": `Put ${film.name} into the bin`, onclick: () => page.remove(film) },
						icon("trash-2"),
					),
		);
		return el(
			"div",
			{ class: "grid gap-1 py-2 border-t border-staff", "data-film": film.id, "data-state": film.state },
			head,
			film.state === "running" ? progressBar(film.name, share(film)) : null,
			el("p", { class: film.message && film.state !== "running" ? "wrong" : "said" }, stateWords(film)),
			film.state === "ready" ? handInForm(film, { base: page.base, data, changed: page.handedIn }) : null,
		);
	}
}
