// The score: the whole show along one line. Only what is in view is drawn, so a show of any length scrolls alike.
import { el, icon, svg } from "../ui/element.js";
import { begin, later } from "../ui/later.js";
import { clockText, minutesText, secondsText } from "../ui/times.js";
import { drawBar } from "./bars.js";
import { leavesWords } from "./holds.js";
import { MARKS_PX, addMark, drawMarks } from "./marks.js";
import { Peaks, drawMusic } from "./music.js";
import { KeptBars } from "./kept.js";
import { Ties } from "./ties.js";
import { VOICES_PX, drawVoice } from "./voices.js";
import { MOST_PX_S, Scale, tickStepMs } from "./scale.js";

const RULER = 26;
const SLIDES = 70;
const TAIL_PX = 120;
const STEP_PX = 400;
const AHEAD_STEPS = 2;
// One sheet of this width is drawn on at a time, and the next half a sheet overlaps it: a whole evening at a close zoom would be too wide for one.
const SHEET_PX = 16_000;
const LEAST_READABLE_PX_S = 8;
const MOST_AT_FIRST_PX_S = 60;
// Zooming: what is drawn is stretched within these bounds, until it has rested so long; bars are drawn ahead for so much of a frame.
const [LEAST_STRETCH, MOST_STRETCH] = [0.6, 1.8];
const REST_MS = 90;
const AHEAD_MS = 5;

export class Score {
  constructor(state, { names, scroll }) {
    Object.assign(this, { state, names, scroll });
    this.ties = new Ties(state, () => this.draw());
    this.peaks = new Peaks(state.base, () => this.draw());
    this.spacer = el("div");
    this.svg = svg("svg", { role: "group", "aria-label": "Bars of the show" });
    this.spacer.append(this.svg);
    // From the back: staff lines, bars, sounds, and what lies over all of them. All move together; bars are kept while they look alike.
    this.bars = new KeptBars();
    [this.under, this.sounds, this.over] = [svg("g"), svg("g"), svg("g")];
    this.ground = svg("g", {}, this.under, this.bars.group, this.sounds, this.over);
    this.svg.append(this.patterns(), this.ground);
    scroll.append(this.spacer);
    // The whole show at once, unless its bars would be too narrow to read.
    const fit = ((scroll.clientWidth - TAIL_PX) * 1000) / Math.max(state.data.length_ms, 1);
    this.scale = new Scale(Math.min(Math.max(fit, LEAST_READABLE_PX_S), MOST_AT_FIRST_PX_S));
    for (const kind of ["show", "pick", "time", "trial"]) state.addEventListener(kind, () => this.draw());
    scroll.addEventListener("scroll", () => { if (this.outOfSight()) { this.scrolled = !this.drawing || this.scrolled; this.draw(); } });
    scroll.addEventListener("wheel", (event) => this.wheel(event), { passive: false });
    scroll.addEventListener("keydown", (event) => this.key(event));
    new ResizeObserver(() => this.draw()).observe(scroll);
    this.svg.addEventListener("pointerdown", (event) => this.press(event));
    this.svg.addEventListener("dblclick", (event) => { if (event.target.dataset.pick === "slide") this.fitSlide(event.target.dataset.slide); });
    this.keyButton = el("button", { class: "push bare", "aria-label": "What the signs mean", title: "What the signs mean" }, "?");
    this.keyButton.addEventListener("click", async () => (await import("./key.js")).openKey());
    this.drags = later(() => import("./drags.js"));
    this.drags.near(scroll);
    this.pinch();
    this.tag = el("div", { class: "number-tag", hidden: true });
    scroll.parentElement.append(this.tag);
    document.fonts.ready.then(() => this.draw());
  }

  get rows() {
    const height = this.scroll.clientHeight;
    const music = Math.max(30, Math.min(46, height * 0.15));
    const head = RULER + (this.state.data.marks.length ? MARKS_PX : 0);
    const voices = this.state.data.voices.length ? VOICES_PX : 0;
    const builds = Math.max(48, height - head - SLIDES - voices - music);
    const under = head + SLIDES + builds;
    return {
      slides: { top: head, height: SLIDES }, builds: { top: head + SLIDES, height: builds }, voices: { top: under, height: voices },
      music: { top: under + voices, height: music }, bottom: under + voices + music,
    };
  }

