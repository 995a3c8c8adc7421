// Adding texts, pictures, shapes and slides, in the theme's colours and in a free place.
import { newId } from "../ui/element.js";
import { toast } from "../ui/toast.js";
import { heldKeys } from "./held-keys.js";

/** Up to this difference a picture counts as having its place's proportion. */
const SAME_FORM = 0.02;
const tenths = (/** @type {any} */ value) => Math.floor(value * 10 + 0.5) / 10;
const capital = (/** @type {string} */ word) => word[0].toUpperCase() + word.slice(1);

/** How much larger than 1280 x 720 the frame is, as the core's `scale_of`. */
const scaleOf = (/** @type {any} */ { width_px: width, height_px: height }) =>
	Math.sqrt((width * height) / (1280 * 720));

/**
 * @param {object} more `where_free`: they step aside where they would not be seen; `copies`: what they are copies of
 */
export async function addObjects(/** @type {ShowState} */ state, /** @type {any} */ items, label = "", more = {}) {
	const objects = items.map((/** @type {Core.SlideObject} */ item) => ({ ...item, id: item.id ?? newId() }));
	const edit = { do: "add objects", slide_id: state.slide.id, objects, ...more };
	const since = state.steps;
	const made = await state.edit(label ? { do: "several", label, edits: [edit] } : edit);
	if (made)
		state.pick(
			objects.map((/** @type {Core.SlideObject} */ item) => item.id),
			{ since },
		);
	return made;
}

/**
 * Puts a clip on the slide, which plays on arrival: into an empty place, or in its own size, and at most 80 % of the
 * frame.
 * @param {Stage} stage
 */
async function addClip(
	stage,
	/** @type {ShelfAsset} */ asset,
	/** @type {Point | null} */ at,
	/** @type {any} */ place,
) {
	const { state, frame } = stage;
	const { width_px: width, height_px: height } = frame;
	const scale = Math.min(1, (width * 0.8) / asset.width_px, (height * 0.8) / asset.height_px);
	const size = { width: tenths(asset.width_px * scale), height: tenths(asset.height_px * scale) };
	const middle = at ?? { x: width / 2, y: height / 2 };
	const item = {
		kind: "clip",
		id: newId(),
		name: asset.name,
		asset_id: asset.id,
		out_ms: asset.lasts_ms,
		alternative: asset.alternative || "",
		box: { x: tenths(middle.x - size.width / 2), y: tenths(middle.y - size.height / 2), ...size },
		...(place ? { box: place.box, place: place.name, fit: "contain" } : {}),
	};
	const added = { do: "add objects", slide_id: state.slide.id, objects: [item], where_free: !at && !place };
	const edits = [added, ...playsFirst(state, item.id)];
	const since = state.steps;
	const made = await state.edit({ do: "several", label: `Bring ${asset.name} on`, edits });
	if (made) state.pick([item.id], { since });
	if (made && place) sayWhole(state, asset, item.id, place.box);
	return made;
}

/** A build that plays a clip on arrival: first in the running order. @param {ShowState} state */
export function playsFirst(state, /** @type {string} */ objectId) {
	const id = newId();
	return [
		{
			do: "add build",
			slide_id: state.slide.id,
			build: { id, object_id: objectId, effect: "plays clip", starts: { rule: "follows" } },
		},
		{ do: "move build", slide_id: state.slide.id, build_id: id, to: 0 },
	];
}

/**
 * Puts a picture on the slide: into an empty place, or in its own size and at most 80 % of the frame, its middle at
 * `at`.
 * @param {Stage} stage
 */
