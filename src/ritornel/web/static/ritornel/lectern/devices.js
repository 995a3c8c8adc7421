// Other devices that follow the run: a House by its address, a phone as the remote.
import { ServerLink } from "../player/screen-links.js";
import { el } from "../ui/element.js";
import { get, post } from "../ui/requests.js";
import { toast } from "../ui/toast.js";

const LOCAL = /^(localhost|127\.|\[::1\])/;

export class Devices {
	/**
	 * @param {{base: string, run: import("../player/shared-run.js").SharedRun, button: HTMLElement, panel: HTMLElement,
	 * told: () => void}} parts
	 */
	constructor({ base, run, button, panel, told }) {
		this.base = base;
		this.run = run;
		this.button = button;
		this.panel = panel;
		this.told = told;
		/** @type {any} */
		this.link = null;
		button.addEventListener("click", () => this.open(panel.hidden));
		panel.addEventListener("keydown", (event) => {
			if (event.key === "Escape") {
				event.stopPropagation();
				this.open(false);
				button.focus();
			}
		});
		// A Lectern that is opened again goes on leading who followed before.
		get(`${base}/run.json`)
			.then((line) => {
				if (line) this.follow(line);
			})
			.catch(() => undefined);
	}

	/** @param {boolean} on */
	async open(on) {
		this.panel.hidden = !on;
		this.button.setAttribute("aria-expanded", String(on));
		if (!on) return;
		if (!this.line) {
			try {
				this.follow(await post(`${this.base}/run`));
			} catch (error) {
				toast(error.message, { wrong: true });
				this.open(false);
				return;
			}
		}
		this.draw();
	}

	/** @param {any} line */
	follow(line) {
		this.line = line;
		this.link = new ServerLink(line.events, line.say, (message) => this.run.hear(message));
		for (const kind of ["up", "down"]) this.link.addEventListener(kind, () => this.told());
		this.run.add(this.link);
	}

	/**
	 * The number of connections besides the Lectern's own; null where nobody may follow. Also the state of the line.
	 */
	get state() {
		return this.link ? { following: Math.max(0, this.link.heard - 1), up: this.link.up !== false } : null;
	}

	draw() {
		const { house, remote } = this.line;
		/** @param {string} title @param {string} words @param {{address: string, square: any}} by */
		const place = (title, words, { address, square }) => {
			const picture = el("img", {
				alt: `The address as a square for a camera: ${address}`,
				src: `data:image/svg+xml,${encodeURIComponent(square)}`,
				width: 170,
				height: 170,
			});
			return el(
				"section",
				{},
				picture,
				el(
					"div",
					{},
					el("h3", {}, title),
					el("p", {}, words),
					el("a", { href: address, target: "_blank", rel: "noopener" }, address),
					el(
						"button",
						{
							class: "push dim",
							onclick: async () => {
								await navigator.clipboard?.writeText(address);
								toast("Copied.");
							},
						},
						"Copy",
					),
				),
			);
		};
		this.panel.replaceChildren(
			el(
				"div",
				{ class: "row" },
				el("h2", {}, "Other devices"),
				el("button", { class: "push dim ml-auto", onclick: () => this.open(false) }, "Close"),
			),
			place("A House elsewhere", "Opens what the audience sees, on any device that reaches this computer.", house),
			place("A phone as the remote", "Next, back and black. Whoever has this address can press.", remote),
			LOCAL.test(location.host)
				? el(
						"p",
						{ class: "wrong" },
						"These addresses lead to this computer only. Start Ritornel with ./run demo --network and open it by its network address, so that others reach it.",
					)
				: "",
			el(
				"div",
				{ class: "row" },
				el("span", {}, "Both addresses end with the run, or after a day."),
				el("button", { class: "push dim ml-auto", onclick: () => this.end() }, "Let nobody follow any more"),
			),
		);
		this.panel.querySelector("button").focus();
	}

	async end() {
		// What is still said to an address that leads nowhere would be refused.
		await this.link.fallSilent();
		try {
			await post(this.line.end);
		} catch (error) {
			this.link.silent = false;
			toast(error.message, { wrong: true });
			return;
		}
		this.run.links = this.run.links.filter((link) => link !== this.link);
		this.link.close();
		this.link = null;
		this.line = null;
		this.open(false);
		this.told();
		toast("The addresses lead nowhere now.");
	}
}
