// Text edited in place: paragraphs as the core has them, in their own face and size. Leaving saves it; Esc saves it
// too, and undo restores the old text. Typing is the browser's own; looks and lists apply to the selected paragraphs
// and runs.
import { el, icon, newId } from "../ui/element.js";
import { keyOf } from "../ui/free-keys.js";
import { toast } from "../ui/toast.js";
import { LinkField } from "./link-field.js";
import { linesOf } from "./plain-lines.js";

const LOOKS = ["weight", "italic", "underline", "colour", "highlight", "link"];
const same = (/** @type {any} */ a, /** @type {any} */ b) =>
	LOOKS.every((name) => (a[name] ?? null) === (b[name] ?? null));
const DEEPEST = 5;

/** The literal colour: a role is looked up in the show's palette. */
export const colourIn = (/** @type {ShowState} */ state, /** @type {string} */ colour) =>
	colour?.startsWith("@")
		? state.data.settings.theme.palette[/** @type {keyof Core.Palette} */ (colour.slice(1))]
		: colour;
export const familyIn = (/** @type {ShowState} */ state, /** @type {string} */ family) =>
	({ "@heading": state.data.settings.theme.heading_family, "@body": state.data.settings.theme.body_family })[family] ??
	family;

/** @param {ShowState} state */
function runNode(state, /** @type {any} */ run) {
	const node = el("span", {}, run.text);
	node.dataset.run = JSON.stringify({ ...run, text: undefined });
	const { style } = node;
	if (run.weight) style.fontWeight = run.weight;
	if (run.italic !== undefined && run.italic !== null) style.fontStyle = run.italic ? "italic" : "normal";
	if (run.underline || run.link) style.textDecoration = "underline";
	if (run.colour) style.color = colourIn(state, run.colour);
	if (run.highlight) style.backgroundColor = colourIn(state, run.highlight);
	return node;
}

/** @param {ShowState} state */
export function paragraphNode(state, /** @type {WrittenParagraph} */ paragraph) {
	// Each paragraph runs as its first strong letter says, as the core sets it.
	const node = el(
		"p",
		{ dir: "auto" },
		paragraph.runs.filter((run) => run.text).map((run) => runNode(state, run)),
	);
	if (!node.childNodes.length) node.append(el("br"));
	if (paragraph.id) node.dataset.id = paragraph.id;
	setList(node, paragraph.list ?? "none", paragraph.level ?? 0);
	return node;
}

function setList(/** @type {any} */ node, /** @type {any} */ list, /** @type {number} */ level) {
	node.dataset.list = list;
	node.dataset.level = String(level);
	node.style.setProperty("--level", String(level + (list === "none" ? 0 : 1)));
}

function runsOf(/** @type {any} */ node) {
	/** @type {any[]} */
	const runs = [];
	const walk = (/** @type {any} */ at, /** @type {any} */ look) => {
		if (at.nodeType === Node.TEXT_NODE) {
			const text = at.textContent.replace(/\u00a0/g, " ").replace(/\n/g, " ");
			if (!text) return;
			if (runs.length && same(runs.at(-1), look)) runs.at(-1).text += text;
			else runs.push({ ...look, text });
			return;
		}
		const own = at.dataset?.run ? JSON.parse(at.dataset.run) : look;
		for (const child of at.childNodes) walk(child, own);
	};
	walk(node, {});
	return runs.length ? runs : [{ text: "" }];
}

export class WordsEditor {
	/** @type {LinkField} */
	link;
	/** @type {() => void} */
	onSelection;

	/** @param {Stage} stage */
	constructor(stage, /** @type {Core.SlideObject} */ item) {
		this.stage = stage;
		this.state = stage.state;
		this.item = item;
		this.before = JSON.stringify(this.plainOf(item.paragraphs));
		this.field = el("div", {
			class: "words-field",
			contenteditable: "true",
			role: "textbox",
			"aria-multiline": "true",
			"aria-label": `Words of ${item.name}`,
			spellcheck: "true",
		});
		this.draw(item.paragraphs.length ? item.paragraphs : [{ runs: [{ text: "" }] }]);
		this.dress();
		this.listen();
		stage.writing = item.id;
		for (const node of stage.wordsOf(item)) node.setAttribute("display", "none");
		stage.drawFrames();
		this.place();
		stage.canvas.append(this.field);
		this.bar = this.toolbar();
		// At the top of the stage the bar would lie over the words: it goes to the foot.
		if (item.box.y * stage.scale < 70) this.bar.classList.add("at-foot");
		stage.theatre.append(this.bar);
		this.field.focus();
		document.getSelection().selectAllChildren(this.field);
	}

