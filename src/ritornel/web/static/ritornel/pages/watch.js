// A released show, as strangers see it. It starts by itself with sound where the browser allows that; elsewhere behind
// a start plate, or in silence where its maker wants that.
import { sayMoment } from "../player/spoken-words.js";
import { fetchAhead } from "../player/preloading.js";
import { hasCaptions, showCaptions } from "../player/captions.js";
import { listen, stayAwake } from "../player/keys.js";
import { followNews } from "../player/edition-news.js";
import { ShowPlayer } from "../player/player.js";
import { slimControls } from "../player/control-bar.js";
import { el } from "../ui/element.js";
import { KEYS } from "../ui/page-keys.js";
import { get, startData } from "../ui/requests.js";

const house = document.querySelector(".house");
const start = startData();

/** The show with full addresses of its media, which are relative in its file. */
const placed = (/** @type {PlayedShow} */ show, /** @type {URL} */ at) => ({
	...show,
	media: Object.fromEntries(Object.entries(show.media).map(([key, name]) => [key, new URL(name, at).href])),
});

/** The show runs in silence: the first press, anywhere, turns the sound on and does nothing else. */
function offerSound(/** @type {any} */ player) {
	const offer = el("button", { class: "push newer" }, "Press for sound");
	const listening = new AbortController();
	const how = { capture: true, signal: listening.signal };
	const hear = async (/** @type {any} */ event) => {
		if (event.type === "keydown" && ["Shift", "Control", "Alt", "Meta", "Tab"].includes(event.key)) return;
		event.stopImmediatePropagation();
		if (!(await player.wake())) return;
		listening.abort();
		offer.remove();
	};
	for (const kind of ["pointerdown", "keydown"]) addEventListener(kind, hear, how);
	house.append(offer);
}

async function main() {
	// What moves little is chosen by the visitor's own device; the core has made it ready.
	const wanted = matchMedia("(prefers-reduced-motion: reduce)").matches ? start.calm : start.performance;
	// A show saved to a disk brings everything along; elsewhere it is asked for.
	const show = typeof wanted === "string" ? placed(await get(wanted), new URL(wanted, location.href)) : wanted;
	const player = new ShowPlayer(show, house.querySelector("svg"), { mode: "self-running", loops: start.loops });
	const words = house.querySelector("[data-words]");
	player.addEventListener("moment", (event) => {
		const at = event.detail.index;
		house.dataset.slide = show.slides[at]?.id ?? "";
		sayMoment(words, show, event.detail, `Slide ${at + 1} of ${show.slides.length}`);
	});
	followNews(start, player, house);
	const plate = house.querySelector(".plate");
	const run = async (silent = false) => {
		plate.hidden = true;
		if (player.sound) player.sound.muted = silent || start.sound === false;
		// Where it stands in somebody else's page, that page says whether it may be stepped through and whether controls
		// are seen.
		listen(player, house, { step: start.steps !== false });
		if (start.controls !== false) {
			slimControls(player, house, { keys: KEYS.watch });
		} else if (hasCaptions(show)) showCaptions(player, house);
		stayAwake();
		await player.begin(0);
		house.querySelector(".first")?.remove();
		fetchAhead(player);
		// A phone that slept has taken the sound away; some give it back only for a press.
		for (const kind of ["pageshow", "focus", "pointerdown"]) addEventListener(kind, () => player.wake());
		document.addEventListener("visibilitychange", () => {
			if (document.visibilityState === "visible") player.wake();
		});
		house.dataset.running = "yes";
		player.sound?.loaded.then(() => {
			house.dataset.sounds = String(player.sound?.buffers.size);
		});
	};
	const heard = start.sound === false || (await player.mayBeHeard());
	if (start.starts_itself && (heard || start.starts_silent)) {
		await run();
		if (!heard) offerSound(player);
		return;
	}
	const first = show.slides[0].schedule;
	player.painter.paint({ layers: [], blackness: 0 });
	await player.painter.ready(0);
	const { restLayer } = await import("../player/frame-state.js");
	player.painter.paint({ layers: [restLayer(show, 0, first.beats.length - 1)], blackness: 0 });
	house.querySelector(".first")?.remove();
	plate.hidden = false;
	plate.querySelector(".dot").focus({ preventScroll: true });
	plate.addEventListener("click", function begin(/** @type {any} */ { target }) {
		// Who goes to read it does not begin it.
		if (target.closest("a")) return;
		plate.removeEventListener("click", begin);
		run(Boolean(target.closest("[data-silent]")));
	});
}

main().catch((error) => house.append(el("p", { class: "absolute text-white", role: "alert" }, error.message)));
