// What Play does: where it starts, and whether the show runs on cue or by itself. The last choice is remembered for the
// show, on this device.

/** @type {{[from: string]: string}} */
const FROM_WORDS = { here: "from here", start: "from the start" };
export const CHOICES = ["here", "start"].flatMap((from) => ["on cue", "self-running"].map((mode) => ({ from, mode })));

/** @param {string} showId */
const keyOf = (showId) => `ritornel-play-${showId}`;

/**
 * The choice for a show that `runs` in a way.
 * @param {string} showId
 * @param {string} runs
 */
export function playChoice(showId, runs) {
	const [from, mode] = (localStorage.getItem(keyOf(showId)) ?? "").split("|");
	return CHOICES.find((choice) => choice.from === from && choice.mode === mode) ?? { from: "here", mode: runs };
}

/** @param {string} showId @param {{from: string, mode: string}} choice */
export const keepChoice = (showId, { from, mode }) => localStorage.setItem(keyOf(showId), `${from}|${mode}`);

/** @param {{from: string, mode: string}} choice */
export const choiceWords = ({ from, mode }) => `Play ${FROM_WORDS[from]}, ${mode}`;
