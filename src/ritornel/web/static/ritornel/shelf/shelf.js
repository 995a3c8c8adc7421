// The shelf over the stage: all pictures and sounds of the show, filtered by words, kind, folder and use; previewed
// before use.
import { closeAtEscape } from "../ui/menu.js";
import { el, icon, newId } from "../ui/element.js";
import { get } from "../ui/requests.js";
import { filesOf } from "./dropped-files.js";
import { addPicture } from "../stage/adding.js";
import { putMusic, stretches } from "../panel/music-spans.js";
import { assetDetail } from "./asset-detail.js";

const KINDS = [
	["all", "All"],
	["pictures", "Pictures"],
	["sounds", "Sounds"],
	["clips", "Clips"],
];
const USES = [
	["any", "Used or not"],
	["used", "Used"],
	["unused", "Unused"],
];
const AT_ONCE = 120;
const smallOf = (/** @type {ShelfAsset} */ asset) => el("img", { src: asset.small, alt: "", loading: "lazy" });
const ALL = { words: "", kind: "all", use: "any", folder: "", where: "" };

export class Shelf {
	search = el("input", {
		class: "field",
		type: "search",
		placeholder: "Find by words",
		"aria-label": "Find on the shelf",
	});
	kinds = el(
		"div",
		{ class: "choice", role: "group", "aria-label": "Kind" },
		KINDS.map(([key, words]) => el("button", { "data-kind": key, onclick: () => this.narrow({ kind: key }) }, words)),
	);
	uses = el(
		"select",
		{ class: "field", "aria-label": "Use" },
		USES.map(([key, words]) => el("option", { value: key }, words)),
	);
	where = el("select", { class: "field", "aria-label": "Whose shelf", title: "This show's shelf, or another's" });
	folders = el("select", { class: "field", "aria-label": "Folder" });
	title = el("h2", {});
	grid = el("div", { class: "shelf-grid", role: "list", tabindex: -1 });
	detail = el("aside", { class: "shelf-detail", "aria-label": "Details on the shelf" });

	/**
	 * @param {ShowState} state
	 * @param {Stage} stage
	 * @param {{[name: string]: any}} page the elements of the page: the shelf's own, and the buttons that open it
	 */
	constructor(state, stage, { node, button, picture, clip }) {
		this.state = state;
		this.stage = stage;
		this.node = node;
		this.button = button;
		this.small = new Set();
		this.tiles = new Map();
		/** @type {any} */
		this.want = null;
		/** @type {string | null} */
		this.picked = null;
		/** @type {import("./catalogue.js").Catalogue | null} */
		this.catalogue = null;
		this.shown = AT_ONCE;
		this.filter = { ...ALL };
		/** @type {{id: string, title: string, assets: ShelfAsset[]}[]} */
		this.elsewhere = [];
		button.addEventListener("click", () => (node.hidden ? this.open() : this.close()));
		picture.addEventListener("click", () => this.open({ add: true, kind: "pictures" }));
		clip.addEventListener("click", () => this.open({ add: true, kind: "clips" }));
		state.addEventListener("want", ({ detail }) =>
			this.open({ ...detail, kind: this.wantsClip(detail) ? "clips" : "pictures" }),
		);
		state.addEventListener("shelf", (event) => {
			this.open({ kind: event.detail.kind });
			if (event.detail.catalogue) this.openCatalogue(event.detail.catalogue);
			if (!event.detail.ids) return;
			this.fresh = new Set(event.detail.ids);
			this.draw();
		});
		state.addEventListener("show", () => {
			if (!node.hidden) this.draw();
		});
		closeAtEscape(node, () => this.close());
		this.receive();
		this.build();
	}

	/** Whether a clip is wanted: for a place, or instead of another. */
	wantsClip(/** @type {any} */ { place, replace }) {
		return place?.wants === "clip" || (replace && this.state.object(replace)?.kind === "clip");
	}

	/**
	 * Shows what answers to this.
	 * @param {Partial<typeof ALL>} changes
	 */
	narrow(changes) {
		Object.assign(this.filter, changes);
		this.shown = AT_ONCE;
		this.draw();
	}

