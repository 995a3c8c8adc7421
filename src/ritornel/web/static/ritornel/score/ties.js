// Ties: the objects that a carry brings into a slide. They are requested when its bar is visible, once for each state
// of the two slides.
import { get } from "../ui/requests.js";

/** @type {Tie[]} */
const NONE = [];

export class Ties {
	/** @param {ShowState} state */
	constructor(state, /** @type {() => void} */ arrived) {
		this.state = state;
		this.arrived = arrived;
		this.known = new Map();
	}

	/** @returns {Tie[]} the pairs of the carry into a slide, empty until they are known */
	of(/** @type {SlideLine} */ line) {
		if (line.transition.name !== "carry") return NONE;
		const { data } = this.state;
		const shown = data.order.filter((id) => !data.slides[id].skipped);
		const before = data.slides[shown[shown.indexOf(line.id) - 1]];
		if (!before) return NONE;
		// The small pictures' addresses change with what the slides show, so that they tell one state from another.
		const key = `${before.thumb} ${line.thumb} ${JSON.stringify(line.carrying)}`;
		if (!this.known.has(key)) {
			this.known.set(key, NONE);
			get(`${this.state.base}/slides/${line.id}/ties.json`)
				.then(({ ties }) => {
					this.known.set(key, ties);
					this.arrived();
				})
				.catch(() => this.known.delete(key));
		}
		return this.known.get(key);
	}
}
