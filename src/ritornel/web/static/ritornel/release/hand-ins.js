// Handing a result in to somebody here, withdrawing it, and replacing it by a newer one.
import { el, newId } from "../ui/element.js";
import { post } from "../ui/requests.js";
import { toast } from "../ui/toast.js";

const day = (/** @type {string} */ text) =>
	new Date(text).toLocaleDateString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

/**
 * @param {FilmLine} film
 * @param {{base: string, data: ReleaseData, changed: (handed: HandInLine[]) => void}} about
 */
export function handInForm(film, { base, data, changed }) {
	const names = newId();
	const to = el("input", {
		class: "field",
		placeholder: "Name, address or Section II",
		"aria-label": "To whom",
		list: names,
	});
	const known = el(
		"datalist",
		{ id: names },
		data.people.map((name) => el("option", { value: name })),
		Object.entries(data.section_owners).map(([value, people]) => el("option", { value }, people.join(", "))),
	);
	const note = el("input", { class: "field", placeholder: "A word with it", "aria-label": "Note", maxlength: 1000 });
	const instead = el(
		"select",
		{ class: "field", "aria-label": "Instead of" },
		el("option", { value: "" }, "Beside what was handed in before"),
		data.handed.map((entry) => el("option", { value: entry.id }, `Instead of ${entry.name}, to ${entry.to}`)),
	);
	const choices = el("div", { class: "grid gap-1" });
	const send = async (/** @type {number | null} */ who = null) => {
		choices.replaceChildren();
		try {
			const body = { to: to.value, note: note.value, replaces: instead.value || null, to_id: who };
			const reply = await post(`${base}/films/${film.id}/hand-in`, body);
			if (reply.choices) {
				choices.replaceChildren(
					el("p", {}, `${reply.choices.length} people may be meant. Which one?`),
					...reply.choices.map((/** @type {{id: number, name: string, about: string}} */ one) =>
						el("button", { type: "button", class: "push", onclick: () => send(one.id) }, `${one.name}, ${one.about}`),
					),
				);
				choices.querySelector("button").focus();
				return;
			}
			form.open = false;
			form.querySelector("summary").focus();
			changed(reply.handed);
			toast(`Handed in to ${reply.to}. You see here when it was looked at.`);
		} catch (error) {
			toast(error.message, { wrong: true });
			to.focus();
		}
	};
	const submit = (/** @type {Event} */ event) => {
		event.preventDefault();
		send();
	};
	const form = el(
		"details",
		{},
		el("summary", { class: "said cursor-pointer" }, "Hand it in"),
		el(
			"form",
			{ class: "grid gap-1 mt-1", onsubmit: submit },
			to,
			known,
			note,
			data.handed.length ? instead : null,
			choices,
			el("div", {}, el("button", { class: "push" }, "Hand in")),
		),
	);
	return form;
}

/**
 * The hand-ins of this show, each with a way to withdraw it.
 * @param {HTMLElement} node
 * @param {ReleaseData} data
 * @param {(handed: HandInLine[]) => void} changed
 */
export function listHandIns(node, data, changed) {
	node.hidden = !data.handed.length;
	const take = async (/** @type {HandInLine} */ entry) => {
		try {
			const { handed } = await post(`/handed-in/${entry.id}/withdraw`);
			changed(handed);
			toast(`Withdrawn. ${entry.to} has it no more.`);
		} catch (error) {
			toast(error.message, { wrong: true });
		}
	};
	node.replaceChildren(
		el("h2", { class: "text-lg mb-1" }, "Hand-ins"),
		...data.handed.map((entry) =>
			el(
				"div",
				{ class: "row", "data-hand-in": entry.id },
				el(
					"p",
					{ class: "said mr-auto" },
					`${entry.name} to ${entry.to}, ${day(entry.at)}, ${entry.seen_at ? `looked at ${day(entry.seen_at)}` : "not looked at yet"}`,
				),
				el("button", { class: "push", onclick: () => take(entry) }, "Withdraw"),
			),
		),
	);
}
