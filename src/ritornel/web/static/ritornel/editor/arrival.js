// What happens when a show is opened: messages from the page before, and questions it left for this one.
import { toast } from "../ui/toast.js";

/** Tells each message once. @param {ShowState} state */
export async function tellOnArrival(state) {
	for (const key of ["ritornel-told", "ritornel-note"]) {
		const words = sessionStorage.getItem(key);
		if (!words) continue;
		sessionStorage.removeItem(key);
		toast(words, { wrong: key === "ritornel-told" });
	}
	// A show that was begun from pictures and sounds: which voice goes where is asked once.
	if (location.hash !== "#voices") return;
	history.replaceState(null, "", location.pathname + location.search);
	const sounds = state.data.assets.filter((/** @type {ShelfAsset} */ { kind }) => kind === "sound");
	const { showPairs } = await import("../panel/voice-pairs.js");
	showPairs(
		state,
		sounds.map((/** @type {any} */ asset) => ({ name: asset.name, asset })),
	);
}
