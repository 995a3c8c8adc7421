// Edits that an earlier window kept. They are sent when the show is opened again on this device, in their order, each
// once.
import { postUntilAnswered } from "../ui/requests.js";
import { toast } from "../ui/toast.js";
import { countWords } from "../ui/wording.js";
import { answered, store } from "./kept-edits.js";

/** Tells of a refused edit, which can be made again on the present show. @param {ShowState} state */
function sayRefused(state, /** @type {any} */ error, /** @type {any} */ { edit }) {
	const more = error.gone?.length ? { bring_back: error.gone } : {};
	const again = error.gone?.length ? "Bring it back with your change" : "Make it again";
	toast(error.message, { wrong: true, ...(edit ? { act: again, onact: () => state.edit(edit, more) } : {}) });
}

/**
 * Sends the edits that an earlier window of this person kept for this show, before anything else is sent.
 * @param {ShowState} state
 */
export async function sendKept(state) {
	const all = await store("readonly")
		.then((/** @type {any} */ edits) => (edits ? answered(edits.getAll()) : []))
		.catch(() => []);
	const mine = all.filter((/** @type {any} */ { show, person }) => show === state.showId && person === state.data.me);
	if (!mine.length) return;
	await state.quietly(async () => {
		let revision = null;
		const refused = [];
		for (const { number, id, where, body } of mine) {
			const sent = { ...body, revision: revision ?? body.revision };
			try {
				const reply = await postUntilAnswered(`${state.base}/${where}`, sent, id, (unanswered) =>
					state.tellUnanswered(unanswered),
				);
				revision = reply.revision ?? revision;
			} catch (error) {
				refused.push({ error, body });
			}
			await answered((await store("readwrite")).delete(number));
		}
		await state.refresh();
		const made = mine.length - refused.length;
		if (made) toast(`${countWords(made, "change")} from before ${made === 1 ? "is" : "are"} saved now.`);
		for (const { error, body } of refused) sayRefused(state, error, body);
	});
}