	build() {
		this.search.addEventListener("input", () => this.narrow({ words: this.search.value }));
		this.uses.addEventListener("change", () => this.narrow({ use: this.uses.value }));
		this.where.addEventListener("change", () => this.narrow({ where: this.where.value, folder: "" }));
		this.folders.addEventListener("change", () => this.narrow({ folder: this.folders.value }));
		const input = el("input", {
			type: "file",
			multiple: true,
			accept: "image/*,audio/*,video/*,.svg",
			class: "sr-only",
			"aria-label": "Choose pictures",
		});
		input.addEventListener("change", () => {
			const files = [...input.files].map((file) => ({ file }));
			input.value = "";
			this.take(files);
		});
		const folder = el("input", {
			type: "file",
			webkitdirectory: true,
			class: "sr-only",
			"aria-label": "Choose a folder",
		});
		folder.addEventListener("change", () => {
			const files = [...folder.files].map((file) => ({
				file,
				folder: file.webkitRelativePath.split("/").at(-2) ?? "",
			}));
			folder.value = "";
			this.take(files);
		});
		this.grid.addEventListener("scroll", () => {
			if (
				this.grid.scrollTop + this.grid.clientHeight > this.grid.scrollHeight - 300 &&
				this.shown < this.found().length
			) {
				this.shown += AT_ONCE;
				this.draw();
			}
		});
		this.detail.addEventListener("input", (/** @type {any} */ { target }) => {
			this.typedIn = target;
		});
		this.detail.addEventListener("change", () => {
			this.typedIn = null;
		});
		this.node.replaceChildren(
			el(
				"div",
				{ class: "shelf-head" },
				this.title,
				this.search,
				this.kinds,
				this.uses,
				this.where,
				this.folders,
				el("label", { class: "push cursor-pointer" }, icon("upload"), "Files", input),
				el("label", { class: "push cursor-pointer" }, icon("folder"), "Folder", folder),
				el("button", { class: "push", onclick: () => this.openCatalogue() }, icon("search"), "Catalogue"),
				el("button", { class: "push bare", "aria-label": "Close the shelf", onclick: () => this.close() }, icon("x")),
			),
			this.grid,
			this.detail,
		);
	}

	/** Every visit begins with everything, or with the kind that is wanted. */
	open({ place = null, replace = null, add = false, kind = "all" } = {}) {
		Object.assign(this.filter, ALL, { kind });
		this.search.value = "";
		this.askElsewhere();
		this.want = place ? { place } : replace ? { replace } : add ? { add } : null;
		this.fresh = new Set();
		this.node.hidden = false;
		this.button.setAttribute("aria-expanded", "true");
		this.draw();
		this.askSmalls(true);
		this.search.focus();
	}

	/** The catalogue: media of others, with their credits. */
	async openCatalogue(kind = "") {
		const { Catalogue } = await import("./catalogue.js");
		this.catalogue ??= new Catalogue(this);
		this.catalogue.open(kind);
	}

	/** Media on the shelves of the person's other shows. */
	async askElsewhere() {
		const { shelves } = await get(`${this.state.base}/shelf/elsewhere.json`).catch(() => ({ shelves: [] }));
		this.elsewhere = shelves;
		if (!this.node.hidden) this.draw();
	}

	/** The visible entries: this show's own, or those of another shelf. */
	get there() {
		return this.elsewhere.find(({ id }) => id === this.filter.where)?.assets ?? this.state.data.assets;
	}

	/** Copies an entry of another shelf to this one; null where that was refused. */
	async bringOver(/** @type {ShelfAsset} */ asset) {
		if (!asset.value) return asset;
		const value = { ...asset.value, id: newId() };
		if (!(await this.state.edit({ do: "add assets", assets: [value] }))) return null;
		return this.state.asset(value.id);
	}

	close() {
		this.node.hidden = true;
		this.want = null;
		this.button.setAttribute("aria-expanded", "false");
		this.button.focus();
	}

