// Themes over the stage: the slide in each theme, the show's own theme to change, the frame, and what stands on every
// slide.
import { closeAtEscape } from "../ui/menu.js";
import { el, icon } from "../ui/element.js";
import { get } from "../ui/requests.js";
import { choice, numberField, pair, selectField, textField } from "../panel/fields.js";
import { frameFields } from "../panel/frame-fields.js";

/** @type {[keyof Core.Palette, string][]} */
const ROLES = [
	["ground", "Background"],
	["raised", "Raised"],
	["words", "Words"],
	["soft", "Softer words"],
	["accent", "Accent"],
	["second", "Second accent"],
	["line", "Fine line"],
];
const plainTheme = (/** @type {Core.Theme} */ theme) => JSON.stringify(theme);

export class Themes {
	/** @param {ShowState} state @param {{node: any, button: any}} page */
	constructor(state, { node, button }) {
		this.state = state;
		this.node = node;
		this.button = button;
		button.addEventListener("click", () => (node.hidden ? this.open() : this.close()));
		state.addEventListener("show", () => {
			if (!node.hidden) this.draw();
		});
		closeAtEscape(node, () => this.close());
	}

	open() {
		this.node.hidden = false;
		this.button.setAttribute("aria-expanded", "true");
		this.draw();
		this.node.querySelector(".theme-card")?.focus();
		this.loadOthers();
	}

	close() {
		this.node.hidden = true;
		this.button.setAttribute("aria-expanded", "false");
		this.button.focus();
	}

	async loadOthers() {
		this.others = await get("/shows/themes.json").then(
			(reply) => reply.shows.filter((/** @type {any} */ entry) => entry.id !== this.state.data.show_id),
			() => [],
		);
		if (!this.node.hidden) this.draw();
	}

	change(/** @type {Core.Theme} */ theme) {
		return this.state.edit({ do: "change theme", theme });
	}

	draw() {
		const { state, node } = this;
		const { data } = state;
		const { theme } = data.settings;
		const focused = [...node.querySelectorAll("button, input, select")].indexOf(document.activeElement);
		const scroll = node.querySelector(".theme-own")?.scrollTop ?? 0;
		const cards = Object.values(state.data.themes).map((entry) =>
			el(
				"button",
				{
					class: "theme-card",
					"aria-pressed": String(plainTheme(entry) === plainTheme(theme)),
					"data-theme": entry.name,
					onclick: () => this.change(entry),
				},
				data.settings.theme_slide
					? el("img", {
							src: `${state.base}/slides/${data.settings.theme_slide}/theme/${encodeURIComponent(entry.name)}.png?r=${data.revision}`,
							alt: "",
							loading: "lazy",
						})
					: null,
				el("b", {}, entry.name),
				el(
					"span",
					{ class: "swatches" },
					/** @type {const} */ (["ground", "words", "accent", "second"]).map((role) => this.dot(entry.palette[role])),
				),
				el(
					"span",
					{ class: "facts" },
					entry.heading_family === entry.body_family
						? entry.body_family
						: `${entry.heading_family}, ${entry.body_family}`,
				),
			),
		);
		node.replaceChildren(
			el(
				"div",
				{ class: "shelf-head" },
				el("h2", {}, "Theme"),
				el("p", { class: "mr-auto facts" }, "What follows the theme changes with it; what was set by hand stays."),
				el("button", { class: "push bare", "aria-label": "Close the themes", onclick: () => this.close() }, icon("x")),
			),
			el("div", { class: "theme-grid" }, cards),
			el("aside", { class: "shelf-detail theme-own", "aria-label": "This show's theme" }, this.own(theme)),
		);
		node.querySelector(".theme-own").scrollTop = scroll;
		if (focused >= 0) [...node.querySelectorAll("button, input, select")][focused]?.focus({ preventScroll: true });
	}

	dot(/** @type {string} */ colour) {
		const node = el("i");
		node.style.background = colour;
		return node;
	}

