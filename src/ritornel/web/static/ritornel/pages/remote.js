// A phone as the remote: next, back and black, and the place of the run.
import { ServerLink } from "../player/screen-links.js";
import { post, startData } from "../ui/requests.js";

const start = startData();
const at = (/** @type {string} */ id) => document.getElementById(id);

function tell(/** @type {any} */ message) {
	if (message.kind === "over") {
		at("place").textContent = "The show is over.";
		return;
	}
	if (message.kind !== "state") return;
	const slide = start.slides[message.state.index];
	at("name").textContent = slide ? `${message.state.index + 1}  ${slide.name || "Untitled"}` : "";
	at("next").textContent = message.ready ? "Begin" : "Next cue";
	if (message.ready) at("place").textContent = "Ready. Begin starts the clock.";
	else if (message.state.over) at("place").textContent = "The show is over. Back returns to it.";
	else
		at("place").textContent = slide
			? `Beat ${message.state.beat} of ${slide.beats - 1}${message.paused ? ", paused" : ""}`
			: "";
	at("black").setAttribute("aria-pressed", String(message.black));
}

const line = new ServerLink(start.events, null, tell);
line.addEventListener("down", () => {
	at("line").textContent = "The line is cut. It is looked for again by itself.";
});
line.addEventListener("up", () => {
	at("line").textContent = "";
});
for (const act of ["next", "back", "black"]) {
	at(act).addEventListener("click", async () => {
		navigator.vibrate?.(15);
		try {
			await post(start.press, { act });
		} catch (error) {
			at("line").textContent = error.message;
		}
	});
}
