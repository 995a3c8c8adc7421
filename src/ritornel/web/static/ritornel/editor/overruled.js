// Two people changed the same value at the same time: both are told, and one press restores the other value.
import { toast } from "../ui/toast.js";

/**
 * @param {ShowState} state
 * @param {{what: string, who?: string, by?: string, other: string, own: string, path: string[], value: any}[]} entries
 * @param {string} holds which of both holds now, in words
 */
export function tellOverruled(state, entries, holds) {
	const [first] = entries;
	const mine = Boolean(first.by);
	// To whom it is told, the other value is that of the one who was quicker.
	const name = mine ? first.by : first.who;
	const value = mine ? first.own : first.other;
	const more = entries.length > 1 ? `, and ${entries.length - 1} more` : "";
	const shown = value ? ` to “${value}”` : "";
	const back = entries.filter((entry) => entry.value !== null);
	if (!back.length) {
		const words = mine
			? `${name} removed ${first.what}, which you had changed at the same time.`
			: `${name} had changed ${first.what}, which you removed.`;
		toast(`${words} Undo brings it back.`);
		return;
	}
	toast(`${name} changed ${first.what}${shown} at the same time${more}; ${holds}.`, {
		act: mine ? "Bring mine back" : "Take theirs",
		stays: true,
		onact: () =>
			state.edit({
				do: "put values",
				label: `Bring back ${first.what}`,
				values: back.map(({ path, value: kept }) => ({ path, value: kept })),
			}),
	});
}