	/** Thumbnails appear when the worker has made them; the page does not wait. */
	async askSmalls(ask = false) {
		clearTimeout(this.timer);
		if (this.node.hidden) return;
		const { ready, missing } = await get(`${this.state.base}/shelf/smalls.json${ask ? "?ask=1" : ""}`).catch(() => ({
			ready: [],
			missing: 0,
		}));
		const before = this.small.size;
		this.small = new Set(ready);
		if (this.small.size !== before) this.draw();
		if (missing) this.timer = setTimeout(() => this.askSmalls(), 700);
	}

	async take(/** @type {{file: File, folder?: string}[]} */ files) {
		const added = await this.state.addFiles(files);
		this.fresh = new Set(added.map((asset) => asset.id));
		const [only] = added;
		if (this.want && added.length === 1 && only.width_px) {
			await this.use(only);
			return;
		}
		if (added.some((asset) => asset.folder)) this.filter.folder = added[added.length - 1].folder;
		this.draw();
		this.askSmalls();
	}

	receive() {
		this.node.addEventListener("dragover", (/** @type {DragEvent} */ event) => event.preventDefault());
		this.node.addEventListener("drop", async (/** @type {DragEvent} */ event) => {
			event.preventDefault();
			event.stopPropagation();
			this.take(await filesOf(event.dataTransfer));
		});
	}

	usesOf(/** @type {ShelfAsset} */ asset) {
		return this.state.data.uses[asset.id] ?? [];
	}

	found() {
		const { words, kind, use, folder } = this.filter;
		const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
		return [...this.there].reverse().filter((asset) => {
			const about = `${asset.name} ${asset.author} ${asset.licence} ${asset.folder} ${asset.alternative}`.toLowerCase();
			const used = this.usesOf(asset).length > 0;
			return (
				wanted.every((word) => about.includes(word)) &&
				(kind === "all" || kind === `${asset.kind}s`) &&
				(use === "any" || (use === "used") === used) &&
				(!folder || asset.folder === folder)
			);
		});
	}

	draw() {
		const { filter, state } = this;
		const found = this.found();
		const wanted = this.want?.place
			? `A picture for “${this.want.place.title}”`
			: this.want?.replace
				? `Another picture for “${state.object(this.want.replace)?.name ?? ""}”`
				: "Shelf";
		this.title.textContent = wanted;
		for (const button of this.kinds.children)
			button.setAttribute("aria-pressed", String(button.dataset.kind === filter.kind));
		this.uses.value = filter.use;
		const places = [["", "This show"], ...this.elsewhere.map(({ id, title }) => [id, title])];
		if (!places.some(([id]) => id === filter.where)) filter.where = "";
		this.where.hidden = places.length < 2;
		this.uses.hidden = Boolean(filter.where);
		this.where.replaceChildren(
			...places.map(([value, words]) => el("option", { value, selected: value === filter.where }, words)),
		);
		const folders = [...new Set(this.there.map((asset) => asset.folder).filter(Boolean))].sort();
		if (filter.folder && !folders.includes(filter.folder)) filter.folder = "";
		this.folders.hidden = !folders.length;
		this.folders.replaceChildren(
			...[["", "All folders"], ...folders.map((name) => [name, name])].map(([key, words]) =>
				el("option", { value: key, selected: key === filter.folder }, words),
			),
		);
		const focused = this.grid.contains(document.activeElement) ? document.activeElement?.dataset.asset : null;
		this.lay(found.slice(0, this.shown).map((asset) => this.kept(asset)));
		if (!found.length)
			this.grid.append(
				el(
					"p",
					{ class: "said p-4" },
					state.data.assets.length
						? "Nothing on the shelf answers to this."
						: "Nothing is on the shelf yet. Drop files here, or choose them above.",
				),
			);
		if (focused) this.grid.querySelector(`[data-asset="${CSS.escape(focused)}"]`)?.focus();
		const picked = filter.where || !this.picked ? null : state.asset(this.picked);
		// What is being typed is not drawn anew under the hand; otherwise the keyboard stays at the field of that name.
		const at = this.detail.contains(document.activeElement) ? document.activeElement : null;
		if (!this.typedIn?.isConnected) {
			this.detail.replaceChildren(
				...(picked
					? assetDetail(this, picked)
					: [
							el(
								"p",
								{ class: "said" },
								`${found.length} of ${this.there.length}. Press one to look at it or hear it; a double press uses it.`,
							),
						]),
			);
			const label = at?.getAttribute("aria-label");
			if (label) this.detail.querySelector(`[aria-label="${CSS.escape(label)}"]`)?.focus();
		}
	}