	own(/** @type {Core.Theme} */ theme) {
		const { state } = this;
		const put = (/** @type {{[field: string]: any}} */ changes) => this.change({ ...theme, ...changes });
		const families = state.data.families.map((name) => [name, name]);
		const colours = ROLES.map(([role, words]) => {
			const field = el("input", {
				type: "color",
				class: "field swatch",
				value: theme.palette[role],
				"aria-label": `${words} of the theme`,
			});
			field.addEventListener("change", () => put({ palette: { ...theme.palette, [role]: field.value } }));
			return el("label", { class: "role" }, field, words);
		});
		const pictures = state.data.assets
			.filter((asset) => asset.kind === "picture")
			.map((asset) => [asset.id, asset.name]);
		const weak = state.data.settings.weak ?? [];
		const others = (this.others ?? []).map((/** @type {any} */ entry) => [
			entry.id,
			`${entry.title}: ${entry.theme.name}`,
		]);
		return [
			textField(theme.name, (name) => put({ name }), { label: "Name of the theme", cls: "name-field" }),
			el("div", { class: "roles" }, colours),
			weak.length
				? el(
						"p",
						{ class: "wrong" },
						`Hard to read: ${weak.map(([role, behind, ratio]) => `${role} on ${behind} (${ratio} : 1)`).join(", ")}. At least 4.5 : 1 is asked.`,
					)
				: null,
			pair(
				"Headings",
				selectField(theme.heading_family, families, (name) => put({ heading_family: name }), {
					label: "Font of headings",
				}),
			),
			pair(
				"Body",
				selectField(theme.body_family, families, (name) => put({ body_family: name }), { label: "Font of the body" }),
			),
			pair(
				"Sizes",
				el(
					"div",
					{ class: "grid grid-cols-3 gap-2" },
					numberField(theme.title_px, (n) => put({ title_px: n }), { label: "Size of titles", least: 12, most: 300 }),
					numberField(theme.heading_px, (n) => put({ heading_px: n }), {
						label: "Size of headings",
						least: 12,
						most: 300,
					}),
					numberField(theme.body_px, (n) => put({ body_px: n }), { label: "Size of the body", least: 12, most: 200 }),
				),
			),
			pair(
				"Weight",
				choice(
					String(theme.heading_weight),
					[
						["400", "Regular"],
						["600", "Semi"],
						["700", "Bold"],
					],
					(weight) => put({ heading_weight: Number(weight) }),
					{ label: "Weight of headings" },
				),
			),
			pair(
				"Titles",
				choice(
					theme.title_align,
					[
						["left", "Left"],
						["centre", "Centre"],
						["right", "Right"],
					],
					(align) => put({ title_align: align }),
					{ label: "Titles stand" },
				),
			),
			...this.grounds(theme, put, pictures),
			others.length
				? pair(
						"Import",
						selectField(
							"",
							[["", "the theme of …"], ...others],
							(id) => {
								const found = this.others.find((/** @type {any} */ entry) => entry.id === id);
								if (found) this.change(found.theme);
							},
							{ label: "Import the theme of another show" },
						),
					)
				: null,
			...frameFields(state),
		].filter(Boolean);
	}

	/** The backgrounds of ordinary slides and of openings. */
	grounds(/** @type {Core.Theme} */ theme, /** @type {(value: any) => any} */ put, /** @type {string[][]} */ pictures) {
		const clips = this.state.data.assets
			.filter((asset) => asset.kind === "clip")
			.map((asset) => [asset.id, asset.name]);
		const fields = (/** @type {"ground" | "opening"} */ key, /** @type {string} */ words) => {
			const ground = theme[key];
			const kinds = [
				["plain", "Plain"],
				["gradient", "Two colours"],
				...(pictures.length ? [["picture", "Picture"]] : []),
				...(clips.length ? [["clip", "Clip"]] : []),
			];
			const pick = (/** @type {string} */ kind) =>
				put({
					[key]: {
						plain: { kind, colour: "@ground" },
						gradient: { kind, first: "@ground", second: "@line", angle_deg: 90 },
						picture: { kind, asset_id: pictures[0]?.[0], veil: 0.5, colour: "@ground" },
						clip: { kind, asset_id: clips[0]?.[0], veil: 0.5, colour: "@ground" },
					}[kind],
				});
			const angle =
				ground.kind === "gradient"
					? numberField(ground.angle_deg, (n) => put({ [key]: { ...ground, angle_deg: n } }), {
							label: `Angle of ${words.toLowerCase()}`,
							unit: "°",
							least: -360,
							most: 360,
						})
					: null;
			const seen = ground.kind === "picture" ? pictures : ground.kind === "clip" ? clips : null;
			const asset = seen
				? selectField(ground.asset_id, seen, (id) => put({ [key]: { ...ground, asset_id: id } }), {
						label: `${ground.kind === "clip" ? "Clip" : "Picture"} of ${words.toLowerCase()}`,
					})
				: null;
			return pair(
				words,
				el(
					"div",
					{ class: "two" },
					selectField(ground.kind, kinds, pick, { label: `${words} of the theme` }),
					angle ?? asset,
				),
			);
		};
		return [fields("ground", "Slides"), fields("opening", "Openings")];
	}
}
