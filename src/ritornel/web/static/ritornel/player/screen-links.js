// Connections between the screens of one run: within a browser by BroadcastChannel, which needs no server, and to other
// devices through the server.
import { post } from "../ui/requests.js";
import { openStream } from "../ui/stream.js";

/** Screens in one browser. */
export class LocalLink {
	/** @param {string} name @param {(message: any) => void} hear */
	constructor(name, hear) {
		this.channel = new BroadcastChannel(name);
		this.channel.addEventListener("message", (event) => hear(event.data));
	}

	/** @param {any} message */
	say(message) {
		this.channel.postMessage(message);
	}

	close() {
		this.channel.close();
	}
}

/**
 * Other devices. A message that could not be sent is sent again with the next of its kind; "up" and "down" tell the
 * state of the line.
 */
export class ServerLink extends EventTarget {
	/**
	 * @param {string} events where to listen
	 * @param {string|null} say where to speak; null for who only listens
	 * @param {(message: object) => void} hear
	 */
	constructor(events, say, hear) {
		super();
		this.address = say;
		/** @type {boolean | null} */
		this.up = null;
		this.owed = new Map();
		this.speaking = false;
		this.spoken = null;
		this.silent = false;
		this.heard = 0;
		this.source = openStream(
			events,
			{ message: hear, over: () => hear({ kind: "over" }) },
			{
				up: () => {
					this.tell(true);
					this.speak();
				},
				down: () => this.tell(false),
			},
		);
	}

	/** @param {boolean} up */
	tell(up) {
		if (up === this.up) return;
		this.up = up;
		this.dispatchEvent(new Event(up ? "up" : "down"));
	}

	/** @param {any} message */
	say(message) {
		if (!this.address || this.silent) return;
		// Of what changes from moment to moment only the latest matters to who is late.
		this.owed.delete(message.kind);
		this.owed.set(message.kind, message);
		this.speak();
	}

	speak() {
		if (!this.speaking) this.spoken = this.speakAll();
	}

	async speakAll() {
		this.speaking = true;
		try {
			while (this.owed.size) {
				const [kind, message] = [...this.owed][0];
				const reply = await post(/** @type {string} */ (this.address), message);
				if (this.owed.get(kind) === message) this.owed.delete(kind);
				this.heard = reply.heard;
				this.tell(true);
			}
		} catch {
			this.tell(false);
		} finally {
			this.speaking = false;
		}
	}

	/** Sends nothing from now on; what is under way is sent first. */
	async fallSilent() {
		this.silent = true;
		this.owed.clear();
		await this.spoken;
	}

	close() {
		this.source.close();
	}
}
