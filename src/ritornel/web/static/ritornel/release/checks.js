// The readiness check beside a release: what would disturb the audience, where, why, and its fix.
import { addAgain } from "../shelf/repair.js";
import { el } from "../ui/element.js";
import { get, post } from "../ui/requests.js";
import { clockText } from "../ui/times.js";
import { toast } from "../ui/toast.js";

const AGAIN_MS = 400;
const LOOKED_AT_MS = 80;
const GROUPS = [
	["stops", "Stops the show"],
	["hurts", "Hurts"],
	["polish", "Polish"],
];

export class Checks {
	/**
	 * @param {HTMLElement} node
	 * @param {string} base the show's address
	 * @param {function} see shows the show from an instant on, in ms
	 */
	constructor(node, base, see) {
		this.node = node;
		this.base = base;
		this.see = see;
		this.revision = 0;
		/** @type {string | undefined} */
		this.drawn = undefined;
		this.said = el("p", { class: "said", role: "status" }, "Checking …");
		this.again = el("button", { class: "push", onclick: () => this.look() }, "Check again");
		this.list = el("div", {});
		node.replaceChildren(
			el("div", { class: "row" }, el("h2", { class: "text-lg mr-auto" }, "Readiness check"), this.again),
			this.said,
			this.list,
		);
		this.look();
	}

	/** @param {boolean} ask whether the worker is asked to look at what nobody has looked at */
	async look(ask = true) {
		this.again.disabled = true;
		clearTimeout(this.later);
		try {
			const { revision, findings, looking } = await get(`${this.base}/checks.json${ask ? "?ask=1" : ""}`);
			this.revision = revision;
			const key = JSON.stringify(findings);
			// News from the worker waits while somebody is at a finding: nothing moves under a hand.
			const busy = !ask && (this.list.contains(document.activeElement) || this.list.matches(":hover"));
			const news = ask || key !== this.drawn;
			if (news && !busy) {
				this.draw(findings);
				this.drawn = key;
			}
			this.said.textContent =
				this.counted + (looking ? ` · ${looking} slide${looking > 1 ? "s" : ""} still being looked at` : "");
			if (looking || (news && busy)) this.later = setTimeout(() => this.look(false), AGAIN_MS);
		} catch (error) {
			this.said.textContent = error.message;
		}
		this.again.disabled = false;
	}

	/** @param {FindingLine[]} findings */
	draw(findings) {
		const open = findings.filter(({ aside }) => aside === null);
		const fixes = open.filter(({ fix }) => fix).length;
		this.counted = open.length
			? `${open.length} finding${open.length > 1 ? "s" : ""}, ${fixes} with a fix`
			: "Nothing would make the audience stumble.";
		const put = findings.filter(({ aside }) => aside !== null);
		this.list.replaceChildren(
			...GROUPS.flatMap(([severity, words]) => {
				const own = open.filter((finding) => finding.severity === severity);
				return own.length
					? [
							el(
								"section",
								{ class: "findings", "data-severity": severity },
								el(
									"div",
									{ class: "row" },
									el("h3", { class: "mr-auto" }, words),
									el("span", { class: "said" }, `${own.length}`),
								),
								...this.grouped(own),
							),
						]
					: [];
			}),
			put.length
				? el(
						"section",
						{ class: "findings", "data-severity": "aside" },
						el("h3", {}, "Set aside"),
						put.map((finding) => this.line(finding)),
					)
				: "",
		);
	}

	/**
	 * Findings of one kind stand together, with one fix for all of them and one for each.
	 * @param {FindingLine[]} findings
	 */
	grouped(findings) {
		const groups = Map.groupBy(findings, ({ group }) => group);
		return [...groups].flatMap(([group, own]) => {
			if (own.length < 2) return own.map((finding) => this.line(finding));
			const fixes = own.flatMap(({ fix }) => (fix ? [fix.edit] : []));
			const edit = { do: "several", label: `Fix ${fixes.length} × ${group.toLowerCase()}`, edits: fixes };
			const all = el("button", { class: "push" }, `Fix all ${fixes.length}`);
			all.addEventListener("click", () => this.fix({ edit, words: `${fixes.length} × ${group.toLowerCase()}` }, all));
			return [
				el(
					"details",
					{ class: "finding-group", open: true },
					el("summary", {}, el("b", {}, `${group} · ${own.length}`)),
					fixes.length > 1 ? all : null,
					own.map((finding) => this.line(finding)),
				),
			];
		});
	}

