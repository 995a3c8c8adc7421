// Keys, clicks and touches of a show being played.
import { keyOf, taken } from "../ui/free-keys.js";
import { actOn } from "./presses.js";

/**
 * The digit on a key, also where a layout has it above Shift, as in France; null where there is none.
 * @param {{key: string, code?: string, shiftKey?: boolean}} event
 */
function digitOf({ key, code = "", shiftKey = false }) {
	if (/^\d$/.test(key)) return key;
	return shiftKey ? null : (/^Digit(\d)$/.exec(code)?.[1] ?? null);
}

const SWIPE_PX = 40;
const PRESS_PX = 20;

/**
 * What a finger did, at any speed: a swipe to the right goes back, one to the left forward, also a slanted one; up
 * and down do nothing.
 * @returns {"press" | "back" | "on" | null}
 * @param {number} dx
 * @param {number} dy
 */
function swipeOf(dx, dy) {
	if (Math.hypot(dx, dy) < PRESS_PX) return "press";
	if (Math.abs(dx) < SWIPE_PX || Math.abs(dx) < Math.abs(dy) * 0.7) return null;
	return dx > 0 ? "back" : "on";
}

/**
 * @param {Driven} player @param {HTMLElement} surface
 * @param {{leave?: () => void, step?: boolean}} options `step` false: a stranger may not step through a self-running
 * show
 */
export function listen(player, surface, { leave = () => undefined, step = true } = {}) {
	let digits = "";
	/** @type {{[key: string]: () => void}} */
	const act = {
		" ": () => (player.live ? player.next() : player.paused ? player.resume?.() : player.pause?.()),
		ArrowRight: () => player.next(),
		PageDown: () => player.next(),
		ArrowDown: () => player.next(),
		ArrowLeft: () => player.previous(),
		PageUp: () => player.previous(),
		ArrowUp: () => player.previous(),
		Home: () => player.goTo(0),
		End: () => player.goTo(player.show.slides.length - 1),
		b: () => player.setBlack(!player.black),
		f: () => toggleFullScreen(),
		Escape: () => {
			if (player.black) player.setBlack(false);
			else leave();
		},
		Enter: () => {
			if (digits) {
				player.goTo(Number(digits) - 1);
				digits = "";
			} else player.next();
		},
	};
	/** @param {any} event */
	const onKey = (event) => {
		if (event.ctrlKey || event.metaKey || event.altKey || taken(event)) return;
		const letter = keyOf(event);
		const key = letter.length === 1 ? letter.toLowerCase() : letter;
		const digit = digitOf(event);
		if (digit !== null) {
			digits += digit;
			return;
		}
		// On a button these keys press it, unless a number was typed before.
		if (event.target.closest?.("button, a") && (key === " " || (key === "Enter" && !digits))) return;
		if ((key === " " || key === "Enter") && !digits && player.running && actOn(player, event.target)) {
			event.preventDefault();
			return;
		}
		if (!act[key] || !player.running) return;
		if (!step && ![" ", "f", "Escape"].includes(key)) return;
		event.preventDefault();
		act[key]();
		if (key !== "Enter") digits = "";
	};
	/** @type {{x: number, y: number} | null} */
	let touch = null;
	/** @param {any} event */
	const onDown = (event) => {
		// The right button asks for the browser's menu, and a second finger zooms: neither is a cue.
		touch = event.button || touch ? null : { x: event.clientX, y: event.clientY };
	};
	/** @param {any} event */
	const onUp = (event) => {
		const from = touch;
		touch = null;
		if (!from || !player.running || event.target.closest("button, a, .slim, .plate")) return;
		const way = swipeOf(event.clientX - from.x, event.clientY - from.y);
		if (way === "back") player.previous();
		else if (way === "on") player.next();
		else if (way === "press" && !actOn(player, event.target)) player.next();
	};
	const onCancel = () => {
		touch = null;
	};
	addEventListener("keydown", onKey);
	// A frame around what has the focus is for who walks there by Tab: a press leaves none on the screen.
	surface.addEventListener("pointerdown", () => {
		surface.dataset.by = "hand";
	});
	addEventListener("keydown", (event) => {
		if (event.key === "Tab") delete surface.dataset.by;
	});
	if (step) {
		surface.addEventListener("pointerdown", onDown);
		surface.addEventListener("pointerup", onUp);
		surface.addEventListener("pointercancel", onCancel);
	}
	return () => removeEventListener("keydown", onKey);
}

export function toggleFullScreen() {
	if (document.fullscreenElement) document.exitFullscreen();
	else document.documentElement.requestFullscreen?.().catch(() => undefined);
}

/** Keeps the screen awake while the page is visible, where the browser can. */
export function stayAwake() {
	const ask = () => {
		if (document.visibilityState === "visible") navigator.wakeLock?.request("screen").catch(() => undefined);
	};
	document.addEventListener("visibilitychange", ask);
	ask();
}
