// A file that the worker reads: its progress, the remaining time, and a way to cancel.
import { ProgressLine } from "./progress-line.js";
import { get, post } from "./requests.js";

const ASK_EVERY_MS = 300;

/** @param {number} seconds */
const leftWords = (seconds) =>
	seconds ? `, about ${seconds < 90 ? `${Math.ceil(seconds)} s` : `${Math.round(seconds / 60)} min`} left` : "";

/** @param {any} now @param {string} name @param {string} part */
function words(now, name, part) {
	if (now.state === "waiting") return `${name} waits for the worker …`;
	if (!now.total) return `Reading ${name} …`;
	return `${part} ${Math.min(now.done + 1, now.total)} of ${now.total} of ${name}${leftWords(now.left_s)}`;
}

/**
 * The result of the worker's reading of a file, with its progress shown; null where it was cancelled.
 * @param {string} part what it is read by
 * @param {any} reading
 * @param {string} name
 */
export async function watchImport(reading, name, part = "Page") {
	/** @type {any} */
	let now = null;
	let wrong = "";
	const line = new ProgressLine(`Reading ${name}`, {
		stop: "Cancel",
		onstop: async () => {
			/** @type {any} */ (line.stop).disabled = true;
			wrong = "";
			try {
				await post(now.cancel);
			} catch (error) {
				wrong = error.message;
				/** @type {any} */ (line.stop).disabled = false;
			}
		},
	});
	const stop = /** @type {MadeElement} */ (line.stop);
	stop.disabled = true;
	try {
		for (;;) {
			const first = !now;
			now = await get(reading);
			if (now.state === "failed") throw new Error(now.message);
			if (now.state === "cancelled") return null;
			if (now.state === "ready") return now;
			if (first) stop.disabled = false;
			line.tell(wrong || words(now, name, part), now.total ? now.done / now.total : 0);
			await new Promise((done) => {
				setTimeout(done, ASK_EVERY_MS);
			});
		}
	} finally {
		line.remove();
	}
}