	/** Begins with the text typed so far, the cursor behind it. */
	begin(/** @type {string} */ text) {
		const lines = text.split("\n");
		this.draw(lines.map((line) => ({ runs: [{ text: line }] })));
		const end = { at: lines.length - 1, offset: lines[lines.length - 1].length };
		this.select([end, end]);
	}

	plainOf(/** @type {WrittenParagraph[]} */ paragraphs) {
		return paragraphs.map((/** @type {any} */ { runs, list = "none", level = 0 }) => ({
			runs: runs.map((/** @type {any} */ run) => ({ ...run })),
			list,
			level,
		}));
	}

	draw(/** @type {WrittenParagraph[]} */ paragraphs) {
		this.field.replaceChildren(...paragraphs.map((paragraph) => paragraphNode(this.state, paragraph)));
	}

	place() {
		const { scale } = this.stage;
		const { box } = this.item;
		Object.assign(this.field.style, {
			left: `${box.x * scale}px`,
			top: `${box.y * scale}px`,
			width: `${box.width}px`,
			minHeight: `${box.height}px`,
			transform: `scale(${scale}) rotate(${box.turn_deg ?? 0}deg)`,
		});
	}

	dress() {
		const { item, state } = this;
		const size = state.staged.drawing.objects.find((entry) => entry.object_id === item.id)?.size_px || item.size_px;
		Object.assign(this.field.style, {
			fontFamily: `"${familyIn(state, item.family)}"`,
			fontSize: `${size}px`,
			fontWeight: item.weight,
			fontStyle: item.italic ? "italic" : "normal",
			color: colourIn(state, item.colour ?? item.outline?.colour ?? "@words"),
			lineHeight: item.line_spacing,
			textAlign: item.align === "left" ? "start" : item.align === "right" ? "end" : "center",
			textDecoration: item.underline ? "underline" : "none",
		});
		this.field.style.setProperty("--gap", `${item.paragraph_gap}em`);
		this.field.dataset.stand = item.stand;
		// On a ground as dark or light as the words would be unreadable; a shape's own fill stays behind.
		this.field.dataset.kind = item.kind;
	}

	listen() {
		const { field } = this;
		const keep = () => this.finish();
		field.addEventListener("blur", (/** @type {any} */ event) => {
			if (!this.bar?.contains(event.relatedTarget)) keep();
		});
		field.addEventListener("pointerdown", (event) => event.stopPropagation());
		field.addEventListener("keydown", (event) => this.key(event));
		field.addEventListener("input", () => this.autoList());
		field.addEventListener("paste", (event) => this.paste(event));
		document.addEventListener("selectionchange", (this.onSelection = () => this.reflect()));
	}

	key(/** @type {KeyboardEvent} */ event) {
		event.stopPropagation();
		const control = event.ctrlKey || event.metaKey;
		/** @type {{[key: string]: [string, any]}} */
		const looks = { b: ["weight", 700], i: ["italic", true], u: ["underline", true] };
		if (event.key === "Escape" || (event.key === "Enter" && control)) {
			event.preventDefault();
			this.leave();
		} else if (event.key === "Tab") {
			event.preventDefault();
			this.deepen(event.shiftKey ? -1 : 1);
		} else if (control && looks[keyOf(event).toLowerCase()]) {
			event.preventDefault();
			this.toggle(...looks[keyOf(event).toLowerCase()]);
		} else if (event.key === "Backspace" && this.atStartOfList()) {
			event.preventDefault();
			this.list("none");
		} else if (event.key === "Enter") requestAnimationFrame(() => this.afterEnter());
	}

	/** Enter on an empty line of a list leaves the list. */
	afterEnter() {
		const [now] = this.marked();
		const before = now?.previousElementSibling;
		if (now && before && now.dataset.list !== "none" && !now.textContent && !before.textContent) {
			before.remove();
			setList(now, "none", 0);
		}
	}

	atStartOfList() {
		const selection = document.getSelection();
		const [now] = this.marked();
		if (!selection.isCollapsed || !now || now.dataset.list === "none") return false;
		const range = document.createRange();
		range.selectNodeContents(now);
		range.setEnd(selection.anchorNode, selection.anchorOffset);
		return range.toString() === "";
	}

