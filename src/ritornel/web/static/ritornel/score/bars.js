// Drawing one slide's bar: its picture and name, the slur into it, its waits and builds.
import { svg } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { fermata, onward, signPath } from "../stage/signs.js";
import { setInRows, shorten, widthOf } from "./labels.js";

/** The distance from one build to the next below. */
const LANE_PX = 24;
const WHY = { voice: "the voice", clip: "the clip", build: "the builds", transition: "the transition" };
const NAME_Y = 16;
const THUMB = { width: 54, height: 31, y: 23 };
const CROWDED_PX = 12;
const SERIF = '600 14px "Spectral"';

const AT_ONCE = 6;

/**
 * Yields the bar, which is filled step by step.
 * @param {SlideBar} bar
 * @param {Rows} rows
 * @param {Scale} scale
 * @param {ShowState} state
 * @param {Tie[]} [ties]
 */
export function* drawBar(bar, rows, scale, state, ties = []) {
	const group = svg("g", { transform: `translate(${bar.x} 0)` });
	yield group;
	// As high as every other, whatever stands in it: a browser joins drawings into one picture only where that leaves
	// little empty, and is slow with many.
	group.append(
		svg("rect", {
			x: 0,
			y: rows.slides.top,
			width: bar.width,
			height: rows.bottom - rows.slides.top,
			fill: bar.current ? "#ffffff" : "transparent",
			"pointer-events": "none",
		}),
	);
	if (bar.picked)
		group.append(
			svg("rect", {
				x: 1,
				y: rows.slides.top + 1,
				width: Math.max(bar.width - 2, 1),
				height: rows.slides.height - 2,
				fill: "#8a24561a",
				stroke: "var(--color-plum)",
				"stroke-width": 2,
				"pointer-events": "none",
			}),
		);
	group.append(
		svg("rect", {
			x: 0,
			y: rows.slides.top,
			width: bar.width,
			height: rows.slides.height,
			fill: "transparent",
			"data-pick": "slide",
			"data-slide": bar.line.id,
		}),
	);
	drawExtension(group, bar, rows, scale);
	drawHead(group, bar, rows, scale);
	const waits = drawWaits(group, bar, rows, scale, state);
	yield;
	yield* drawBuilds(group, bar, rows, scale, state, ties);
	group.append(...waits);
	drawSlur(group, bar, rows, scale);
}

/**
 * The name stands at the same place in every bar, at its top. The picture, the facts and the slur have their own
 * lines.
 */
function drawHead(
	/** @type {MadeShape} */ group,
	/** @type {SlideBar} */ bar,
	/** @type {Rows} */ rows,
	/** @type {Scale} */ scale,
) {
	const { line, width } = bar;
	const { top } = rows.slides;
	const put = (/** @type {string} */ words, /** @type {{[name: string]: any}} */ attributes) =>
		group.append(svg("text", { "pointer-events": "none", ...attributes }, words));
	const notes = line.notes && width > 70 ? 16 : 0;
	if (width > 14)
		put(shorten(`${bar.number}  ${line.name || "Untitled"}`, width - 14 - notes, SERIF) || String(bar.number), {
			class: "serif",
			x: width > 26 ? 8 : 4,
			y: top + NAME_Y,
		});
	if (notes) group.append(notesSign(line, width - 18, top + 6));
	const pictured = width > THUMB.width + 14;
	if (pictured) {
		const place = { x: 8, y: top + THUMB.y, width: THUMB.width, height: THUMB.height, "pointer-events": "none" };
		group.append(
			svg("image", {
				[bar.pictured ? "href" : "data-href"]: bar.thumb,
				...place,
				preserveAspectRatio: "xMidYMid slice",
			}),
			svg("rect", {
				...place,
				fill: "none",
				rx: 2,
				stroke: bar.current ? "var(--color-plum)" : "#9fb0a9",
				"stroke-width": bar.current ? 2 : 1,
			}),
		);
	}
	const x = pictured ? THUMB.width + 16 : 8;
	const extended = line.schedule.extended_ms;
	const end = extended ? scale.x(line.schedule.length_ms - extended) : width;
	const said = facts(bar).find((words) => widthOf(words) <= end - x - 6);
	if (said) put(said, { class: "soft", x, y: top + THUMB.y + 13 });
}

