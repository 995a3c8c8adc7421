// Release: the show as a stranger sees it, its editions, and films.
import { el, icon } from "./ui/element.js";
import { get, post, startData, send } from "./ui/net.js";
import { clockText } from "./ui/times.js";
import { toast } from "./ui/toast.js";
import { choice, pair, selectField, tick } from "./panel/fields.js";
import { Checks } from "./release-checks.js";

const at = (id) => document.getElementById(id);
let data = startData();
const base = `/shows/${data.show_id}`;
const wish = { kind: "mp4", size: "1280x720", rate: "30", constant_rate: false };
const SIZES = [["640x360", "640 × 360"], ["1280x720", "1280 × 720"], ["1920x1080", "1920 × 1080"]];
const RATES = [["24", "24 a second"], ["25", "25 a second"], ["30", "30 a second"], ["60", "60 a second"]];

async function act(work, done = "") {
  try {
    data = await work();
    draw();
    if (done) toast(done);
  } catch (error) { toast(error.message, { wrong: true }); }
}

const day = (text) => new Date(text).toLocaleDateString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

function seen() {
  const newest = data.editions[0];
  const key = `${newest?.number}/${data.withdrawn}/${data.starts_itself}/${data.loops}`;
  if (at("seen").dataset.key === key) return;
  at("seen").dataset.key = key;
  const title = el("div", { class: "row" }, el("span", { class: "font-serif italic" }, "As a stranger sees it"));
  if (!newest || data.withdrawn) {
    at("seen").replaceChildren(title, el("div", { class: "grid place-items-center content-center gap-3 text-center" }, el("p", { class: "font-serif text-2xl" }, newest ? "Withdrawn" : "Not released yet"),
      el("p", { class: "text-[#b9c6c3] max-w-[420px]" }, newest ? "Whoever opens the address is told that there is no show. Reopen it on the right; the address stays." : "Make an edition: the show as it is now gets a public address that nobody needs to sign in for. Later edits change nothing in it.")), el("span"));
    return;
  }
  const frame = el("iframe", { src: data.address, title: `${data.title}, edition ${newest.number}`, allow: "autoplay; fullscreen" });
  at("seen").replaceChildren(title, el("div", { class: "window" }, el("div", { class: "bg-gutter text-ink flex items-center px-3" }, el("span", { class: "bg-white rounded px-3 truncate" }, data.address)), frame),
    el("p", { class: "text-[#b9c6c3]" }, `Edition ${newest.number}, ${newest.slides} slides, ${clockText(newest.length_ms)}, opened ${newest.opened} time${newest.opened === 1 ? "" : "s"}.`));
}

function editions() {
  const newest = data.editions[0];
  const set = (body, done) => act(() => post(`${base}/release/settings`, body), done);
  if (!newest) return el("section", {}, el("h2", { class: "text-lg" }, "Editions"), el("p", { class: "said" }, "None yet."));
  return el("section", { class: "grid gap-2" },
    el("div", { class: "row" }, el("h2", { class: "text-lg mr-auto" }, `Edition ${newest.number}`), el("span", { class: "said" }, data.withdrawn ? "Withdrawn" : "Open to anyone with the address")),
    el("div", { class: "row" }, el("input", { class: "field", readonly: true, value: data.address, "aria-label": "Address", onfocus: (event) => event.target.select() }),
      el("button", { class: "push", onclick: async () => { await navigator.clipboard?.writeText(data.address).catch(() => undefined); toast("The address was copied."); } }, icon("copy"), "Copy")),
    el("div", { class: "grid grid-cols-2" }, tick("Starts by itself", data.starts_itself, (on) => set({ starts_itself: on })), tick("Loops", data.loops, (on) => set({ loops: on }))),
    el("div", { class: "row" }, el("a", { class: "push", href: data.address, target: "_blank", rel: "noopener" }, "Open it"),
      el("button", { class: "push", onclick: () => set({ withdrawn: !data.withdrawn }, data.withdrawn ? "Open again at the same address." : "Withdrawn. Nobody can open it now.") }, data.withdrawn ? "Reopen" : "Withdraw")),
    data.editions.length > 1 ? el("details", {}, el("summary", { class: "said cursor-pointer" }, `${data.editions.length - 1} earlier`), el("ul", {}, data.editions.slice(1).map((edition) => el("li", { class: "said" }, `${edition.number} · ${day(edition.at)} · ${clockText(edition.length_ms)}, opened ${edition.opened} times`)))) : null);
}

