// The details of what is selected: an object, music, several objects, or the slide.
import { controlsOf, keepPlace, nameOf } from "../ui/focus.js";
import { el } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";
import { ObjectFold } from "./object-list.js";
import { drawPath } from "./path.js";
import { showTrial } from "./running-order.js";
import { slidePanel } from "./slide-panel.js";

// What is picked has its panel fetched when the first of its kind is picked.
const parts = {
	framing: later(() => import("./framing-panel.js")),
	mark: later(() => import("./mark-panel.js")),
	music: later(() => import("./music-panel.js")),
	// Choosing among builds comes with seeing them.
	object: later(async () => {
		const [panel] = await Promise.all([import("./object-panel.js"), import("../stage/preview.js")]);
		return panel;
	}),
	several: later(() => import("./several-panel.js")),
	slides: later(() => import("./slides-panel.js")),
	show: later(() => import("./show-panel.js")),
};

const WIDTH = { key: "ritornel-panel-px", least: 340, usual: 400, most: 620 };

/** The panel's edge: dragged, or moved by the arrows. Its width is remembered. */
function widthHandle() {
	const compose = document.getElementById("compose");
	const handle = el("button", {
		class: "width-handle",
		role: "separator",
		"aria-orientation": "vertical",
		"aria-label": "Width of the panel, arrow keys change it",
	});
	const set = (/** @type {number} */ px) => {
		const width = Math.round(Math.min(Math.max(px, WIDTH.least), WIDTH.most));
		compose.style.setProperty("--panel-width", `${width}px`);
		handle.setAttribute("aria-valuenow", String(width));
		if (px) localStorage.setItem(WIDTH.key, String(width));
	};
	set(Number(localStorage.getItem(WIDTH.key)) || WIDTH.usual);
	handle.addEventListener("pointerdown", (down) => {
		handle.setPointerCapture(down.pointerId);
		handle.onpointermove = ({ clientX }) => set(clientX);
		handle.onlostpointercapture = () => {
			handle.onpointermove = null;
		};
	});
	handle.addEventListener("keydown", (event) => {
		const way = { ArrowLeft: -20, ArrowRight: 20 }[event.key];
		if (!way) return;
		event.preventDefault();
		event.stopPropagation();
		set(handle.getBoundingClientRect().right + way);
	});
	return handle;
}

/** Refused text stays in its field, with the reason beside it, until other text is typed. */
function keepRefused(/** @type {any} */ field, /** @type {string} */ words, /** @type {string} */ why) {
	if (!field) return;
	field.value = words;
	field.dataset.refused = "";
	field.setAttribute("aria-invalid", "true");
	const told = el("p", { class: "wrong", id: `refused-${field.id || "field"}` }, why);
	field.setAttribute("aria-describedby", told.id);
	field.after(told);
	field.addEventListener(
		"input",
		() => {
			told.remove();
			field.removeAttribute("aria-invalid");
			delete field.dataset.refused;
		},
		{ once: true },
	);
}

export class Panel {
	/** @type {number} */
	letters;

	/** @param {ShowState} state */
	constructor(state, /** @type {MadeElement} */ node) {
		this.state = state;
		this.node = el("div", { class: "details" });
		this.path = el("nav", { class: "path", "aria-label": "Where this panel is" });
		node.append(this.path, this.node, new ObjectFold(state).node, widthHandle());
		this.tab = "builds";
		this.clipTab = "clip";
		this.kind = "enters";
		this.starting = "together";
		this.part = "";
		state.addEventListener("show", () => this.drawSoon());
		// Where nothing else is picked, as after somebody else's change, a hand at work is not disturbed.
		state.addEventListener("pick", () => {
			if (this.named() === this.subject) this.drawSoon();
			else this.draw();
		});
		state.addEventListener("trial", () => showTrial(state));
		state.addEventListener("tab", ({ detail }) => {
			state.showPanel("object");
			this.openTab(detail.tab, state.object([...state.picked][0])?.kind === "clip");
		});
		this.listenToHands();
		let beat = -1;
		state.addEventListener("time", () => {
			const now = state.line
				? state.line.schedule.beats.filter(
						(entry) => entry.start_ms <= state.playheadMs - (state.data.starts_ms[state.slide.id] ?? 0),
					).length
				: -1;
			if (now !== beat && !this.node.contains(document.activeElement)) {
				beat = now;
				this.draw();
			}
		});
		this.draw();
	}

