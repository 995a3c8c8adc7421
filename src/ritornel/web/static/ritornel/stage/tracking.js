// Following a pointer on the stage from press to release.
import { pull } from "../ui/pull.js";

/**
 * `move` gets the offset in px of the frame; `done` the last one, or null where the drag was cancelled. Neither is
 * called where nothing moved; then `press` is.
 * @param {Stage} stage
 */
export function track(
	stage,
	/** @type {PointerEvent} */ event,
	/** @type {any} */ move,
	/** @type {any} */ done,
	press = /** @type {any} */ (null),
) {
	const from = stage.point(event);
	const { state } = stage;
	/** @type {any} */
	let way = null;
	const end = (/** @type {any} */ value) => {
		done(value);
		state.letGo();
	};
	pull(
		event,
		{
			lift: () => state.hold(),
			move(next) {
				const at = stage.point(next);
				way = { x: at.x - from.x, y: at.y - from.y, shift: next.shiftKey, alt: next.altKey, at };
				move(way);
			},
			drop: () => end(way),
			back: () => end(null),
			press,
		},
		{ rests: false },
	);
}
