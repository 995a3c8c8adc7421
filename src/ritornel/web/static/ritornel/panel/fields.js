// Fields of the panel. A value is posted when the field is left or Enter is pressed; an error stands at the field.
import { el } from "../ui/element.js";
import { parseClockMs, secondsText } from "../ui/times.js";

let numbered = 0;

/** @type {Field} */
const NONE = {};

/**
 * A label and its control in one row.
 * @param {string} label
 * @param {MadeElement} control
 */
export function pair(label, control) {
	const target = control.matches?.("input, select, textarea")
		? control
		: control.querySelector?.("input, select, textarea");
	if (control.matches?.("button")) return el("div", { class: "pair" }, el("span", { class: "label" }, label), control);
	if (!target) {
		control.setAttribute("role", "group");
		if (!control.hasAttribute("aria-label")) control.setAttribute("aria-label", label);
		return el("div", { class: "pair" }, el("span", { class: "label", "aria-hidden": "true" }, label), control);
	}
	target.id ||= `field-${(numbered += 1)}`;
	// The id is only for the label; the name by which the panel finds the field again is the label's words.
	target.dataset.named = label;
	return el("div", { class: "pair" }, el("label", { for: target.id }, label), control);
}

/**
 * Gives the typed value to `set`. Where it is refused, the field is marked, so that the panel keeps the typed text
 * (panel.js) and says why.
 * @param {MadeElement} field
 * @param {(value: any) => any} set may promise false for what was refused
 * @param {any} value
 */
function give(field, set, value) {
	delete field.dataset.refused;
	Promise.resolve(set(value)).then((done) => {
		if (done === false) field.dataset.refused = "";
	});
}

/** @param {MadeElement} field @param {() => void} commit @param {() => void} reset */
function keyed(field, commit, reset) {
	field.addEventListener("change", commit);
	field.addEventListener("keydown", (event) => {
		// What was typed is given; the keyboard stays where it is, ready to type another.
		if (event.key === "Enter" && field.tagName !== "TEXTAREA") field.select?.();
		if (event.key === "Escape") {
			event.stopPropagation();
			reset();
			field.select?.();
		}
	});
	return field;
}

/**
 * A time in seconds. `set` gets whole milliseconds.
 * @param {number | null} valueMs
 * @param {(ms: number) => any} set
 */
export function timeField(valueMs, set, { label = null, placeholder = "", cls = "" } = NONE) {
	const shown = valueMs === null ? "" : `${secondsText(valueMs)} s`;
	const field = el("input", {
		class: `field ${cls}`,
		value: shown,
		placeholder,
		"aria-label": label,
		inputmode: "decimal",
		autocomplete: "off",
		"data-field": label,
	});
	const commit = () => {
		const ms = parseClockMs(field.value);
		if (ms === null) {
			field.setAttribute("aria-invalid", "true");
			field.title = "Write seconds, such as 2.5, or minutes and seconds, such as 1:12. A day is the longest.";
			return;
		}
		field.removeAttribute("aria-invalid");
		field.title = "";
		if (ms !== valueMs) give(field, set, ms);
	};
	return keyed(field, commit, () => {
		field.value = shown;
	});
}

/**
 * A number between two bounds.
 * @param {number | null} value null where several have different ones
 * @param {(value: number) => any} set
 */
export function numberField(
	value,
	set,
	{ label = null, least = -100000, most = 100000, unit = "", decimals = 1 } = NONE,
) {
	const text = (/** @type {number | null} */ number) =>
		number === null ? "" : `${Number(number.toFixed(decimals))}${unit ? ` ${unit}` : ""}`;
	const field = el("input", {
		class: "field",
		value: text(value),
		placeholder: value === null ? "different now" : null,
		"aria-label": label,
		inputmode: "decimal",
		autocomplete: "off",
	});
	const commit = () => {
		const number = Number(field.value.replace(unit, "").replace(",", ".").trim());
		if (field.value.trim() === "" || !Number.isFinite(number) || number < least || number > most) {
			field.setAttribute("aria-invalid", "true");
			field.title = `Write a number from ${least} to ${most}.`;
			return;
		}
		field.removeAttribute("aria-invalid");
		field.title = "";
		if (number !== value) give(field, set, number);
	};
	return keyed(field, commit, () => {
		field.value = text(value);
	});
}

/** @param {string} value @param {(value: string) => any} set */
export function textField(value, set, { label = null, rows = 0, placeholder = "", cls = "field" } = NONE) {
	const field = el(rows ? "textarea" : "input", {
		class: cls,
		value,
		"aria-label": label,
		placeholder,
		rows: rows || null,
		dir: "auto",
		autocomplete: "off",
	});
	return keyed(
		field,
		() => {
			if (field.value !== value) give(field, set, field.value);
		},
		() => {
			field.value = value;
		},
	);
}

/**
 * @param {string} value
 * @param {(readonly string[])[]} choices each with its key and its words
 * @param {(key: any) => any} set
 */
export function selectField(value, choices, set, { label = null } = NONE) {
	const field = el(
		"select",
		{ class: "field", "aria-label": label },
		choices.map(([key, words]) => el("option", { value: key, selected: key === value }, words)),
	);
	field.value = value;
	field.addEventListener("change", () => set(field.value));
	return field;
}

/**
 * Buttons of which exactly one is pressed.
 * @param {string | null} value
 * @param {(readonly any[])[]} choices each with its key and its words
 * @param {(key: any) => any} set
 */
export function choice(value, choices, set, { label = null } = NONE) {
	return el(
		"div",
		{ class: "choice", role: "group", "aria-label": label },
		choices.map(([key, words]) =>
			el(
				"button",
				{
					type: "button",
					"aria-pressed": String(key === value),
					onclick: () => {
						if (key !== value) set(key);
					},
				},
				words,
			),
		),
	);
}

/** @param {string} words @param {boolean} checked @param {(checked: boolean) => any} set */
export function tick(words, checked, set) {
	const box = el("input", { type: "checkbox", checked });
	box.addEventListener("change", () => set(box.checked));
	return el("label", { class: "tick" }, box, words);
}