	// What is pressed or typed in is not drawn anew under the hand when an edit is answered, or a part of the panel
	// comes: a click would be lost between press and let go, and letters between two keys.
	listenToHands() {
		this.owed = false;
		this.pressed = false;
		/** @type {any} the field that is typed in */
		this.typedIn = null;
		const afterwards = (/** @type {() => void} */ change) =>
			setTimeout(() => {
				change();
				this.settle();
			});
		this.node.addEventListener(
			"pointerdown",
			() => {
				this.pressed = true;
			},
			true,
		);
		for (const kind of ["pointerup", "pointercancel"])
			window.addEventListener(
				kind,
				() => {
					if (this.pressed)
						afterwards(() => {
							this.pressed = false;
						});
				},
				true,
			);
		this.letters = 0;
		this.node.addEventListener("input", (event) => {
			this.typedIn = event.target;
			this.letters += 1;
		});
		for (const kind of ["change", "focusout"])
			this.node.addEventListener(kind, ({ target }) => {
				const { letters } = this;
				afterwards(() => {
					if (this.typedIn === target && letters === this.letters) this.typedIn = null;
				});
			});
	}

	/** Draws the panel again once nobody presses or types in it. */
	drawSoon() {
		this.owed = true;
		this.settle();
	}

	settle() {
		if (this.owed && !this.pressed && !this.typedIn?.isConnected) this.draw();
	}

	openTab(/** @type {string} */ tab, ofClip = false) {
		if (ofClip) this.clipTab = tab;
		else this.tab = tab;
		this.draw();
	}
	openKind(/** @type {string} */ kind) {
		this.kind = kind;
		this.draw();
	}
	openStarting(/** @type {any} */ starting) {
		this.starting = starting;
		this.draw();
	}
	openPart(/** @type {any} */ part) {
		this.part = part;
		this.draw();
	}

	draw() {
		const { state, node } = this;
		const shown = this.parts();
		// What is still on its way leaves the panel as it was until then.
		if (!shown) return;
		this.owed = false;
		const subject = this.named();
		// Picking a build in the running order leaves the order where it is.
		const view = `${state.slide?.id}/${this.shows}`;
		const stays = subject === this.subject || (this.shows === "order" && view === this.view);
		this.view = view;
		const scrolled = () => node.querySelector(":scope > .order") ?? node;
		const scroll = stays ? scrolled().scrollTop : 0;
		// The keyboard never falls out of the panel: where what it was at is gone, it is at the tab that is open.
		const keepsPlace = keepPlace(
			node,
			() => node.querySelector('[role="tab"][aria-selected="true"]') ?? this.path.querySelector("[aria-current]"),
		);
		const refused =
			subject === this.subject
				? controlsOf(node)
						.filter((control) => "refused" in control.dataset)
						.map((control) => [nameOf(control), control.value])
				: [];
		this.subject = subject;
		node.replaceChildren(...shown.filter(Boolean));
		node.dataset.shows = this.shows;
		drawPath(state, this.path);
		scrolled().scrollTop = scroll;
		for (const [called, words] of refused)
			keepRefused(
				controlsOf(node).find((control) => nameOf(control) === called),
				words,
				state.refusal,
			);
		keepsPlace();
	}

	/** The subject of the panel: while it is the same, the panel keeps its scroll position. */
	named() {
		const { state } = this;
		return `${state.slide?.id}/${[...state.picked].join()}/${[...state.pickedSlides].join()}/${state.pickedSpan}/${state.pickedFraming}/${state.pickedMark}/${this.tab}${this.clipTab}/${state.level}/${state.slideTab}/${state.passage}/${state.showTab}`;
	}

	/** @returns {any} */
	parts() {
		const { state } = this;
		this.shows = state.level;
		if (state.level === "show")
			return this.later("show", (/** @type {any} */ { showPanel }) => showPanel(state, () => this.drawSoon()));
		if (!state.slide)
			return [
				el(
					"section",
					{},
					el("h2", {}, "No slides"),
					el("p", { class: "said" }, "Add the first with Slide, above the stage."),
				),
			];
		if (state.level === "slide") {
			this.shows = state.passage ?? state.slideTab;
			return slidePanel(state, () => this.drawSoon());
		}
		if (state.pickedSpan) return this.later("music", (/** @type {any} */ { musicPanel }) => musicPanel(state));
		if (state.pickedMark) return this.later("mark", (/** @type {any} */ { markPanel }) => markPanel(state));
		if (state.pickedFraming) return this.later("framing", (/** @type {any} */ { framingPanel }) => framingPanel(state));
		if (state.picked.size === 1)
			return this.later("object", (/** @type {any} */ { objectPanel }) => objectPanel(state, this));
		if (state.picked.size > 1)
			return this.later("several", (/** @type {any} */ { severalPanel }) => severalPanel(state, this));
		if (state.pickedSlides.size > 1 || (state.pickedSlides.size && !document.getElementById("overview").hidden))
			return this.later("slides", (/** @type {any} */ { slidesPanel }) => slidesPanel(state));
		state.level = "slide";
		return this.parts();
	}

	later(/** @type {string} */ name, /** @type {(value: any) => any} */ draw) {
		const part = /** @type {any} */ (parts)[name];
		if (part.ready) return draw(part.ready);
		part.get().then(() => this.drawSoon());
		return null;
	}
}