  draw() {
    if (this.drawing) return;
    this.drawing = requestAnimationFrame(() => { this.drawing = 0; this.drawNow(); });
  }

  /** Draws the show as it is; while something is pulled, as it would be. */
  drawNow() {
    const { state } = this;
    const real = state.data;
    state.data = state.trial ?? real;
    try { this.drawShow(); } finally { state.data = real; }
  }

  /** What is drawn reaches beyond what is seen, in steps, so that most scrolling moves a finished sheet and draws nothing. */
  reach() {
    const { scrollLeft: left, clientWidth: width } = this.scroll;
    const base = Math.max(0, Math.floor(left / SHEET_PX) * SHEET_PX - SHEET_PX / 2);
    return { left, width, base, from: Math.floor(left / STEP_PX - AHEAD_STEPS) * STEP_PX, to: Math.ceil((left + width) / STEP_PX + AHEAD_STEPS) * STEP_PX };
  }

  outOfSight() {
    const now = this.reach();
    if (this.stretched === 1) return ["base", "from", "to"].some((name) => now[name] !== this.reached?.[name]);
    return now.left < (this.reached.from - STEP_PX / 2) * this.stretched || now.left + now.width > (this.reached.to + STEP_PX / 2) * this.stretched;
  }

  /** How much wider or narrower what is drawn has to stand than it was drawn. */
  get stretched() { return this.scale.pxPerS / (this.drawnPxPerS ?? this.scale.pxPerS); }

  /** Zooming stretches what is drawn, which costs nothing; it is drawn anew when the hand rests, or where that would be too coarse. */
  stretch() {
    const by = this.stretched;
    this.svg.style.transformOrigin = `${-this.reached.base}px 0`;
    this.svg.style.transform = `scaleX(${by})`;
    this.resting = by < LEAST_STRETCH || by > MOST_STRETCH || this.outOfSight() ? 0 : performance.now() + REST_MS;
    this.draw();
  }

  drawShow() {
    const { state, scale, rows } = this;
    const { data } = state;
    const unrested = this.resting > performance.now();
    if (unrested) { this.draw(); return; }
    const reached = this.reach();
    const { left, width, base } = reached;
    const whole = Math.max(scale.x(data.length_ms) + TAIL_PX, width);
    const view = { from: Math.max(reached.from, 0), to: Math.min(reached.to, whole), left };
    const wanted = this.wantedBars(rows, view);
    // While it is zoomed or scrolled, what is seen stays good until the new bars are ready.
    const seen = reached.left >= this.reached?.from && reached.left + width <= this.reached?.to;
    if ((this.stretched !== 1 || (this.scrolled && seen)) && !this.bars.prepare(wanted, AHEAD_MS)) { this.draw(); return; }
    this.scrolled = false;
    this.reached = reached;
    this.drawnPxPerS = scale.pxPerS;
    this.svg.style.transform = "";
    this.spacer.style.width = `${whole}px`;
    this.svg.style.left = `${base}px`;
    this.svg.setAttribute("width", Math.min(whole - base, SHEET_PX * 2));
    this.svg.setAttribute("height", rows.bottom);
    this.ground.setAttribute("transform", `translate(${-base} 0)`);
    const focused = this.svg.contains(document.activeElement) ? document.activeElement.dataset.build : null;
    this.under.replaceChildren(...this.staff(rows, whole));
    this.bars.show(wanted);
    const sounds = data.voices.map((voice) => {
      const line = data.slides[state.shown[voice.index]];
      return drawVoice(voice, line, rows.voices, scale, view, this.peaks.of(voice.asset_id), state.asset(voice.asset_id)?.name ?? "Voice");
    });
    sounds.push(...data.music.map((span) => drawMusic(span, rows.music, scale, view, this.peaks, state.pickedSpan === span.span_id, state.asset(span.asset_id)?.name ?? "Music")));
    this.sounds.replaceChildren(...sounds);
    this.lastShown = state.shown.at(-1);
    const marks = drawMarks(state, data, scale, view, { top: RULER + 1, bottom: rows.bottom });
    const lines = svg("g", {}, wanted.flatMap(({ bar }) => this.barLine(bar.line, bar.x, bar.x + bar.width, rows, bar.number === 1)));
    this.over.replaceChildren(lines, this.ruler(view), ...marks, ...this.snapLine(rows), ...this.playhead(rows));
    // Only where its bar was drawn anew has the focus been lost.
    if (focused && !this.svg.contains(document.activeElement)) this.svg.querySelector(`.build[data-build="${CSS.escape(focused)}"]`)?.focus({ preventScroll: true });
    this.drawNames(rows);
  }

