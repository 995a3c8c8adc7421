// Below the sections: inviting somebody to record one, and starting another.
import { el } from "../ui/element.js";
import { post } from "../ui/requests.js";
import { toast } from "../ui/toast.js";

function invitation(/** @type {any} */ { base, data, section, changed }) {
	const which = el(
		"select",
		{ class: "field", "aria-label": "Section" },
		data.sections.map((/** @type {SectionLine} */ line) =>
			el("option", { value: line.id, selected: line.id === section.id }, `Section ${line.number}`),
		),
	);
	const address = el("input", {
		class: "field",
		type: "email",
		placeholder: "E-mail address",
		"aria-label": "E-mail address",
		autocomplete: "off",
	});
	const invite = async (/** @type {Event} */ event) => {
		event.preventDefault();
		if (!address.value.trim()) {
			address.focus();
			return;
		}
		try {
			const reply = await post(`${base}/people/invite`, {
				address: address.value.trim(),
				role: "record",
				section: which.value,
			});
			const person = reply.people.find((/** @type {any} */ one) => one.id === reply.invited);
			await changed();
			toast(
				reply.mail
					? `Mail with a link went to ${person.address}. It opens that section only.`
					: `No mail server is set up here. Copy the link for ${person.address}; it opens that section only.`,
				person.link
					? {
							act: "Copy the link",
							onact: () => navigator.clipboard.writeText(person.link).catch(() => toast(person.link)),
						}
					: {},
			);
		} catch (error) {
			toast(error.message, { wrong: true });
		}
	};
	return el(
		"form",
		{ onsubmit: invite, class: "invite" },
		el(
			"div",
			{ class: "row" },
			el("b", {}, "Invite to one section"),
			el(
				"button",
				{ class: "push ml-auto", title: "They get a link of their own; it opens that section only" },
				"Invite",
			),
		),
		el("div", { class: "row" }, which, address),
	);
}

/** @param {{base: string, data: RecordData, section: SectionDetail, changed: () => Promise<void>}} about */
export function drawFoot(about) {
	const { base, data, section, changed } = about;
	const foot = document.getElementById("sections-foot");
	foot.replaceChildren(...(data.may_invite ? [invitation(about)] : []));
	if (!data.may_edit) {
		foot.append(
			el("p", { class: "said" }, "This section is yours to record. The others of the show are not seen here."),
		);
		return;
	}
	const greet = (/** @type {"greeting" | "farewell"} */ role) => async () => {
		const { recordClip } = await import("./clip.js");
		await recordClip({
			base,
			role,
			shelved: changed,
			used: async (reply) => {
				await changed();
				toast(`${reply.label}.`, {
					act: "Undo",
					onact: async () => {
						await post(`${base}/undo`);
						await changed();
					},
				});
			},
		});
	};
	const free = section.slides.filter(
		(/** @type {RecordedSlideLine} */ slide) => slide.id !== section.id || data.sections.length === 1,
	);
	const slides = el(
		"select",
		{ class: "field", "aria-label": "Begins with" },
		free.map((/** @type {RecordedSlideLine} */ slide) =>
			el("option", { value: slide.id }, `${slide.number}  ${slide.name}`),
		),
	);
	const name = el("input", {
		class: "field",
		placeholder: "Its name",
		maxlength: 200,
		"aria-label": "Name of the section",
	});
	const make = async (/** @type {Event} */ event) => {
		event.preventDefault();
		if (!name.value.trim()) {
			name.focus();
			return;
		}
		try {
			await post(`${base}/edit`, {
				revision: data.revision,
				edit: { do: "change slides", slide_ids: [slides.value], changes: { opens_section: name.value.trim() } },
			});
			await changed();
		} catch (error) {
			toast(error.message, { wrong: true });
		}
	};
	const form = el(
		"form",
		{ onsubmit: make, hidden: true },
		el("div", { class: "row" }, slides, name),
		el("button", { class: "push" }, "Begin it here"),
	);
	const another = el(
		"button",
		{
			class: "push",
			"aria-expanded": "false",
			disabled: !free.length,
			title: free.length ? "Another section, from one of these slides on" : "A section of one slide cannot be parted",
			onclick: () => {
				form.hidden = !form.hidden;
				another.setAttribute("aria-expanded", String(!form.hidden));
				if (!form.hidden) name.focus();
			},
		},
		"New section",
	);
	const greeting = (
		/** @type {"greeting" | "farewell"} */ role,
		/** @type {string} */ words,
		/** @type {string} */ title,
	) => el("button", { class: "push", title, onclick: greet(role) }, words);
	foot.append(
		el(
			"div",
			{ class: "row acts", role: "group", "aria-label": "Add to the show" },
			greeting("greeting", "Greeting", "Record a greeting that comes before the show"),
			greeting("farewell", "Farewell", "Record a farewell that comes after the show"),
			another,
		),
		form,
	);
}
