// Bars that are in view, drawn once for as long as they look alike: while the score is scrolled they only move along with it.
import { svg } from "../ui/element.js";

export class KeptBars {
  constructor() {
    this.group = svg("g");
    this.kept = new Map();
    this.ready = new Map();
  }

  /**
   * Draws ahead what `show` will need, for about `budgetMs`; what is seen stays as it is. Returns whether all of it is ready: drawing hundreds
   * of bars at once would hold up a frame or two.
   */
  prepare(wanted, budgetMs) {
    const end = performance.now() + budgetMs;
    for (const { id, looks, draw } of wanted) {
      if (alike(this.kept.get(id), looks) || alike(this.ready.get(id), looks)) continue;
      if (performance.now() > end) return false;
      this.ready.set(id, { node: svg("g", {}, draw()), looks });
    }
    return true;
  }

  /**
   * Shows these bars and no others. @param {{id: string, looks: any[], draw: () => SVGElement[]}[]} wanted from left to right; one whose looks are
   * the same values as before is not drawn again
   */
  show(wanted) {
    const ids = new Set(wanted.map((bar) => bar.id));
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
      const next = before ? before.nextSibling : this.group.firstChild;
      if (entry.node !== next) this.group.insertBefore(entry.node, next);
      before = entry.node;
    }
    this.ready.clear();
  }
}

const alike = (entry, looks) => entry?.looks.length === looks.length && entry.looks.every((look, at) => look === looks[at]);
