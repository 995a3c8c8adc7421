// A file that the worker reads: how far it is, how long it will take, and a way to stop it.
import { el } from "./element.js";
import { get, post } from "./requests.js";

const ASK_EVERY_MS = 300;

/**
 * What the worker makes of a file, as the server tells it, seen at work; null where it was told to stop.
 * @param {string} part what it is read by
 */
export async function watched(reading, name, part = "Page") {
	const [words, bar] = [el("span", {}), el("i")];
	const stop = el("button", { class: "push", type: "button" }, "Cancel");
	const share = el(
		"div",
		{
			class: "progress",
			role: "progressbar",
			"aria-label": `Reading ${name}`,
			"aria-valuemin": 0,
			"aria-valuemax": 100,
		},
		bar,
	);
	const line = el("div", { class: "coming-in", role: "status" }, words, share, stop);
	document.body.append(line);
	try {
		for (;;) {
			const now = await get(reading);
			if (now.state === "failed") throw new Error(now.message);
			if (now.state === "cancelled") return null;
			if (now.state === "ready") return now;
			const left = now.left_s
				? `, about ${now.left_s < 90 ? `${Math.ceil(now.left_s)} s` : `${Math.round(now.left_s / 60)} min`} left`
				: "";
			words.textContent =
				now.state === "waiting"
					? `${name} waits for the worker …`
					: now.total
						? `${part} ${Math.min(now.done + 1, now.total)} of ${now.total} of ${name}${left}`
						: `Reading ${name} …`;
			bar.style.width = `${now.total ? (now.done / now.total) * 100 : 0}%`;
			share.setAttribute("aria-valuenow", now.total ? Math.round((now.done / now.total) * 100) : 0);
			stop.onclick = () => {
				stop.disabled = true;
				post(now.cancel).catch((error) => {
					stop.disabled = false;
					words.textContent = error.message;
				});
			};
			await new Promise((done) => {
				setTimeout(done, ASK_EVERY_MS);
			});
		}
	} finally {
		line.remove();
	}
}
