// Fetching what a show needs before it needs it: one slide after another, some slides ahead of what is seen. Sounds come by themselves, in their order.

const SLIDES_AHEAD = 6;

/** @param {import("./player.js").ShowPlayer} player */
export function fetchAhead(player) {
  const came = new Set();
  let busy = false;
  const go = async () => {
    if (busy) return;
    busy = true;
    while (player.running) {
      const { index } = player.moment();
      const next = Array.from({ length: SLIDES_AHEAD }, (_, step) => index + step).find((slide) => slide < player.show.slides.length && !came.has(slide));
      if (next === undefined) break;
      came.add(next);
      await player.painter.ready(next);
    }
    busy = false;
  };
  player.addEventListener("moment", go);
  go();
}
