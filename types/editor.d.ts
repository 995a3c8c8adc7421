// What the rooms of Compose hand to each other.

type ShowState = import("../src/ritornel/web/static/ritornel/editor/show-state.js").ShowState;
type Stage = import("../src/ritornel/web/static/ritornel/stage/stage.js").Stage;

/** A medium of the show, with where it is seen and what is made from it. */
interface ShelfAsset extends Core.Asset {
	shown: string;
	derived: string;
	[more: string]: any;
}
