// The menu of a right click, or of a finger that rests. Everything in it can be reached elsewhere too.
import { el, newId } from "../ui/element.js";
import { loadSheet } from "../ui/sheets.js";

const RESTS_MS = 550;
const SHAKES_PX = 9;
const WRITING = ".words-field, .words-bar, input, textarea";

/** @param {Stage} stage */
export function contextMenu(stage) {
	const { state, theatre } = stage;
	/** @type {any} */
	let menu = null;
	loadSheet("media");
	const close = () => {
		menu?.remove();
		menu = null;
	};
	const leave = () => {
		close();
		stage.svg.focus({ preventScroll: true });
	};
	const open = (/** @type {any} */ target, /** @type {any} */ spot) => {
		const id = target.closest("[data-object]")?.dataset.object;
		if (id && !state.picked.has(id)) state.pick(stage.picking.withGroup(id));
		else if (!id && spot) state.pick([]);
		close();
		menu = el("div", { class: "context-menu", role: "menu", "aria-label": "What can be done here" });
		for (const entry of entriesFor(stage)) {
			menu.append(
				entry
					? el(
							"button",
							{
								role: "menuitem",
								onclick: () => {
									close();
									entry.act();
								},
							},
							entry.words,
							entry.key ? el("kbd", {}, entry.key) : null,
						)
					: el("hr"),
			);
		}
		theatre.closest("main").append(menu);
		const { width, height } = menu.getBoundingClientRect();
		const [x, y] = spot ?? middleOf(stage);
		menu.style.left = `${Math.max(4, Math.min(x, innerWidth - width - 4))}px`;
		menu.style.top = `${Math.max(4, Math.min(y, innerHeight - height - 4))}px`;
		menu.firstElementChild.focus();
		menu.addEventListener("keydown", (/** @type {KeyboardEvent} */ key) => {
			const all = [...menu.querySelectorAll("button")];
			const at = all.indexOf(document.activeElement);
			/** @type {{[key: string]: number}} */
			const ways = { ArrowDown: at + 1, ArrowUp: at - 1 + all.length, Home: 0, End: all.length - 1 };
			const to = ways[key.key];
			if (to !== undefined) all[to % all.length].focus();
			else if (key.key === "Escape" || key.key === "Tab") leave();
			else return;
			key.preventDefault();
			key.stopPropagation();
		});
	};
	const closed = (/** @type {any} */ target) => target.closest(WRITING) || stage.pen?.active;
	let byFinger = false;
	theatre.addEventListener("contextmenu", (/** @type {StageEvent} */ event) => {
		if (closed(event.target)) return;
		event.preventDefault();
		// Some browsers tell of a finger that rests, others do not: the menu opens once.
		if (!byFinger) open(event.target, event.button === 2 ? [event.clientX, event.clientY] : null);
	});
	theatre.addEventListener("pointerdown", (/** @type {any} */ down) => {
		byFinger = down.pointerType === "touch";
		if (!byFinger || closed(down.target)) return;
		const listening = new AbortController();
		const stop = () => {
			clearTimeout(timer);
			listening.abort();
		};
		const timer = setTimeout(() => {
			stop();
			// What the finger had taken hold of goes back.
			const { pointerId, pointerType } = down;
			dispatchEvent(new PointerEvent("pointercancel", { pointerId, pointerType }));
			open(down.target, [down.clientX, down.clientY]);
		}, RESTS_MS);
		const how = { capture: true, signal: listening.signal };
		addEventListener(
			"pointermove",
			({ clientX: x, clientY: y }) => Math.hypot(x - down.clientX, y - down.clientY) > SHAKES_PX && stop(),
			how,
		);
		for (const kind of ["pointerup", "pointercancel", "pointerdown"]) addEventListener(kind, stop, how);
	});
	addEventListener("pointerdown", (event) => menu && !menu.contains(event.target) && close(), true);
	addEventListener("blur", close);
}

/** The place of a menu opened by a key. @param {Stage} stage */
function middleOf(stage) {
	const [item] = stage.picked();
	const box = (item && stage.placeOf(item.id) ? stage.placeOf(item.id) : stage.svg).getBoundingClientRect();
	return [box.left + box.width / 2, box.top + box.height / 2];
}

/** The lines of the menu; null is a rule between them. @param {Stage} stage */
function entriesFor(stage) {
	const { state } = stage;
	const items = stage.picked();
	const slide_id = state.slide.id;
	const ids = items.map((item) => item.id);
	if (!items.length) {
		return [
			{ words: "Add a text", act: async () => (await import("./adding.js")).addText(stage) },
			{
				words: "Pick all",
				key: "Ctrl A",
				act: () => state.pick(state.slide.objects.filter((item) => !item.aside).map(({ id }) => id)),
			},
			{ words: "Background and layout", act: () => state.showPanel("slide", { tab: "slide" }) },
			{ words: "Notes", act: () => state.showPanel("slide", { tab: "notes" }) },
			null,
			{
				words: "Duplicate the slide",
				key: "Ctrl D",
				act: async () => (await import("./copying.js")).duplicatePicked(stage),
			},
		];
	}
	const [item] = items;
	const alone = items.length === 1;
	const set = (/** @type {{[name: string]: any}} */ changes) =>
		state.edit({ do: "change objects", slide_id, object_ids: ids, changes });
	const last = state.slide.objects.length - ids.length;
	const stack = (/** @type {number} */ to) => state.edit({ do: "stack objects", slide_id, object_ids: ids, to });
	const tab = (/** @type {string} */ key) => state.dispatchEvent(new CustomEvent("tab", { detail: { tab: key } }));
	const grouped = items.every(({ group }) => group && group === item.group);
	const group = (/** @type {string} */ name) =>
		state.edit({ do: "group objects", slide_id, object_ids: ids, group: name });
	const locked = items.every((one) => one.locked);
	const pictured = alone && ["picture", "clip"].includes(item.kind);
	const lines = [
		alone &&
			item.paragraphs &&
			item.form !== "line" && { words: "Edit the words", key: "Enter", act: () => stage.editWords(item) },
		alone && { words: "Builds", act: () => tab("builds") },
		alone && { words: "Look", act: () => tab("look") },
		alone && { words: "Place and size", act: () => tab("place") },
		alone && { words: "What a press on it does", act: () => tab("press") },
		pictured &&
			(item.fit === "contain"
				? { words: "Fill its box", act: () => set({ fit: "cover" }) }
				: { words: "Show all of it", act: () => set({ fit: "contain" }) }),
		null,
		{ words: "Copy", key: "Ctrl C", act: () => document.execCommand("copy") },
		{ words: "Duplicate", key: "Ctrl D", act: async () => (await import("./copying.js")).duplicatePicked(stage) },
		null,
		{ words: "To the front", act: () => stack(last) },
		{ words: "To the back", act: () => stack(0) },
		!alone && !grouped && { words: "Group", act: () => group(newId()) },
		grouped && { words: "Ungroup", act: () => group("") },
		{ words: locked ? "Unlock" : "Lock", act: () => set({ locked: !locked }) },
		{ words: "Put aside", act: () => set({ aside: true }) },
		null,
		{
			words: alone ? `Remove ${item.name}` : "Remove them",
			key: "Delete",
			act: () => state.edit({ do: "remove objects", slide_id, object_ids: ids }),
		},
	];
	return lines.filter((line) => line === null || line);
}