export async function addPicture(stage, /** @type {ShelfAsset} */ asset, { at, place } = /** @type {any} */ ({})) {
	const { width_px: width, height_px: height } = stage.frame;
	if (asset.kind === "clip") return addClip(stage, asset, at, place);
	const common = { kind: "picture", name: asset.name, asset_id: asset.id, alternative: asset.alternative || "" };
	if (place) {
		const id = newId();
		const made = await addObjects(stage.state, [{ ...common, id, box: place.box, place: place.name, fit: "contain" }]);
		if (made) sayWhole(stage.state, asset, id, place.box);
		return made;
	}
	const scale = Math.min(1, (width * 0.8) / asset.width_px, (height * 0.8) / asset.height_px);
	const size = { width: tenths(asset.width_px * scale), height: tenths(asset.height_px * scale) };
	const middle = at ?? { x: width / 2, y: height / 2 };
	const box = { x: tenths(middle.x - size.width / 2), y: tenths(middle.y - size.height / 2), ...size };
	return addObjects(stage.state, [{ ...common, box }], "", { where_free: !at });
}

/**
 * A picture of another proportion than its place is shown whole; one press makes it fill the place.
 * @param {ShowState} state
 */
function sayWhole(state, /** @type {ShelfAsset} */ asset, /** @type {string} */ id, /** @type {StageBox} */ box) {
	const [own, wanted] = [asset.width_px / asset.height_px, box.width / box.height];
	if (Math.abs(own / wanted - 1) < SAME_FORM) return;
	const fill = () =>
		state.edit({ do: "change objects", slide_id: state.slide.id, object_ids: [id], changes: { fit: "cover" } });
	toast(`${asset.name} is shown whole.`, { act: "Fill the place", onact: fill });
}

/**
 * Adds a text and opens it for typing; left empty, it is removed again.
 * @param {Stage} stage
 */
export async function addText(stage) {
	const { width_px: width, height_px: height } = stage.frame;
	const scale = scaleOf(stage.frame);
	const id = newId();
	const box = {
		x: tenths(width / 2 - 280 * scale),
		y: tenths(height / 2 - 30 * scale),
		width: tenths(560 * scale),
		height: tenths(60 * scale),
	};
	const item = {
		kind: "text",
		id,
		name: "Text",
		box,
		paragraphs: [{ id: `${id}-1`, runs: [{ text: "" }] }],
		size_px: tenths(34 * scale),
		overflow: "grow",
	};
	const typed = heldKeys();
	const made = await addObjects(stage.state, [item], "", { where_free: true });
	await stage.readyToWrite();
	const text = typed();
	if (made) stage.editWords(stage.state.object(id), text);
}

const EMPTY_TABLE = Array(4).fill(["", "", ""]);
const ROW_PX = 60;
const MOST_COLUMNS = 20;

/**
 * Adds a table whose first row is a heading. An empty one is opened for typing.
 * @param {string[][]} rows the words of its cells
 */
export async function addTable(/** @type {Stage} */ stage, rows = EMPTY_TABLE) {
	const { width_px: width, height_px: height } = stage.frame;
	const scale = scaleOf(stage.frame);
	const columns = Math.min(Math.max(...rows.map((cells) => cells.length)), MOST_COLUMNS);
	const [w, h] = [Math.min(240 * columns, 1100), Math.min(ROW_PX * rows.length, 560)];
	const id = newId();
	const item = {
		kind: "table",
		id,
		name: "Table",
		box: {
			x: tenths(width / 2 - (w / 2) * scale),
			y: tenths(height / 2 - (h / 2) * scale),
			width: tenths(w * scale),
			height: tenths(h * scale),
		},
		columns: Array.from({ length: columns }, () => ({})),
		paragraphs: rows.map((cells, row) => ({ id: `${id}-${row + 1}`, runs: [{ text: cells.join("\t") }] })),
		size_px: tenths(26 * scale),
		stand: "middle",
		overflow: "shrink",
	};
	const made = await addObjects(stage.state, [item], "", { where_free: true });
	if (!made || rows !== EMPTY_TABLE) return;
	await stage.readyToWrite();
	stage.editWords(stage.state.object(id));
}

/**
 * Adds text to a place of the layout, in the theme's look. `typed` gives what was typed since the place was pressed.
 * @param {Stage} stage
 */
