// The list of shows: a chosen archive is brought in, and removing asks in place.
import { watched } from "../ui/import-progress.js";
import { send } from "../ui/requests.js";

const bringing = document.getElementById("bring-in");
bringing.addEventListener("change", async ({ target }) => {
	const [file] = target.files;
	target.value = "";
	if (!file) return;
	const tell = (words, wrong = false) => {
		const said = document.getElementById("brought");
		said.textContent = words;
		said.hidden = !words;
		said.classList.toggle("wrong", wrong);
	};
	tell(`Bringing in ${file.name} …`);
	try {
		const { reading } = await send(bringing.dataset.to, file);
		tell("");
		const made = await watched(reading, file.name, "File");
		if (made) location.href = made.address;
		else tell("Nothing was brought in.");
	} catch (error) {
		tell(error.message, true);
	}
});

for (const form of document.querySelectorAll("form[data-title]")) {
	const ask = form.querySelector("[data-remove]");
	const sure = form.querySelector("[data-sure]");
	ask.addEventListener("click", (event) => {
		event.preventDefault();
		ask.hidden = true;
		sure.hidden = false;
		sure.querySelector("[data-keep]").focus();
	});
	sure.querySelector("[data-keep]").addEventListener("click", () => {
		sure.hidden = true;
		ask.hidden = false;
		ask.focus();
	});
}