/** Three lines: the slide has notes. A press on them opens the notes. */
function notesSign(/** @type {SlideLine} */ line, /** @type {number} */ x, /** @type {number} */ y) {
	return svg(
		"g",
		{ "data-pick": "notes", "data-slide": line.id, role: "button", "aria-label": `Notes of ${line.name}` },
		svg("title", {}, "It has notes. Press to read them."),
		svg("rect", { x: x - 5, y: y - 5, width: 24, height: 24, fill: "transparent" }),
		svg("path", {
			d: `M ${x} ${y + 1} h 11 M ${x} ${y + 5} h 11 M ${x} ${y + 9} h 7`,
			stroke: "var(--color-slate)",
			"stroke-width": 1.3,
			fill: "none",
		}),
	);
}

/** The length of a slide and the number of its waits, then the same in fewer words. */
const facts = (/** @type {any} */ { line, waits }) => {
	const length = `${secondsText(line.schedule.length_ms)} s`;
	const all = waits ? [`${length} · ${countWords(waits, "wait")}`, length] : [length];
	return line.given_to ? [`${all[0]} · ${line.given_to}`, `${length} · ${line.given_to}`, line.given_to, ...all] : all;
};

/**
 * The stretch by which something still running lengthened the slide, hatched beneath its name, with the number where
 * there is room.
 */
function drawExtension(
	/** @type {MadeShape} */ group,
	/** @type {SlideBar} */ bar,
	/** @type {Rows} */ rows,
	/** @type {Scale} */ scale,
) {
	const { extended_ms: extended, length_ms: length } = bar.line.schedule;
	if (!extended) return;
	const [x, wide] = [scale.x(length - extended), scale.x(extended)];
	const top = rows.slides.top + NAME_Y + 5;
	const bottom = rows.slides.top + rows.slides.height;
	const still = { "pointer-events": "none" };
	group.append(
		svg("rect", { x, y: top, width: wide, height: bottom - top, fill: "url(#hatch)", ...still }),
		svg("line", { x1: x, x2: x, y1: top, y2: bottom, stroke: "var(--color-ink)", "stroke-dasharray": "3 3", ...still }),
	);
	const why = WHY[/** @type {keyof typeof WHY} */ (bar.line.schedule.extended_for)];
	const words = [`+${secondsText(extended)} s for ${why}`, `+${secondsText(extended)} s`].find(
		(each) => wide > widthOf(each) + 12,
	);
	if (!words) return;
	const y = rows.slides.top + THUMB.y + 13;
	const room = widthOf(words) + 8;
	group.append(
		svg("rect", { x: x + (wide - room) / 2, y: y - 12, width: room, height: 16, rx: 3, fill: "#fdfcf8d9", ...still }),
		svg("text", { class: "brass strong", x: x + wide / 2, y, "text-anchor": "middle", ...still }, words),
	);
}

