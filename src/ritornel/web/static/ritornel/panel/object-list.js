// The objects of the slide from the front to the back. Covered, invisible and outside objects, and those put aside, are
// found here.
import { el, icon } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";

const rowsPart = later(() => import("./object-rows.js"));

/**
 * The fold at the foot of the panel, always there. Folded, it still says how many objects there are and what is
 * hidden.
 */
export class ObjectFold {
	/** @param {ShowState} state */
	constructor(state) {
		this.state = state;
		this.open = localStorage.getItem("ritornel-objects") === "open";
		this.head = el("button", { class: "fold-head", "aria-expanded": String(this.open), onclick: () => this.toggle() });
		this.list = el("ul", { class: "objects" });
		this.node = el("section", { class: "fold", "aria-label": "Objects" }, this.head, this.list);
		state.addEventListener("show", () => this.draw());
		state.addEventListener("pick", () => this.mark());
		this.draw();
		// The list shows the front first; the slide keeps its objects from the back.
		import("../ui/reorder.js").then(({ reorder }) =>
			reorder(this.list, {
				item: "[data-listed]",
				idOf: (node) => node.dataset.listed,
				put: (ids, to) => rowsPart.ready.restack(state, ids[0], state.slide.objects.length - 1 - to),
			}),
		);
	}

	toggle() {
		this.open = !this.open;
		localStorage.setItem("ritornel-objects", this.open ? "open" : "folded");
		this.draw();
	}

	draw() {
		const { slide, data } = this.state;
		const { seen = {}, away = [] } = data.viewing ?? {};
		const facts = [
			[away.length, "away at first"],
			[Object.values(seen).filter((entry) => entry.covered_by).length, "covered"],
			[Object.values(seen).filter((entry) => entry.outside === "wholly").length, "outside"],
			[slide?.objects.filter((item) => item.aside).length ?? 0, "put aside"],
		]
			.filter(([count]) => count)
			.map(([count, words]) => `${count} ${words}`);
		this.head.setAttribute("aria-expanded", String(this.open));
		this.head.replaceChildren(
			icon("chevron-right"),
			el("b", {}, "Objects"),
			String(slide?.objects.length ?? 0),
			el("span", { class: "said ml-auto truncate" }, facts.join(" · ")),
		);
		const focused = this.list.contains(document.activeElement)
			? document.activeElement?.closest("[data-listed]")?.dataset.listed
			: null;
		this.list.hidden = !this.open;
		if (this.open && !rowsPart.ready) {
			rowsPart.get().then(() => this.draw());
			return;
		}
		const rows = this.open
			? [...(slide?.objects ?? [])].reverse().map((item) => rowsPart.ready.objectRow(this.state, item))
			: [];
		this.list.replaceChildren(
			...(rows.length || !this.open
				? rows
				: [el("li", { class: "said px-4 py-2" }, "Nothing stands here yet. Add something above the stage.")]),
		);
		this.mark();
		if (focused) this.list.querySelector(`[data-listed="${CSS.escape(focused)}"] .who`)?.focus();
	}

	/** Marks the selection and scrolls it into view. */
	mark() {
		for (const node of this.list.querySelectorAll("[data-listed]")) {
			if (this.state.picked.has(node.dataset.listed)) node.setAttribute("aria-current", "true");
			else node.removeAttribute("aria-current");
		}
		this.list.querySelector('[aria-current="true"]')?.scrollIntoView({ block: "nearest" });
	}
}
