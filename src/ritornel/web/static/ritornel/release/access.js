// Who may see a release, and how it looks in somebody else's page.
import { selectField, tick } from "../panel/fields.js";
import { el, icon } from "../ui/element.js";
import { post } from "../ui/requests.js";
import { toast } from "../ui/toast.js";

const AUDIENCES = [
	["anyone", "Anyone with the address"],
	["invited", "Invited people only"],
	["domain", "Everybody at a mail domain"],
];
const EMBEDDED_PX = 960;
/** @type {Embedding | null} */
let embedding = null;

/**
 * How it looks in another page: at first as the show itself does, in its proportion.
 * @param {ReleaseData} data
 */
function embedOf({ frame, starts_itself: start, loops }) {
	const shrinks = EMBEDDED_PX / Math.max(frame.width_px, frame.height_px);
	embedding ??= {
		fills: false,
		width: Math.round(frame.width_px * shrinks),
		height: Math.round(frame.height_px * shrinks),
		start,
		silent: false,
		loop: loops,
		sound: true,
		steps: true,
		controls: true,
	};
	return embedding;
}

/** @param {string} text @param {string} words said once it is copied */
async function copy(text, words) {
	await navigator.clipboard?.writeText(text).catch(() => undefined);
	toast(words);
}

/**
 * Asks who may see the first edition, before it is made: nothing becomes public by accident.
 * @param {(access: {audience: string, domain?: string}) => void} chosen
 */
export function askAudience(chosen) {
	const domain = el("input", { class: "field", placeholder: "orlmere.town", "aria-label": "Mail domain" });
	const take = (/** @type {Audience} */ audience) => {
		dialog.close();
		chosen({ audience, domain: domain.value.trim() });
	};
	/** @param {Audience} audience @param {string} words @param {string} why @param {Element | null} [more] */
	const line = (audience, words, why, more = null) =>
		el(
			"div",
			{ class: "grid gap-1" },
			el("div", { class: "row" }, more, el("button", { class: "push", onclick: () => take(audience) }, words)),
			el("p", { class: "said" }, why),
		);
	const dialog = el(
		"dialog",
		{ class: "pairs-dialog", "aria-label": "Who may see it?" },
		el("h2", {}, "Who may see it?"),
		el(
			"div",
			{ class: "scrolls grid gap-4" },
			line("invited", "Invited people", "You invite them by e-mail, each with a link of their own."),
			line("domain", "Everybody at a mail domain", "They say their address, and mail brings each a link.", domain),
			line("anyone", "Anyone with the address", "It is public: whoever has the address sees it."),
		),
		el("p", { class: "said" }, "You can change this at any time."),
		el("form", { method: "dialog" }, el("button", { class: "push bare" }, "Not now")),
	);
	dialog.addEventListener("close", () => dialog.remove());
	document.body.append(dialog);
	dialog.showModal();
}

/**
 * @param {ReleaseData} data
 * @param {{base: string, set: (settings: object) => void, redraw: () => void}} about `set` posts settings of the release
 */
export function accessSection(data, { base, set, redraw }) {
	const domain = el("input", {
		class: "field",
		value: data.domain,
		placeholder: "orlmere.town",
		"aria-label": "Mail domain",
	});
	domain.addEventListener("change", () => set({ audience: "domain", domain: domain.value }));
	const choose = (/** @type {Audience} */ audience) => {
		// A domain is only chosen once it is said.
		if (audience !== "domain" || data.domain) set({ audience, domain: data.domain });
		else {
			data.audience = "domain";
			redraw();
		}
	};
	const parts = [selectField(data.audience, AUDIENCES, choose, { label: "Who may see it" })];
	if (data.audience === "domain")
		parts.push(
			el("label", { class: "row" }, "Ending in @", domain),
			el("p", { class: "said" }, "They say their address, and mail brings each a link of their own."),
		);
	if (data.audience !== "anyone") parts.push(guests(data, base, redraw));
	return el(
		"section",
		{ class: "grid gap-2", "data-access": "" },
		el("h2", { class: "text-lg" }, "Who may see it"),
		parts,
	);
}