/** @param {ShowState} state */
function drawWaits(
	/** @type {MadeShape} */ group,
	/** @type {SlideBar} */ bar,
	/** @type {Rows} */ rows,
	/** @type {Scale} */ scale,
	state,
) {
	const { schedule } = bar.line;
	const marks = [];
	const { top, height } = rows.builds;
	const each = [
		...schedule.beats.slice(1).map((beat, index) => ({ wait: beat.wait, beat: index + 1 })),
		{ wait: schedule.last_wait, beat: schedule.beats.length },
	];
	for (const { wait, beat } of each) {
		if (!wait || (beat === schedule.beats.length && !bar.cued)) continue;
		const words = `${secondsText(wait.hold_ms)} s`;
		const x1 = scale.x(wait.start_ms);
		const x2 = scale.x(wait.start_ms + wait.hold_ms);
		group.append(
			svg("rect", { x: x1, y: top, width: Math.max(x2 - x1, 0), height, fill: "#8a24561a", "pointer-events": "none" }),
		);
		const inBar = beat < schedule.beats.length;
		// Beneath the names of the builds, which it would strike through.
		if (inBar)
			group.append(
				svg("line", {
					x1: x2,
					x2,
					y1: top + 4,
					y2: top + height,
					stroke: "var(--color-plum)",
					"stroke-dasharray": "2 3",
					"stroke-width": 1.3,
					"pointer-events": "none",
				}),
			);
		if (x2 - x1 > 18)
			marks.push(
				svg(
					"g",
					{ "data-pick": "wait", "data-slide": bar.line.id, "data-beat": beat },
					svg("rect", { x: x1, y: top, width: x2 - x1, height: 24, fill: "transparent" }),
					fermata(x1 + 3, top + 17),
					svg("title", {}, `Waits ${words} for a cue. Press to change it, pull its end to stretch it.`),
				),
			);
		if (x2 - x1 > widthOf(words) + 30)
			marks.push(svg("text", { x: x1 + 24, y: top + 16, class: "strong plum", "pointer-events": "none" }, words));
		if (inBar && x2 - x1 > widthOf(words) + 52)
			marks.push(
				svg(
					"g",
					{ "pointer-events": "none" },
					svg("circle", {
						cx: x2,
						cy: top + 12,
						r: 8,
						fill: "white",
						stroke: "var(--color-plum)",
						"stroke-width": 1.4,
					}),
					svg("text", { x: x2, y: top + 16, "text-anchor": "middle", class: "strong plum" }, String(beat)),
				),
			);
		if (inBar)
			marks.push(
				svg(
					"rect",
					{
						x: x2 - 4,
						y: top,
						width: 8,
						height: Math.min(26, height),
						fill: "transparent",
						"data-drag": "hold",
						"data-pick": "wait",
						"data-slide": bar.line.id,
						"data-beat": beat,
						"data-ms": wait.hold_ms,
					},
					svg(
						"title",
						{},
						`Cue ${beat}: hold ${words} (${wait.source === "take" ? state.data.settings.follows_take || "take" : wait.source}). Pull to change.`,
					),
				),
			);
	}
	if (bar.cued && !schedule.last_wait) {
		// On cue it waits here for as long as the presenter likes; the bar is as wide as planned.
		const [x1, x2] = [scale.x(schedule.done_ms), bar.width];
		group.append(
			svg("rect", { x: x1, y: top, width: Math.max(x2 - x1, 0), height, fill: "#8a245610", "pointer-events": "none" }),
		);
		marks.push(
			svg(
				"g",
				{ "data-waits": bar.line.id },
				fermata(Math.max(Math.min(x1 + 3, x2 - 20), 2), top + 17),
				svg("title", {}, "On cue it waits here until you go on"),
			),
		);
	}
	if (state.way === "on cue" && schedule.goes_on_ms !== null && bar.width > 24) {
		marks.push(
			svg(
				"g",
				{ "data-goes-on": bar.line.id },
				onward(bar.width - 18, top + 17),
				svg("title", {}, "Goes on by itself, also live"),
			),
		);
	}
	return marks;
}

/**
 * Builds too close together to be dragged: their signs as few outlines, without the selected ones.
 */
