// Following a pointer on the stage from a press until it is let go.

const START_DRAG_PX = 3;

/**
 * `move` gets the way in px of the frame; `done` the last of it, or null where Esc took it back. Neither is called
 * where nothing moved.
 */
export function track(stage, event, move, done) {
	const from = stage.point(event);
	let moved = false;
	let way = { x: 0, y: 0 };
	const { state } = stage;
	const stop = (finish) => {
		removeEventListener("pointermove", onMove);
		removeEventListener("pointerup", onUp);
		removeEventListener("pointercancel", onCancel);
		removeEventListener("keydown", onKey, true);
		if (moved) {
			done(finish ? way : null);
			state.letGo();
		}
	};
	const onMove = (next) => {
		const to = stage.point(next);
		way = { x: to.x - from.x, y: to.y - from.y, shift: next.shiftKey, alt: next.altKey, at: to };
		if (!moved && Math.hypot(way.x, way.y) * stage.scale < START_DRAG_PX) return;
		if (!moved) state.hold();
		moved = true;
		move(way);
	};
	const onUp = () => stop(true);
	const onCancel = () => stop(false);
	const onKey = (key) => {
		if (key.key === "Escape") {
			key.stopPropagation();
			stop(false);
		}
	};
	addEventListener("pointermove", onMove);
	addEventListener("pointerup", onUp);
	addEventListener("pointercancel", onCancel);
	addEventListener("keydown", onKey, true);
}
