// Captions of clips and voices while they play: core/reference/captions.py, caption_in and spoken_at.
import { el } from "../ui/element.js";
import { keyOf, taken } from "../ui/free-keys.js";

const KEPT = "ritornel-captions";

/**
 * The caption of a clip's mark at this share of its playing time.
 * @param {Core.Mark} mark
 * @param {number} played
 */
export function captionAt({ captions = [], in_ms: from = 0, out_ms: to = 1 }, played) {
	if (played === null || played === undefined || played < 0 || played >= 1) return "";
	const at = Math.min(from + played * (to - from), to - 1);
	return (
		captions.find((/** @type {Core.Caption} */ { start_ms: start, end_ms: end }) => start <= at && at < end)?.text ?? ""
	);
}

/** @param {{parts: Core.PartDrawing[]}} drawing */
const marksOf = ({ parts }) => parts.flatMap(({ marks }) => marks).filter(({ captions }) => captions?.length);

/** @param {PlayedShow} show */
export const hasCaptions = (show) =>
	show.slides.some(({ drawing, spoken }) => spoken?.length || drawing.objects.some((item) => marksOf(item).length));

/**
 * The caption of a slide's voice at an instant of the slide's clock.
 * @param {PlayedShow} show
 * @param {number} index
 * @param {number} slideMs
 */
export const spokenAt = (show, index, slideMs) =>
	show.slides[index]?.spoken?.find(
		(/** @type {Core.Caption} */ { start_ms: start, end_ms: end }) => start <= slideMs && slideMs < end,
	)?.text ?? "";

/**
 * The caption of everything visible: that of the foremost clip that has one.
 * @param {PlayedShow} show
 * @param {FrameState} frameState
 */
export function captionIn(show, frameState) {
	for (const layer of [...frameState.layers].reverse()) {
		for (const item of [...show.slides[layer.index].drawing.objects].reverse()) {
			const values = layer.objects.get(item.object_id);
			if (!values || values.shown === false) continue;
			const text = marksOf(item)
				.map((mark) => captionAt(mark, values.played))
				.find(Boolean);
			if (text) return text;
		}
	}
	return "";
}

/**
 * Shows captions over a player; a visitor's choice is remembered. Returns the button that turns them on and off.
 * @param {any} player
 * @param {any} house
 */
export function showCaptions(player, house) {
	const line = el("p", { class: "captions", "aria-live": "off", lang: player.show.language, hidden: true });
	house.append(line);
	let on = localStorage.getItem(KEPT) !== "off";
	let said = "";
	const tell = () => {
		line.hidden = !on || !said;
		line.textContent = said;
		button.setAttribute("aria-pressed", String(on));
	};
	const button = el("button", { class: "px-2", title: "Captions (C)", onclick: () => turn() }, "Captions");
	const turn = () => {
		on = !on;
		localStorage.setItem(KEPT, on ? "on" : "off");
		tell();
	};
	addEventListener("keydown", (event) => {
		if (keyOf(event).toLowerCase() === "c" && !event.ctrlKey && !event.metaKey && !event.altKey && !taken(event))
			turn();
	});
	player.addEventListener("painted", (/** @type {CustomEvent} */ { detail }) => {
		const { index, slideMs } = player.voicePlace();
		const now = captionIn(player.show, detail) || spokenAt(player.show, index, slideMs);
		if (now === said) return;
		said = now;
		tell();
	});
	tell();
	return button;
}
