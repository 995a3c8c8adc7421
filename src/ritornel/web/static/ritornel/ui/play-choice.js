// What Play does: from where, and whether the show runs on cue or by itself. What was chosen last stays chosen for the
// show, on this device.

const FROM_WORDS = { here: "from here", start: "from the start" };
export const CHOICES = ["here", "start"].flatMap((from) => ["on cue", "self-running"].map((mode) => ({ from, mode })));

const keyOf = (showId) => `ritornel-play-${showId}`;

/** The choice for a show that `runs` in a way. */
export function playChoice(showId, runs) {
	const [from, mode] = (localStorage.getItem(keyOf(showId)) ?? "").split("|");
	return CHOICES.find((choice) => choice.from === from && choice.mode === mode) ?? { from: "here", mode: runs };
}

export const keepChoice = (showId, { from, mode }) => localStorage.setItem(keyOf(showId), `${from}|${mode}`);

export const choiceWords = ({ from, mode }) => `Play ${FROM_WORDS[from]}, ${mode}`;
