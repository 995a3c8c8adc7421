// Slides turned in depth: the rules of core/motion/depth.py, checked by tests/vectors/depth.json, and where they are
// shown.
import { make } from "./marks.js";

const CAMERA = 2;

/** @param {any} values */
export const inDepth = (values) => values.yaw !== 0 || values.pitch !== 0;

/**
 * Nine numbers by rows that project the slide's points; null where it is seen from behind.
 * @param {any} values
 * @param {{width_px: number, height_px: number}} frame
 */
export function homography(values, { width_px: width, height_px: height }) {
	const [hx, hy, hz] = values.hinge ?? [width / 2, height / 2, 0];
	const [yaw, pitch] = [values.yaw, values.pitch].map((degrees) => (degrees * Math.PI) / 180);
	const [cy, sy, cp, sp] = [Math.cos(yaw), Math.sin(yaw), Math.cos(pitch), Math.sin(pitch)];
	const [ax, ay, az] = [cy, sp * sy, -cp * sy];
	const [bx, by, bz] = [0, cp, sp];
	const [nx, ny, nz] = [sy, -sp * cy, cp * cy];
	const ox = hx + values.x - hx * ax - hy * bx - hz * nx;
	const oy = hy + values.y - hx * ay - hy * by - hz * ny;
	const oz = hz - hx * az - hy * bz - hz * nz;
	const d = CAMERA * Math.max(width, height);
	const [mx, my] = [width / 2, height / 2];
	if ((mx - ox) * nx + (my - oy) * ny + (d - oz) * nz <= 1e-9) return null;
	return [
		ax * d - az * mx,
		bx * d - bz * mx,
		ox * d - oz * mx,
		ay * d - az * my,
		by * d - bz * my,
		oy * d - oz * my,
		-az,
		-bz,
		d - oz,
	];
}

/**
 * Places a slide in depth on the page: SVG has no depth, CSS has.
 * @param {any} h
 * @param {number} k
 */
const matrixOf = (h, k) =>
	`matrix3d(${h[0] * k}, ${h[3] * k}, 0, ${h[6]}, ${h[1] * k}, ${h[4] * k}, 0, ${h[7]}, 0, 0, 1, 0, ${h[2] * k}, ${h[5] * k}, 0, ${h[8]})`;

/** A layer exactly over a painter's surface, for the slides in depth and everything above them. */
export class Depth {
	/** @type {SVGElement[]} */
	sheets;

	/** @param {HTMLElement | SVGSVGElement} surface @param {Core.Frame} frame */
	constructor(surface, frame) {
		this.surface = surface;
		this.frame = frame;
	}

	/** @param {{node: SVGElement, matrix: number[]|null}[]} faces from the back; one without a matrix is not seen */
	show(faces) {
		const { width_px: width, height_px: height } = this.frame;
		if (!this.cover) {
			const cover = document.createElement("div");
			this.cover = cover;
			Object.assign(cover.style, { position: "absolute", left: 0, top: 0, overflow: "hidden", pointerEvents: "none" });
			this.sheets = [0, 1].map(() => {
				const sheet = make("svg", { viewBox: `0 0 ${width} ${height}`, width, height });
				Object.assign(sheet.style, {
					position: "absolute",
					left: 0,
					top: 0,
					width: `${width}px`,
					height: `${height}px`,
					transformOrigin: "0 0",
					display: "none",
				});
				cover.append(sheet);
				return sheet;
			});
		}
		if (this.cover.previousElementSibling !== this.surface) {
			// Placed against what holds the surface, the cover scrolls along with it.
			const holder = /** @type {HTMLElement} */ (this.surface.parentElement);
			if (getComputedStyle(holder).position === "static") holder.style.position = "relative";
			this.surface.after(this.cover);
		}
		const [box, now] = [this.surface, this.cover].map((node) => node.getBoundingClientRect());
		const k = Math.min(box.width / width, box.height / height);
		// Whatever the cover is placed against: what it is off by now is what it has to be moved by.
		const left = parseFloat(this.cover.style.left) + box.left + (box.width - width * k) / 2 - now.left;
		const top = parseFloat(this.cover.style.top) + box.top + (box.height - height * k) / 2 - now.top;
		Object.assign(this.cover.style, {
			left: `${left}px`,
			top: `${top}px`,
			width: `${width * k}px`,
			height: `${height * k}px`,
		});
		this.sheets.forEach((sheet, at) => {
			const face = faces[at];
			sheet.style.display = face?.matrix ? "block" : "none";
			if (!face?.matrix) {
				sheet.replaceChildren();
				return;
			}
			if (sheet.firstChild !== face.node) sheet.replaceChildren(face.node);
			sheet.style.transform = matrixOf(face.matrix, k);
		});
	}

	hide() {
		if (!this.cover?.isConnected) return;
		this.sheets.forEach((sheet) => sheet.replaceChildren());
		this.cover.remove();
	}
}

export const FLAT = [1, 0, 0, 0, 1, 0, 0, 0, 1];
