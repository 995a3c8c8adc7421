// For people without a show: a finished one plays small and silent, again and again.
import { ShowPlayer } from "../player/player.js";
import { el } from "../ui/element.js";
import { get } from "../ui/requests.js";

const house = document.querySelector("[data-example]");

async function play() {
	const show = await get(house.dataset.example);
	const player = new ShowPlayer(show, house.querySelector("svg"), { mode: "self-running", loops: true });
	let begun = false;
	const button = el("button", { class: "push" });
	const say = (/** @type {boolean} */ plays) => {
		button.textContent = plays ? "Pause" : "Play";
	};
	button.addEventListener("click", async () => {
		if (!begun) {
			begun = true;
			await player.begin();
			say(true);
			return;
		}
		if (player.paused) player.resume();
		else player.pause();
		say(!player.paused);
	});
	say(false);
	house.after(button);
	// What moves by itself waits for a press where less motion is wished.
	if (!matchMedia("(prefers-reduced-motion: reduce)").matches) button.click();
}

if (house) play();
