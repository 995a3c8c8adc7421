// The other ways to play, in a menu beside Play.
import { el } from "./element.js";
import { closeMenu } from "./menu.js";
import { CHOICES, choiceWords } from "./play-choice.js";

/**
 * @param {HTMLDetailsElement} menu
 * @param {() => {from: string, mode: string}} chosen what Play does now
 * @param {(choice: {from: string, mode: string}) => void} choose
 */
export function playMenu(menu, chosen, choose) {
	const draw = () => {
		const now = choiceWords(chosen());
		menu.lastElementChild?.replaceChildren(
			...CHOICES.map((choice) =>
				el(
					"button",
					{ "aria-current": String(choiceWords(choice) === now), onclick: () => choose(choice) },
					choiceWords(choice),
				),
			),
		);
	};
	menu.addEventListener("toggle", draw);
	draw();
	closeMenu(menu);
}
