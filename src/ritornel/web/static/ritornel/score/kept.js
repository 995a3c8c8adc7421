// Bars that are in view, drawn once for as long as they look alike: while the score is scrolled they only move along with it.
import { svg } from "../ui/element.js";

export class KeptBars {
  constructor() {
    this.group = svg("g");
    this.kept = new Map();
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
      if (!entry || entry.looks.length !== looks.length || entry.looks.some((look, at) => look !== looks[at])) {
        const node = svg("g", {}, draw());
        if (entry) entry.node.replaceWith(node);
        entry = { node, looks };
        this.kept.set(id, entry);
      }
      const next = before ? before.nextSibling : this.group.firstChild;
      if (entry.node !== next) this.group.insertBefore(entry.node, next);
      before = entry.node;
    }
  }
}
