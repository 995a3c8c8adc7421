// Styles of rarely opened parts, loaded with them.
import { el } from "./element.js";

const fetched = new Map();

/**
 * Resolves when the sheet is there, or cannot be had.
 * @param {string} name
 */
export function loadSheet(name) {
	if (!fetched.has(name)) {
		fetched.set(
			name,
			new Promise((done) => {
				document.head.append(
					el("link", {
						rel: "stylesheet",
						href: new URL(`../${name}.css`, import.meta.url).href,
						onload: done,
						onerror: done,
					}),
				);
			}),
		);
	}
	return fetched.get(name);
}
