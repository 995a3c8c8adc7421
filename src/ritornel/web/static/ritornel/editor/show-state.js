// The show as the page knows it, and the only way to change it: edits are posted one after another, each on the
// revision before.
import { newId } from "../ui/element.js";
import { get, postUntilAnswered } from "../ui/requests.js";
import { keepEdit } from "./kept-edits.js";
import { openStream } from "../ui/stream.js";
import { toast } from "../ui/toast.js";

export const OTHER_WAY = { "on cue": "self-running", "self-running": "on cue" };

/**
 * Events: "show" when the show changed, "pick" when the selection changed, "time" when the playhead moved, "shelf" to
 * open the shelf, "want" when a place wants a picture.
 */
export class ShowState extends EventTarget {
	constructor(/** @type {any} */ start) {
		super();
		this.showId = start.show_id;
		this.base = `/shows/${start.show_id}`;
		this.window = newId();
		/** @type {ShowData} */
		this.data = start;
		this.picked = new Set();
		this.pickedSlides = new Set();
		this.pickedBuild = null;
		this.pickedSpan = null;
		this.pickedFraming = null;
		this.pickedMark = null;
		this.level = "slide";
		this.slideTab = "order";
		this.showTab = "runs";
		/** @type {string | null} the passage whose panel is open */
		this.passage = null;
		/** @type {any} what is tried before it is chosen */
		this.trial = null;
		this.playheadMs = 0;
		this.waiting = Promise.resolve(true);
		this.pending = 0;
		/** How often the person went to something else. */
		this.steps = 0;
		this.hands = 0;
		/** @type {((value?: any) => void)[]} what waits until all hands have let go */
		this.freed = [];
		/** The result of an edit in words, where its maker knows better than a comparison. */
		this.outcome = /** @type {string | null} */ (null);
		/** @type {string | null} the picture that is being cropped */
		this.cutting = null;
		/** @type {any} what is being tried under somebody's hand */
		this.wanted = null;
		/** @type {any} what stays as it is while the panel is drawn anew */
		this.clipWatch = null;
		this.keepsProportion = {};
		this.unfolded = "";
		/** @type {any} the look that is carried to other objects */
		this.carriedLook = null;
		if (start.viewing) this.playheadMs = this.restMs(start.viewing.slide.id);
	}

	/** @returns {Core.Slide} */
	get slide() {
		return /** @type {any} */ (this.data.viewing?.slide ?? null);
	}
	/** @returns {PlayedSlide} */
	get staged() {
		return /** @type {any} */ (this.data.viewing?.staged ?? null);
	}
	/** @returns {SlideLine} */
	get line() {
		return /** @type {any} */ (this.slide ? this.data.slides[this.slide.id] : null);
	}
	get shown() {
		return this.data.order.filter((/** @type {string} */ id) => !this.data.slides[id].skipped);
	}

	/** @returns {Core.SlideObject} */
	object(/** @type {string} */ id) {
		return /** @type {any} */ (this.slide?.objects.find((item) => item.id === id) ?? null);
	}
	build(/** @type {string} */ id) {
		return this.line?.builds.find((/** @type {any} */ entry) => entry.id === id) ?? null;
	}
	/** @returns {ShelfAsset} */
	asset(/** @type {string} */ id) {
		return /** @type {any} */ (this.data.assets.find((entry) => entry.id === id) ?? null);
	}
	media() {
		return Object.fromEntries(this.data.assets.map((/** @type {any} */ entry) => [entry.id, entry.shown]));
	}

	/** When the last beat of a slide has ended, on the show's clock. */
	restMs(/** @type {string} */ slideId) {
		const { beats } = this.data.slides[slideId].schedule;
		return (this.data.starts_ms[slideId] ?? 0) + beats[beats.length - 1].end_ms;
	}

	tell(/** @type {string} */ kind) {
		this.dispatchEvent(new Event(kind));
	}

