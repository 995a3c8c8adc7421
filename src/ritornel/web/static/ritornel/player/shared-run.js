// One run on several screens. Each screen follows the same state machine on its own clock. The screen where somebody
// acts sends the new state with a higher number, and the highest number wins. So any screen can be closed and opened
// again, and the clocks of two devices are never compared.

const ALIVE_MS = 1000;
const LOST_MS = 3500;

/**
 * Events: "met" when another screen appears, "lost" when it has been silent for a while, "adopted", "changed" when
 * the House has an older show than the Lectern, "other" (detail: a message of another kind).
 */
export class SharedRun extends EventTarget {
	/** @param {import("./player.js").ShowPlayer} player @param {{role: "lectern"|"house", revision: number}} options */
	constructor(player, { role, revision }) {
		super();
		this.player = player;
		this.role = role;
		this.revision = revision;
		this.seq = 0;
		/** @type {any[]} */
		this.links = [];
		this.others = new Map();
		this.me = `${role} ${crypto.getRandomValues(new Uint32Array(1))[0].toString(36)}`;
		player.addEventListener("acted", () => {
			if (!this.adopting && player.running && player.state) {
				this.seq += 1;
				this.sayState();
			}
		});
		this.alive = setInterval(() => this.breathe(), ALIVE_MS);
	}

	/** @param {any} link */
	add(link) {
		this.links.push(link);
		this.say({ kind: "hello" });
		if (this.player.running) this.sayState();
	}

	/** @param {any} message */
	say(message) {
		for (const link of this.links) link.say({ from: this.me, role: this.role, ...message });
	}

	sayState() {
		const { player } = this;
		this.say({
			kind: "state",
			seq: this.seq,
			revision: this.revision,
			slide_id: player.show.slides[player.state.index].id,
			...player.snapshot(),
		});
	}

	/**
	 * A state of another edition of the show, translated to this one: the same slide, as many beats on as it has.
	 * Null where the slide is missing.
	 * @param {{revision: number, slide_id: any, state: any}} message
	 */
	fitted({ revision, slide_id: id, state }) {
		if (revision === this.revision) return state;
		const index = this.player.show.slides.findIndex((slide) => slide.id === id);
		if (index < 0) return null;
		const beat = Math.min(state.beat, this.player.show.slides[index].schedule.beats.length - 1);
		return { ...state, index, beat, begun_ms: state.begun_ms.slice(0, beat + 1), from_index: -1 };
	}

	breathe() {
		const { player } = this;
		// A browser may want a press before it lets sound be heard: only the screen itself knows.
		this.say({
			kind: "here",
			seq: this.seq,
			index: player.state?.index ?? null,
			beat: player.state?.beat ?? null,
			silent: player.audio?.state === "suspended",
		});
		const now = performance.now();
		for (const [from, other] of this.others) {
			if (now - other.at < LOST_MS) continue;
			this.others.delete(from);
			this.dispatchEvent(new CustomEvent("lost", { detail: other }));
		}
	}

	/**
	 * Whether a screen of this role was heard from recently.
	 * @param {string} role
	 */
	has(role) {
		return [...this.others.values()].some((other) => other.role === role);
	}

	/** @param {any} message */
	hear(message) {
		if (message.from === this.me) return;
		if (message.from) {
			const met = !this.others.has(message.from);
			this.others.set(message.from, { ...this.others.get(message.from), ...message, at: performance.now() });
			if (message.kind === "bye") {
				this.others.delete(message.from);
				this.dispatchEvent(new CustomEvent("lost", { detail: message }));
				return;
			}
			if (met || message.kind === "here") this.dispatchEvent(new CustomEvent("met", { detail: message }));
		}
		if (message.kind === "hello") {
			if (this.player.running && this.player.state) this.sayState();
			this.dispatchEvent(new CustomEvent("hello", { detail: message }));
		} else if (message.kind === "state") this.hearState(message);
		else if (message.kind === "here") {
			// Who fell behind while its line was cut asks.
			if (message.seq > this.seq) this.say({ kind: "hello" });
			else if (message.seq < this.seq && this.player.running) this.sayState();
		} else this.dispatchEvent(new CustomEvent("other", { detail: message }));
	}

	/** @param {any} message */
	async hearState(message) {
		const first = !this.player.running;
		if (message.seq < this.seq || (message.seq === this.seq && !first)) return;
		this.seq = message.seq;
		// The House fetches a show that was changed; a Lectern in the middle of its run does not.
		if (this.role === "house" && message.revision > this.revision) {
			this.dispatchEvent(new CustomEvent("changed", { detail: message }));
			return;
		}
		const state = this.fitted(message);
		if (!state) return;
		/** @type {any} */
		this.waiting = { ...message, state };
		if (first) {
			if (this.beginning) return;
			this.beginning = true;
			const came = performance.now();
			const { waiting } = this;
			await this.player.begin(state.index, { ready: Boolean(waiting.ready) });
			this.beginning = false;
			// What began while pictures were fetched goes on from where it is by now.
			if (this.waiting === waiting && !waiting.paused && !waiting.ready)
				this.waiting = { ...waiting, now_ms: waiting.now_ms + performance.now() - came };
		}
		this.adopting = true;
		this.player.adopt(this.waiting);
		this.adopting = false;
		this.dispatchEvent(new CustomEvent("adopted", { detail: this.waiting }));
	}

	close() {
		clearInterval(this.alive);
		this.say({ kind: "bye" });
		for (const link of this.links) link.close();
		this.links = [];
	}
}
