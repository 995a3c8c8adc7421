// The bin: removing something for good asks in place.
for (const form of document.querySelectorAll("form[data-title]")) {
	const ask = form.querySelector("[data-remove]");
	const sure = form.querySelector("[data-sure]");
	ask.addEventListener("click", (/** @type {Event} */ event) => {
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