	/**
	 * `since`: the `steps` when the edit of this answer was sent; a person who has gone on since then is not taken
	 * back.
	 */
	pick(
		/** @type {string[]} */ objectIds,
		{
			build = null,
			span = null,
			framing = null,
			mark = null,
			level = null,
			since = this.steps,
		} = /** @type {any} */ ({}),
	) {
		if (since !== this.steps) return;
		this.steps += 1;
		this.level = level ?? (objectIds.length || span || framing || mark ? "object" : "slide");
		this.passage = null;
		this.picked = new Set(objectIds);
		if (this.cutting && !this.picked.has(this.cutting)) this.cutting = null;
		this.pickedSlides.clear();
		this.pickedBuild = build;
		this.pickedSpan = span;
		this.pickedFraming = framing;
		this.pickedMark = mark;
		this.tell("pick");
	}

	/** The way of running that score and overview show: the show's own, or the other. */
	get way() {
		const { runs } = this.data.settings;
		return this.otherWay ? OTHER_WAY[/** @type {keyof typeof OTHER_WAY} */ (runs)] : runs;
	}

	showWay(/** @type {string} */ way) {
		this.otherWay = way !== this.data.settings.runs;
		this.tell("show");
	}

	/** Whether a slide waits for a cue after its last beat, in the way that is shown. */
	waitsToLeave(/** @type {string} */ id) {
		return this.way === "on cue" ? this.data.cued.includes(id) : this.data.slides[id].schedule.last_wait !== null;
	}

	/** How many waits a slide has, in the way that is shown. */
	waitsOf(/** @type {string} */ id) {
		return this.data.slides[id].schedule.beats.length - 1 + (this.waitsToLeave(id) ? 1 : 0);
	}

	/** Selects the target of a build, and the build itself; the panel shows the object, or stays at the slide. */
	pickBuild(/** @type {any} */ { id, kind, object_id: target }, level = "object") {
		const views = kind === "views";
		this.pick(views ? [] : [target], { build: id, framing: views ? target : null, level });
	}

	/**
	 * Opens the panel of the show, of the slide with one of its tabs or passages, or of the selection.
	 * @param {"show" | "slide" | "object"} level
	 */
	showPanel(level, { tab = this.slideTab, passage = /** @type {string | null} */ (null) } = {}) {
		this.steps += 1;
		Object.assign(this, { level, slideTab: tab, passage });
		this.tell("pick");
	}

	/** Selects several slides, to change them together. */
	pickSlides(/** @type {Iterable<string>} */ ids) {
		this.steps += 1;
		this.pickedSlides = new Set(ids);
		this.level = this.pickedSlides.size > 1 ? "object" : "slide";
		this.passage = null;
		this.picked.clear();
		this.pickedBuild = null;
		this.pickedSpan = null;
		this.pickedFraming = null;
		this.pickedMark = null;
		this.tell("pick");
	}

	setPlayhead(/** @type {number} */ ms) {
		this.playheadMs = Math.max(0, Math.min(ms, this.data.length_ms));
		this.tell("time");
	}

	/** Opens a slide on the stage; the playhead goes to `atMs`, else to the slide's last beat. */
	async open(/** @type {string} */ slideId, atMs = /** @type {number | null} */ (null)) {
		if (this.slide?.id !== slideId) {
			// What was typed last may be on its way: its answer must not bring the slide before back.
			this.opening = slideId;
			this.steps += 1;
			await this.waiting;
			const viewing = await get(`${this.base}/slides/${slideId}.json`);
			// Of several that were asked for one after another the last is meant.
			if (this.opening !== slideId) return;
			this.data.viewing = viewing;
			if (this.level === "object") this.level = "slide";
			this.picked.clear();
			this.pickedSlides.clear();
			this.pickedBuild = null;
			this.pickedFraming = null;
			this.pickedMark = null;
			history.replaceState(null, "", `?slide=${slideId}`);
		}
		this.pickedSpan = null;
		this.playheadMs = atMs ?? this.restMs(slideId);
		this.tell("show");
		this.tell("time");
	}

	/**
	 * Posts an edit. True when it was made; false when it was refused, which is told, and the page shows the show as it
	 * is.
	 * An edit may be a function: it is asked for the edit when its turn has come, so that it builds on the edits before
	 * it.
	 */
	edit(/** @type {any} */ edit, more = {}) {
		const ask = typeof edit === "function" ? edit : () => edit;
		let kept = null;
		try {
			// It may be another when its turn comes; whichever is sent, it is made once.
			const value = ask();
			if (value) kept = this.keepChange("edit", { edit: value, ...more });
		} catch {
			// Its turn tells what is wrong.
		}
		return this.inTurn(async () => {
			const value = ask();
			if (value) await this.save("edit", { edit: value, ...more }, kept ?? undefined);
			else kept?.forget();
		}, edit);
	}

