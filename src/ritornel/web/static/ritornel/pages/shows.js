// The list of shows: importing an archive, changing the order, opening menus.
import { watchImport } from "../ui/import-progress.js";
import { send } from "../ui/file-requests.js";

const bringing = document.getElementById("bring-in");
bringing.addEventListener("change", async (/** @type {any} */ { target }) => {
	const [file] = target.files;
	target.value = "";
	if (!file) return;
	const tell = (/** @type {string} */ words, wrong = false) => {
		const said = document.getElementById("brought");
		said.textContent = words;
		said.hidden = !words;
		said.classList.toggle("wrong", wrong);
	};
	tell(`Bringing in ${file.name} …`);
	try {
		const { reading } = await send(bringing.dataset.to, file);
		tell("");
		const made = await watchImport(reading, file.name, "File");
		if (made) location.href = made.address;
		else tell("Nothing was brought in.");
	} catch (error) {
		tell(error.message, true);
	}
});

const find = document.getElementById("find");
find?.querySelector("select").addEventListener("change", () => find.requestSubmit());

// One of the small menus is open at a time; Esc and a press beside it close it.
const menus = [...document.querySelectorAll("details.more")];
for (const menu of menus)
	menu.addEventListener("toggle", () => {
		if (menu.open) for (const other of menus) if (other !== menu) other.open = false;
	});
addEventListener("keydown", (event) => {
	const open = menus.find((menu) => menu.open);
	if (event.key !== "Escape" || !open) return;
	open.open = false;
	open.querySelector("summary").focus();
});
addEventListener("pointerdown", ({ target }) => {
	for (const menu of menus) if (!menu.contains(target)) menu.open = false;
});

const made = new URLSearchParams(location.search).get("made");
if (made) document.getElementById(made)?.querySelector("h3 a").focus();
