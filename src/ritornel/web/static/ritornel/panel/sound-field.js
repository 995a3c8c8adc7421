// The sound of a build or a transition: from the shelf, or from the sounds that ship.
import { el, icon } from "../ui/element.js";
import { post } from "../ui/requests.js";
import { numberField, pair, tick } from "./fields.js";

/**
 * @param {ShowState} state
 * @param {any} now a SoundEffect, or null
 * @param {(next: object | null) => void} set gets the next one, or null
 * @param {string} label
 * @param {{keeps?: boolean}} options whether it may keep on until the next
 */
export function soundFields(state, now, set, label, { keeps = false } = {}) {
	const shelf = state.data.assets.filter((asset) => asset.kind === "sound");
	const titles = new Set(shelf.map((asset) => asset.name));
	const own = state.data.library.filter((entry) => !titles.has(entry.title));
	const option = (/** @type {any} */ value, /** @type {string} */ words) =>
		el("option", { value, selected: value === (now?.asset_id ?? "") }, words);
	const field = el(
		"select",
		{ class: "field", "aria-label": label },
		option("", "No sound"),
		shelf.length
			? el(
					"optgroup",
					{ label: "On the shelf" },
					shelf.map((asset) => option(asset.id, asset.name)),
				)
			: null,
		own.length
			? el(
					"optgroup",
					{ label: "Ritornel's own" },
					own.map((entry) => option(`own ${entry.name}`, entry.title)),
				)
			: null,
	);
	field.value = now?.asset_id ?? "";
	field.addEventListener("change", async () => {
		const { value } = field;
		if (!value) {
			set(null);
			return;
		}
		if (!value.startsWith("own ")) {
			set({ ...now, asset_id: value });
			return;
		}
		/** @type {any} */
		let asset = null;
		await state.quietly(async () => {
			const reply = await post(`${state.base}/shelf/library/${value.slice(4)}`, {});
			await state.addAsset(reply);
			({ asset } = reply);
		});
		if (asset) set({ ...now, asset_id: asset.id, keeps_on: keeps && asset.name.endsWith("keeps on") });
	});
	const asset = now && state.asset(now.asset_id);
	const hear = asset
		? el(
				"button",
				{
					class: "push",
					"aria-label": `Hear ${asset.name}`,
					title: "Hear it",
					onclick: () => {
						const audio = new Audio(asset.address);
						audio.volume = Math.min(1, 10 ** ((now.gain_db ?? 0) / 20));
						audio.play();
					},
				},
				icon("play"),
			)
		: null;
	return [
		pair("Sound", el("div", { class: hear ? "grid grid-cols-[1fr_auto] gap-2" : "grid" }, field, hear)),
		now
			? pair(
					"Its level",
					numberField(now.gain_db ?? 0, (gain) => set({ ...now, gain_db: gain }), {
						label: `${label}: level`,
						least: -60,
						most: 12,
						unit: "dB",
					}),
				)
			: null,
		now && keeps ? tick("Keeps on until the next", Boolean(now.keeps_on), (on) => set({ ...now, keeps_on: on })) : null,
	];
}