function drawCrowd(
	/** @type {MadeShape} */ group,
	/** @type {SlideLine} */ line,
	/** @type {LaneThing[]} */ things,
	/** @type {number} */ top,
	/** @type {any} */ lanes,
	/** @type {number} */ width,
) {
	const outlines = new Map();
	for (const { build, row, x1, x2 } of setInRows(
		things.map((thing) => ({ ...thing, name: "" })),
		lanes,
		4,
		width,
	)) {
		outlines.set(
			build.kind,
			`${outlines.get(build.kind) ?? ""} ${signPath(build.kind, x1, x2, top + 34 + row * LANE_PX, 6.5).getAttribute("d")}`,
		);
	}
	const crowd = svg("g", { class: "crowd", color: "var(--color-glass)", "pointer-events": "none" });
	for (const [kind, d] of outlines)
		crowd.append(
			svg(
				"path",
				kind === "enters"
					? { d, fill: "currentColor" }
					: { d, fill: "none", stroke: "currentColor", "stroke-width": 1.6 },
			),
		);
	group.append(
		svg(
			"rect",
			{
				x: 0,
				y: top,
				width,
				height: lanes * LANE_PX + 24,
				fill: "transparent",
				"data-pick": "slide",
				"data-slide": line.id,
			},
			svg("title", {}, `${things.length} builds. Double-press for a closer look.`),
		),
		crowd,
	);
}

function* drawBuilds(
	/** @type {MadeShape} */ group,
	/** @type {SlideBar} */ bar,
	/** @type {Rows} */ rows,
	/** @type {Scale} */ scale,
	/** @type {ShowState} */ state,
	/** @type {Tie[]} */ ties,
) {
	const { line } = bar;
	const { top, height } = rows.builds;
	const lanes = Math.max(1, Math.floor((height - 26) / LANE_PX));
	const isPicked = (/** @type {any} */ build) =>
		state.pickedBuild === build.id || (bar.current && state.picked.has(build.object_id));
	/** @type {LaneThing[]} */
	let things = line.builds.map((build) => {
		const start = line.schedule.beats[build.beat].start_ms + build.offset_ms;
		return {
			build,
			start,
			name: build.name,
			x1: scale.x(start),
			x2: Math.max(scale.x(start + build.runs_ms), scale.x(start) + 8),
		};
	});
	if (things.length * CROWDED_PX > bar.width) {
		drawCrowd(
			group,
			line,
			things.filter(({ build }) => !isPicked(build)).sort((a, b) => a.x1 - b.x1),
			top,
			lanes,
			bar.width,
		);
		things = things.filter(({ build }) => isPicked(build));
	}
	const tied = scale.x(line.schedule.transition_ms);
	things.push(...ties.map((tie) => ({ tie, name: `${tie.name}, carried`, x1: 4, x2: Math.max(tied, 18) })));
	things.sort((a, b) => a.x1 - b.x1);
	let drawn = 0;
	for (const { build, tie, start, row, x1, x2, words, wordsX, anchor } of setInRows(things, lanes, 4, bar.width - 2)) {
		if ((drawn += 1) % AT_ONCE === 0) yield;
		const y = top + 34 + row * LANE_PX;
		if (tie) {
			group.append(drawTie(tie, line, x1, x2, y, { words, wordsX, anchor }));
			continue;
		}
		const picked = isPicked(build);
		const from = `${secondsText(start)} s to ${secondsText(start + build.runs_ms)} s`;
		const node = svg("g", {
			class: "build",
			"data-pick": "build",
			"data-drag": "build",
			"data-build": build.id,
			"data-slide": line.id,
			"data-object": build.object_id,
			"data-end": x2,
			tabindex: -1,
			role: "button",
			"aria-label": `${build.name} ${build.kind}, ${build.title.toLowerCase()}, ${from}`,
			color: picked ? "var(--color-plum)" : "var(--color-glass)",
		});
		node.append(
			svg("rect", { class: "halo", x: x1 - 3, y: y - 12, width: x2 - x1 + 6, height: 24, rx: 4, fill: "transparent" }),
			signPath(build.kind, x1, x2, y, 6.5),
		);
		if (words)
			node.append(
				svg(
					"text",
					{ x: wordsX, y: y + 4, "text-anchor": anchor === "end" && anchor, class: picked && "strong" },
					words,
				),
			);
		group.append(node);
	}
}

/**
 * What only a hand needs of a build, its draggable end and its words: added when a hand comes near, since hundreds
 * are drawn that nobody touches.
 */
