// What happens to a release while somebody watches: it may be withdrawn, or a newer edition may replace it.
import { el } from "../ui/element.js";
import { openStream } from "../ui/stream.js";
import { renewedAtMs } from "./frame-state.js";

const AGAIN_MS = 20_000;

/**
 * Reloads the page once its server can be reached: a page that is loaded without a line would stay empty for ever.
 * @param {string} address
 */
async function reloadWhenReachable(address) {
	const answer = await fetch(address, { cache: "no-store" }).catch(() => null);
	if (answer?.ok) location.reload();
	else setTimeout(() => reloadWhenReachable(address), AGAIN_MS);
}

/**
 * @param {{news?: string, edition: number, performance: string}} start
 * @param {import("./player.js").ShowPlayer} player
 * @param {HTMLElement} house
 */
export function followNews(start, player, house) {
	if (!start.news) return;
	const over = () => {
		player.stop();
		house.replaceChildren(
			el(
				"div",
				{ class: "waiting", role: "alert" },
				el("h1", {}, "This show is closed"),
				el("p", {}, "Its maker has closed it, or it is not open to you any more."),
			),
		);
	};
	/** @param {number} number */
	const edition = (number) => {
		if (number <= start.edition) return;
		news.close();
		// What runs round and round takes the newer one in when a pass is over; anybody else is asked.
		// Behind its start plate a show has no clock yet.
		const at = renewedAtMs(player.show, player.clock?.now() ?? 0);
		if (at !== null) {
			const look = () => {
				if (player.clock.now() < at) return;
				player.removeEventListener("moment", look);
				reloadWhenReachable(start.performance);
			};
			player.addEventListener("moment", look);
			return;
		}
		const go = el(
			"button",
			{ class: "push newer", onclick: () => location.reload() },
			"A newer edition is there. Watch that",
		);
		house.append(go);
	};
	const news = openStream(start.news, { over, edition });
	addEventListener("pagehide", () => news.close());
}