function orderFilm() {
  const [width, height] = wish.size.split("x").map(Number);
  return act(() => post(`${base}/films`, { kind: wish.kind, width_px: width, height_px: height, rate: wish.rate, constant_rate: wish.constant_rate }));
}

function filmForm() {
  return el("section", { class: "grid gap-2" }, el("h2", { class: "text-lg" }, "Film"),
    pair("Kind", choice(wish.kind, [["mp4", "MP4"], ["webm", "WebM"]], (kind) => { wish.kind = kind; draw(); }, { label: "Kind" })),
    pair("Size", selectField(wish.size, SIZES, (size) => { wish.size = size; })), pair("Frames", selectField(wish.rate, RATES, (rate) => { wish.rate = rate; })),
    tick("Every frame, for players that need a constant rate", wish.constant_rate, (on) => { wish.constant_rate = on; }),
    el("div", {}, el("button", { class: "push main", onclick: orderFilm }, "Make the film")));
}

const STATES = { waiting: "Waiting for the worker", running: "Being made", ready: "Ready", cancelled: "Cancelled", failed: "Failed", interrupted: "Interrupted" };

function left(film) {
  if (film.cancel_wanted) return "stopping";
  if (film.left_s === null) return film.slide ? `drawing slide ${film.slide}` : "beginning";
  return `drawing slide ${film.slide}, ${film.left_s < 1 ? "under 1" : Math.ceil(film.left_s)} s left`;
}

function filmLine(film) {
  const share = film.total ? film.done / film.total : 0;
  const to = (way, words) => el("button", { class: "push", onclick: () => act(() => post(`${base}/films/${film.id}/${way}`)) }, words);
  const open = film.state === "running" || film.state === "waiting";
  const parts = [el("div", { class: "row" }, el("b", { class: "font-semibold mr-auto" }, `${film.kind === "mp4" ? "MP4" : "WebM"}, ${film.size}, ${film.rate} a second`),
    open ? to("cancel", "Cancel") : null, film.state === "ready" ? el("a", { class: "push", href: film.file, download: true }, icon("download"), "Save") : null,
    ["failed", "cancelled", "interrupted"].includes(film.state) ? to("again", "Start again") : null,
    open ? null : el("button", { class: "push bare", "aria-label": "Take the film off the list", onclick: () => act(() => post(`${base}/films/${film.id}/remove`)) }, icon("trash-2")))];
  if (film.state === "running") {
    const bar = el("i");
    bar.style.width = `${share * 100}%`;
    parts.push(el("div", { class: "progress", role: "progressbar", "aria-valuenow": Math.round(share * 100), "aria-valuemin": 0, "aria-valuemax": 100, "aria-label": "Film" }, bar), el("p", { class: "said" }, `${Math.round(share * 100)} %, ${left(film)}`));
  } else parts.push(el("p", { class: film.message ? "wrong" : "said" }, film.message || (film.state === "ready" ? `Ready, ${(film.size_bytes / 1e6).toFixed(1)} MB` : STATES[film.state])));
  return el("div", { class: "grid gap-1 py-2 border-t border-staff", "data-film": film.id, "data-state": film.state }, parts);
}

