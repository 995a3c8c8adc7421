// The House: the audience's screen. It shows the run of the Lectern and goes on by itself when the Lectern is gone. It
// shows nothing but the show.
import { Board } from "../player/ink-layer.js";
import { listen, stayAwake } from "../player/keys.js";
import { LocalLink, ServerLink } from "../player/screen-links.js";
import { ShowPlayer } from "../player/player.js";
import { SharedRun } from "../player/shared-run.js";
import { get, startData } from "../ui/requests.js";

const AGAIN_MS = 1500;
const UNHEARD_MS = 400;
const start = startData();
const house = document.querySelector(".house");
const plate = house.querySelector(".waiting");
/** @type {any} */
let current = null;

async function showAudience() {
	const show = await get(start.performance);
	if (!show.slides.length) {
		plate.querySelector("p").textContent = "This show has no slides yet.";
		return;
	}
	house.querySelector("svg.show").replaceChildren();
	house.querySelector("svg.board")?.remove();
	const player = new ShowPlayer(show, house.querySelector("svg.show"), { mode: "on cue" });
	const board = new Board(house, show.frame, start);
	const run = new SharedRun(player, { role: "house", revision: show.revision });
	current = { player, run, unlisten: listen(driver(player, run), house) };
	player.addEventListener("moment", (event) => {
		const { index, beat, phase } = event.detail;
		Object.assign(house.dataset, { slide: show.slides[index].id, beat, phase });
		board.show(show.slides[index].id);
	});
	run.addEventListener("adopted", () => {
		plate.hidden = true;
		house.dataset.ready = "yes";
		house.dataset.seq = run.seq;
	});
	run.addEventListener("changed", () => again());
	run.addEventListener("other", (event) => {
		const message = event.detail;
		if (message.kind === "level" && player.sound) player.sound.levelDb = message.db;
		else if (message.kind === "over") over();
		else board.hear(message);
	});
	const hear = (/** @type {any} */ message) => run.hear(message);
	if (start.events) {
		const line = new ServerLink(start.events, null, hear);
		// A sign of life on the line is one of the Lectern's too: whoever follows by the server does not press for itself.
		line.addEventListener("down", () => {
			house.dataset.line = "down";
		});
		line.addEventListener("up", () => {
			house.dataset.line = "up";
		});
		run.add(line);
	} else run.add(new LocalLink(start.channel, hear));
}

/** The House's own keys: where a Lectern leads, they act there; where none does, here. */
function driver(/** @type {any} */ player, /** @type {any} */ run) {
	const lead = (/** @type {any} */ act, /** @type {any} */ alone, more = {}) => {
		if (start.events) return;
		if (!run.has("lectern")) {
			alone();
			return;
		}
		const before = run.seq;
		run.say({ kind: "press", act, ...more });
		// A press never gets lost: where the Lectern has just gone, the House acts after all.
		setTimeout(() => {
			if (run.seq === before) alone();
		}, UNHEARD_MS);
	};
	return {
		live: true,
		show: player.show,
		pressed: player.pressed,
		get running() {
			return player.running;
		},
		get black() {
			return player.black;
		},
		next: () => lead("next", () => player.next()),
		previous: () => lead("back", () => player.previous()),
		goTo: (/** @type {number} */ index) => lead("go", () => player.goTo(index), { index }),
		setBlack: (/** @type {boolean} */ on) => lead("black", () => player.setBlack(on)),
	};
}

/** The show was changed: it is loaded again, and the place of the run is found in it. */
function again() {
	const { player, run, unlisten } = current;
	unlisten();
	run.close();
	player.stop();
	showAudience().catch(() => setTimeout(again, AGAIN_MS));
}

function over() {
	current.player.stop();
	plate.querySelector("p").textContent = "The show is over.";
	plate.hidden = false;
}

// The first touch lets sound be heard and fills the screen; after that a press is a press. Before the run begins a
// click only fills the screen: putting the House in its place does not begin the show.
const standsReady = () => !plate.hidden || Boolean(current?.player.ready);
const first = () => {
	current?.player.audio?.resume().catch(() => undefined);
	if (standsReady()) document.documentElement.requestFullscreen?.().catch(() => undefined);
};
for (const kind of ["pointerdown", "keydown"]) addEventListener(kind, first, true);
addEventListener(
	"pointerup",
	(event) => {
		if (standsReady()) event.stopPropagation();
	},
	true,
);
addEventListener("pagehide", () => current?.run.close());
addEventListener("pageshow", (event) => {
	if (event.persisted) location.reload();
});
let quiet = 0;
const wake = () => {
	house.classList.remove("idle");
	clearTimeout(quiet);
	quiet = setTimeout(() => house.classList.add("idle"), 2000);
};
addEventListener("pointermove", wake);
wake();
stayAwake();
showAudience().catch((error) => {
	plate.querySelector("p").textContent = error.message;
});
