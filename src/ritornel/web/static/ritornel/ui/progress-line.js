// The progress of long work: text and a bar that may change often, and the same text for screen readers at a calm pace.
import { el } from "./element.js";

/** A screen reader announces the progress at once, and then this often. */
const SAID_EVERY_MS = 10_000;
/** Text that is in a status from its start is not announced: the status has to be there before it. */
const FIRST_AFTER_MS = 100;

/**
 * A status for screen readers only. It gets every text and announces some: the first, then one each `everyMs`.
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

	/** The next text is announced at once: other work begins. */
	rest() {
		this.#saidAt = -Infinity;
	}

	remove() {
		this.element.remove();
	}
}

/**
 * A bar that screen readers can look up; its single steps are not announced.
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

/** A line over the page during an import, with one way to stop it. */
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
	 * What is being done now, and the share of the whole.
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
