// Edits without an answer yet, kept on this device: a window that is closed while the line is down loses nothing.
import { newId } from "../ui/element.js";

const STORE = "edits";
let opened = null;

export const answered = (/** @type {any} */ request) =>
	new Promise((done, failed) => {
		request.onsuccess = () => done(request.result);
		request.onerror = () => failed(request.error);
	});

/** The device's own store; nothing where the browser keeps none, as in some private windows. */
export function store(/** @type {string} */ mode) {
	opened ??= new Promise((done) => {
		const request = indexedDB.open("ritornel", 1);
		request.onupgradeneeded = () => request.result.createObjectStore(STORE, { keyPath: "number", autoIncrement: true });
		request.onsuccess = () => done(request.result);
		request.onerror = () => done(null);
	});
	return opened.then((/** @type {any} */ base) =>
		base?.transaction(STORE, mode, { durability: "strict" }).objectStore(STORE),
	);
}

/**
 * Keeps an edit before it is sent. @param {object} entry the show, the person, where it is posted and its body
 * @returns {{id: string, forget: function}} the id by which it is made once, and what is called when it was answered
 */
export function keepEdit(entry) {
	const id = newId();
	const number = store("readwrite")
		.then((/** @type {any} */ edits) => {
			if (!edits) return null;
			const request = edits.add({ ...entry, id });
			// Told to be over at once, it is written also where the window is closed in the next moment.
			edits.transaction.commit();
			return answered(request);
		})
		.catch(() => null);
	return {
		id,
		forget: () =>
			number
				.then(async (/** @type {string} */ key) => key && answered((await store("readwrite")).delete(key)))
				.catch(() => undefined),
	};
}
