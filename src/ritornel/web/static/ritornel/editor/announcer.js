// Announcements for screen readers: the selection and its place, and the result of an edit. They wait until the hand
// rests, so that ten steps of an arrow key are one sentence.
// The module about refusals is loaded before the line can be lost.
import "./refused.js";
import { SlideList } from "../stage/slide-list.js";
import { el } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";

const RESTS_MS = 300;
const whole = (/** @type {any} */ value) => String(Math.round(value));

const nameOfSlide = (/** @type {any} */ state, /** @type {string} */ id) =>
	`Slide ${state.data.numbers[id]} ${state.data.slides[id].name || "Untitled"}`;

/** The selection: “Pallets, shape, 2 of 8”. @param {ShowState} state */
export function pickWords(state) {
	const { slide } = state;
	if (state.pickedSlides.size > 1) return `${countWords(state.pickedSlides.size, "slide")} picked`;
	if (state.pickedBuild) {
		const build = state.build(state.pickedBuild);
		if (build)
			return `${buildWords(state, build)}, build ${state.line.builds.indexOf(build) + 1} of ${state.line.builds.length}`;
	}
	if (state.picked.size > 1) return `${countWords(state.picked.size, "object")} picked`;
	const [id] = state.picked;
	const item = id && state.object(id);
	if (!item) return "";
	// From the front, as the list of objects has them.
	const place = slide.objects.length - slide.objects.indexOf(item);
	return `${item.name}, ${item.kind}, ${place} of ${slide.objects.length}`;
}

/** When a build runs: “Pallets, settle, 5.0 to 5.9 s”. @param {ShowState} state */
function buildWords(state, /** @type {any} */ build) {
	const from = state.line.schedule.beats[build.beat].start_ms + build.offset_ms;
	return `${build.name}, ${build.title.toLowerCase()}, ${secondsText(from)} to ${secondsText(from + build.runs_ms)} s`;
}

/** What an edit changed of the selection, with its numbers; nothing where it changed something else. */
function changeWords(/** @type {any} */ before, /** @type {any} */ after) {
	if (!before || !after || before.id !== after.id) return "";
	if (before.build && after.build && before.build !== after.build) return after.build;
	const [a, b] = [before.box, after.box];
	if (!a || !b) return "";
	const said = [];
	if (a.x !== b.x || a.y !== b.y) said.push(`at ${whole(b.x)}, ${whole(b.y)}`);
	if (a.width !== b.width || a.height !== b.height) said.push(`${whole(b.width)} wide, ${whole(b.height)} high`);
	if ((a.turn_deg ?? 0) !== (b.turn_deg ?? 0)) said.push(`turned by ${whole(b.turn_deg ?? 0)} degrees`);
	return said.length ? `${after.name} ${said.join(", ")}` : "";
}

/** @param {ShowState} state */
function snapshot(state) {
	const build = state.pickedBuild ? state.build(state.pickedBuild) : null;
	const [id] = state.picked.size === 1 ? state.picked : [];
	const item = id ? state.object(id) : null;
	return { id: build?.id ?? item?.id, name: item?.name, box: item?.box, build: build ? buildWords(state, build) : "" };
}

export class Announcer {
	/** @param {ShowState} state */
	constructor(state) {
		this.state = state;
		this.node = el("div", { class: "sr-only", role: "status", id: "announced" });
		document.body.append(this.node);
		new SlideList(state, document.querySelector("[data-stage]"));
		this.revision = state.data.revision;
		this.slide = state.slide?.id;
		this.before = snapshot(state);
		this.picked = pickWords(state);
		for (const kind of ["pick", "show"]) state.addEventListener(kind, () => this.later());
	}

	later() {
		clearTimeout(this.timer);
		this.timer = setTimeout(() => this.tell(), RESTS_MS);
	}

	tell() {
		const { state } = this;
		const words = [];
		const after = snapshot(state);
		if (state.data.revision !== this.revision) {
			this.revision = state.data.revision;
			words.push(state.outcome || changeWords(this.before, after) || (state.data.history.undo ?? ""));
			state.outcome = null;
		}
		if (state.slide?.id !== this.slide) {
			this.slide = state.slide?.id;
			if (this.slide)
				words.push(
					`${nameOfSlide(state, this.slide)}, ${countWords(state.slide.objects.length, "object")}, ${countWords(state.waitsOf(this.slide), "wait")}`,
				);
		}
		const picked = pickWords(state);
		if (picked && picked !== this.picked && after.id !== this.before.id) words.push(picked);
		this.picked = picked;
		this.before = after;
		const said = words.filter(Boolean).join(". ");
		if (said) this.node.textContent = said;
	}
}