  /** The bars of the slides in view, each with all that its looks depend on. */
  wantedBars(rows, view) {
    const { state, scale } = this;
    const { data } = state;
    const same = [scale.pxPerS, rows.bottom, rows.builds.top, rows.builds.height, state.pickedBuild];
    return data.order.flatMap((id, index) => {
      const line = data.slides[id];
      if (line.skipped) return [];
      const x = scale.x(data.starts_ms[id]);
      const width = scale.x(line.schedule.length_ms);
      if (x + width < view.from - 20 || x > view.to + 20) return [];
      const bar = { line, number: index + 1, x, width, current: id === state.slide?.id, picked: state.pickedSlides.has(id), slurPx: scale.x(line.schedule.transition_ms) };
      const ties = this.ties.of(line);
      const looks = [...same, line, x, bar.number, bar.current, bar.picked, bar.current ? [...state.picked].join() : "", ties];
      return [{ id, bar, looks, draw: () => [drawBar(bar, rows, scale, state, ties)] }];
    });
  }

  patterns() {
    return svg("defs", {}, svg("pattern", { id: "hatch", width: 7, height: 7, patternUnits: "userSpaceOnUse", patternTransform: "rotate(45)" },
      svg("line", { x1: 0, y1: 0, x2: 0, y2: 7, stroke: "#d8b98a", "stroke-width": 2 })));
  }

  staff(rows, whole) {
    return [rows.builds.top, rows.voices.top, rows.music.top, rows.bottom - 0.5].map((y) => svg("line", { x1: 0, x2: whole, y1: y, y2: y, stroke: "var(--color-staff)" }));
  }

  barLine(line, x1, x2, rows, first) {
    const drawn = (x) => `M${x} ${rows.slides.top - 4}V${rows.bottom}`;
    const last = line.id === this.lastShown;
    const result = [svg("path", { d: `${first ? "" : drawn(x1)}${last ? drawn(x2) : ""}`, stroke: "var(--color-ink)", "stroke-width": 1.6, "pointer-events": "none" }),
      svg("rect", { x: x2 - 5, y: rows.slides.top, width: 10, height: SLIDES, fill: "transparent", "data-drag": "bar", "data-slide": line.id }, svg("title", {}, `“${line.name}”: ${leavesWords(line)}. Pull to change.`))];
    if (last) result.push(...this.endSign(x2, rows));
    return result;
  }

  endSign(x, rows) {
    const { top } = rows.slides;
    const thick = svg("rect", { x: x + 4, y: top, width: 4, height: rows.bottom - top, fill: "var(--color-ink)" });
    const words = { hold: "Holds", loop: "From the start again", black: "To black" }[this.state.data.settings.end];
    const dots = this.state.data.settings.end === "loop" ? [24, 38].map((y) => svg("circle", { cx: x - 6, cy: top + y, r: 2.6, fill: "var(--color-ink)" })) : [];
    return [thick, ...dots, svg("text", { class: "soft", x: x + 14, y: top + 18 }, words)];
  }

  ruler(view) {
    const { scale } = this;
    const group = svg("g", {});
    group.append(svg("rect", { x: view.from, y: 0, width: view.to - view.from, height: RULER, fill: "#f7f8f4", "data-drag": "playhead" }));
    const step = tickStepMs(scale);
    let ticks = "";
    for (let ms = Math.floor(scale.ms(view.from) / step) * step; scale.x(ms) < view.to; ms += step / 5) {
      const major = Math.round(ms / (step / 5)) % 5 === 0;
      const x = scale.x(ms);
      ticks += `M${x} ${RULER - (major ? 10 : 5)}V${RULER}`;
      if (major && ms >= 0) group.append(svg("text", { class: "soft", x: x + 4, y: 14, "pointer-events": "none" }, step < 1000 ? clockText(ms) : minutesText(ms)));
    }
    group.append(svg("path", { d: ticks, stroke: "#9fb0a9", "pointer-events": "none" }));
    return group;
  }

  /** The event that what is pulled has come to lie on. */
  showLine(ms) {
    if (ms === this.lineMs) return;
    this.lineMs = ms;
    this.draw();
  }