/** @param {ReleaseData} data @param {string} base @param {() => void} redraw */
function guests(data, base, redraw) {
	const field = el("input", {
		class: "field",
		placeholder: "E-mail addresses",
		"aria-label": "E-mail addresses of guests",
	});
	/** @param {() => Promise<{guests: GuestLine[]}>} work @param {string} [words] */
	const take = async (work, words) => {
		try {
			data.guests = (await work()).guests;
			redraw();
			if (words) toast(words);
		} catch (error) {
			toast(error.message, { wrong: true });
		}
	};
	const invite = (/** @type {Event} */ event) => {
		event.preventDefault();
		take(
			() => post(`${base}/guests`, { addresses: field.value }),
			data.mail
				? "Mail with a link of their own went to each."
				: "No mail server is set up here. Copy each their link.",
		);
	};
	const line = (/** @type {GuestLine} */ { link, ...guest }) =>
		el(
			"li",
			{ class: "row", "data-withdrawn": guest.withdrawn ? "" : null },
			el("span", { class: "mr-auto truncate" }, guest.address),
			el(
				"span",
				{ class: "said" },
				guest.withdrawn ? "shut out" : guest.opened_at ? "has opened it" : "not opened yet",
			),
			guest.withdrawn || !link
				? null
				: el(
						"button",
						{
							class: "push bare",
							"aria-label": `Copy the link of ${guest.address}`,
							title: "Copy the link",
							onclick: () => copy(link, `The link is copied. It is for ${guest.address} alone.`),
						},
						icon("copy"),
					),
			el(
				"button",
				{
					class: "push bare",
					"aria-label": `${guest.withdrawn ? "Let in" : "Shut out"} ${guest.address}`,
					title: guest.withdrawn ? "Let in again" : "Shut out at once",
					onclick: () => take(() => post(`${base}/guests/${guest.id}`, { back: guest.withdrawn })),
				},
				icon(guest.withdrawn ? "undo-2" : "x"),
			),
		);
	return el(
		"div",
		{ class: "grid gap-1" },
		data.audience === "invited"
			? el("form", { class: "row", onsubmit: invite }, field, el("button", { class: "push" }, "Invite"))
			: null,
		el("ul", {}, data.guests.map(line)),
	);
}

/**
 * The address with the options for another page.
 * @param {string} address
 * @param {Embedding} embed
 */
function embeddedAddress(address, embed) {
	const asked = [
		["start", embed.start, "press"],
		["start", !embed.start || !embed.silent, "silence"],
		["sound", embed.sound, "off"],
		["steps", embed.steps, "off"],
		["controls", embed.controls, "off"],
	]
		.filter(([, on]) => !on)
		.map(([name, , value]) => `${name}=${value}`);
	asked.push(`loop=${embed.loop ? "on" : "off"}`);
	return `${address}?${asked.join("&")}`;
}

/** @param {ReleaseData} data @param {Embedding} embed */
const code = (data, embed) => {
	const size = embed.fills
		? `style="width:100%;aspect-ratio:${embed.width}/${embed.height};border:0"`
		: `width="${embed.width}" height="${embed.height}" style="border:0"`;
	return `<iframe src="${embeddedAddress(data.address ?? "", embed)}" ${size} allow="autoplay; fullscreen; screen-wake-lock" title="${data.title.replaceAll('"', "&quot;")}"></iframe>`;
};

