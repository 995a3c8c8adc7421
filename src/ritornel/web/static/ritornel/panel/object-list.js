// The objects of the slide from the front to the back: what is covered, away, outside or put aside is found here.
import { el, icon } from "../ui/element.js";

const SIGNS = { text: "type", picture: "image", shape: "shapes" };

/** What keeps an object from being seen, in a word or two. */
function hidden(state, item) {
  const { seen, away } = state.data.viewing;
  const found = seen[item.id];
  const cover = found?.covered_by && state.object(found.covered_by)?.name;
  return [
    item.aside ? "put aside" : null, away.includes(item.id) ? "away at first" : null, cover ? `covered by ${cover}` : null,
    found?.outside ? (found.outside === "wholly" ? "outside the frame" : "partly outside") : null,
  ].filter(Boolean).join(" · ");
}

/** The fold at the foot of the panel, there whatever is picked. Folded, it still says how many objects there are and what is hidden. */
export class ObjectFold {
  constructor(state) {
    this.state = state;
    this.open = localStorage.getItem("ritornel-objects") === "open";
    this.head = el("button", { class: "fold-head", "aria-expanded": String(this.open), onclick: () => this.toggle() });
    this.list = el("ul", { class: "objects" });
    this.node = el("section", { class: "fold", "aria-label": "Objects" }, this.head, this.list);
    state.addEventListener("show", () => this.draw());
    state.addEventListener("pick", () => this.mark());
    this.draw();
  }

  toggle() {
    this.open = !this.open;
    localStorage.setItem("ritornel-objects", this.open ? "open" : "folded");
    this.draw();
  }

  draw() {
    const { slide, data } = this.state;
    const { seen = {}, away = [] } = data.viewing ?? {};
    const facts = [
      [away.length, "away at first"], [Object.values(seen).filter((entry) => entry.covered_by).length, "covered"],
      [Object.values(seen).filter((entry) => entry.outside === "wholly").length, "outside"], [slide?.objects.filter((item) => item.aside).length ?? 0, "put aside"],
    ].filter(([count]) => count).map(([count, words]) => `${count} ${words}`);
    this.head.setAttribute("aria-expanded", String(this.open));
    this.head.replaceChildren(icon("chevron-right"), el("b", {}, "Objects"), String(slide?.objects.length ?? 0), el("span", { class: "said ml-auto truncate" }, facts.join(" · ")));
    const focused = this.list.contains(document.activeElement) ? document.activeElement.closest("[data-listed]")?.dataset.listed : null;
    this.list.hidden = !this.open;
    const rows = this.open ? [...(slide?.objects ?? [])].reverse().map((item) => row(this.state, item)) : [];
    this.list.replaceChildren(...(rows.length || !this.open ? rows : [el("li", { class: "said px-4 py-2" }, "Nothing stands here yet. Bring something on above the stage.")]));
    this.mark();
    if (focused) this.list.querySelector(`[data-listed="${CSS.escape(focused)}"] .who`)?.focus();
  }

  /** Marks what is picked and brings it into view. */
  mark() {
    for (const node of this.list.querySelectorAll("[data-listed]")) {
      if (this.state.picked.has(node.dataset.listed)) node.setAttribute("aria-current", "true"); else node.removeAttribute("aria-current");
    }
    this.list.querySelector('[aria-current="true"]')?.scrollIntoView({ block: "nearest" });
  }
}

function row(state, item) {
  const words = hidden(state, item);
  const set = (changes) => state.edit({ do: "change objects", slide_id: state.slide.id, object_ids: [item.id], changes });
  const pick = (event) => {
    const ids = [...state.picked];
    if (event.shiftKey || event.ctrlKey || event.metaKey) state.pick(ids.includes(item.id) ? ids.filter((id) => id !== item.id) : [...ids, item.id]);
    else state.pick([item.id]);
    document.querySelector(`[data-stage] [data-object="${CSS.escape(item.id)}"]`)?.scrollIntoView({ block: "nearest" });
  };
  const node = el("li", { "data-listed": item.id, "aria-current": state.picked.has(item.id) ? "true" : null, draggable: "true" },
    el("button", { class: "who", onclick: pick }, icon(SIGNS[item.kind]), el("span", { class: "name" }, item.name), words ? el("span", { class: "why" }, words) : null),
    el("button", { class: "quiet", "aria-pressed": String(item.locked), "aria-label": item.locked ? `Unlock ${item.name}` : `Lock ${item.name}`, title: item.locked ? "Locked" : "Lock", onclick: () => set({ locked: !item.locked }) }, icon(item.locked ? "lock" : "lock-open")),
    el("button", { class: "quiet", "aria-pressed": String(item.aside), "aria-label": item.aside ? `Bring ${item.name} back` : `Put ${item.name} aside`, title: item.aside ? "Put aside while composing" : "Put aside while composing", onclick: () => set({ aside: !item.aside }) }, icon(item.aside ? "eye-off" : "eye")));
  node.addEventListener("keydown", (event) => {
    const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (!event.altKey || !way) return;
    event.preventDefault();
    const at = state.slide.objects.findIndex((other) => other.id === item.id);
    restack(state, item.id, at + way).then(() => document.querySelector(`[data-listed="${CSS.escape(item.id)}"] .who`)?.focus());
  });
  node.addEventListener("dragstart", (event) => { event.dataTransfer.setData("text/x-object", item.id); event.dataTransfer.effectAllowed = "move"; });
  node.addEventListener("dragover", (event) => { if ([...event.dataTransfer.types].includes("text/x-object")) { event.preventDefault(); node.dataset.drop = ""; } });
  node.addEventListener("dragleave", () => delete node.dataset.drop);
  node.addEventListener("drop", (event) => {
    delete node.dataset.drop;
    const id = event.dataTransfer.getData("text/x-object");
    if (!id || id === item.id) return;
    event.preventDefault();
    restack(state, id, state.slide.objects.filter((other) => other.id !== id).findIndex((other) => other.id === item.id) + 1);
  });
  return node;
}

const restack = (state, id, to) => state.edit({ do: "stack objects", slide_id: state.slide.id, object_ids: [id], to: Math.max(0, to) });
