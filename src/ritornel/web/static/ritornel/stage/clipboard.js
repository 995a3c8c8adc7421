// Copying and pasting: objects and slides within a show and between shows, files, and plain text from anywhere.
import { toast } from "../ui/toast.js";

const KIND = "application/x-ritornel";

export class Clipboard {
	/** @type {any} */
	last;

	/** @param {Stage} stage */
	constructor(stage, /** @type {any} */ removePicked) {
		this.stage = stage;
		this.state = stage.state;
		this.removePicked = removePicked;
		document.addEventListener("copy", (event) => this.copy(event));
		document.addEventListener("cut", (event) => {
			if (this.copy(event)) this.removePicked();
		});
		document.addEventListener("paste", (event) => this.paste(event));
		// Shift with the paste key: the same place. The paste event itself does not say which keys are down.
		addEventListener(
			"keydown",
			(event) => {
				this.inPlace = event.shiftKey;
			},
			true,
		);
	}

	inField(/** @type {any} */ event) {
		return (
			event.target.closest?.("input, textarea, select, [contenteditable]") !== null && event.target !== document.body
		);
	}

	copy(/** @type {any} */ event) {
		if (this.inField(event) || String(getSelection())) return false;
		const { state } = this;
		const items = this.stage.picked();
		const slides = state.pickedSlides.size ? state.data.order.filter((id) => state.pickedSlides.has(id)) : [];
		if (!items.length && !slides.length) return false;
		event.preventDefault();
		const content = { show: state.data.show_id, slide: state.slide.id, items, slides };
		event.clipboardData.setData(KIND, JSON.stringify(content));
		const words = items.flatMap((item) =>
			(item.paragraphs ?? []).map((paragraph) => paragraph.runs.map((run) => run.text).join("")),
		);
		const text = words.join("\n").trim() || items.map((item) => item.name).join(", ") || "Slides";
		event.clipboardData.setData("text/plain", text);
		// Pasting with Shift, browsers hand over plain text only: what it stood for is remembered.
		this.last = { text, content };
		toast(
			slides.length
				? `Copied ${slides.length} slide${slides.length === 1 ? "" : "s"}.`
				: `Copied ${items.length > 3 ? `${items.length} objects` : items.map((item) => item.name).join(", ")}.`,
		);
		return true;
	}

	async paste(/** @type {any} */ event) {
		if (this.inField(event) || !this.state.slide) return;
		const data = event.clipboardData;
		const own = data.getData(KIND);
		event.preventDefault();
		const { inPlace, stage, last } = this;
		const text = data.getData("text/plain");
		const content = own ? JSON.parse(own) : inPlace && last?.text === text ? last.content : null;
		if (!content && data.files.length)
			this.state.dispatchEvent(
				new CustomEvent("files", { detail: { files: [...data.files].map((file) => ({ file, folder: "" })) } }),
			);
		else if (content || text.trim()) {
			const { pasteOwn, pasteText } = await import("./pasting.js");
			await (content ? pasteOwn(stage, content, inPlace) : pasteText(stage, text));
		}
	}
}