/** How loud the show is as a whole, measured by the worker: as it is mixed, and what its film lands at. */
const minus = (number) => number.toFixed(1).replace("-", "−");
const heard = el("section", { class: "heard" });
async function hear(ask = true) {
  const found = await get(`${base}/loudness.json${ask ? "?ask=1" : ""}`).catch(() => null);
  if (!found) { heard.hidden = true; return; }
  const { ready, lufs, peak_dbtp: peak, lands_at_lufs: lands, limits, target_lufs: target } = found;
  const sum = (words, ...more) => heard.replaceChildren(el("h2", { class: "text-lg mb-1" }, "Sound"), el("p", {}, words), ...more.map((line) => el("p", { class: "said" }, line)));
  if (!ready) { sum("Being measured …"); setTimeout(() => hear(false), 1000); }
  else if (lufs === null) sum("The show is silent.");
  else sum(`${minus(lufs)} LUFS, peaks at ${minus(peak)} dBTP`, `A film lands at ${minus(lands)} LUFS (wanted: ${minus(target)} ± 0.5) and at most −1 dBTP${limits ? "; its loudest peaks are held down for that" : ""}. Measured by ITU-R BS.1770.`);
}
hear();

/** The show's words and times as files, and times from one. */
function fileForm() {
  const save = (name, words, title) => el("a", { class: "push", href: `${base}/${name}`, download: true, title }, icon("download"), words);
  const input = el("input", { type: "file", accept: ".csv,.tsv,text/csv", class: "sr-only", "aria-label": "Read timings from a table" });
  input.addEventListener("change", () => { const [file] = input.files; input.value = ""; if (file) readTimings(file); });
  return el("section", { class: "grid gap-2" }, el("h2", { class: "text-lg" }, "Files"),
    el("div", { class: "row flex-wrap" }, save("outline.md", "Outline", "Its words as Markdown: pictures, places and times are not in it"), save("timings.csv", "Timings", "Lengths and holds as a table (CSV)"), save("schedule.json", "Schedule", "What starts when, as JSON")),
    el("div", {}, el("label", { class: "push cursor-pointer", title: "Lengths and holds from a table like the one that is saved; one undo takes them back" }, icon("upload"), "Read timings", input)));
}

async function readTimings(file) {
  try {
    const reply = await send(`${base}/timings`, file);
    toast([`The show has the timings of ${file.name} now: ${reply.length}.`, ...reply.notices.slice(0, 3), reply.notices.length > 3 ? `And ${reply.notices.length - 3} more lines that did not fit.` : ""].filter(Boolean).join(" "),
      { act: "Undo", onact: async () => { await post(`${base}/undo`).catch((error) => toast(error.message, { wrong: true })); location.reload(); } });
  } catch (error) { toast(error.message, { wrong: true }); }
}

function draw() {
  seen();
  at("make-edition").textContent = `Make edition ${(data.editions[0]?.number ?? 0) + 1}`;
  const films = data.films.length ? data.films.map(filmLine) : [el("p", { class: "said" }, "None yet.")];
  at("side").replaceChildren(editions(), filmForm(), el("section", { "data-films": "" }, el("h2", { class: "text-lg mb-1" }, "Films"), films),
    heard, fileForm(),
    ...data.captions ? [el("section", {}, el("div", { class: "row" }, el("h2", { class: "text-lg mr-auto" }, "Captions"), el("a", { class: "push", href: data.captions, download: true }, icon("download"), "WebVTT"), el("a", { class: "push", href: `${base}/captions.srt`, download: true }, icon("download"), "SRT")), el("p", { class: "said" }, "Those of its clips, on the show's own clock, to go with its film."))] : []);
}

async function follow() {
  if (data.films.some((film) => film.state === "running" || film.state === "waiting") && document.visibilityState === "visible") {
    try {
      data = await get(`${base}/films`);
      const list = document.querySelector("[data-films]");
      list.replaceChildren(list.firstChild, ...data.films.map(filmLine));
    } catch { /* told again at the next try */ }
  }
  setTimeout(follow, 400);
}

at("make-edition").addEventListener("click", () => act(() => post(`${base}/editions`), "The edition is made. Its address is on the right."));
new Checks(at("checks"), base);
draw();
follow();
