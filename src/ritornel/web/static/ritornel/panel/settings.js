// Controls for the settings of effects and transitions, made from the core's description of them.
import { numberField, pair, selectField } from "./fields.js";

/** @param {Control[]} controls from the core @param {{[name: string]: any}} settings @param {(settings: object) => void} set */
export function settingControls(controls, settings, set) {
	return controls
		.filter((control) => !control.path)
		.map((control) => {
			const value = settings[control.name] ?? control.default;
			const put = (/** @type {any} */ next) => set({ ...settings, [control.name]: next });
			const field = control.choices
				? selectField(
						value,
						control.choices.map((/** @type {string} */ key) => [key, key[0].toUpperCase() + key.slice(1)]),
						put,
					)
				: numberField(value, put, { least: control.least, most: control.most, unit: control.unit, decimals: 2 });
			return pair(control.title, field);
		});
}
