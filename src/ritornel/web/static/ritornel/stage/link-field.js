// The destination of linked text: a typed web or mail address, or a chosen slide.
import { el } from "../ui/element.js";

/**
 * The address of a link as it is stored; null for none, undefined for a text that is no address.
 * @param {string} pattern the core's own (core/document/objects.py)
 */
export function linkAddress(/** @type {any} */ typed, pattern) {
	if (!typed) return null;
	const full = /^[a-z]+:/i.test(typed)
		? typed
		: typed.includes("@") && !typed.includes("/")
			? `mailto:${typed}`
			: `https://${typed}`;
	return new RegExp(pattern).test(full) ? full : undefined;
}

export class LinkField {
	/**
	 * @param {any} editor the words that are edited: `ends()`, `select(ends)`, `look()`, `apply(look)`, `field`,
	 * `state`
	 */
	constructor(editor) {
		this.editor = editor;
		const { data } = editor.state;
		this.pattern = data.limits.address_pattern;
		this.input = el("input", {
			class: "field",
			placeholder: "https://… or somebody@…",
			"aria-label": "Link",
			"aria-describedby": "link-told",
		});
		this.slides = el(
			"select",
			{ class: "field", "aria-label": "Or to a slide", title: "Or to a slide of the show" },
			el("option", { value: "" }, "or a slide …"),
			data.order.map((/** @type {string} */ id) =>
				el("option", { value: `#${id}` }, `${data.numbers[id]} ${data.slides[id].name || "Untitled"}`),
			),
		);
		this.told = el("span", { class: "wrong", id: "link-told", role: "alert", hidden: true });
		this.node = el("span", { class: "link-field", hidden: true }, this.input, this.slides, this.told);
		this.input.addEventListener("input", () => {
			this.slides.value = "";
			this.refuse("");
		});
		this.slides.addEventListener("change", () => {
			this.input.value = "";
			this.keep();
		});
		this.node.addEventListener("keydown", (event) => {
			event.stopPropagation();
			if (event.key === "Enter" && event.target === this.input) {
				event.preventDefault();
				this.keep();
			} else if (event.key === "Escape") {
				this.node.hidden = true;
				this.refuse("");
				editor.field.focus();
			}
		});
	}

	get typed() {
		return this.input.value.trim();
	}

	refuse(/** @type {string} */ words) {
		this.told.textContent = words;
		this.told.hidden = !words;
		if (words) this.input.setAttribute("aria-invalid", "true");
		else this.input.removeAttribute("aria-invalid");
	}

	open() {
		this.ends = this.editor.ends();
		const now = this.editor.look().link ?? "";
		this.slides.value = now.startsWith("#") ? now : "";
		this.input.value = now.startsWith("#") ? "" : now.replace(/^mailto:/, "");
		this.node.hidden = false;
		this.input.focus();
	}

	/**
	 * Makes the typed or chosen destination the link; false where it is no address, which is told at the field, and
	 * nothing is changed.
	 */
	keep() {
		if (this.node.hidden) return true;
		const full = this.slides.value || linkAddress(this.typed, this.pattern);
		if (full === undefined) {
			this.refuse("A link leads to an address, such as https://orlmere.town or mailto:somebody@orlmere.town.");
			return false;
		}
		this.node.hidden = true;
		this.refuse("");
		if (this.ends) this.editor.select(this.ends);
		this.editor.apply({ link: full });
		return true;
	}
}
