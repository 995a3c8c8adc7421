// Who a slide is given to: one of the show's people, or anybody by name.
import { el, newId } from "../ui/element.js";
import { textField } from "./fields.js";

/**
 * The person that something is given to: one of the show's people, or somebody else by name.
 * @param {ShowState} state
 */
export function personField(
	state,
	/** @type {any} */ value,
	/** @type {(value: any) => any} */ set,
	/** @type {string} */ label,
) {
	const id = newId();
	const field = textField(value, set, { label, placeholder: "Nobody yet" });
	field.setAttribute("list", id);
	return el(
		"div",
		{},
		field,
		el(
			"datalist",
			{ id },
			state.data.people.map((name) => el("option", { value: name })),
		),
	);
}
