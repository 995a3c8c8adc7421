// `?` opens the keys of this page; the page names its list by `data-keys` on its body.
import { taken } from "./free-keys.js";

addEventListener("keydown", async (event) => {
	const { keys } = document.body.dataset;
	if (event.key !== "?" || !keys || event.ctrlKey || event.metaKey || taken(event)) return;
	event.preventDefault();
	const [{ openKeys }, { KEYS }] = await Promise.all([import("./key-list.js"), import("./page-keys.js")]);
	openKeys(...KEYS[keys], document.querySelector("meta[name=csrf]") ? `/help/${keys === "page" ? "" : keys}` : "");
});
