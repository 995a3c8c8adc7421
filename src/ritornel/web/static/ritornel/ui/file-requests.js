// Sending a file to the server, with fields beside it.
import { ask, csrf } from "./requests.js";

/** @param {string} url @param {Blob} file @param {any} [fields] */
export const send = (url, file, fields = {}) => {
	const form = new FormData();
	for (const [name, value] of Object.entries(fields)) form.append(name, value);
	form.append("file", file);
	return ask(url, { method: "POST", headers: { "X-CSRFToken": csrf() }, body: form });
};