  snapLine(rows) {
    if ((this.lineMs ?? null) === null) return [];
    const x = this.scale.x(this.lineMs);
    return [svg("line", { x1: x, x2: x, y1: RULER - 8, y2: rows.bottom, stroke: "#e0559b", "stroke-width": 1.5, "pointer-events": "none", "data-snapped": Math.round(this.lineMs) })];
  }

  playhead(rows) {
    const x = this.scale.x(this.state.playheadMs);
    const words = clockText(this.state.playheadMs);
    return [
      svg("line", { x1: x, x2: x, y1: RULER - 8, y2: rows.bottom, stroke: "var(--color-plum)", "stroke-width": 2, "pointer-events": "none" }),
      svg("g", { "data-drag": "playhead" }, svg("rect", { x: x - 24, y: 2, width: 48, height: 18, rx: 9, fill: "var(--color-plum)" }),
        svg("text", { x, y: 15, "text-anchor": "middle", class: "strong light", "pointer-events": "none" }, words)),
    ];
  }

  drawNames(rows) {
    const { data } = this.state;
    // Drawn anew only where it says something else: a button in it would lose its focus.
    const said = JSON.stringify([rows, data.order.length, data.length_ms, data.settings.runs, data.voices.length, data.music, data.lost_spans, data.order.map((id) => [data.slides[id].schedule.beats.length, data.slides[id].skipped])]);
    if (said === this.namesSaid) return;
    this.namesSaid = said;
    const waits = data.order.reduce((sum, id) => sum + data.slides[id].schedule.beats.length - 1 + (data.slides[id].schedule.last_wait ? 1 : 0), 0);
    const place = (top, title, ...facts) => {
      const node = el("div", {}, el("b", {}, title), facts.map((fact) => el("span", {}, fact)));
      node.style.top = `${top}px`;
      return node;
    };
    const zoom = el("div", { class: "row" },
      el("button", { class: "push bare mr-auto", "aria-label": "Set a mark at the playhead", title: "Set a mark at the playhead", onclick: () => addMark(this.state) }, icon("flag")), this.keyButton,
      el("button", { class: "push bare", "aria-label": "See more of the show", title: "See more (−)", onclick: () => this.zoom(1 / 1.5) }, "−"),
      el("button", { class: "push bare", "aria-label": "See it larger", title: "Larger (+)", onclick: () => this.zoom(1.5) }, "+"));
    zoom.style.top = "-2px";
    const music = data.music.length ? `${data.music.length === 1 ? this.state.asset(data.music[0].asset_id)?.name ?? "" : `${data.music.length} stretches`}` : "none";
    this.names.replaceChildren(zoom,
      place(rows.slides.top + 8, "Slides", `${this.state.shown.length} slides · ${clockText(data.length_ms)}`, data.settings.runs === "on cue" ? "on cue" : "self-running"),
      place(rows.builds.top + 8, "Builds", `${waits} wait${waits === 1 ? "" : "s"}`),
      ...(data.voices.length ? [place(rows.voices.top + 5, "Voices")] : []),
      place(rows.music.top + 4, "Music", data.lost_spans.length ? "a stretch has no slide left" : music));
  }

  /** Zooms around the playhead, or around a place in the view. */
  zoom(factor, aroundPx = null) {
    const x = this.scale.x(this.state.playheadMs) - this.scroll.scrollLeft;
    const at = aroundPx ?? (x >= 0 && x <= this.scroll.clientWidth ? x : this.scroll.clientWidth / 2);
    const ms = this.scale.ms(this.scroll.scrollLeft + at);
    const least = (this.scroll.clientWidth - TAIL_PX) / Math.max(this.state.data.length_ms / 1000, 1);
    this.scale = new Scale(Math.max(Math.min(this.scale.pxPerS * factor, MOST_PX_S), Math.min(least, 13)));
    this.spacer.style.width = `${Math.max(this.scale.x(this.state.data.length_ms) + TAIL_PX, this.scroll.clientWidth)}px`;
    this.scroll.scrollLeft = this.scale.x(ms) - at;
    this.stretch();
  }

  fitSlide(slideId) {
    const { length_ms: length } = this.state.data.slides[slideId].schedule;
    this.zoom(((this.scroll.clientWidth - 160) / (length / 1000)) / this.scale.pxPerS);
    this.scroll.scrollLeft = this.scale.x(this.state.data.starts_ms[slideId]) - 60;
  }

