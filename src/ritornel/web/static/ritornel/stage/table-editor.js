// The text of a table, edited in place: a paragraph is a row, and tabs separate its cells. Tab goes to the next cell,
// Enter makes a row.
import { el } from "../ui/element.js";
import { rowsOf } from "./plain-lines.js";
import { paragraphNode, WordsEditor } from "./text-editor.js";

/** The cells of a row's runs: core/document/cells.py, cells_of, checked by tests/browser/test_tables.py. */
export function cellsOf(/** @type {any} */ runs) {
	/** @type {object[][]} */
	const cells = [[]];
	for (const run of runs) {
		const [first, ...others] = run.text.split("\t");
		cells[cells.length - 1].push({ ...run, text: first });
		for (const text of others) cells.push([{ ...run, text }]);
	}
	return cells;
}

/** The runs of a row of cells: row_of there. */
export const runsOf = (/** @type {any} */ cells) =>
	cells
		.flatMap((/** @type {any} */ [first, ...others], /** @type {number} */ at) => [
			{ ...first, text: `${at ? "\t" : ""}${first.text}` },
			...others,
		])
		.filter((/** @type {any} */ run) => run.text);

export class TableEditor extends WordsEditor {
	/** @param {Stage} stage */
	constructor(stage, /** @type {Core.SlideObject} */ item) {
		super(stage, item);
		this.selectCell(0, 0);
	}

	/** Begins with the text typed so far, in the first cell. */
	begin(/** @type {string} */ text) {
		const rows = this.read();
		rows[0].runs = runsOf([[{ text }], ...cellsOf(rows[0].runs).slice(1)]);
		this.draw(rows);
		const end = { at: 0, offset: text.length };
		this.select([end, end]);
	}

	get columns() {
		return Math.max(this.item.columns.length, 1);
	}

	dress() {
		super.dress();
		const { style, dataset } = this.field;
		// Where columns differ in width, words stand in even ones while they are written.
		style.setProperty("--column", `${this.item.box.width / this.columns}px`);
		dataset.heading = String(this.item.heading);
		const row = this.state.staged.drawing.objects.find((entry) => entry.object_id === this.item.id)?.parts[0];
		style.setProperty("--row", `${row?.height ?? 0}px`);
	}

	key(/** @type {KeyboardEvent} */ event) {
		if (event.key === "Tab") {
			event.preventDefault();
			event.stopPropagation();
			this.step(event.shiftKey ? -1 : 1);
		} else if (event.key === "Enter" && !event.ctrlKey && !event.metaKey) {
			event.preventDefault();
			event.stopPropagation();
			this.addRow();
		} else super.key(event);
	}

	/** A table has no lists. People who type by finger have no Tab. */
	toolbar() {
		const bar = super.toolbar();
		for (const button of bar.querySelectorAll('[data-look^="list-"], [data-look="bullets"], [data-look="numbers"]'))
			button.remove();
		/** @type {[string, string, () => void][]} */
		const acts = [
			["Next cell", "To the next cell (Tab)", () => this.step(1)],
			["New row", "A row below this one (Enter)", () => this.addRow()],
		];
		const keep = (/** @type {Event} */ event) => event.preventDefault();
		bar
			.querySelector(".done")
			.before(
				...acts.map(([words, title, onclick]) =>
					el("button", { type: "button", class: "act", title, onpointerdown: keep, onclick }, words),
				),
			);
		return bar;
	}

	/** A cell may begin with a number or a dash. */
	autoList() {}

	emptyRow() {
		return paragraphNode(this.state, { runs: [{ text: "\t".repeat(this.columns - 1) }] });
	}

	addRow() {
		const { at } = this.ends()[1];
		this.field.children[at].after(this.emptyRow());
		this.selectCell(at + 1, 0);
	}

	/** Selects the words of a cell. */
	selectCell(/** @type {number} */ at, /** @type {any} */ cell) {
		const cells = this.field.children[at].textContent.split("\t");
		const offset = cells.slice(0, cell).reduce((sum, text) => sum + text.length + 1, 0);
		this.select([
			{ at, offset },
			{ at, offset: offset + cells[cell].length },
		]);
	}

	/** Goes to the next cell or the one before; after the last one, to a new row. */
	step(/** @type {any} */ way) {
		const { at, offset } = this.ends()[1];
		const rows = this.field.children;
		const text = rows[at].textContent;
		const cell = text.slice(0, offset).split("\t").length - 1;
		const cells = text.split("\t").length;
		if (way < 0) {
			if (cell) this.selectCell(at, cell - 1);
			else if (at) this.selectCell(at - 1, rows[at - 1].textContent.split("\t").length - 1);
			return;
		}
		if (cell + 1 < this.columns && cell + 1 === cells) {
			this.select([
				{ at, offset: text.length },
				{ at, offset: text.length },
			]);
			document.execCommand("insertText", false, "\t");
			return;
		}
		if (cell + 1 < cells) this.selectCell(at, cell + 1);
		else if (rows[at + 1]) this.selectCell(at + 1, 0);
		else this.addRow();
	}

	/** Pasted cells go into the cells from here on; plain words go to the cursor. */
	paste(/** @type {ClipboardEvent} */ event) {
		const given = rowsOf(/** @type {DataTransfer} */ (event.clipboardData).getData("text/plain"));
		if (given.length === 1 && given[0].length === 1) {
			super.paste(event);
			return;
		}
		event.preventDefault();
		event.stopPropagation();
		const { at, offset } = this.ends()[0];
		const from = this.field.children[at].textContent.slice(0, offset).split("\t").length - 1;
		const rows = this.read();
		given.forEach((texts, number) => {
			const row = (rows[at + number] ??= { id: "", list: "none", level: 0, runs: [] });
			const cells = cellsOf(row.runs);
			texts.forEach((text, column) => {
				while (cells.length <= from + column) cells.push([{ text: "" }]);
				cells[from + column] = [{ text }];
			});
			row.runs = runsOf(cells.map((cell) => (cell.length ? cell : [{ text: "" }])));
		});
		this.draw(rows);
		this.selectCell(at + given.length - 1, from + given[given.length - 1].length - 1);
	}
}
