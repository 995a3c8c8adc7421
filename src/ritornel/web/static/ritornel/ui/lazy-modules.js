// Parts of a page that are loaded when they are first needed.

/**
 * @template T
 * @param {() => Promise<T>} load an import()
 * @returns {Part<T>}
 */
export function later(load) {
	/** @type {any} */
	const part = {
		ready: null,
		asked: null,
		get() {
			part.asked ??= load().then(
				(module) => (part.ready = module),
				(error) => {
					part.asked = null;
					throw error;
				},
			);
			return part.asked;
		},
		/** Loads it early, when the pointer or the focus comes near. */
		near(/** @type {Element} */ node) {
			for (const kind of ["pointerenter", "focusin"]) node.addEventListener(kind, () => part.get(), { once: true });
		},
	};
	return part;
}

const POINTER = ["pointermove", "pointerup", "pointercancel"];

/**
 * Starts what a pointer does once its part is there, and repeats what the pointer did meanwhile.
 * @template T
 * @param {Part<T>} part
 * @param {(module: T) => void} work
 */
export async function begin(part, work) {
	if (part.ready) {
		work(part.ready);
		return;
	}
	/** @type {PointerEvent[]} */
	const missed = [];
	/** @param {any} event */
	const keep = (event) => missed.push(event);
	for (const kind of POINTER) addEventListener(kind, keep, true);
	await part.get();
	for (const kind of POINTER) removeEventListener(kind, keep, true);
	work(part.ready);
	for (const event of missed) dispatchEvent(new PointerEvent(event.type, event));
}

/**
 * The first of some events makes their listener, which then gets that event too.
 * @param {Source[]} sources
 * @param {() => Promise<void>} make
 */
export function onFirst(sources, make) {
	/** @param {any} event */
	const hear = async (event) => {
		for (const [target, kind] of sources) target.removeEventListener(kind, hear, true);
		const { target } = event;
		event.stopImmediatePropagation();
		await make();
		target.dispatchEvent(
			event instanceof MouseEvent ? new MouseEvent(event.type, event) : new event.constructor(event.type, event),
		);
	};
	for (const [target, kind] of sources) target.addEventListener(kind, hear, true);
}