	/** "- " or "1. " at the start of a line begins a list. */
	autoList() {
		const [now] = this.marked();
		if (!now || now.dataset.list !== "none") return;
		const begun = /^(?:([-•*])|1[.)])[\s\u00a0]/.exec(now.textContent);
		if (!begun) return;
		const first = document.createTreeWalker(now, NodeFilter.SHOW_TEXT).nextNode();
		if (first?.textContent) first.textContent = first.textContent.slice(begun[0].length);
		if (!now.textContent) now.append(el("br"));
		setList(now, begun[1] ? "bullets" : "numbers", 0);
	}

	/** The paragraphs the selection touches. */
	marked() {
		const selection = document.getSelection();
		if (!selection.rangeCount) return [];
		const range = selection.getRangeAt(0);
		return [...this.field.children].filter((node) => range.intersectsNode(node));
	}

	list(/** @type {string} */ kind) {
		for (const node of this.marked()) setList(node, kind, kind === "none" ? 0 : Number(node.dataset.level));
		this.reflect();
	}

	deepen(/** @type {any} */ way) {
		for (const node of this.marked()) {
			if (node.dataset.list === "none") {
				if (way > 0) setList(node, "bullets", 0);
				continue;
			}
			const level = Number(node.dataset.level) + way;
			if (level < 0) setList(node, "none", 0);
			else setList(node, node.dataset.list, Math.min(DEEPEST, level));
		}
	}

	read() {
		const paragraphs = [];
		for (const node of /** @type {Iterable<any>} */ (this.field.childNodes)) {
			if (node.nodeType === Node.TEXT_NODE && !node.textContent.trim()) continue;
			const { id = "", list = "none", level = 0 } = node.dataset ?? {};
			paragraphs.push({ id, list, level: Number(level), runs: runsOf(node) });
		}
		return paragraphs.length ? paragraphs : [{ id: "", list: "none", level: 0, runs: [{ text: "" }] }];
	}

	/** The selection as characters: paragraph and offset of both ends. */
	ends() {
		const range = document.getSelection().getRangeAt(0);
		return [
			{ node: range.startContainer, offset: range.startOffset },
			{ node: range.endContainer, offset: range.endOffset },
		].map(({ node, offset }) => {
			const paragraphs = [...this.field.children];
			if (node === this.field) {
				const at = Math.min(offset, paragraphs.length - 1);
				return { at, offset: offset > at ? paragraphs[at].textContent.length : 0 };
			}
			const paragraph = paragraphs.findIndex((entry) => entry.contains(node));
			const before = document.createRange();
			before.selectNodeContents(paragraphs[paragraph]);
			before.setEnd(node, offset);
			return { at: paragraph, offset: before.toString().length };
		});
	}

	select(/** @type {any} */ [from, to]) {
		const find = (/** @type {any} */ { at, offset }) => {
			const paragraph = this.field.children[at];
			const walker = document.createTreeWalker(paragraph, NodeFilter.SHOW_TEXT);
			let left = offset;
			for (let node = walker.nextNode(); node; node = walker.nextNode()) {
				const { length } = node.textContent ?? "";
				if (left <= length) return { node, left };
				left -= length;
			}
			return { node: paragraph, left: 0 };
		};
		const range = document.createRange();
		const [first, last] = [find(from), find(to)];
		range.setStart(first.node, first.left);
		range.setEnd(last.node, last.left);
		document.getSelection().removeAllRanges();
		document.getSelection().addRange(range);
	}

	/** Gives the selected text a look; null removes it. Without a selection it applies to everything. */
	apply(/** @type {{[name: string]: any}} */ changes) {
		this.field.focus();
		let ends = this.ends();
		const nothing = document.getSelection().isCollapsed;
		const paragraphs = this.read();
		if (nothing)
			ends = [
				{ at: 0, offset: 0 },
				{ at: paragraphs.length - 1, offset: Infinity },
			];
		const [from, to] = ends;
		const fresh = paragraphs.map((paragraph, at) => {
			if (at < from.at || at > to.at) return paragraph;
			const start = at === from.at ? from.offset : 0;
			const end = at === to.at ? to.offset : Infinity;
			const runs = [];
			let offset = 0;
			for (const run of paragraph.runs) {
				const cuts = [
					0,
					Math.max(0, Math.min(run.text.length, start - offset)),
					Math.max(0, Math.min(run.text.length, end - offset)),
					run.text.length,
				];
				for (const index of [0, 1, 2]) {
					const text = run.text.slice(cuts[index], cuts[index + 1]);
					if (text) runs.push(index === 1 ? { ...run, ...changes, text } : { ...run, text });
				}
				offset += run.text.length;
			}
			return { ...paragraph, runs: runs.length ? runs : [{ text: "" }] };
		});
		this.draw(fresh);
		if (!nothing) this.select([from, to]);
		this.reflect();
	}

	/** The look at the start of the selection, for the buttons. */
	look() {
		const selection = document.getSelection();
		const node = selection.rangeCount ? selection.getRangeAt(0).startContainer : null;
		if (!node || !this.field.contains(node)) return {};
		const [start] = this.ends();
		const paragraph = this.read()[start.at];
		let offset = 0;
		for (const run of paragraph?.runs ?? []) {
			offset += run.text.length;
			if (offset > start.offset) return run;
		}
		return paragraph?.runs.at(-1) ?? {};
	}

	toggle(/** @type {string} */ name, /** @type {any} */ value) {
		const now = this.look()[name] ?? /** @type {any} */ (this.item)[name];
		const off = /** @type {Record<string, any>} */ ({ weight: 400, italic: false, underline: false })[name];
		this.apply({ [name]: now === value ? off : value });
	}

	paste(/** @type {ClipboardEvent} */ event) {
		event.preventDefault();
		event.stopPropagation();
		const text = /** @type {DataTransfer} */ (event.clipboardData).getData("text/plain");
		if (!text) return;
		const lines = linesOf(text);
		const [from, to] = this.ends();
		const paragraphs = this.read();
		const cut = (/** @type {any} */ runs, /** @type {any} */ start, /** @type {number} */ end) => {
			const result = [];
			let offset = 0;
			for (const run of runs) {
				const part = run.text.slice(Math.max(0, start - offset), Math.max(0, end - offset));
				if (part) result.push({ ...run, text: part });
				offset += run.text.length;
			}
			return result;
		};
		const head = cut(paragraphs[from.at].runs, 0, from.offset);
		const tail = cut(paragraphs[to.at].runs, to.offset, Infinity);
		const look = { ...this.look(), text: undefined, link: null };
		const middle = lines.map((line) => ({
			id: "",
			list: line.list ?? "none",
			level: line.level ?? 0,
			runs: line.runs.map((run) => ({ ...look, ...run })),
		}));
		const kept = paragraphs[from.at];
		if (middle.length === 1 || head.length)
			Object.assign(middle[0], {
				id: kept.id,
				list: head.length || middle[0].list === "none" ? kept.list : middle[0].list,
				level: kept.level,
			});
		middle[0].runs = [...head, ...middle[0].runs];
		const end = {
			at: from.at + middle.length - 1,
			offset: middle[middle.length - 1].runs.reduce((sum, run) => sum + run.text.length, 0),
		};
		middle[middle.length - 1].runs = [...middle[middle.length - 1].runs, ...tail];
		this.draw([...paragraphs.slice(0, from.at), ...middle, ...paragraphs.slice(to.at + 1)]);
		this.select([end, end]);
	}

	toolbar() {
		const button = (
			/** @type {string} */ name,
			/** @type {string} */ words,
			/** @type {() => void} */ act,
			key = name,
		) =>
			el(
				"button",
				{
					type: "button",
					"data-look": key,
					title: words,
					"aria-label": words,
					onpointerdown: (event) => event.preventDefault(),
					onclick: act,
				},
				icon(name),
			);
		const roles = (/** @type {string} */ words, /** @type {string} */ key, /** @type {any} */ none) => {
			const field = el(
				"select",
				{ "aria-label": words, title: words, class: "field", "data-look": key },
				[
					["", none],
					["@words", "Words"],
					["@soft", "Softer"],
					["@accent", "Accent"],
					["@second", "Second accent"],
					["@raised", "Raised"],
					["@line", "Line"],
				].map(([value, text]) => el("option", { value }, text)),
			);
			field.addEventListener("change", () => this.apply({ [key]: field.value || null }));
			return field;
		};
		this.link = new LinkField(this);
		const bar = el(
			"div",
			{ class: "words-bar", role: "toolbar", "aria-label": "Look of the words" },
			button("bold", "Bold (Ctrl B)", () => this.toggle("weight", 700), "weight"),
			button("italic", "Italic (Ctrl I)", () => this.toggle("italic", true)),
			button("underline", "Underline (Ctrl U)", () => this.toggle("underline", true)),
			roles("Colour of the words", "colour", "Colour"),
			roles("Highlight", "highlight", "No highlight"),
			button("link", "Link", () => this.link.open()),
			this.link.node,
			button(
				"list",
				"Bullets",
				() => this.list(this.marked()[0]?.dataset.list === "bullets" ? "none" : "bullets"),
				"bullets",
			),
			button(
				"list-ordered",
				"Numbers",
				() => this.list(this.marked()[0]?.dataset.list === "numbers" ? "none" : "numbers"),
				"numbers",
			),
			button("list-indent-decrease", "A level out (Shift Tab)", () => this.deepen(-1)),
			button("list-indent-increase", "A level in (Tab)", () => this.deepen(1)),
			button("remove-formatting", "As the object says", () =>
				this.apply(Object.fromEntries(LOOKS.map((name) => [name, null]))),
			),
			el(
				"button",
				{
					type: "button",
					class: "done",
					onclick: () => {
						if (this.link.keep()) this.finish();
						else this.link.input.focus();
					},
				},
				"Done",
			),
		);
		bar.addEventListener("pointerdown", (event) => event.stopPropagation());
		bar.addEventListener("keydown", (event) => {
			if (event.key === "Escape") {
				event.stopPropagation();
				this.field.focus();
			}
		});
		bar.addEventListener("focusout", (/** @type {any} */ event) => {
			if (!bar.contains(event.relatedTarget) && event.relatedTarget !== this.field && event.relatedTarget)
				this.finish();
		});
		return bar;
	}

	leave() {
		this.field.blur();
		this.finish();
		this.stage.svg.focus();
	}

	reflect() {
		if (!this.bar || !this.field.contains(document.getSelection().anchorNode)) return;
		const look = this.look();
		const list = this.marked()[0]?.dataset.list;
		const on = {
			weight: (look.weight ?? this.item.weight) >= 600,
			italic: look.italic ?? this.item.italic,
			underline: look.underline ?? this.item.underline,
			link: Boolean(look.link),
			bullets: list === "bullets",
			numbers: list === "numbers",
		};
		for (const [key, value] of Object.entries(on))
			this.bar.querySelector(`[data-look="${key}"]`)?.setAttribute("aria-pressed", String(Boolean(value)));
		for (const key of ["colour", "highlight"])
			this.bar.querySelector(`select[data-look="${key}"]`).value = look[key]?.startsWith("@") ? look[key] : "";
	}

	async finish() {
		if (this.done) return;
		// A link that was typed and not confirmed is meant; one that is no address is told, and the words are kept without
		// it.
		if (!this.link.keep())
			toast(`“${this.link.typed}” is no address, so it did not become a link. The words are kept.`, { wrong: true });
		this.done = true;
		const paragraphs = this.read();
		document.removeEventListener("selectionchange", this.onSelection);
		this.field.remove();
		this.bar.remove();
		const { stage, state, item } = this;
		stage.writing = null;
		for (const node of stage.wordsOf(item)) node.removeAttribute("display");
		stage.drawFrames();
		/** @type {any[]} */
		const clean = paragraphs.map((paragraph) => ({
			...paragraph,
			runs: paragraph.runs.map((run) =>
				Object.fromEntries(Object.entries(run).filter(([, value]) => value !== null && value !== undefined)),
			),
		}));
		const slideId = state.slide.id;
		const empty = clean.every((paragraph) =>
			paragraph.runs.every((/** @type {Core.TextRun} */ run) => !run.text.trim()),
		);
		if (empty && !item.form) {
			await state.edit({ do: "remove objects", slide_id: slideId, object_ids: [item.id] });
			return;
		}
		if (JSON.stringify(this.plainOf(clean)) === this.before) return;
		if (await state.edit({ do: "write text", slide_id: slideId, object_id: item.id, paragraphs: clean, stem: newId() }))
			return;
		// What was written stays where it was written, to be put right; the refusal is told over the page.
		const now = state.slide?.id === slideId ? state.object(item.id) : null;
		if (!now || stage.writing) {
			offerWords(clean, state.refusal);
			return;
		}
		stage.editor = new WordsEditor(stage, now);
		stage.editor.draw(paragraphs);
	}
}

/** Text that has lost its object is not lost: it can be copied. */
function offerWords(/** @type {WrittenParagraph[]} */ paragraphs, /** @type {any} */ why) {
	const text = paragraphs.map(({ runs }) => runs.map((run) => run.text).join("")).join("\n");
	toast(`${why} What you wrote can be copied.`, {
		wrong: true,
		act: "Copy the words",
		onact: () => navigator.clipboard?.writeText(text),
		stays: true,
	});
}
