// What an edit would change, shown while somebody still drags.
import { post } from "../ui/requests.js";

/**
 * Asks what an edit would change, and shows it (event "trial"): `state.trial` is the show as it would be. Of the edits
 * that come while an answer is on its way only the last is asked for.
 * @param {ShowState} state
 */
export function attempt(state, /** @type {any} */ edit, shown = /** @type {() => void} */ (() => undefined)) {
	const busy = Boolean(state.wanted);
	state.wanted = { edit, shown };
	if (!busy) ask(state);
}

/** @param {ShowState} state */
async function ask(state) {
	let asked = null;
	while (state.wanted && state.wanted !== asked) {
		asked = state.wanted;
		const reply = await post(`${state.base}/would`, { edit: asked.edit, viewing: state.slide?.id }).catch(() => null);
		if (!state.wanted || !reply) continue;
		const { data } = state;
		state.trial = {
			...data,
			...reply,
			slides: Object.fromEntries(
				reply.order.map((/** @type {string} */ id) => [id, reply.slides[id] ?? data.slides[id]]),
			),
		};
		asked.shown();
		state.tell("trial");
	}
	state.wanted = null;
}

/** Ends the trial. @param {ShowState} state */
export function endAttempt(state) {
	state.wanted = null;
	if (!state.trial) return;
	state.trial = null;
	state.tell("trial");
}
