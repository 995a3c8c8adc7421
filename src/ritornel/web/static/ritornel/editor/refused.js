// An edit that was refused: why, and what can be done.
import { toast } from "../ui/toast.js";

/** @param {ShowState} state @param {import("../ui/requests.js").Refused} error @param {object | function | null} edit */
export function tellRefused(state, error, edit) {
	const again = error.gone?.length
		? { act: "Bring it back with your change", onact: () => state.edit(edit, { bring_back: error.gone }) }
		: { act: "Make it again", onact: () => state.edit(edit) };
	toast(error.message, error.stale && edit ? { wrong: true, ...again } : { wrong: true });
}
