// Uploading a file with its progress, which fetch() cannot report.
import { Refused, UNKNOWN, csrf, read } from "../ui/requests.js";

/** Uploads a file and reports the sent share, 0 to 1. */
export function sendTold(
	/** @type {string} */ url,
	/** @type {File} */ file,
	/** @type {Record<string, any>} */ fields,
	/** @type {(value: any) => any} */ told,
) {
	return new Promise((done, failed) => {
		const line = new XMLHttpRequest();
		const form = new FormData();
		for (const [name, value] of Object.entries(fields)) form.append(name, value);
		form.append("file", file);
		line.open("POST", url);
		line.setRequestHeader("X-CSRFToken", csrf());
		line.upload.addEventListener("progress", ({ loaded, total }) => told(total ? loaded / total : 0));
		line.addEventListener("error", () =>
			failed(new Refused(`The server cannot be reached. ${UNKNOWN}`, { unanswered: true })),
		);
		line.addEventListener("load", () => read(new Response(line.response, { status: line.status })).then(done, failed));
		line.send(form);
	});
}
