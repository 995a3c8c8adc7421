// The details of what is picked: an object, music, several objects, or the slide.
import { el } from "../ui/element.js";
import { framingPanel } from "./framing-panel.js";
import { markPanel } from "./mark-panel.js";
import { musicPanel } from "./music-panel.js";
import { ObjectFold } from "./object-list.js";
import { objectPanel } from "./object-panel.js";
import { showTrial } from "./running-order.js";
import { severalPanel, slidesPanel } from "./several-panel.js";
import { slidePanel } from "./slide-panel.js";

export class Panel {
  constructor(state, node) {
    this.state = state;
    this.node = el("div", { class: "details" });
    node.append(this.node, new ObjectFold(state).node);
    this.tab = "builds";
    this.kind = "enters";
    this.part = "";
    state.addEventListener("show", () => { this.owed = true; this.settle(); });
    state.addEventListener("pick", () => this.draw());
    state.addEventListener("trial", () => showTrial(state));
    this.listenToHands();
    let beat = -1;
    state.addEventListener("time", () => {
      const now = state.line ? state.line.schedule.beats.filter((entry) => entry.start_ms <= state.playheadMs - (state.data.starts_ms[state.slide.id] ?? 0)).length : -1;
      if (now !== beat && !this.node.contains(document.activeElement)) { beat = now; this.draw(); }
    });
    this.draw();
  }

  // What is pressed or typed in is not drawn anew under the hand when an edit is answered:
  // a click would be lost between press and let go, and letters between two keys.
  listenToHands() {
    this.owed = false;
    this.pressed = false;
    this.typedIn = null;
    const later = (change) => setTimeout(() => { change(); this.settle(); });
    this.node.addEventListener("pointerdown", () => { this.pressed = true; }, true);
    for (const kind of ["pointerup", "pointercancel"]) window.addEventListener(kind, () => { if (this.pressed) later(() => { this.pressed = false; }); }, true);
    this.node.addEventListener("input", (event) => { this.typedIn = event.target; });
    for (const kind of ["change", "focusout"]) this.node.addEventListener(kind, ({ target }) => later(() => { if (this.typedIn === target) this.typedIn = null; }));
  }

  settle() {
    if (this.owed && !this.pressed && !this.typedIn?.isConnected) this.draw();
  }

  openTab(tab) { this.tab = tab; this.draw(); }
  openKind(kind) { this.kind = kind; this.draw(); }
  openPart(part) { this.part = part; this.draw(); }

  draw() {
    const { state, node } = this;
    this.owed = false;
    const subject = `${state.slide?.id}/${[...state.picked].join()}/${[...state.pickedSlides].join()}/${state.pickedSpan}/${state.pickedFraming}/${state.pickedMark}/${this.tab}`;
    const scroll = subject === this.subject ? node.scrollTop : 0;
    // After an edit everything is drawn anew: the keyboard's place is found again as the control of the same name nearest to where it was.
    // A control that is gone gives it to nobody: another that happens to stand there is not what was meant.
    const controls = () => [...node.querySelectorAll("button, input, select, textarea")];
    const nameOf = (control) => `${control.tagName} ${control.getAttribute("aria-label") ?? control.dataset.named ?? ""} ${control.tagName === "BUTTON" ? control.textContent : ""}`;
    const before = controls();
    const at = subject === this.subject ? before.indexOf(document.activeElement) : -1;
    const name = at >= 0 ? nameOf(before[at]) : null;
    this.subject = subject;
    node.replaceChildren(...this.parts());
    node.scrollTop = scroll;
    if (name === null) return;
    const same = controls().map((control, index) => [control, Math.abs(index - at)]).filter(([control]) => nameOf(control) === name).sort((a, b) => a[1] - b[1]);
    same[0]?.[0].focus({ preventScroll: true });
  }

  parts() {
    const { state } = this;
    if (!state.slide) return [el("section", {}, el("h2", {}, "No slides"), el("p", { class: "said" }, "Add the first with Slide, above the stage."))];
    if (state.pickedSpan) return musicPanel(state);
    if (state.pickedMark) return markPanel(state);
    if (state.pickedFraming) return framingPanel(state);
    if (state.picked.size === 1) return objectPanel(state, this);
    if (state.picked.size > 1) return severalPanel(state, this);
    if (state.pickedSlides.size > 1 || (state.pickedSlides.size && !document.getElementById("overview").hidden)) return slidesPanel(state);
    return slidePanel(state);
  }
}
