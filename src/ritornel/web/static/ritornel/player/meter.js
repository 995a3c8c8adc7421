// A peak meter: the present level of both channels, from 48 dB below full scale to the top.
import { el } from "../ui/element.js";

const FLOOR_DB = -48;
const FALL_DB = 1.2;
const HOT_DB = -1;

/**
 * @param {import("./player.js").ShowPlayer} player
 * @returns {HTMLElement} which shows the levels for as long as it stands in the page
 */
export function meterOf(player) {
	const bars = [el("i"), el("i")];
	const node = el(
		"div",
		{
			class: "meter",
			role: "meter",
			"aria-label": "Level of the sound",
			"aria-valuemin": FLOOR_DB,
			"aria-valuemax": 0,
			"aria-valuenow": FLOOR_DB,
		},
		bars,
	);
	const shown = [FLOOR_DB, FLOOR_DB];
	let begun = false;
	const draw = () => {
		// It may stand in the page before the show begins; when the player has gone, it rests.
		if (begun && !player.running) return;
		begun ||= player.running;
		requestAnimationFrame(draw);
		if (!begun) return;
		player.sound?.peaksDb().forEach((db, at) => {
			shown[at] = Math.max(db, shown[at] - FALL_DB, FLOOR_DB);
			bars[at].style.clipPath = `inset(0 ${(shown[at] / FLOOR_DB) * 100}% 0 0)`;
			bars[at].toggleAttribute("data-hot", shown[at] > HOT_DB);
		});
		node.setAttribute("aria-valuenow", String(Math.round(Math.max(...shown))));
	};
	requestAnimationFrame(draw);
	return node;
}
