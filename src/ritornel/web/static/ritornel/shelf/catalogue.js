// The catalogue over the shelf: pictures, sounds, music and clips from outside services, searched, previewed, and added
// with their credits; and videos by their addresses.
import { el, icon } from "../ui/element.js";
import { get, post } from "../ui/requests.js";
import { secondsText } from "../ui/times.js";
import { toast } from "../ui/toast.js";
import { smallPlayer } from "../ui/small-player.js";

const KINDS = [
	["", "All"],
	["picture", "Pictures"],
	["sound", "Sounds"],
	["music", "Music"],
	["clip", "Clips"],
];
const TYPED_MS = 250;

export class Catalogue {
	/** @param {import("./shelf.js").Shelf} shelf */
	constructor(shelf) {
		this.shelf = shelf;
		this.state = shelf.state;
		this.kind = "";
		this.asked = 0;
		this.search = el("input", {
			class: "field",
			type: "search",
			placeholder: "Find by words",
			"aria-label": "Find in the catalogue",
		});
		this.search.addEventListener("input", () => {
			clearTimeout(this.timer);
			this.timer = setTimeout(() => this.look(), TYPED_MS);
		});
		this.kinds = el(
			"div",
			{ class: "choice", role: "group", "aria-label": "Kind in the catalogue" },
			KINDS.map(([kind, words]) =>
				el(
					"button",
					{
						"data-kind": kind,
						onclick: () => {
							this.kind = kind;
							this.look();
						},
					},
					words,
				),
			),
		);
		this.address = el("input", {
			class: "field",
			type: "url",
			placeholder: "https://clips.orlmere.example/watch/…",
			"aria-label": "Address of a video",
		});
		this.address.addEventListener("keydown", (event) => {
			if (event.key === "Enter") this.video();
		});
		this.videoButton = el("button", { class: "push", onclick: () => this.video() }, "Bring the video");
		this.grid = el("div", {
			class: "shelf-grid",
			role: "region",
			"aria-live": "polite",
			"aria-label": "Found in the catalogue",
		});
		this.node = el(
			"div",
			{ class: "catalogue" },
			el(
				"div",
				{ class: "shelf-head" },
				el("button", { class: "push", onclick: () => this.close() }, icon("chevron-left"), "Shelf"),
				this.search,
				this.kinds,
				el("span", { class: "said whitespace-nowrap ml-2" }, "or a video at"),
				this.address,
				this.videoButton,
			),
			this.grid,
		);
		shelf.node.append(this.node);
		this.node.addEventListener("keydown", (event) => {
			if (event.key === "Escape") {
				event.stopPropagation();
				this.close();
			}
		});
	}

	open(kind = "") {
		this.kind = kind;
		this.node.hidden = false;
		this.search.focus();
		this.look();
	}

	close() {
		this.node.hidden = true;
		this.shelf.draw();
		this.shelf.search.focus();
	}

	async look() {
		for (const button of this.kinds.children)
			button.setAttribute("aria-pressed", String(button.dataset.kind === this.kind));
		const number = (this.asked += 1);
		this.grid.replaceChildren(el("p", { class: "said p-4" }, "Looking …"));
		try {
			const { found } = await get(
				`${this.state.base}/catalogue?${new URLSearchParams({ words: this.search.value, kind: this.kind })}`,
			);
			if (number !== this.asked) return;
			this.grid.replaceChildren(...found.map((/** @type {any} */ entry) => this.tile(entry)));
			if (!found.length)
				this.grid.append(
					el(
						"p",
						{ class: "said p-4" },
						`The catalogue has nothing for “${this.search.value}”. Try fewer or other words.`,
					),
				);
		} catch (error) {
			if (number !== this.asked) return;
			this.grid.replaceChildren(
				el(
					"p",
					{ class: "wrong p-4", role: "alert" },
					error.message,
					" ",
					el("button", { class: "link", onclick: () => this.look() }, "Try again"),
				),
			);
		}
	}

	tile(/** @type {any} */ entry) {
		const sample = `${this.state.base}/catalogue/${entry.id}/sample`;
		const seen =
			{
				picture: () => el("img", { src: sample, alt: "", loading: "lazy" }),
				clip: () => smallPlayer({ src: sample, name: entry.name, film: true }),
			}[/** @type {"picture" | "clip"} */ (entry.kind)]?.() ??
			smallPlayer({ src: sample, name: entry.name, lastsMs: entry.lasts_ms ?? 0, preload: "none" });
		const bring = el(
			"button",
			{ class: "push", onclick: () => this.bring(`catalogue/${entry.id}`, {}, bring) },
			"Add to the shelf",
		);
		const facts = [entry.kind, entry.lasts_ms ? `${secondsText(entry.lasts_ms)} s` : "", entry.licence]
			.filter(Boolean)
			.join(" · ");
		return el(
			"div",
			{ class: "tile found", "data-entry": entry.id },
			seen,
			el("b", {}, entry.name),
			el("span", { class: "facts" }, `by ${entry.author}`),
			el("span", { class: "facts" }, facts),
			bring,
		);
	}

	video() {
		return this.bring("videos", { address: this.address.value }, this.videoButton);
	}

	/** Puts it on the shelf, with its credit. */
	async bring(/** @type {string} */ way, /** @type {any} */ body, /** @type {MadeElement} */ button) {
		const { state } = this;
		button.disabled = true;
		try {
			await state.quietly(async () => {
				const reply = await post(`${state.base}/${way}`, body);
				await state.addAsset(reply);
				this.shelf.fresh = new Set([reply.asset.id]);
				state.tell("show");
				button.replaceChildren("On the shelf");
				toast([`“${reply.asset.name}” is on the shelf, with its credit.`, ...reply.notices].join(" "));
			});
		} catch (error) {
			button.disabled = false;
			toast(error.message, { wrong: true });
		}
		this.shelf.askSmalls(true);
	}
}