	keepChange(/** @type {string} */ where, /** @type {any} */ body) {
		const { revision, me: person } = this.data;
		return keepEdit({ show: this.showId, person, where, body: { revision, ...body } });
	}

	/** The server stops answering, or answers again. */
	tellUnanswered(/** @type {any} */ unanswered) {
		this.unanswered = unanswered;
		this.tell("kept");
	}

	/** Somebody drags something: answers wait until the release, so that nothing is drawn again under the hand. */
	hold() {
		this.hands += 1;
	}

	letGo() {
		this.hands -= 1;
		if (!this.hands) for (const go of this.freed.splice(0)) go();
	}

	handsFree() {
		return this.hands
			? new Promise((go) => {
					this.freed.push(go);
				})
			: null;
	}

	/**
	 * Posts a change until it is answered, and shows the result. A change that was made before its answer was lost is
	 * shown as it is now.
	 */
	async save(/** @type {string} */ where, /** @type {any} */ body, kept = this.keepChange(where, body)) {
		const reply = await postUntilAnswered(
			`${this.base}/${where}`,
			{ revision: this.data.revision, ...body, viewing: this.slide?.id },
			kept.id,
			(unanswered) => this.tellUnanswered(unanswered),
		).finally(() => kept.forget());
		await this.handsFree();
		// An answer tells what changed since a revision; where this page has an older one, it lacks what others did.
		if (reply.again || reply.since > this.data.revision) await this.refresh();
		else this.take(reply);
		this.tellOverruled(reply.overruled, "yours holds");
		return reply;
	}

	/** Tells of values that two people changed at the same time. */
	async tellOverruled(/** @type {any} */ entries, /** @type {any} */ holds) {
		if (entries?.length) (await import("./overruled.js")).tellOverruled(this, entries, holds);
	}

	undo() {
		return this.inTurn(async () => this.step("undo"));
	}
	redo() {
		return this.inTurn(async () => this.step("redo"));
	}

	async step(/** @type {string} */ way) {
		const reply = await this.save(way, {});
		if (reply.label)
			toast(
				`${way === "undo" ? "Undone" : "Done again"}: ${reply.label}.`,
				way === "undo" ? { act: "Do it again", onact: () => this.redo() } : { act: "Undo", onact: () => this.undo() },
			);
	}

	/**
	 * Adds files to the shelf.
	 * @param {{file: File, folder?: string, came?: (asset: ShelfAsset) => void}[]} files `came` is told the entry a file
	 * became
	 * @returns {Promise<ShelfAsset[]>} the new entries
	 */
	async addFiles(files) {
		return (await import("../shelf/adding.js")).addFiles(this, files);
	}

	/** Adds the new entry of the shelf from an answer. */
	async addAsset(/** @type {any} */ { revision, history: steps, asset }) {
		// Where others have changed the show meanwhile, all of it is asked for.
		if (revision > this.data.revision + 1) {
			await this.refresh();
			return;
		}
		Object.assign(this.data, { revision, history: steps });
		this.data.assets = [...this.data.assets.filter((/** @type {ShelfAsset} */ { id }) => id !== asset.id), asset];
	}

	/** The caller reports a failure. */
	quietly(/** @type {any} */ work) {
		const result = this.waiting.then(work);
		this.waiting = result.catch(() => false);
		return result;
	}

	/** Copies slides or objects from another show. */
	bring(/** @type {any} */ body) {
		return this.inTurn(async () => {
			await this.save("bring", body);
		});
	}

	inTurn(/** @type {any} */ work, edit = null) {
		this.pending += 1;
		this.tell("kept");
		const result = this.waiting
			.then(work)
			.then(
				() => true,
				async (error) => {
					if (error.stale) await this.refresh();
					this.refusal = error.message;
					import("./refused.js").then(({ tellRefused }) => tellRefused(this, error, edit));
					// Whoever asked learns first that it was refused, and marks where that was typed; then everything is shown as
					// it is.
					setTimeout(() => this.tell("show"));
					return false;
				},
			)
			.finally(() => {
				this.pending -= 1;
				this.tell("kept");
			});
		this.waiting = result;
		return result;
	}

