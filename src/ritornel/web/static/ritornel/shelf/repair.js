// Adding the file of a medium again, where it is missing or damaged.
import { el, icon } from "../ui/element.js";
import { send } from "../ui/file-requests.js";
import { toast } from "../ui/toast.js";

/**
 * @param {string} base the show's address
 * @param {string} assetId
 * @param {string} name
 * @param {() => any} done called when the file is whole again
 */
export function addAgain(base, assetId, name, done) {
	const field = el("input", { type: "file", class: "sr-only", "aria-label": `The file of ${name}` });
	const label = el("label", { class: "push cursor-pointer" }, icon("upload"), "Add the file again", field);
	field.addEventListener("change", async () => {
		if (!field.files.length) return;
		label.setAttribute("aria-busy", "true");
		try {
			await send(`${base}/media/${encodeURIComponent(assetId)}/again`, field.files[0]);
			toast(`The file of “${name}” is whole again.`);
			done();
		} catch (error) {
			toast(error.message, { wrong: true });
		}
		label.removeAttribute("aria-busy");
		field.value = "";
	});
	return label;
}