	/** @param {FindingLine} finding */
	line(finding) {
		const { id, title, why, thumb, number, at_ms: ms, slide_id: slide, fix } = finding;
		const open = {
			href: `${this.base}/?slide=${encodeURIComponent(slide ?? "")}`,
			title: "Open it in Compose",
			"aria-label": `Slide ${number}, open it in Compose`,
		};
		const place = slide
			? [
					el("a", open, thumb ? el("img", { src: thumb, alt: "", width: 60, height: 34, loading: "lazy" }) : "Open"),
					el(
						"span",
						{},
						el("b", { class: "serif" }, String(number)),
						" ",
						el(
							"button",
							{
								class: "link",
								title: "See it from two seconds before",
								"aria-label": `See slide ${number} at ${clockText(ms)}`,
								onclick: () => this.see(ms),
							},
							clockText(ms),
						),
					),
				]
			: [el("span", { class: "said" }, "the whole")];
		return el(
			"article",
			{ class: "finding", "data-finding": id },
			el("div", { class: "where" }, place),
			el(
				"div",
				{},
				el("b", {}, title),
				el("p", { class: "said" }, why),
				fix && finding.aside === null ? this.fixButton(finding.id, fix) : null,
				finding.asset_id ? addAgain(this.base, finding.asset_id, finding.asset_name ?? "", () => this.look()) : null,
				this.putting(finding),
			),
		);
	}

	/**
	 * The button of a fix; on hover it shows the result: the new lengths, and the slide.
	 * @param {string} id of the finding
	 * @param {NonNullable<FindingLine["fix"]>} fix
	 */
	fixButton(id, fix) {
		const card = el("div", { class: "would", role: "status", hidden: true });
		const hide = () => {
			clearTimeout(this.about);
			card.hidden = true;
		};
		const show = () => {
			clearTimeout(this.about);
			this.about = setTimeout(async () => {
				try {
					const { words, picture } = await get(`${this.base}/checks/fix.json?finding=${encodeURIComponent(id)}`);
					card.replaceChildren(
						...(picture ? [el("img", { src: picture, alt: "The slide as it would look" })] : []),
						el("p", { class: "said" }, words),
					);
					card.hidden = !button.matches(":hover, :focus");
				} catch {
					hide();
				}
			}, LOOKED_AT_MS);
		};
		const button = el(
			"button",
			{
				class: "push",
				onpointerenter: show,
				onpointerleave: () => {
					if (document.activeElement !== button) hide();
				},
				onfocus: show,
				onblur: hide,
				onclick: () => {
					hide();
					this.fix(fix, button);
				},
			},
			fix.words,
		);
		button.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
			if (event.key === "Escape") hide();
		});
		return el("div", {}, button, card);
	}

	/**
	 * Setting a finding aside asks for the reason, in place; a finding set aside shows it and can be brought back.
	 * @param {FindingLine} finding
	 */
	putting({ id, title, aside }) {
		if (aside !== null)
			return el(
				"p",
				{},
				el("i", {}, `“${aside}”`),
				" ",
				el("button", { class: "link", onclick: () => this.aside({ finding: id }) }, "Bring it back"),
			);
		const button = el(
			"button",
			{
				class: "link block mt-1",
				"aria-label": `Set aside: ${title}`,
				onclick: () => {
					const field = el("input", {
						class: "field",
						placeholder: "Why may it stay as it is?",
						"aria-label": "Reason",
						maxlength: 300,
					});
					const send = () => this.aside({ finding: id, reason: field.value });
					field.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
						if (event.key === "Enter") send();
						if (event.key === "Escape") {
							form.replaceWith(button);
							button.focus();
						}
					});
					const form = el(
						"div",
						{ class: "row mt-1" },
						field,
						el("button", { class: "push", onclick: send }, "Set aside"),
					);
					button.replaceWith(form);
					field.focus();
				},
			},
			"Set aside",
		);
		return button;
	}

	/** @param {{finding: string, reason?: string}} body */
	async aside(body) {
		try {
			await post(`${this.base}/checks/aside`, body);
		} catch (error) {
			toast(error.message, { wrong: true });
			return;
		}
		await this.look();
	}

	/**
	 * Makes the fix as one step, then checks again.
	 * @param {{edit: object, words: string}} fix
	 * @param {MadeElement} button
	 */
	async fix({ edit, words }, button) {
		button.disabled = true;
		try {
			await post(`${this.base}/edit`, { revision: this.revision, edit });
			toast(`Fixed: ${words}.`, {
				act: "Undo",
				onact: async () => {
					await post(`${this.base}/undo`).catch((error) => toast(error.message, { wrong: true }));
					this.look();
				},
			});
		} catch (error) {
			toast(error.message, { wrong: true });
		}
		await this.look();
	}
}