	take(/** @type {any} */ reply) {
		const { data } = this;
		const id = this.slide?.id;
		const offset = this.playheadMs - (data.starts_ms[id] ?? 0);
		const atRest = id ? offset >= this.restMs(id) - (data.starts_ms[id] ?? 0) : false;
		const place = data.order.indexOf(id);
		/** @type {Record<string, any>} */
		const slides = {};
		for (const slideId of reply.order) slides[slideId] = reply.slides[slideId] ?? data.slides[slideId];
		for (const field of [
			"revision",
			"history",
			"settings",
			"order",
			"numbers",
			"cued",
			"starts_ms",
			"content_ms",
			"length_ms",
			"music",
			"spans",
			"lost_spans",
			"marks",
			"voices",
		])
			/** @type {any} */ (data)[field] = reply[field];
		if (reply.assets) data.assets = reply.assets;
		if (reply.uses) data.uses = reply.uses;
		data.slides = slides;
		// An answer tells of the slide that was open when it was asked for; by now another may be.
		if (reply.viewing && reply.viewing.slide.id === id) data.viewing = reply.viewing;
		else if (id && !slides[id]) data.viewing = /** @type {any} */ (null);
		this.dropLost();
		if (data.viewing)
			this.playheadMs = atRest
				? this.restMs(id)
				: (data.starts_ms[id] ?? 0) + Math.min(offset, slides[id].schedule.length_ms);
		if (reply.notices?.length) toast(reply.notices.join(" "), { act: "Undo", onact: () => this.undo() });
		if (!data.viewing && data.order.length) this.open(data.order[Math.min(Math.max(place, 0), data.order.length - 1)]);
		else {
			this.tell("show");
			this.tell("time");
		}
	}

	dropLost() {
		for (const id of this.picked) if (!this.object(id)) this.picked.delete(id);
		for (const id of this.pickedSlides) if (!this.data.slides[id]) this.pickedSlides.delete(id);
		if (this.pickedBuild && !this.build(this.pickedBuild)) this.pickedBuild = null;
		const flown = (/** @type {string} */ id) =>
			this.line?.builds.some((/** @type {any} */ build) => build.kind === "views" && build.object_id === id);
		if (
			this.pickedFraming &&
			!this.slide?.framings.some((framing) => framing.id === this.pickedFraming) &&
			!flown(this.pickedFraming)
		)
			this.pickedFraming = null;
		if (this.pickedMark && !this.data.marks.some((/** @type {any} */ mark) => mark.id === this.pickedMark))
			this.pickedMark = null;
		if (this.pickedSpan && !this.data.spans.some((/** @type {any} */ span) => span.id === this.pickedSpan))
			this.pickedSpan = null;
	}

	/** Asks for the changes of others. Typing and dragging are waited for. */
	async refresh() {
		const asked = new URLSearchParams({ since: String(this.data.revision), viewing: this.slide?.id ?? "" });
		const reply = await get(`${this.base}/changes.json?${asked}`);
		await this.handsFree();
		this.takeOthers(reply);
		this.tellOverruled(reply.overruled, "that holds now");
	}

	/** Takes the changes of others, or asks for more where this page needs it. */
	hear(/** @type {any} */ told) {
		const { data } = this;
		this.waiting = this.waiting
			.then(async () => {
				if (told.revision <= data.revision) return;
				await this.handsFree();
				if (told.since !== data.revision || told.ask.includes(data.me) || told.stages.includes(this.slide?.id))
					await this.refresh();
				else this.takeOthers({ ...told, history: data.history });
			})
			.then(
				() => true,
				() => false,
			);
	}

	takeOthers(/** @type {any} */ reply) {
		this.take(reply);
		this.tell("pick");
	}

	/** Follows the show, so that two windows see each other's changes. */
	follow() {
		openStream(`${this.base}/events?window=${this.window}`, {
			revision: (revision) => this.hear({ revision }),
			changes: (told) => this.hear(told),
			people: (detail) => this.dispatchEvent(new CustomEvent("people", { detail })),
			over: () => toast("Your access to this show was withdrawn. What you made is kept.", { wrong: true, stays: true }),
		});
	}
}
