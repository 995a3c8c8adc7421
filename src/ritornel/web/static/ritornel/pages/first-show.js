// The first show: five acts under the bar, each ticked when the show has it.
import { el } from "../ui/element.js";
import { get, post } from "../ui/requests.js";

const node = document.getElementById("first-show");
const { base } = node.dataset;
const SETTLES_MS = 200;

async function leave() {
	await post(`${base}/first/leave`);
	node.hidden = true;
}

function draw(/** @type {any} */ { acts }) {
	const next = acts.findIndex((/** @type {any} */ act) => !act.done);
	const how = next < 0 ? "All five are done: your show is out. Everything else works the same way." : acts[next].how;
	node.replaceChildren(
		el("h2", {}, "Your first show"),
		el(
			"ol",
			{},
			acts.map((/** @type {any} */ act, /** @type {number} */ index) =>
				el(
					"li",
					{ "data-done": act.done ? "yes" : null, "aria-current": index === next ? "step" : null },
					el("i", { "aria-hidden": "true" }, act.done ? "✓" : String(index + 1)),
					act.title,
					act.done ? el("span", { class: "sr-only" }, ", done") : null,
				),
			),
		),
		el("p", { role: "status" }, how),
		el("button", { class: "push", title: "It stays under Help", onclick: leave }, next < 0 ? "Close" : "Leave it"),
	);
}

let timer = 0;
async function look() {
	const state = await get(`${base}/first.json`).catch(() => null);
	if (!state) return;
	node.hidden = state.left;
	if (!state.left) draw(state);
}
const soon = () => {
	clearTimeout(timer);
	timer = setTimeout(look, SETTLES_MS);
};

// Compose says its revision; the page of a release draws its editions anew.
const compose = document.getElementById("compose");
if (compose) new MutationObserver(soon).observe(compose, { attributeFilter: ["data-revision"] });
const side = document.getElementById("side");
if (side) new MutationObserver(soon).observe(side, { childList: true });
look();
