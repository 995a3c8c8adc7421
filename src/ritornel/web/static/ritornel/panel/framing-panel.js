// A slide larger than the frame, and the parts of it that the view flies to.
import { el, icon } from "../ui/element.js";
import { addFraming, flightTo } from "../stage/framings.js";
import { timing } from "./builds-panel.js";
import { numberField, pair, textField, tick } from "./fields.js";

const WHOLE = "whole";

/** The slide's size and its framings, in the slide's panel. */
export function framingFields(state) {
  const { slide, data } = state;
  const { frame } = data.settings;
  const size = slide.size ?? frame;
  const resize = (width, height) => state.edit({ do: "change size", slide_id: slide.id, size: { width_px: width, height_px: height } });
  const { whole } = data.viewing;
  const rows = slide.framings.map((framing) => el("button", { class: "push", "aria-pressed": String(state.pickedFraming === framing.id), onclick: () => state.pick([], { framing: framing.id }) }, icon("maximize"), framing.name));
  return [
    pair("Size", el("div", { class: "two" }, numberField(size.width_px, (width) => resize(Math.round(width), size.height_px), { label: "Width of the slide", least: frame.width_px, most: 8192, unit: "px", decimals: 0 }),
      numberField(size.height_px, (height) => resize(size.width_px, Math.round(height)), { label: "Height of the slide", least: frame.height_px, most: 8192, unit: "px", decimals: 0 }))),
    el("div", { class: "row flex-wrap" },
      slide.size ? el("button", { class: "push", onclick: () => resize(frame.width_px, frame.height_px) }, "As large as the frame") : el("button", { class: "push", onclick: () => resize(frame.width_px * 2, frame.height_px * 2) }, "Twice as large"),
      el("button", { class: "push", title: "A part of the slide that the view flies to", onclick: () => addFraming(state, { x: size.width_px / 2, y: size.height_px / 2, width: whole.width_px / 2 }) }, icon("plus"), "Framing"),
      slide.framings.length ? el("button", { class: "push", title: "The view flies back to all of the slide, on a cue", onclick: () => flyTo(state, WHOLE) }, "Fly to the whole") : null),
    rows.length ? el("div", { class: "row flex-wrap", role: "group", "aria-label": "Framings" }, rows) : el("p", { class: "said" }, "A framing is a part of the slide that the view flies to on a cue."),
  ];
}

function flyTo(state, target) {
  const build = flightTo(target);
  return state.edit({ do: "add build", slide_id: state.slide.id, build }).then((made) => { if (made && target !== WHOLE) state.pick([], { framing: target, build: build.id }); });
}

/** The panel of a picked framing, or of a move of the view back to the whole. */
export function framingPanel(state) {
  const { slide } = state;
  const framing = slide.framings.find((entry) => entry.id === state.pickedFraming);
  const target = framing?.id ?? WHOLE;
  const own = state.line.builds.filter((build) => build.kind === "views" && build.object_id === target);
  const current = own.find((build) => build.id === state.pickedBuild) ?? null;
  const flights = el("section", { class: "grid gap-2" }, el("h3", {}, "The view flies here"),
    el("div", { class: "row flex-wrap" }, own.map((build) => el("button", { class: "push", "aria-pressed": String(build === current), onclick: () => state.pick([], { framing: target, build: build === current ? null : build.id }) }, build.starts.rule === "cue" ? `On cue, beat ${build.beat}` : `In beat ${build.beat}`)),
      el("button", { class: "push", onclick: () => flyTo(state, target) }, icon("plus"), "Fly here once more")),
    ...(current ? timing(state, current) : []));
  if (!framing) return [el("section", {}, el("h2", {}, "The whole slide"), el("p", { class: "said" }, "What the view comes back to.")), flights];
  const set = (changes) => state.edit({ do: "change framing", slide_id: slide.id, framing_id: framing.id, changes });
  return [
    el("section", { class: "grid gap-2" }, textField(framing.name, (name) => set({ name }), { label: "Name of the framing", placeholder: "Name this framing", cls: "name-field" }),
      pair("Middle", el("div", { class: "two" }, numberField(framing.x, (x) => set({ x }), { label: "From the left", unit: "px" }), numberField(framing.y, (y) => set({ y }), { label: "From the top", unit: "px" }))),
      pair("Width", numberField(framing.width_px, (width) => set({ width_px: width }), { label: "Width", least: 16, most: 32768, unit: "px" })),
      pair("Turn", numberField(framing.turn_deg ?? 0, (turn) => set({ turn_deg: turn }), { label: "Turn", least: -360, most: 360, unit: "°" })),
      tick("The slide opens here", slide.opens_on === framing.id, (on) => state.edit({ do: "change slides", slide_ids: [slide.id], changes: { opens_on: on ? framing.id : null } }))),
    flights,
    el("section", {}, el("button", { class: "push", onclick: () => state.edit({ do: "remove framing", slide_id: slide.id, framing_id: framing.id }) }, icon("trash-2"), "Remove framing")),
  ];
}
