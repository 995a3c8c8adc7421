// What a press on an object does while a show is played: the next cue, a slide, an address, a sound, a clip; and links
// in text.

const sounds = new WeakMap();

/** @param {any} player @param {string} assetId */
function playSound(player, assetId) {
	const playing = sounds.get(player) ?? new Map();
	sounds.set(player, playing);
	const now = playing.get(assetId);
	if (now) {
		now.pause();
		playing.delete(assetId);
		return;
	}
	const audio = new Audio(player.show.media[assetId]);
	playing.set(assetId, audio);
	audio.addEventListener("ended", () => playing.delete(assetId));
	audio.play().catch(() => playing.delete(assetId));
}

/**
 * Stops what presses have started: when the show ends, or goes to another slide.
 * @param {any} player
 */
export function stopPressed(player) {
	for (const audio of sounds.get(player)?.values() ?? []) audio.pause();
	sounds.delete(player);
}

/** @param {string} address */
const open = (address) => window.open(address, "_blank", "noopener,noreferrer");

/** @param {any} player @param {string} slideId */
function goTo(player, slideId) {
	const index = player.show.slides.findIndex((/** @type {PlayedSlide} */ entry) => entry.id === slideId);
	if (index >= 0) player.goTo(index);
}

/**
 * Does what a press on `target` asks for.
 * @returns {boolean} whether it asked for anything
 * @param {any} player
 * @param {any} target
 */
export function actOn(player, target) {
	const link = target.closest?.("[data-link]");
	if (link) {
		const to = link.dataset.link;
		if (to.startsWith("#")) goTo(player, to.slice(1));
		else open(to);
		return true;
	}
	const node = target.closest?.("[data-press]");
	const slide = player.show.slides.find(
		(/** @type {PlayedSlide} */ entry) => entry.id === node?.closest("[data-layer]")?.dataset.layer,
	);
	const press = slide?.presses[node?.dataset.object];
	if (!press) return false;
	if (press.do === "next") player.next();
	else if (press.do === "address") open(press.address);
	else if (press.do === "sound") playSound(player, press.asset_id);
	else if (press.do === "clip") player.pressed.toggle(slide, press.object_id);
	else goTo(player, press.slide_id);
	return true;
}
