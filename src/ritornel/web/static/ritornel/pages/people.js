// Who else may open the show, and their tasks.
import { el } from "../ui/element.js";
import { post, startData } from "../ui/requests.js";
import { toast } from "../ui/toast.js";

const at = (/** @type {string} */ id) => document.getElementById(id);
const ROLES = {
	edit: ["edit the show", "everything but releasing it and inviting people"],
	record: ["record one section", "they see and change that section only"],
	comment: ["comment", "they see the show and say what they think"],
	watch: ["watch", "they see the show, and nothing else"],
};
let data = startData();
const base = `/shows/${data.show_id}`;
const day = (/** @type {string} */ text) =>
	new Date(text).toLocaleDateString("en-GB", { day: "numeric", month: "short" });

const role = () => document.querySelector("[name=role]:checked")?.value;

async function send(/** @type {string} */ path, body = /** @type {any} */ (undefined)) {
	try {
		data = await post(`${base}/people/${path}`, body);
		draw();
		return true;
	} catch (error) {
		toast(error.message, { wrong: true });
		return false;
	}
}

function stateWords(/** @type {any} */ person) {
	if (person.state === "accepted")
		return `in since ${day(person.accepted_at)}${person.proven ? "" : ", address not proven"}`;
	if (person.state === "withdrawn") return "withdrawn: they can open nothing of it";
	if (person.state === "sent" && !data.mail)
		return `not opened yet, waits until ${day(person.expires_at)}; no mail went out`;
	return person.state === "expired" ? "not opened in time" : `not opened yet, waits until ${day(person.expires_at)}`;
}

async function copy(/** @type {any} */ person) {
	try {
		await navigator.clipboard.writeText(person.link);
		toast(`The link is copied. It is for ${person.address} alone.`);
	} catch {
		toast(person.link, { stays: false });
	}
}

/** Which slides somebody was given. */
const given = (/** @type {string} */ name) =>
	data.given[name] ? el("span", { class: "how" }, `slides ${data.given[name]}`) : null;

function line(/** @type {any} */ person) {
	const gone = person.state === "withdrawn" || person.state === "expired";
	const asked = el(
		"select",
		{
			class: "field",
			"aria-label": `What ${person.address} is asked to do`,
			disabled: gone,
			onchange: () => {
				if (asked.value !== "record" || person.section || data.sections.length)
					send(`${person.id}/change`, { role: asked.value, section: person.section || data.sections[0]?.id });
			},
		},
		Object.entries(ROLES).map(([name, [words]]) =>
			el("option", { value: name, selected: name === person.role }, words),
		),
	);
	/** @type {any} */
	const section =
		person.role === "record"
			? el(
					"select",
					{
						class: "field",
						"aria-label": `Section of ${person.address}`,
						disabled: gone,
						onchange: () => send(`${person.id}/change`, { role: "record", section: section.value }),
					},
					person.section ? null : el("option", { value: "" }, "its section is gone"),
					data.sections.map((/** @type {any} */ entry) =>
						el("option", { value: entry.id, selected: entry.id === person.section }, entry.name),
					),
				)
			: null;
	const acts = gone
		? [
				el(
					"button",
					{
						class: "push",
						onclick: () =>
							send("invite", {
								address: person.address,
								name: person.name,
								role: person.role,
								section: person.section,
							}),
					},
					"Invite again",
				),
			]
		: [
				person.link ? el("button", { class: "push", onclick: () => copy(person) }, "Copy the link") : null,
				el(
					"button",
					{ class: "push", onclick: () => withdraw(person) },
					person.state === "accepted" ? "Stop access" : "Withdraw",
				),
			];
	return el(
		"li",
		{ "data-state": person.state },
		el("div", {}, el("b", {}, person.name || person.address), el("span", {}, person.name ? person.address : "")),
		given(person.name || person.address),
		el("div", { class: "asked" }, asked, section),
		el("span", { class: "how" }, stateWords(person)),
		el("div", { class: "row acts" }, acts),
	);
}

async function withdraw(/** @type {any} */ person) {
	if (await send(`${person.id}/withdraw`))
		toast(`${person.name || person.address} can open nothing of this show any more.`, {
			act: "Undo",
			onact: () => send(`${person.id}/restore`),
		});
}

function draw() {
	const inside = data.people.filter((/** @type {any} */ person) => person.state === "accepted").length;
	at("people-told").textContent = inside
		? `${data.owner} owns the show; ${inside} other${inside === 1 ? "" : "s"} can open it.`
		: `${data.owner} owns the show. Nobody else has come in yet.`;
	at("people").replaceChildren(...data.people.map(line));
	const names = new Set(data.people.map((/** @type {any} */ person) => person.name || person.address));
	const others = Object.entries(data.given).filter(([name]) => !names.has(name));
	at("given").textContent = others.length
		? `Also given: ${others.map(([name, slides]) => `slides ${slides} to ${name}`).join("; ")}.`
		: "";
}

at("invite-told").textContent =
	`${data.mail ? "They get mail with a link of their own." : "There is no mail server here: you copy their link and give it to them."} It waits ${data.days} days to be opened; then it is theirs, until you withdraw it.`;
at("roles").append(
	...Object.entries(ROLES).map(([name, [words, more]], number) =>
		el(
			"label",
			{},
			el("input", {
				type: "radio",
				name: "role",
				value: name,
				checked: !number,
				onchange: () => {
					at("section-field").hidden = role() !== "record";
				},
			}),
			el("span", {}, el("b", {}, words), el("i", {}, more)),
		),
	),
);
at("section").append(...data.sections.map((/** @type {any} */ entry) => el("option", { value: entry.id }, entry.name)));
const asked = new URLSearchParams(location.search);
if (asked.has("section")) {
	document.querySelector("[name=role][value=record]").checked = true;
	at("section-field").hidden = false;
	at("section").value = asked.get("section");
	at("address").focus();
}
at("invite").addEventListener("submit", async (/** @type {Event} */ event) => {
	event.preventDefault();
	at("wrong").textContent = "";
	try {
		data = await post(`${base}/people/invite`, {
			address: at("address").value.trim(),
			name: at("name").value.trim(),
			role: role(),
			section: role() === "record" ? at("section").value : "",
		});
		const person = data.people.find((/** @type {any} */ entry) => entry.id === data.invited);
		draw();
		for (const id of ["address", "name"]) at(id).value = "";
		const sent = data.mail
			? `Mail with a link of their own went to ${person.address}.`
			: `No mail server is set up here. Copy the link for ${person.address}.`;
		toast(
			person.link ? sent : `${person.address} is in already; what they may do was changed.`,
			person.link ? { act: "Copy the link", onact: () => copy(person) } : {},
		);
	} catch (error) {
		at("wrong").textContent = error.message;
		at("address").focus();
	}
});
draw();
