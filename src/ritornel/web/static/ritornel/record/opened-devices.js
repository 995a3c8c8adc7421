// The microphones and cameras that this page has opened: a browser asks for permission once a page, not at every
// change. The last choice is remembered for the next visit.
import { PRACTICE } from "./practice.js";

const opened = new Map();
const isLive = (/** @type {any} */ stream) =>
	stream.getTracks().every((/** @type {any} */ track) => track.readyState === "live");

/**
 * A stream of a device. Its user stops it; the device itself stays open for the page.
 * @param {"microphone" | "camera"} what
 */
export async function openDevice(what, /** @type {string} */ id, /** @type {any} */ constraints) {
	const key = `${what} ${id}`;
	if (!opened.has(key) || !isLive(opened.get(key)))
		opened.set(key, await navigator.mediaDevices.getUserMedia(constraints));
	const tracks = opened.get(key).getTracks();
	return new MediaStream(
		tracks.map((/** @type {any} */ track) => {
			const own = track.clone();
			track.addEventListener("ended", () => own.dispatchEvent(new Event("ended")));
			return own;
		}),
	);
}

/** Nobody records any more: releases the machine's devices, so that their lights go out. */
export function closeDevices() {
	for (const stream of opened.values()) for (const track of stream.getTracks()) track.stop();
	opened.clear();
}

const keyOf = (/** @type {string} */ what) => `ritornel-${what}`;

/** Remembers what was chosen, on this device. */
export const rememberDevice = (/** @type {string} */ what, /** @type {string} */ id) =>
	localStorage.setItem(keyOf(what), id);

/** The last choice, where it can be opened without a question; null where there is none, or the browser would ask. */
export async function lastDevice(/** @type {string} */ what) {
	const id = localStorage.getItem(keyOf(what));
	if (!id || id === PRACTICE) return id;
	const permission = await navigator.permissions?.query({ name: /** @type {any} */ (what) }).catch(() => null);
	return permission?.state === "granted" ? id : null;
}