export function armBuild(/** @type {any} */ node) {
	if (node.querySelector("title")) return;
	const [halo] = node.children;
	const { build, slide } = node.dataset;
	const end = Number(node.dataset.end) - 3;
	node.append(
		svg("rect", {
			x: end,
			y: Number(halo.getAttribute("y")),
			width: 7,
			height: halo.getAttribute("height"),
			fill: "transparent",
			"data-drag": "length",
			"data-slide": slide,
			"data-build": build,
		}),
	);
	node.prepend(svg("title", {}, node.getAttribute("aria-label")));
}

/** A tie: an object carried from the slide before. A press on it opens the pairs. */
function drawTie(
	/** @type {Tie} */ tie,
	/** @type {SlideLine} */ line,
	/** @type {number} */ x1,
	/** @type {number} */ x2,
	/** @type {number} */ y,
	/** @type {any} */ { words, wordsX, anchor },
) {
	const node = svg(
		"g",
		{
			class: "tie",
			"data-pick": "tie",
			"data-slide": line.id,
			"data-object": tie.after,
			tabindex: -1,
			role: "button",
			"aria-label": `${tie.name}, carried into ${line.name}`,
			color: "var(--color-ink)",
		},
		svg("title", {}, `${tie.name} is carried from the slide before (${tie.why}). Press to see the pairs.`),
		svg("rect", {
			class: "halo",
			x: x1 - 7,
			y: y - 12,
			width: Math.max(x2 - x1 + 12, 24),
			height: 24,
			rx: 4,
			fill: "transparent",
		}),
		svg("circle", { cx: x1, cy: y, r: 4.5, fill: "white", stroke: "var(--color-ink)", "stroke-width": 1.4 }),
		svg("path", {
			d: `M ${x1 + 5} ${y + 1} Q ${(x1 + x2) / 2} ${y + 11} ${x2} ${y} Q ${(x1 + x2) / 2} ${y + 8} ${x1 + 5} ${y + 1} Z`,
			fill: "var(--color-ink)",
		}),
	);
	if (words) node.append(svg("text", { x: wordsX, y: y + 4, "text-anchor": anchor, "pointer-events": "none" }, words));
	return node;
}

/**
 * A slur across the bar line, as wide as the transition is long. A press on it opens the transition; dragging its end
 * changes the length.
 */
function drawSlur(
	/** @type {MadeShape} */ group,
	/** @type {SlideBar} */ bar,
	/** @type {Rows} */ rows,
	/** @type {Scale} */ scale,
) {
	const ms = bar.line.schedule.transition_ms;
	const { line } = bar;
	const to = Math.max(scale.x(ms), 6);
	const y = rows.slides.top + rows.slides.height - 5;
	const words = ms ? `${line.transition.name}, ${secondsText(ms)} s` : "cut";
	const press = svg(
		"g",
		{ "data-pick": "transition", "data-slide": line.id },
		svg("title", {}, `${words}. Press to change the transition.`),
		svg("rect", { x: -4, y: y - 9, width: Math.max(to + 4, 28), height: 17, fill: "transparent" }),
	);
	group.append(press);
	if (!ms) return;
	const depth = Math.min(12, 5 + to / 12);
	press.append(
		svg("path", {
			d: `M -3 ${y} Q ${to / 2} ${y + depth * 1.6} ${to} ${y} Q ${to / 2} ${y + depth} -3 ${y} Z`,
			fill: "var(--color-ink)",
		}),
	);
	if (to > widthOf(words) + 10) press.append(svg("text", { class: "soft", x: 4, y: y - 2 }, words));
	group.append(
		svg(
			"rect",
			{
				x: to - 4,
				y: y - 10,
				width: 9,
				height: 20,
				fill: "transparent",
				"data-drag": "slur",
				"data-pick": "transition",
				"data-slide": line.id,
			},
			svg("title", {}, `${words}. Pull to change.`),
		),
	);
}
