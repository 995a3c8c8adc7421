// The buttons and keys of the Record page.
import { taken } from "../ui/free-keys.js";

const at = (/** @type {string} */ id) => /** @type {HTMLElement} */ (document.getElementById(id));

/**
 * A button that gives up the focus once it is pressed: the keys of the page are for the take.
 * @param {string} id
 * @param {() => void} act
 */
function onPress(id, act) {
	at(id).addEventListener("click", () => {
		at(id).blur();
		act();
	});
}

/**
 * @param {Record<string, () => void>} buttons what each button does, by its id
 * @param {Record<string, () => void>} keys what each key does
 */
export function wireControls(buttons, keys) {
	for (const [id, act] of Object.entries(buttons)) onPress(id, act);
	addEventListener("keydown", (event) => {
		const target = event.target instanceof Element ? event.target : null;
		if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || taken(event) || target?.closest(".camera"))
			return;
		if (target?.closest("button, a") && (event.key === " " || event.key === "Enter")) return;
		if (!keys[event.key]) return;
		event.preventDefault();
		keys[event.key]();
	});
}
