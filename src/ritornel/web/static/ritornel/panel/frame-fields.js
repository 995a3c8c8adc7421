// The show's frame, and what stands on every slide: in the show's panel and beside its theme.
import { el } from "../ui/element.js";
import { numberField, pair, selectField, textField, tick } from "./fields.js";

const FRAMES = [
	["1280x720", "16:9"],
	["1024x768", "4:3"],
	["1080x1080", "1:1"],
	["720x1280", "9:16"],
];

/** @param {ShowState} state */
export function frameFields(state) {
	const { frame, furniture } = state.data.settings;
	const size = `${frame.width_px}x${frame.height_px}`;
	const custom = FRAMES.some(([key]) => key === size) ? [] : [[size, `${frame.width_px} × ${frame.height_px}`]];
	const furnish = (/** @type {{[name: string]: any}} */ changes) => state.edit({ do: "change furniture", changes });
	const pictures = state.data.assets.filter((asset) => asset.kind === "picture").map((asset) => [asset.id, asset.name]);
	return [
		el("h3", {}, "Frame"),
		pair(
			"Shape",
			selectField(
				size,
				[...FRAMES, ...custom],
				(key) => {
					const [w, h] = key.split("x").map(Number);
					state.edit({ do: "change frame", frame: { width_px: w, height_px: h } });
				},
				{ label: "Shape of the frame" },
			),
		),
		pair(
			"Exactly",
			el(
				"div",
				{ class: "two" },
				numberField(
					frame.width_px,
					(n) => state.edit({ do: "change frame", frame: { ...frame, width_px: Math.round(n) } }),
					{ label: "Width of the frame", least: 16, most: 8192, unit: "px", decimals: 0 },
				),
				numberField(
					frame.height_px,
					(n) => state.edit({ do: "change frame", frame: { ...frame, height_px: Math.round(n) } }),
					{ label: "Height of the frame", least: 16, most: 8192, unit: "px", decimals: 0 },
				),
			),
		),
		el("h3", {}, "On every slide"),
		pair(
			"Footer",
			textField(furniture.footer, (footer) => furnish({ footer }), { label: "Footer" }),
		),
		tick("Slide numbers", furniture.numbers, (numbers) => furnish({ numbers })),
		pictures.length
			? pair(
					"Mark",
					selectField(
						furniture.mark_asset_id ?? "",
						[["", "None"], ...pictures],
						(id) => furnish({ mark_asset_id: id || null }),
						{ label: "Small mark" },
					),
				)
			: null,
	].filter(Boolean);
}