  /** Two fingers zoom around the place between them. */
  pinch() {
    const fingers = new Map();
    const across = () => { const [a, b] = [...fingers.values()]; return { width: Math.max(Math.abs(a - b), 20), middle: (a + b) / 2 - this.scroll.getBoundingClientRect().left }; };
    let before = null;
    this.scroll.addEventListener("pointerdown", (event) => {
      if (event.pointerType !== "touch") return;
      fingers.set(event.pointerId, event.clientX);
      before = fingers.size === 2 ? across() : null;
    }, true);
    addEventListener("pointermove", (event) => {
      if (!fingers.has(event.pointerId)) return;
      fingers.set(event.pointerId, event.clientX);
      if (!before) return;
      const now = across();
      this.zoom(now.width / before.width, now.middle);
      before = now;
    });
    for (const kind of ["pointerup", "pointercancel"]) addEventListener(kind, (event) => { if (fingers.delete(event.pointerId)) before = null; });
  }

  wheel(event) {
    if (!event.ctrlKey && !event.metaKey) return;
    event.preventDefault();
    this.zoom(1.0025 ** -event.deltaY, event.clientX - this.scroll.getBoundingClientRect().left);
  }

  key(event) {
    if (event.key === "+" || event.key === "=") this.zoom(1.5);
    else if (event.key === "-") this.zoom(1 / 1.5);
    else if (event.key === "Enter" || event.key === " ") {
      const node = document.activeElement.closest?.("[data-pick]");
      if (!node) return;
      this.pickNode(node);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Brings a slide's bar into view. */
  reveal(slideId) {
    const x = this.scale.x(this.state.data.starts_ms[slideId] ?? 0);
    const end = x + this.scale.x(this.state.data.slides[slideId].schedule.length_ms);
    const { scrollLeft: left, clientWidth: width } = this.scroll;
    if (x < left || end > left + width) this.scroll.scrollLeft = Math.max(0, x - 40);
  }

  /** Several slides: with Shift all from the one on the stage to the one pressed, with Ctrl one more or one less. */
  pickSeveral(slide, event) {
    const { order } = this.state.data;
    const now = this.state.pickedSlides.size ? this.state.pickedSlides : new Set(this.state.slide ? [this.state.slide.id] : []);
    if (event.shiftKey) {
      const [a, b] = [order.indexOf(this.state.slide?.id), order.indexOf(slide)].sort((one, other) => one - other);
      this.state.pickSlides(order.slice(Math.max(a, 0), b + 1));
      return;
    }
    const next = new Set(now);
    if (next.has(slide)) next.delete(slide); else next.add(slide);
    this.state.pickSlides(next);
  }

  async pickNode(node, event = {}) {
    const { pick, slide, build, span, mark } = node.dataset;
    if (pick === "slide" && (event.shiftKey || event.ctrlKey || event.metaKey)) this.pickSeveral(slide, event);
    else if (pick === "slide") {
      this.state.pick([]);
      await this.state.open(slide);
    } else if (pick === "build") {
      if (this.state.slide?.id !== slide) await this.state.open(slide);
      this.state.pickBuild(this.state.build(build));
    } else if (pick === "tie") {
      await this.state.open(slide);
      this.state.pick([]);
      document.querySelector(".panel .pairs")?.scrollIntoView({ block: "nearest" });
    } else if (pick === "mark") this.state.pick([], { mark });
    else this.state.pick([], { span });
  }

  press(event) {
    if (event.button !== 0) return;
    const handle = event.target.closest("[data-drag]");
    const node = event.target.closest("[data-pick]");
    if (handle) {
      event.preventDefault();
      begin(this.drags, ({ dragOn }) => dragOn(this, handle, event, () => { if (node) this.pickNode(node, event); }));
    } else if (node) this.pickNode(node, event);
    else this.state.pick([]);
  }

  showNumber(words, event) {
    this.tag.textContent = words;
    this.tag.hidden = !words;
    if (!words) return;
    const box = this.scroll.parentElement.getBoundingClientRect();
    this.tag.style.left = `${Math.min(event.clientX - box.left + 14, box.width - 150)}px`;
    this.tag.style.top = `${event.clientY - box.top - 30}px`;
  }
}
