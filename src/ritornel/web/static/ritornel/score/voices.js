// Drawing voices: each slide's waveform where it speaks, with edges to drag.
import { svg } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { shorten, widthOf } from "./labels.js";
import { mirror } from "./music.js";

/** A slide's voice, its wave between two places. */
export function drawVoice(
	/** @type {Core.SoundTime} */ voice,
	/** @type {SlideLine} */ line,
	/** @type {Row} */ row,
	/** @type {Scale} */ scale,
	/** @type {number} */ from,
	/** @type {number} */ to,
	/** @type {any} */ found,
	/** @type {string} */ name,
) {
	const [x1, x2] = [scale.x(voice.start_ms), scale.x(voice.start_ms + voice.lasts_ms)];
	const group = svg("g", { "data-voice": line.id });
	const middle = row.top + row.height / 2;
	const half = row.height / 2 - 3;
	group.append(
		svg(
			"rect",
			{
				x: x1,
				y: row.top + 2,
				width: Math.max(x2 - x1, 2),
				height: row.height - 4,
				rx: 3,
				fill: "#1f6f6b1c",
				"data-drag": "voice",
				"data-slide": line.id,
				"data-pick": "slide",
			},
			svg(
				"title",
				{},
				`Voice of “${line.name}”: ${name}, from ${secondsText(voice.offset_ms)} s on for ${secondsText(voice.lasts_ms)} s. Pull it to begin earlier or later, its end to cut it.`,
			),
		),
	);
	if (found)
		group.append(
			svg("path", { d: wave(voice, found, scale, from, to, middle, half), fill: "#1f6f6b", "pointer-events": "none" }),
		);
	const words = shorten(name, x2 - x1 - 20);
	if (words)
		group.append(
			svg("rect", {
				x: x1 + 4,
				y: middle - 8,
				width: widthOf(words) + 8,
				height: 16,
				rx: 3,
				fill: "#f7f8f4e6",
				"pointer-events": "none",
			}),
			svg("text", { x: x1 + 8, y: middle + 4, class: "glass strong", "pointer-events": "none" }, words),
		);
	line.schedule.beats.slice(1).forEach(({ wait, start_ms: at }, beat) => {
		if (wait?.source !== "voice mark") return;
		const x = scale.x(voice.start_ms - voice.offset_ms + at);
		group.append(
			svg("path", {
				d: `M ${x} ${row.top + 1} h 14 l -3 5 l 3 5 h -14 v ${row.height - 12}`,
				fill: "var(--color-plum)",
				stroke: "var(--color-plum)",
				"pointer-events": "none",
			}),
			svg(
				"text",
				{ x: x + 3, y: row.top + 10, class: "light strong small", "pointer-events": "none" },
				String(beat + 1),
			),
		);
	});
	group.append(
		svg("rect", {
			x: x2 - 5,
			y: row.top,
			width: 10,
			height: row.height,
			fill: "transparent",
			"data-drag": "voiceEnd",
			"data-slide": line.id,
		}),
	);
	return group;
}

function wave(
	/** @type {Core.SoundTime} */ voice,
	/** @type {any} */ found,
	/** @type {Scale} */ scale,
	/** @type {number} */ from,
	/** @type {number} */ to,
	/** @type {number} */ middle,
	/** @type {number} */ half,
) {
	const upper = [];
	const level = 10 ** (voice.gain_db / 20);
	for (let x = from; x <= to; x += 2) {
		const ms = scale.ms(x) - voice.start_ms + voice.in_ms;
		const peak = found.peak(ms, ms + scale.ms(2));
		upper.push([x, Math.max(Math.min((peak / 255) * level * 1.4, 1) * half, 0.6)]);
	}
	return mirror(upper, middle);
}
