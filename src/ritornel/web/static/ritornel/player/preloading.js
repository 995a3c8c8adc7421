// Fetching what a show needs before it needs it: one slide after another, some slides ahead of what is seen. Sounds
// come by themselves, in their order.
import { comingSlides } from "./frame-state.js";

/** @param {import("./player.js").ShowPlayer} player */
export function fetchAhead(player) {
	const came = new Set();
	let busy = false;
	const go = async () => {
		if (busy) return;
		busy = true;
		while (player.running) {
			const { index } = player.moment();
			const next = comingSlides(player.show.slides.length, index).find((slide) => !came.has(slide));
			if (next === undefined) break;
			came.add(next);
			await player.painter.ready(next);
		}
		busy = false;
	};
	player.addEventListener("moment", go);
	go();
}
