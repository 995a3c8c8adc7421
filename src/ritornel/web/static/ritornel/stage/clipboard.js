// Copying and pasting: objects and slides within a show and between shows, files, and words from anywhere, which come in clean.
import { newId } from "../ui/element.js";
import { toast } from "../ui/toast.js";

const making = () => import("./making.js");

const KIND = "application/x-ritornel";
const BULLET = /^\s*(?:[•◦▪‣·*–-])\s+(?=\S)/;
const NUMBER = /^\s*\d{1,3}[.)]\s+(?=\S)/;

/** Objects with ids of their own that remember what they stem from; groups become groups of their own. */
export function copiesOf(items, dx = 0, dy = 0) {
  const groups = new Map();
  return items.map((item) => {
    const id = newId();
    const copy = { ...structuredClone(item), id, lineage: item.lineage || item.id, place: "", box: { ...item.box, x: item.box.x + dx, y: item.box.y + dy } };
    if (copy.paragraphs) copy.paragraphs = copy.paragraphs.map((paragraph, index) => ({ ...paragraph, id: `${id}-${index + 1}` }));
    if (copy.group) {
      if (!groups.has(copy.group)) groups.set(copy.group, newId());
      copy.group = groups.get(copy.group);
    }
    return copy;
  });
}

/** Plain text as lines; bullets and numbers typed as characters become lists, white space at the ends goes. */
export function linesOf(text) {
  const lines = text.replace(/\r\n?/g, "\n").replace(/[\u00a0\u2007]/g, " ").replace(/[\u200b\ufeff]/g, "").split("\n");
  while (lines.length > 1 && !lines.at(-1).trim()) lines.pop();
  return lines.map((line) => {
    const level = Math.min(5, Math.floor((/^(\s*)/.exec(line)[1].replace(/\t/g, "  ").length) / 2));
    for (const [pattern, list] of [[BULLET, "bullets"], [NUMBER, "numbers"]]) {
      if (pattern.test(line)) return { list, level, runs: [{ text: line.replace(pattern, "").trim() }] };
    }
    return { runs: [{ text: line.trim() }] };
  });
}

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
    const copies = copiesOf(items, offset, offset);
    if (here) await (await making()).addObjects(state, copies, "Paste");
    else if (await state.bring({ from: show, objects: copies, slide_id: state.slide.id })) state.pick(copies.map((item) => item.id));
  }
}
