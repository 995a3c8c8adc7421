// Watching a clip: the video, and its filmstrip with a grip at each end.
import { el } from "../ui/element.js";
import { pull } from "../ui/pull.js";
import { get } from "../ui/requests.js";
import { SmallPlayer } from "../ui/small-player.js";
import { clockText } from "../ui/times.js";

/** @type {{[key: string]: number}} */
const ARROWS = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 };
const STEP_MS = 100;
const LEAST_MS = 100;
const ASK_AGAIN_MS = 700;

/**
 * The watch of the selected clip: after an edit it is the same one, which may be playing.
 * @param {ShowState} state
 */
export function watchOf(
	state,
	/** @type {Core.SlideObject} */ item,
	/** @type {ShelfAsset} */ asset,
	/** @type {(value: any) => any} */ set,
) {
	const kept = state.clipWatch;
	if (kept?.item.id === item.id && kept.asset.shown === asset.shown) kept.renew(item, asset, set);
	else {
		kept?.player.pause();
		state.clipWatch = new ClipWatch(state, item, asset, set);
	}
	return state.clipWatch;
}

class ClipWatch {
	/** @param {ShowState} state */
	constructor(
		state,
		/** @type {Core.SlideObject} */ item,
		/** @type {ShelfAsset} */ asset,
		/** @type {(value: any) => any} */ set,
	) {
		this.state = state;
		this.item = item;
		this.asset = asset;
		this.set = set;
		this.from = item.in_ms;
		this.to = item.out_ms;
		this.player = new SmallPlayer({
			src: asset.shown,
			name: `Watch ${asset.name}`,
			film: true,
			preload: "auto",
			silent: asset.silent,
		});
		this.player.media.addEventListener("loadedmetadata", () => this.player.show(this.item.in_ms), { once: true });
		this.line = el("i", { class: "now" });
		this.said = el("span");
		this.cover = [el("i", { class: "shade" }), el("i", { class: "shade" })];
		this.grips = { in_ms: this.grip("in_ms", "Begins"), out_ms: this.grip("out_ms", "Ends") };
		this.strip = el(
			"div",
			{ class: "clip-strip", role: "group", "aria-label": "Filmstrip" },
			this.cover,
			this.line,
			this.grips.in_ms,
			this.grips.out_ms,
		);
		this.strip.addEventListener("pointerdown", (/** @type {any} */ event) => {
			if (event.target.closest("[role=slider]")) return;
			this.player.pause();
			this.player.show(this.msAt(event));
		});
		this.player.told.addEventListener("time", () => this.lay());
		this.renew(item, asset, set);
		this.askStrip();
	}

	/** The clip after an edit. */
	renew(/** @type {Core.SlideObject} */ item, /** @type {ShelfAsset} */ asset, /** @type {(value: any) => any} */ set) {
		this.item = item;
		this.asset = asset;
		this.set = set;
		this.from = item.in_ms;
		this.to = item.out_ms;
		this.player.media.muted = Boolean(item.muted);
		this.player.media.playbackRate = (item.rate_pct ?? 100) / 100;
		this.lay(item.in_ms, item.out_ms);
	}

	/** The worker makes the strip's pictures; it is asked until they are there. */
	async askStrip(ask = true) {
		const { ready } = await get(`${this.asset.derived}/strip.json${ask ? "?ask=1" : ""}`).catch(() => ({
			ready: true,
		}));
		if (ready) this.strip.style.backgroundImage = `url("${this.asset.derived}/strip")`;
		else
			setTimeout(() => {
				if (this.strip.isConnected) this.askStrip(false);
			}, ASK_AGAIN_MS);
	}

	/** “In here”: the present picture becomes the first, and it plays on. */
	inHere() {
		const { asset, item, player } = this;
		const at = player.atMs;
		return this.set(at < item.out_ms ? { in_ms: at } : { in_ms: at, out_ms: asset.lasts_ms });
	}

	/** “Out here”: the present picture becomes the last, and it stops there. */
	outHere() {
		const { asset, item, player } = this;
		player.pause();
		const out_ms = Math.min(player.atMs + 1, asset.lasts_ms);
		return this.set(out_ms > item.in_ms ? { out_ms } : { out_ms, in_ms: 0 });
	}

	/** Plays from in to out, and stops there. */
	async test() {
		const { item, player } = this;
		player.pause();
		player.toMs = item.out_ms;
		player.show(item.in_ms);
		await player.play();
		player.media.addEventListener(
			"pause",
			() => {
				player.toMs = 0;
				player.show(Math.min(player.atMs, item.out_ms - 1));
			},
			{ once: true },
		);
	}

	msAt(/** @type {PointerEvent} */ event) {
		const box = this.strip.getBoundingClientRect();
		return Math.round(Math.max(0, Math.min((event.clientX - box.left) / box.width, 1)) * this.asset.lasts_ms);
	}

	grip(/** @type {"in_ms" | "out_ms"} */ field, /** @type {string} */ words) {
		const node = el("span", {
			class: `grip ${field === "in_ms" ? "first" : "last"}`,
			role: "slider",
			tabindex: 0,
			"aria-label": `${words} at`,
			"aria-valuemin": 0,
		});
		const within = (/** @type {number} */ ms) =>
			field === "in_ms"
				? Math.max(0, Math.min(ms, this.item.out_ms - LEAST_MS))
				: Math.min(this.asset.lasts_ms, Math.max(ms, this.item.in_ms + LEAST_MS));
		const see = (/** @type {number} */ ms) => {
			const { item } = this;
			this.lay(field === "in_ms" ? ms : item.in_ms, field === "out_ms" ? ms : item.out_ms);
			this.player.show(field === "in_ms" ? ms : ms - 1);
		};
		node.addEventListener("pointerdown", (event) => {
			event.preventDefault();
			this.player.pause();
			const before = this.item[field];
			let ms = before;
			pull(
				event,
				{
					move: (next) => {
						ms = within(this.msAt(next));
						see(ms);
					},
					drop: () => ms !== before && this.set({ [field]: ms }),
					back: () => see(before),
				},
				{ rests: false },
			);
			node.focus();
		});
		node.addEventListener("keydown", (event) => {
			const way = ARROWS[event.key];
			if (!way) return;
			event.preventDefault();
			event.stopPropagation();
			this.set({ [field]: within(this.item[field] + way * (event.shiftKey ? STEP_MS * 10 : STEP_MS)) });
		});
		return node;
	}

	/** Places the grips, the shades and the line of the present picture. */
	lay(from = this.from, to = this.to) {
		this.from = from;
		this.to = to;
		const share = (/** @type {number} */ ms) => `${(ms / this.asset.lasts_ms) * 100}%`;
		this.said.textContent = ` · ${clockText(from)} to ${clockText(to)}`;
		this.cover[0].style.width = share(from);
		this.cover[1].style.left = share(to);
		this.grips.in_ms.style.left = share(from);
		this.grips.out_ms.style.left = share(to);
		this.line.style.left = share(this.player.atMs);
		for (const [field, ms] of /** @type {["in_ms" | "out_ms", number][]} */ ([
			["in_ms", from],
			["out_ms", to],
		])) {
			this.grips[field].setAttribute("aria-valuemax", String(this.asset.lasts_ms));
			this.grips[field].setAttribute("aria-valuenow", String(ms));
			this.grips[field].setAttribute("aria-valuetext", clockText(ms));
		}
	}
}
