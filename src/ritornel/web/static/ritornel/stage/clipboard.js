// Copying and pasting: objects and slides within a show and between shows, files, and words from anywhere, which come in clean.
import { toast } from "../ui/toast.js";

const making = () => import("./making.js");

const KIND = "application/x-ritornel";

export class Clipboard {
  constructor(stage, removePicked) {
    Object.assign(this, { stage, state: stage.state, removePicked });
    document.addEventListener("copy", (event) => this.copy(event));
    document.addEventListener("cut", (event) => { if (this.copy(event)) this.removePicked(); });
    document.addEventListener("paste", (event) => this.paste(event));
    // Shift with the paste key: the same place. The paste event itself does not say which keys are down.
    addEventListener("keydown", (event) => { this.inPlace = event.shiftKey; }, true);
  }

  inField(event) { return event.target.closest?.("input, textarea, select, [contenteditable]") !== null && event.target !== document.body; }

  copy(event) {
    if (this.inField(event) || String(getSelection())) return false;
    const { state } = this;
    const items = this.stage.picked();
    const slides = state.pickedSlides.size ? state.data.order.filter((id) => state.pickedSlides.has(id)) : [];
    if (!items.length && !slides.length) return false;
    event.preventDefault();
    const content = { show: state.data.show_id, slide: state.slide.id, items, slides };
    event.clipboardData.setData(KIND, JSON.stringify(content));
    const words = items.flatMap((item) => (item.paragraphs ?? []).map((paragraph) => paragraph.runs.map((run) => run.text).join("")));
    const text = words.join("\n").trim() || items.map((item) => item.name).join(", ") || "Slides";
    event.clipboardData.setData("text/plain", text);
    // Pasting with Shift, browsers hand over plain text only: what it stood for is remembered.
    this.last = { text, content };
    toast(slides.length ? `Copied ${slides.length} slide${slides.length === 1 ? "" : "s"}.` : `Copied ${items.length > 3 ? `${items.length} objects` : items.map((item) => item.name).join(", ")}.`);
    return true;
  }

  async paste(event) {
    if (this.inField(event) || !this.state.slide) return;
    const data = event.clipboardData;
    const own = data.getData(KIND);
    event.preventDefault();
    if (own) await this.pasteOwn(JSON.parse(own));
    else if (this.inPlace && this.last?.text === data.getData("text/plain")) await this.pasteOwn(this.last.content);
    else if (data.files.length) this.state.dispatchEvent(new CustomEvent("files", { detail: { files: [...data.files].map((file) => ({ file, folder: "" })) } }));
    else if (data.getData("text/plain").trim()) await this.pasteText(data.getData("text/plain"));
  }

  async pasteText(text) {
    if (text.length > 100_000) { toast(`The text has ${text.length.toLocaleString("en")} characters; a text holds up to 100,000. Nothing was pasted.`, { wrong: true }); return; }
    const { linesOf } = await import("./plain-lines.js");
    await (await making()).addLines(this.stage, linesOf(text));
  }

  async pasteOwn({ show, slide, items, slides }) {
    const { state } = this;
    const here = show === state.data.show_id;
    if (slides.length) {
      const at = state.data.order.indexOf(state.slide.id) + 1;
      await state.bring({ from: show, slide_ids: slides, at });
      return;
    }
    const offset = this.inPlace || slide !== state.slide.id ? 0 : 20;
    const { copiesOf } = await import("./copying.js");
    const copies = copiesOf(items, offset, offset);
    if (here) await (await making()).addObjects(state, copies, "Paste");
    else if (await state.bring({ from: show, objects: copies, slide_id: state.slide.id })) state.pick(copies.map((item) => item.id));
  }
}
