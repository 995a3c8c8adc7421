// The details of one asset: seen or heard, named, credited, where it is used, replaced everywhere, removed.
import { addAgain } from "./repair.js";
import { el, icon } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { pair, selectField, textField } from "../panel/fields.js";
import { smallPlayer } from "../ui/small-player.js";

const megabytes = (/** @type {number} */ bytes) =>
	bytes > 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1e3))} kB`;

/** @param {import("./shelf.js").Shelf} shelf @param {ShelfAsset} asset */
export function assetDetail(shelf, asset) {
	const { state } = shelf;
	const set = (/** @type {{[field: string]: any}} */ changes) =>
		state.edit({ do: "change asset", asset_id: asset.id, changes });
	const uses = shelf.usesOf(asset);
	const kin = state.data.assets.filter((other) => other.id !== asset.id && other.kind === asset.kind);
	const facts = [
		asset.width_px ? `${asset.width_px} × ${asset.height_px} px` : "",
		asset.lasts_ms ? `${secondsText(asset.lasts_ms)} s` : "",
	]
		.filter(Boolean)
		.join(" · ");
	const where = uses.map((id) =>
		state.data.slides[id]
			? el(
					"button",
					{
						class: "link",
						onclick: () => {
							shelf.close();
							state.open(id);
						},
					},
					`${state.data.numbers[id]} ${state.data.slides[id].name || "Untitled"}`,
				)
			: el("span", {}, id === "music" ? "the music" : "every slide"),
	);
	const use = asset.width_px
		? shelf.want?.replace
			? "Put it in its place"
			: shelf.want?.place
				? "Put it there"
				: "Add to the slide"
		: "Under the whole show";
	return [
		asset.kind === "clip"
			? smallPlayer({ src: asset.shown, name: asset.name, film: true })
			: asset.width_px
				? el("img", { src: asset.address, alt: asset.alternative || asset.name, class: "seen-large" })
				: smallPlayer({ src: asset.address, name: asset.name }),
		textField(asset.name, (name) => set({ name }), { label: "Name on the shelf", cls: "name-field" }),
		el(
			"p",
			{ class: "said" },
			`${facts} · ${megabytes(asset.size_bytes)} · ${asset.media_type.split("/")[1]}${asset.heavy ? " · browsers are shown a lighter copy" : ""}${asset.folder ? ` · from ${asset.folder}` : ""}`,
		),
		asset.fault
			? el(
					"div",
					{ class: "row", role: "alert" },
					el("p", { class: "wrong" }, `Its file is ${asset.fault}.`),
					addAgain(state.base, asset.id, asset.name, () => state.refresh()),
				)
			: null,
		el("button", { class: "push main", onclick: () => shelf.use(asset) }, use),
		pair(
			"Author",
			textField(asset.author, (author) => set({ author }), { label: "Author" }),
		),
		pair(
			"Licence",
			textField(asset.licence, (licence) => set({ licence }), { label: "Licence" }),
		),
		pair(
			"Credit",
			textField(asset.credit, (credit) => set({ credit }), { label: "Credit", placeholder: "As it is to be named" }),
		),
		asset.width_px
			? pair(
					"In words",
					textField(asset.alternative, (alternative) => set({ alternative }), {
						label: "What it shows, in words",
						rows: 2,
						placeholder: "New pictures made of it begin with this",
					}),
				)
			: null,
		el("div", { class: "where" }, el("b", {}, uses.length ? "Used on" : "Used nowhere"), ...where),
		uses.length && kin.length
			? pair(
					"Replace",
					selectField(
						"",
						[["", "everywhere by …"], ...kin.map((other) => [other.id, other.name])],
						(by) => by && state.edit({ do: "replace asset", asset_id: asset.id, by }),
						{ label: "Replace it everywhere by" },
					),
				)
			: null,
		el(
			"button",
			{
				class: "push",
				disabled: uses.length > 0,
				title: uses.length ? "It is used; remove it there first" : "",
				onclick: () => state.edit({ do: "drop assets", asset_ids: [asset.id] }),
			},
			icon("trash-2"),
			"Take it off the shelf",
		),
	].filter((part) => part !== null);
}