	/** Lays the tiles; unchanged tiles stay in place, so that a finger does not lose its tile. */
	lay(/** @type {any} */ tiles) {
		const now = this.grid.children;
		if (
			tiles.length !== now.length ||
			tiles.some((/** @type {any} */ tile, /** @type {number} */ at) => tile !== now[at])
		)
			this.grid.replaceChildren(...tiles);
	}

	/** The tile of an asset: the present one, unless something about the asset has changed. */
	kept(/** @type {ShelfAsset} */ asset) {
		const looks = JSON.stringify([asset, this.usesOf(asset).length, this.fresh?.has(asset.id)]);
		if (this.tiles.get(asset.id)?.looks !== looks) this.tiles.set(asset.id, { looks, node: this.tile(asset) });
		const { node } = this.tiles.get(asset.id);
		const [button] = node.children;
		button.setAttribute("aria-pressed", String(this.picked === asset.id));
		if (this.small.has(asset.id)) button.querySelector(".waiting:not(.sound)")?.replaceWith(smallOf(asset));
		return node;
	}

	tile(/** @type {ShelfAsset} */ asset) {
		const used = this.usesOf(asset).length;
		const seconds = `${(asset.lasts_ms / 1000).toFixed(1)} s`;
		const size = { picture: `${asset.width_px} × ${asset.height_px}`, sound: seconds, clip: `clip, ${seconds}` }[
			asset.kind
		];
		const picture = asset.width_px
			? asset.value || this.small.has(asset.id)
				? smallOf(asset)
				: el("span", { class: "waiting" }, icon("image"))
			: el("span", { class: "waiting sound" }, icon("music"));
		const node = el(
			"div",
			{ role: "listitem" },
			el(
				"button",
				{
					class: "tile",
					"data-asset": asset.id,
					"data-fresh": this.fresh?.has(asset.id) || null,
					onclick: async () => {
						if (asset.value) {
							// Of another shelf: it comes to this one, where it can be looked at.
							const here = await this.bringOver(asset);
							if (!here) return;
							this.filter.where = "";
							this.fresh = new Set([here.id]);
							this.picked = here.id;
							this.askSmalls(true);
							this.askElsewhere();
						} else this.picked = asset.id;
						this.draw();
						this.grid.querySelector(`[data-asset="${CSS.escape(asset.id)}"]`)?.focus();
					},
					ondblclick: () => asset.value || this.use(asset),
				},
				picture,
				el("b", { class: "truncate" }, asset.name),
				el("span", { class: "facts" }, asset.value ? size : `${size} · ${used ? `used on ${used}` : "unused"}`),
			),
		);
		node.querySelector("button").addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
			if (event.key === "Enter" && this.picked === asset.id) {
				event.preventDefault();
				this.use(asset);
			}
		});
		return node;
	}

	/**
	 * What a double press does: it fills the place that wanted a picture, replaces another, or puts it on the slide.
	 */
	async use(/** @type {ShelfAsset} */ asset) {
		const { want, state } = this;
		if (asset.kind === "sound") {
			this.close();
			await this.underShow(asset);
			return;
		}
		if (!state.slide) return;
		this.close();
		if (want?.replace)
			await state.edit({
				do: "replace picture",
				slide_id: state.slide.id,
				object_id: want.replace,
				asset_id: asset.id,
			});
		else await addPicture(this.stage, asset, { place: want?.place ?? null });
	}

	underShow(/** @type {ShelfAsset} */ asset) {
		return putMusic(this.state, asset, stretches(this.state).whole);
	}
}
