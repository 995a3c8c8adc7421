// Errors in a page's own scripts: reported to the person in one sentence, and to the server's log.
import { toast } from "./toast.js";

const WORDS = "Something went wrong on this page. What is saved is safe; load the page again if it does not answer.";
const MOST = 5;
let told = 0;

/** @param {any} error @param {string} [where] */
function tell(error, where = "") {
	told += 1;
	// One fault can come back with every frame.
	if (told > MOST) return;
	// In front of an audience nothing but the show is seen.
	if (!document.querySelector(".house")) toast(WORDS, { wrong: true });
	const about = {
		message: String(error?.message ?? error).slice(0, 500),
		where: String(where).slice(0, 200),
		stack: String(error?.stack ?? "").slice(0, 3000),
		page: location.pathname,
	};
	fetch("/faults", {
		method: "POST",
		keepalive: true,
		headers: {
			"Content-Type": "application/json",
			"X-CSRFToken": document.querySelector("meta[name=csrf]")?.content ?? "",
		},
		body: JSON.stringify(about),
	}).catch(() => undefined);
}

addEventListener("error", (event) => {
	if (event.error) tell(event.error, `${event.filename}:${event.lineno}`);
});
addEventListener("unhandledrejection", (event) => tell(event.reason));
