// Follows one pointer from press to release. All dragging in the program uses this.
//
// A mouse or a pen drags once it has moved a few px. A finger drags once it has rested; one that moves at once scrolls.
// Where nothing scrolls, a finger drags like a mouse (`rests: false`). Esc, a second finger and the browser
// (`pointercancel`) end a drag and restore everything.

const LEAST_PX = 3;
const SHAKES_PX = 9;
const RESTS_MS = 260;
const EDGE_PX = 26;
const SCROLLS_PX = 8;

/**
 * Scrolls a list while a drag moves towards its upper or lower edge, and is near it. A drag that starts there and
 * moves away scrolls nothing.
 * @param {HTMLElement} list
 * @param {{clientY: number, movementY: number}} moved
 */
export function scrollAtEdge(list, { clientY: y, movementY: way }) {
	const { top, bottom } = list.getBoundingClientRect();
	if (y < top + EDGE_PX && way < 0) list.scrollBy(0, -SCROLLS_PX);
	else if (y > bottom - EDGE_PX && way > 0) list.scrollBy(0, SCROLLS_PX);
}

/** Swallows the click that a browser sends after a drag. */
function swallowClick() {
	const heard = new AbortController();
	addEventListener("click", (event) => event.stopPropagation(), { capture: true, signal: heard.signal });
	setTimeout(() => heard.abort());
}

/**
 * @param {PointerEvent} down
 * @param {{lift?: () => any, move?: (event: PointerEvent) => void, drop?: (event: PointerEvent) => void,
 *   back?: () => void, press?: (event: PointerEvent) => void, over?: () => void}} hand `lift()` when the pull begins, `move(event)` for every step of it, and at its end either
 *   `drop(event)` or `back()`; `press(event)` where it was let go without having been pulled; `over()` last of all
 * @param {{rests?: boolean}} how whether a finger has to rest first
 */
export function pull(down, { lift, move, drop, back, press, over }, { rests = true } = {}) {
	const finger = down.pointerType === "touch";
	const listening = new AbortController();
	const { signal } = listening;
	let held = false;
	let timer = 0;
	/** @param {any} event */
	const mine = (event) => event.pointerId === down.pointerId;
	const stop = () => {
		clearTimeout(timer);
		listening.abort();
	};
	const take = () => {
		held = true;
		lift?.();
	};
	const putBack = () => {
		stop();
		if (held) back?.();
		over?.();
	};
	if (finger && rests) timer = setTimeout(take, RESTS_MS);

	/** @param {string} kind @param {(event: any) => void} hear @param {EventTarget} [where] */
	const listen = (kind, hear, where = /** @type {EventTarget} */ (window)) =>
		where.addEventListener(kind, hear, { capture: true, passive: false, signal });
	listen("pointermove", (event) => {
		if (!mine(event)) return;
		const far = Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY);
		if (!held && finger && rests) {
			if (far > SHAKES_PX) putBack();
			return;
		}
		if (!held && far >= LEAST_PX) take();
		if (held) move?.(event);
	});
	listen("pointerup", (event) => {
		if (!mine(event)) return;
		stop();
		if (held) {
			swallowClick();
			drop?.(event);
		} else press?.(event);
		over?.();
	});
	listen("pointercancel", (event) => {
		if (mine(event)) putBack();
	});
	listen("pointerdown", (event) => {
		if (finger && event.pointerType === "touch" && !mine(event)) putBack();
	});
	listen("keydown", (event) => {
		if (event.key !== "Escape" || !held) return;
		event.preventDefault();
		event.stopPropagation();
		putBack();
	});
	// What a finger holds must not scroll. The node under it may be drawn anew while it is pulled, and then hears of the
	// finger alone.
	/** @param {any} event */
	const still = (event) => {
		if (held && event.cancelable) event.preventDefault();
	};
	listen("touchmove", still);
	if (down.target instanceof EventTarget) listen("touchmove", still, down.target);
	// Pictures would be taken along by the browser, which ends the pull.
	listen("dragstart", (event) => event.preventDefault());
	// A finger that rests asks for the menu of the page: not while it holds something.
	listen("contextmenu", (event) => {
		if (finger && (held || rests)) event.preventDefault();
	});
	return { cancel: putBack };
}
