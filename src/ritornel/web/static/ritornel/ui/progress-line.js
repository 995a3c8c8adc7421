// How far long work is: words and a bar that change as often as they like, and the same words for those who listen at
// a human pace.
import { el } from "./element.js";

/** A listener hears how far it is at once, and then so often. */
const SAID_EVERY_MS = 10_000;
/** Words that stand in a status from its start are not said: it has to be there before them. */
const FIRST_AFTER_MS = 100;

/**
 * A status that is heard and not seen. It is given all words and says some: the first, then those of each `everyMs`.
 */
export class PacedStatus {
	#saidAt = -Infinity;
	#everyMs;

	constructor(everyMs = SAID_EVERY_MS) {
		this.#everyMs = everyMs;
		this.element = el("p", { class: "sr-only", role: "status" });
		document.body.append(this.element);
	}

	/** @param {string} words */
	say(words) {
		const now = performance.now();
		if (now < this.#saidAt + this.#everyMs) return;
		this.#saidAt = now;
		setTimeout(() => {
			this.element.textContent = words;
		}, FIRST_AFTER_MS);
	}

	/** The next words are said at once: other work begins. */
	rest() {
		this.#saidAt = -Infinity;
	}

	remove() {
		this.element.remove();
	}
}

/**
 * A bar that those who listen can look up; nothing tells them each of its steps.
 * @param {string} label
 * @param {number} [share]
 */
export function progressBar(label, share = 0) {
	const bar = el(
		"div",
		{ class: "progress", role: "progressbar", "aria-label": label, "aria-valuemin": 0, "aria-valuemax": 100 },
		el("i"),
	);
	setShare(bar, share);
	return bar;
}

/** @param {any} bar @param {number} share */
function setShare(bar, share) {
	bar.firstChild.style.width = `${share * 100}%`;
	bar.setAttribute("aria-valuenow", Math.round(share * 100));
}

/** A line over the page while something comes in, with one way to stop it. */
export class ProgressLine {
	#words = el("span");
	#bar;
	#status = new PacedStatus();

	/**
	 * @param {string} label what is under way
	 * @param {{stop?: string, onstop?: () => void}} more the words of the way to stop it, and what they do
	 */
	constructor(label, { stop = "", onstop = () => undefined } = {}) {
		this.#bar = progressBar(label);
		this.stop = stop ? el("button", { class: "push", type: "button", onclick: () => onstop() }, stop) : null;
		this.element = el("div", { class: "coming-in" }, this.#words, this.#bar, this.stop);
		document.body.append(this.element);
	}

	/**
	 * What is done now, and which part of all that is.
	 * @param {string} words
	 * @param {number} share
	 */
	tell(words, share) {
		this.#words.textContent = words;
		setShare(this.#bar, share);
		this.#status.say(words);
	}

	remove() {
		this.element.remove();
		this.#status.remove();
	}
}