export async function addTextIn(stage, /** @type {any} */ place, /** @type {any} */ typed) {
	const { state } = stage;
	const id = newId();
	const item = {
		kind: "text",
		id,
		name: place.title,
		box: place.box,
		place: place.name,
		paragraphs: [{ id: `${id}-1`, runs: [{ text: "" }] }],
	};
	const edits = [
		{ do: "add objects", slide_id: state.slide.id, objects: [item] },
		{ do: "follow theme", slide_id: state.slide.id, object_ids: [id] },
	];
	const made = await state.edit({ do: "several", label: `Write the ${place.title.toLowerCase()}`, edits });
	await stage.readyToWrite();
	const text = typed();
	if (!made) return;
	state.pick([id]);
	stage.editWords(state.object(id), text);
}

/** Adds lines of plain text as a text of its own, such as pasted ones. @param {Stage} stage */
export function addLines(stage, /** @type {any} */ lines) {
	const { width_px: width, height_px: height } = stage.frame;
	const scale = scaleOf(stage.frame);
	const id = newId();
	const paragraphs = lines.map((/** @type {any} */ line, /** @type {number} */ index) => ({
		id: `${id}-${index + 1}`,
		...line,
	}));
	const box = {
		x: tenths(width * 0.1),
		y: tenths(height * 0.2),
		width: tenths(width * 0.8),
		height: tenths(height * 0.6),
	};
	return addObjects(
		stage.state,
		[{ kind: "text", id, name: "Pasted text", box, paragraphs, size_px: tenths(30 * scale), overflow: "shrink" }],
		"Paste text",
	);
}

/** @type {{[name: string]: {form?: string, size?: number[], look?: Record<string, any>}}} */
const SHAPES = {
	line: { size: [300, 8], look: { stroke: { colour: "@accent", width_px: 4 } } },
	"line with a head": {
		form: "line",
		size: [300, 8],
		look: { stroke: { colour: "@accent", width_px: 4 }, heads: "end" },
	},
	bracket: { size: [40, 240], look: { stroke: { colour: "@words", width_px: 4 } } },
	"rounded rectangle": { form: "rectangle", size: [300, 180], look: { corner_px: 24 } },
	bubble: {
		size: [320, 160],
		look: { corner_px: 24, fill: { kind: "plain", colour: "@raised" }, stroke: { colour: "@line", width_px: 2 } },
	},
	arrow: { size: [260, 130], look: {} },
	arch: { size: [240, 120], look: {} },
};
/** @type {{[form: string]: number}} */
const POINTS = { polygon: 6, star: 8, wheel: 18 };

/** @param {Stage} stage */
export function addShape(stage, /** @type {string} */ name) {
	const { width_px: width, height_px: height } = stage.frame;
	const scale = scaleOf(stage.frame);
	const { form = name, size = [240, 240], look = {} } = SHAPES[name] ?? {};
	const [w, h] = size.map((side) => tenths(side * scale));
	const box = { x: tenths((width - w) / 2), y: tenths((height - h) / 2), width: w, height: h };
	const fill = look.stroke && !look.fill ? {} : { fill: { kind: "plain", colour: "@second" } };
	const words = {
		colour: fill.fill && !look.fill ? "@ground" : "@words",
		align: "centre",
		stand: "middle",
		size_px: tenths(26 * scale),
	};
	return addObjects(
		stage.state,
		[
			{
				kind: "shape",
				form,
				name: capital(name),
				box,
				...fill,
				...look,
				...words,
				...(POINTS[form] ? { points: POINTS[form] } : {}),
			},
		],
		"",
		{ where_free: true },
	);
}

/** Adds a slide after the one on the stage, with the same transition. @param {ShowState} state */
export async function addSlide(state, /** @type {any} */ layout, /** @type {string} */ title) {
	const id = newId();
	const at = state.slide ? state.data.order.indexOf(state.slide.id) + 1 : 0;
	const slide = {
		id,
		name: title === "Blank" ? "" : title,
		layout,
		transition: state.slide?.transition ?? { name: "dissolve", lasts_ms: 800 },
	};
	if (await state.edit({ do: "add slide", at, slide, as_show_runs: true })) await state.open(id);
}
