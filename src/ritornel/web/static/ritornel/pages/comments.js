// Comments on slides and objects: read slide by slide, answered, closed.
import { el } from "../ui/element.js";
import { get, post, startData } from "../ui/requests.js";
import { toast } from "../ui/toast.js";

const at = (/** @type {string} */ id) => document.getElementById(id);
const AGAIN_MS = 5000;
let data = startData();
const base = `/shows/${data.show_id}`;
let chosen = new URLSearchParams(location.search).get("slide");
if (!data.slides.some((/** @type {any} */ slide) => slide.id === chosen))
	chosen = (
		data.slides.find((/** @type {any} */ slide) =>
			slide.comments.some((/** @type {any} */ comment) => !comment.closed_by),
		) ?? data.slides[0]
	)?.id;
const slide = () => data.slides.find((/** @type {any} */ { id }) => id === chosen);
const when = (/** @type {string} */ text) =>
	new Date(text).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

async function send(/** @type {string} */ path, /** @type {any} */ body) {
	try {
		data = await post(`${base}/comments/${path}`, body);
		draw();
		return true;
	} catch (error) {
		toast(error.message, { wrong: true });
		return false;
	}
}

function entry(/** @type {any} */ comment) {
	const field = el("input", {
		class: "field",
		placeholder: "Answer",
		"aria-label": `Answer ${comment.who}`,
		maxlength: 4000,
	});
	const answer = async (/** @type {Event} */ event) => {
		event.preventDefault();
		if (field.value.trim()) await send("say", { text: field.value, answers: comment.id });
	};
	const close = async () => {
		if (await send(`${comment.id}/close`, {}))
			toast("The comment is closed.", {
				act: "Open it again",
				onact: () => send(`${comment.id}/close`, { open: true }),
			});
	};
	return el(
		"li",
		{ "data-closed": comment.closed_by ? "" : null },
		el(
			"p",
			{ class: "by" },
			el("b", {}, comment.who),
			comment.object ? ` on “${comment.object}”` : "",
			el("span", {}, when(comment.at)),
		),
		el("p", { class: "words" }, comment.text),
		comment.answers.map((/** @type {any} */ one) =>
			el("p", { class: "answer" }, el("b", {}, one.who), ` ${one.text}`, el("span", {}, when(one.at))),
		),
		comment.closed_by
			? el(
					"p",
					{ class: "row" },
					el("span", { class: "said" }, `closed by ${comment.closed_by}`),
					el(
						"button",
						{ class: "link ml-auto", onclick: () => send(`${comment.id}/close`, { open: true }) },
						"Open again",
					),
				)
			: el(
					"form",
					{ class: "row", onsubmit: answer },
					field,
					el("button", { class: "push" }, "Answer"),
					el("button", { type: "button", class: "push", onclick: close }, "Close"),
				),
	);
}

function draw() {
	const now = slide();
	const open = (/** @type {any} */ one) =>
		one.comments.filter((/** @type {any} */ comment) => !comment.closed_by).length;
	at("slides").replaceChildren(
		...data.slides.map((/** @type {any} */ one) =>
			el(
				"li",
				{},
				el(
					"button",
					{ "aria-current": one.id === chosen ? "true" : null, onclick: () => choose(one.id) },
					el("img", { src: one.thumb, alt: "", width: 96, height: 54, loading: "lazy" }),
					el("span", {}, `${one.number}  ${one.name}`),
					open(one) ? el("b", { title: `${open(one)} open` }, open(one)) : null,
				),
			),
		),
	);
	if (!now) {
		at("slide-name").textContent = "This show has no slides yet.";
		at("say").hidden = true;
		return;
	}
	at("picture").src = `${now.thumb}?size=large`;
	at("picture").alt = `Slide ${now.number}, ${now.name}`;
	at("slide-name").textContent = `${now.number}  ${now.name}`;
	at("to-slide").hidden = !data.may_edit;
	at("to-slide").href = `${base}/?slide=${encodeURIComponent(now.id)}`;
	const all = now.comments.filter((/** @type {any} */ comment) => at("closed-too").checked || !comment.closed_by);
	const hidden = now.comments.length - all.length;
	at("said").replaceChildren(
		...(all.length
			? all.map(entry)
			: [
					el(
						"li",
						{ class: "said none" },
						hidden ? `Nothing open here; ${hidden} closed.` : "Nothing was said about this slide yet.",
					),
				]),
		...(data.gone.length && at("closed-too").checked
			? [el("li", { class: "said none" }, "Said of slides that are gone:"), ...data.gone.map(entry)]
			: []),
	);
	const before = at("object").value;
	at("object").replaceChildren(
		el("option", { value: "" }, "the whole slide"),
		...now.objects.map((/** @type {any} */ item) =>
			el("option", { value: item.id, selected: item.id === before }, item.name),
		),
	);
}

function choose(/** @type {string} */ id) {
	chosen = id;
	history.replaceState(null, "", `?slide=${encodeURIComponent(id)}`);
	draw();
}

at("closed-too").addEventListener("change", draw);
at("say").addEventListener("submit", async (/** @type {Event} */ event) => {
	event.preventDefault();
	if (!at("words").value.trim()) {
		at("words").focus();
		return;
	}
	if (await send("say", { slide_id: chosen, object_id: at("object").value, text: at("words").value }))
		at("words").value = "";
});
// What others say meanwhile; what is being typed stays.
setInterval(async () => {
	if (document.hidden || document.activeElement?.closest?.("#said")) return;
	const fresh = await get(`${base}/comments.json`).catch(() => null);
	if (fresh && JSON.stringify(fresh) !== JSON.stringify(data)) {
		data = fresh;
		draw();
	}
}, AGAIN_MS);
draw();