/** @param {ReleaseData} data @param {() => void} redraw */
export function embedSection(data, redraw) {
	const embed = embedOf(data);
	const heading = el("h2", { class: "text-lg" }, "In another page");
	if (data.audience !== "anyone")
		return el(
			"section",
			{ class: "grid gap-2" },
			heading,
			el(
				"p",
				{ class: "said" },
				"Only a show that is open to anyone can stand in somebody else's page: that page's visitors have no link of their own.",
			),
		);
	/** @param {"width" | "height"} name @param {string} label */
	const side = (name, label) => {
		const field = el("input", {
			class: "field w-[72px]",
			value: embed[name],
			inputmode: "numeric",
			"aria-label": label,
		});
		field.addEventListener("change", () => {
			const px = Math.round(Number(field.value));
			if (px >= 120 && px <= 7680) embed[name] = px;
			redraw();
		});
		return field;
	};
	/** @param {"fills" | "start" | "silent" | "loop" | "sound" | "steps" | "controls"} name @param {string} label */
	const option = (name, label) =>
		tick(label, embed[name], (/** @type {boolean} */ on) => {
			embed[name] = on;
			redraw();
		});
	const text = el("textarea", {
		class: "field",
		rows: 4,
		readonly: true,
		"aria-label": "Code for another page",
		onfocus: (/** @type {{target: HTMLTextAreaElement}} */ event) => event.target.select(),
	});
	text.value = code(data, embed);
	return el(
		"section",
		{ class: "grid gap-2", "data-embed": "" },
		heading,
		el(
			"div",
			{ class: "row" },
			side("width", "Width in px"),
			"×",
			side("height", "Height in px"),
			option("fills", "fills its width"),
		),
		el(
			"div",
			{ class: "grid grid-cols-2" },
			option("start", "Starts by itself"),
			option("silent", "In silence until pressed"),
			option("loop", "Loops"),
			option("sound", "Sound"),
			option("steps", "May be stepped through"),
			option("controls", "Controls"),
		),
		text,
		el(
			"div",
			{},
			el(
				"button",
				{ class: "push", onclick: () => copy(text.value, "The code was copied.") },
				icon("copy"),
				"Copy the code",
			),
		),
	);
}

export const LOOKS = [
	["wide", "Wide"],
	["phone", "Phone"],
	["embedded", "Embedded"],
	["muted", "Muted"],
	["slow", "Slow line"],
];

/**
 * A stranger's view: without the maker's rights, where the browser can do that.
 * @param {ReleaseData} data
 * @param {string} look
 */
export function strangersFrame(data, look) {
	// Over the slow line everything comes as by 1.6 Mbit/s with 150 ms of delay; each look has a line of its own, and
	// nothing kept from before.
	const line = () => `${data.address}?line=slow-${Math.random().toString(36).slice(2, 10)}`;
	const address =
		look === "embedded"
			? embeddedAddress(data.address ?? "", embedOf(data))
			: look === "muted"
				? `${data.address}?sound=off`
				: look === "slow"
					? line()
					: data.address;
	const frame = el("iframe", {
		src: address,
		title: `${data.title}, edition ${data.editions[0].number}`,
		allow: "autoplay; fullscreen; screen-wake-lock",
		credentialless: true,
	});
	return look === "embedded" ? exactly(frame, embedOf(data)) : frame;
}

/**
 * The frame at exactly its size in the other page, scaled down where the window has less room.
 * @param {HTMLElement} frame
 * @param {Embedding} embed
 */
function exactly(frame, { width, height }) {
	const room = el("div", { class: "exact" }, frame);
	Object.assign(frame.style, { width: `${width}px`, height: `${height}px` });
	new ResizeObserver(() => {
		const scale = Math.min(1, room.clientWidth / width, room.clientHeight / height);
		frame.style.transform = `scale(${scale})`;
	}).observe(room);
	return room;
}

export const embedKey = () => JSON.stringify(embedding);

/** What size the other page shows it at, in words. */
export const embeddedSize = () =>
	!embedding
		? ""
		: embedding.fills
			? `In the other page it is as wide as its place; here as in one of ${embedding.width} × ${embedding.height} px.`
			: `In the other page it has ${embedding.width} × ${embedding.height} px; here it is shrunk to fit.`;
