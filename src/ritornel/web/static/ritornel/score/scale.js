// Time and place on the score.

export const LEAST_PX_S = 1;
export const MOST_PX_S = 400;

/** @param {number} pxPerS how wide a second is */
export class Scale {
	constructor(/** @type {number} */ pxPerS) {
		this.pxPerS = Math.min(Math.max(pxPerS, LEAST_PX_S), MOST_PX_S);
	}
	x(/** @type {number} */ ms) {
		return (ms * this.pxPerS) / 1000;
	}
	ms(/** @type {number} */ x) {
		return (x * 1000) / this.pxPerS;
	}
}

const STEPS_S = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 30, 60, 120, 300, 600, 1800, 3600];

/** The distance between named ticks: the least that leaves 90 px for a name. */
export const tickStepMs = (/** @type {Scale} */ scale) =>
	(STEPS_S.find((step) => scale.x(step * 1000) >= 90) ?? 7200) * 1000;

/** The step of a drag: tenths of a second, and hundredths where a second is over 120 px wide. */
export const dragStepMs = (/** @type {Scale} */ scale) => (scale.pxPerS > 120 ? 10 : 50);

export const stepped = (/** @type {number} */ ms, /** @type {any} */ step) => Math.round(ms / step) * step;
