// The path of a build that travels, drawn and edited on the stage: its points are dragged, bends added, pieces made
// straight or curved.
import { svg } from "../ui/element.js";
import { track } from "./tracking.js";

/** @type {{[letter: string]: number}} */
const COUNTS = { M: 2, L: 2, C: 6 };
const tenths = (/** @type {any} */ value) => Math.floor(value * 10 + 0.5) / 10;

/** A path's pieces: where it begins, then each piece with its points, the last of which is where it ends. */
export function piecesOf(/** @type {any} */ path) {
	const words = path.split(" ");
	const pieces = [];
	for (let at = 0; at < words.length;) {
		const count = COUNTS[words[at]];
		const numbers = words.slice(at + 1, at + 1 + count).map(Number);
		pieces.push({
			kind: words[at],
			points: Array.from({ length: count / 2 }, (_, n) => [numbers[n * 2], numbers[n * 2 + 1]]),
		});
		at += 1 + count;
	}
	return pieces;
}

export const pathOf = (/** @type {any} */ pieces) =>
	pieces.map((/** @type {any} */ { kind, points }) => [kind, ...points.flat().map(tenths)].join(" ")).join(" ");

const endOf = (/** @type {any} */ piece) => piece.points.at(-1);

/** Adds a piece that continues in the direction of the last one. */
export function withBend(/** @type {any} */ path) {
	const pieces = piecesOf(path);
	const [x, y] = endOf(pieces.at(-1));
	const [px, py] = pieces.length > 1 ? endOf(pieces.at(-2)) : [x - 120, y];
	const [dx, dy] = [(x - px) / 2 || 60, (y - py) / 2];
	return pathOf([
		...pieces,
		{
			kind: "C",
			points: [
				[x + dx / 2, y + dy / 2 - 40],
				[x + dx, y + dy - 40],
				[x + dx * 1.5, y + dy * 1.5],
			],
		},
	]);
}

/** Makes all pieces straight, or all curved, through the same ends. */
export function withForm(/** @type {any} */ path, /** @type {boolean} */ curved) {
	const pieces = piecesOf(path);
	return pathOf(
		pieces.map((piece, at) => {
			if (piece.kind === "M") return piece;
			const to = endOf(piece);
			if (!curved) return { kind: "L", points: [to] };
			if (piece.kind === "C") return piece;
			const from = endOf(pieces[at - 1]);
			const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
			// A third of the way each, pushed aside by a fifth of the length.
			return {
				kind: "C",
				points: [
					[from[0] + dx / 3 + dy / 5, from[1] + dy / 3 - dx / 5],
					[from[0] + (dx * 2) / 3 + dy / 5, from[1] + (dy * 2) / 3 - dx / 5],
					to,
				],
			};
		}),
	);
}

export class PathEditor {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
		this.state = stage.state;
		stage.overlay.addEventListener("pointerdown", (event) => this.press(event));
	}

	/** The build whose path is on the stage, with its object. */
	current() {
		const build = /** @type {BuildLine} */ (this.state.build(this.state.pickedBuild));
		const item = build?.kind === "travels" ? this.state.object(build.object_id) : null;
		const effect = build && this.state.data.effects.find((entry) => entry.name === build.effect);
		const path = build?.settings.path ?? effect?.controls.find((control) => control.path)?.default;
		return item && path ? { build, item, path } : null;
	}

	draw(/** @type {any} */ scale, shown = /** @type {any} */ (null)) {
		this.stage.overlay.querySelector(".travel-path")?.remove();
		const now = this.current();
		if (!now) return;
		const { item, path } = now;
		const pieces = shown ?? piecesOf(path);
		const { box } = item;
		const px = 1 / scale;
		const group = svg("g", {
			class: "travel-path",
			transform: `translate(${box.x + box.width / 2} ${box.y + box.height / 2})`,
		});
		group.append(
			svg("path", {
				d: pathOf(pieces),
				fill: "none",
				stroke: "#e0559b",
				"stroke-width": 2 * px,
				"stroke-dasharray": `${6 * px} ${4 * px}`,
			}),
		);
		pieces.forEach((/** @type {any} */ piece, /** @type {number} */ at) =>
			piece.points.forEach((/** @type {any} */ point, /** @type {number} */ index) => {
				const end = index === piece.points.length - 1;
				if (piece.kind === "M") return;
				if (!end) {
					const anchor = index === 0 ? endOf(pieces[at - 1]) : endOf(piece);
					group.append(
						svg("line", {
							x1: anchor[0],
							y1: anchor[1],
							x2: point[0],
							y2: point[1],
							stroke: "#9fb0a9",
							"stroke-width": px,
						}),
					);
				}
				const size = (end ? 12 : 9) * px;
				const node = svg("rect", {
					class: "handle",
					x: point[0] - size / 2,
					y: point[1] - size / 2,
					width: size,
					height: size,
					rx: end ? size / 5 : size / 2,
					"stroke-width": 1.5 * px,
					"data-piece": at,
					"data-point": index,
				});
				node.style.cursor = "move";
				group.append(node);
			}),
		);
		this.stage.overlay.append(group);
	}

	press(/** @type {StageEvent} */ event) {
		const handle = event.target.closest("[data-piece]");
		if (!handle || event.button !== 0) return;
		event.stopPropagation();
		const now = this.current();
		if (!now) return;
		const { build, path } = now;
		const [at, index] = [Number(handle.dataset.piece), Number(handle.dataset.point)];
		const moved = (/** @type {any} */ way) =>
			piecesOf(path).map((piece, number) =>
				number !== at
					? piece
					: {
							...piece,
							points: piece.points.map(([x, y], point) => (point === index ? [x + way.x, y + way.y] : [x, y])),
						},
			);
		track(
			this.stage,
			event,
			(/** @type {any} */ way) => this.draw(this.stage.scale, moved(way)),
			(/** @type {any} */ way) => {
				if (!way) {
					this.draw(this.stage.scale);
					return;
				}
				this.state.edit({
					do: "change build",
					slide_id: this.state.slide.id,
					build_id: build.id,
					changes: { settings: { ...build.settings, path: pathOf(moved(way)) } },
				});
			},
		);
	}
}
