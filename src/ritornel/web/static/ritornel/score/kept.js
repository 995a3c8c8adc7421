// Pieces of the score that are in view, drawn once for as long as they look alike: while it is scrolled they only move along with it.
import { svg } from "../ui/element.js";

const AWAY = "translate(0 -9999)";

export class Kept {
  constructor() {
    // What is seen, and what is being made ready out of sight: the browser lays that out piece by piece. It is moved away and not hidden, for
    // showing what was hidden would have every element in it styled again.
    [this.front, this.back] = [svg("g"), svg("g", { transform: AWAY })];
    this.group = svg("g", {}, this.front, this.back);
    this.kept = new Map();
    this.ready = new Map();
    this.drawn = null;
  }

  /**
   * Draws ahead what `show` will need, until `end` of performance.now(); what is seen stays as it is. Returns whether all of it is ready: drawing
   * hundreds of bars at once would hold up a frame or two. What is drawn in one frame is laid out in the next, by `lay`: both in one are too much for it.
   */
  prepare(wanted, end) {
    const changed = !wanted.some(({ id, looks }) => alike(this.kept.get(id), looks));
    for (const { id, looks, draw } of wanted) {
      if (alike(this.kept.get(id), looks) || alike(this.ready.get(id), looks)) continue;
      if (performance.now() > end) return false;
      this.ready.get(id)?.node.remove();
      const node = svg("g", {}, draw());
      this.ready.set(id, { node, looks });
      if (changed) this.drawn = wanted;
    }
    return !this.drawn;
  }

  /** Has the browser lay out what was drawn, out of sight and in its order: what is moved later is laid out twice. Returns whether there was anything. */
  lay() {
    if (!this.drawn) return false;
    let next = null;
    for (const { id } of this.drawn.toReversed()) {
      const node = this.ready.get(id)?.node;
      if (!node) continue;
      if (node.parentNode !== this.back) this.back.insertBefore(node, next);
      next = node;
    }
    this.drawn = null;
    return true;
  }

  /**
   * Shows these pieces and no others. @param {{id: string, looks: any[], draw: () => SVGElement[]}[]} wanted from left to right; one whose looks
   * are the same values as before is not drawn again
   */
  show(wanted) {
    if (wanted.length && wanted.every(({ id, looks }) => { const entry = this.ready.get(id); return entry?.node.parentNode === this.back && alike(entry, looks); })) this.turn();
    const ids = new Set(wanted.map((piece) => piece.id));
    for (const [id, { node }] of this.kept) {
      if (ids.has(id)) continue;
      node.remove();
      this.kept.delete(id);
    }
    let before = null;
    for (const { id, looks, draw } of wanted) {
      let entry = this.kept.get(id);
      if (!alike(entry, looks)) {
        const old = entry;
        entry = this.ready.get(id);
        if (!alike(entry, looks)) entry = { node: svg("g", {}, draw()), looks };
        old?.node.replaceWith(entry.node);
        this.kept.set(id, entry);
      }
      const next = before ? before.nextSibling : this.front.firstChild;
      if (entry.node !== next) this.front.insertBefore(entry.node, next);
      before = entry.node;
    }
    this.ready.clear();
    this.drawn = null;
    if (this.back.firstChild) this.back.replaceChildren();
  }

  /** What was made ready becomes what is seen. */
  turn() {
    [this.front, this.back] = [this.back, this.front];
    this.front.removeAttribute("transform");
    this.back.setAttribute("transform", AWAY);
    this.back.replaceChildren();
    [this.kept, this.ready] = [this.ready, new Map()];
  }
}

const alike = (entry, looks) => entry?.looks.length === looks.length && entry.looks.every((look, at) => look === looks[at]);
