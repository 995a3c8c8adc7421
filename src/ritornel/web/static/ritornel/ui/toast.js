// One sentence over the page, with at most one action. It stays until read: ten seconds, or as long as the pointer is
// on it.
import { el } from "./element.js";

/** @type {any} */
let current = null;
let timer = 0;

export function clearToast() {
	clearTimeout(timer);
	current?.remove();
	current = null;
}

/**
 * @param {string} sentence
 * @param {{act?: string, onact?: (() => void) | null, wrong?: boolean, stays?: boolean}} more `stays`: until something
 * is done
 * about it
 */
export function toast(sentence, { act = "", onact = null, wrong = false, stays = false } = {}) {
	clearToast();
	const close = el("button", { "aria-label": "Close", onclick: clearToast }, "Close");
	const button = act
		? el(
				"button",
				{
					onclick: () => {
						clearToast();
						onact?.();
					},
				},
				act,
			)
		: null;
	current = el(
		"div",
		{ class: "toast dark", role: wrong ? "alert" : "status" },
		el("span", {}, sentence),
		button,
		stays ? null : close,
	);
	const wait = () => {
		if (!stays) timer = setTimeout(clearToast, 10_000);
	};
	current.addEventListener("pointerenter", () => clearTimeout(timer));
	current.addEventListener("pointerleave", wait);
	document.body.append(current);
	wait();
}
