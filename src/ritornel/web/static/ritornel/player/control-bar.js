// The control bar over a show. It appears when the pointer moves to the foot of the screen, when something in it has
// the focus, or on `?`; no other key shows it, so an audience never sees it. It disappears after three seconds. It is
// the same wherever a show plays; the presenter's own controls are a group in it.
import { hasCaptions, showCaptions } from "./captions.js";
import { el, icon, svg } from "../ui/element.js";
import { clockText, minutesText } from "../ui/times.js";
import { taken } from "../ui/free-keys.js";
import { openKeys } from "../ui/key-list.js";
import { toggleFullScreen } from "./keys.js";

const QUIET_MS = 3000;
const FOOT_PX = 140;

/**
 * @param {import("./player.js").ShowPlayer} player
 * @param {HTMLElement} house
 * @param {{leave?: () => void, keys: [string, [string, string][]], tools?: HTMLElement[]}} options `keys` are told on
 * `?`, `tools` are the presenter's
 */
export function slimControls(player, house, { leave, keys, tools = [] }) {
	/** @param {string} name @param {string} label @param {() => void} act */
	const button = (name, label, act) => el("button", { "aria-label": label, title: label, onclick: act }, icon(name));
	const play = button("pause", "Pause", () => (player.paused ? player.resume() : player.pause()));
	const mute = button("volume-2", "Sound off", () => {
		const { sound } = player;
		if (!sound) return;
		sound.muted = !sound.muted;
		mute.replaceChildren(icon(sound.muted ? "volume-x" : "volume-2"));
		mute.setAttribute("aria-label", sound.muted ? "Sound on" : "Sound off");
	});
	const time = el("span", { class: "px-2 whitespace-nowrap" });
	const line = lineOfBars(player);
	const bar = el(
		"div",
		{ class: "slim", role: "toolbar", "aria-label": "Playing" },
		play,
		button("chevron-left", "One beat back", () => player.previous()),
		button("chevron-right", "Next beat", () => player.next()),
		line.node,
		time,
		player.sound ? mute : null,
		hasCaptions(player.show) ? showCaptions(player, house) : null,
		tools.length ? el("span", { role: "group", "aria-label": "For the presenter" }, tools) : null,
		button("maximize", "Full screen (F)", toggleFullScreen),
		el("button", { "aria-label": "Keys", title: "Keys (?)", onclick: () => openKeys(...keys) }, "?"),
		leave ? button("x", "Leave", leave) : null,
	);
	house.append(bar);
	player.addEventListener("paused", () => {
		play.replaceChildren(icon(player.paused ? "play" : "pause"));
		play.setAttribute("aria-label", player.paused ? "Go on" : "Pause");
	});
	const tell = () => {
		if (!player.running) return;
		const at = player.live ? player.show.starts_ms[player.state.index] : player.timeMs();
		time.textContent = player.live
			? `${player.state.index + 1} of ${player.show.slides.length}`
			: `${minutesText(at)} / ${minutesText(player.show.length_ms)}`;
		line.tell(at);
	};
	setInterval(tell, 200);
	player.addEventListener("moment", tell);
	let quiet = 0;
	const wake = () => {
		house.classList.remove("idle");
		clearTimeout(quiet);
		quiet = setTimeout(() => {
			if (!bar.matches(":focus-within")) house.classList.add("idle");
		}, QUIET_MS);
	};
	/** @param {any} event */
	const near = (event) => {
		if (event.clientY > innerHeight - FOOT_PX) wake();
	};
	for (const kind of ["pointermove", "pointerdown"]) addEventListener(kind, near);
	bar.addEventListener("focusin", wake);
	addEventListener("keydown", (event) => {
		if (event.key !== "?" || event.ctrlKey || event.metaKey || taken(event)) return;
		event.preventDefault();
		wake();
		openKeys(...keys);
	});
	wake();
	return bar;
}

/**
 * The show as a line with a bar line at every slide; a press on it goes there.
 * @param {any} player
 */
function lineOfBars(player) {
	const { show } = player;
	const length = Math.max(show.length_ms, 1);
	const drawing = svg(
		"svg",
		{ viewBox: "0 0 1000 28", preserveAspectRatio: "none", "aria-hidden": "true" },
		svg("path", { d: "M 0 14 H 1000", stroke: "#ffffff88", "stroke-width": 1, "vector-effect": "non-scaling-stroke" }),
	);
	for (const start of [...show.starts_ms, show.length_ms]) {
		const x = (start / length) * 1000;
		drawing.append(
			svg("path", {
				d: `M ${x} 6 V 22`,
				stroke: "#ffffffcc",
				"stroke-width": 1.5,
				"vector-effect": "non-scaling-stroke",
			}),
		);
	}
	const head = svg("path", {
		d: "M 0 3 V 25",
		stroke: "#f28cb9",
		"stroke-width": 3,
		"vector-effect": "non-scaling-stroke",
	});
	drawing.append(head);
	const node = el("button", { class: "line", "aria-label": "Go to a place in the show", title: "Go there" }, drawing);
	node.addEventListener("click", (/** @type {PointerEvent} */ event) => {
		const box = node.getBoundingClientRect();
		const ms = Math.max(0, ((event.clientX - box.left) / box.width) * length);
		if (!player.live) {
			player.seek(ms);
			return;
		}
		player.goTo(show.starts_ms.filter((/** @type {number} */ start) => start <= ms).length - 1);
	});
	return {
		node,
		tell: (/** @type {number} */ ms) => {
			head.setAttribute("transform", `translate(${(ms / length) * 1000} 0)`);
			node.title = clockText(ms);
		},
	};
}
