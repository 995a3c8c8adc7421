// Loading in advance what a show needs: slide by slide, some slides ahead. Sounds are loaded separately, in their
// order.
import { comingSlides } from "./frame-state.js";

/**
 * The fonts of a slide's text: loaded before the text appears, while there is a line.
 * @param {PlayedSlide} slide
 */
function fontsOf(slide) {
	const marks = slide.drawing.objects.flatMap(({ parts }) => parts.flatMap((part) => part.marks));
	const faces = marks
		.filter(({ kind }) => kind === "text")
		.map(({ family, weight, italic }) => `${italic ? "italic " : ""}${weight} 16px "${family}"`);
	return [...new Set(faces)];
}

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
			const fonts = fontsOf(player.show.slides[next]).map((face) => document.fonts.load(face).catch(() => null));
			await Promise.all([player.painter.ready(next), ...fonts]);
		}
		busy = false;
	};
	player.addEventListener("moment", go);
	go();
}
