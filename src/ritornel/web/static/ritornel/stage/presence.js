// Who else is at the show: named above, with their selection framed on the stage.
import { el, svg } from "../ui/element.js";
import { post } from "../ui/requests.js";

const SOON_MS = 150;

export class Others {
	/** @param {ShowState} state */
	constructor(state, /** @type {any} */ { node, theatre }) {
		this.state = state;
		this.node = node;
		this.theatre = theatre;
		this.window = state.window;
		/** @type {any[]} */
		this.people = [];
		this.timer = 0;
		for (const kind of ["pick", "show"]) state.addEventListener(kind, () => this.soon());
		state.addEventListener("show", () => this.draw());
		new MutationObserver(() => this.frame()).observe(theatre, { childList: true, subtree: true });
		addEventListener("pagehide", () => {
			fetch(`${state.base}/here`, this.request({ gone: true }));
		});
		this.say();
	}

	request(/** @type {any} */ body) {
		return {
			method: "POST",
			keepalive: true,
			headers: { "Content-Type": "application/json", "X-CSRFToken": document.querySelector("meta[name=csrf]").content },
			body: JSON.stringify({ window: this.window, ...body }),
		};
	}

	soon() {
		clearTimeout(this.timer);
		this.timer = setTimeout(() => this.say(), SOON_MS);
	}

	say() {
		post(`${this.state.base}/here`, {
			window: this.window,
			slide_id: this.state.slide?.id ?? "",
			picked: [...this.state.picked].slice(0, 200),
		}).catch(() => undefined);
	}

	/**
	 * The people at the show, from the server. Where it knows this window but not its place, the place is sent again:
	 * the server had lost the line.
	 */
	hear(/** @type {any} */ people) {
		const own = people.find((/** @type {any} */ one) => one.window === this.window);
		if (own && own.slide_id !== (this.state.slide?.id ?? "")) this.soon();
		this.people = people.filter((/** @type {any} */ one) => one.window !== this.window);
		this.draw();
	}

	draw() {
		const { slides, numbers } = this.state.data;
		const key = JSON.stringify(this.people.map((one) => [one.name, one.slide_id]));
		if (key !== this.drawn) {
			/** @type {string} */
			this.drawn = key;
			this.node.replaceChildren(
				...this.people.map((one) =>
					el(
						"button",
						{
							class: "push round",
							title: `Go to where ${one.name} is`,
							onclick: () => {
								if (slides[one.slide_id]) this.state.open(one.slide_id);
							},
						},
						one.name,
						numbers[one.slide_id] ? ` · slide ${numbers[one.slide_id]}` : "",
					),
				),
			);
		}
		this.frame();
	}

	/** Frames around the selections of others on this slide. */
	frame() {
		const surface = this.theatre.querySelector("svg");
		const here = this.people.filter((one) => one.slide_id === this.state.slide?.id && one.picked.length);
		const wanted = surface
			? here.flatMap((one) =>
					one.picked
						.map((/** @type {string} */ id) => [one, this.state.object(id)])
						.filter((/** @type {any} */ [, item]) => item),
				)
			: [];
		const key = JSON.stringify([wanted.map(([one, item]) => [one.name, item.id, item.box]), this.state.slide?.id]);
		if (key === this.framed && (!wanted.length || surface.querySelector(".others-frame"))) return;
		/** @type {string} */
		this.framed = key;
		for (const old of this.theatre.querySelectorAll(".others-frame")) old.remove();
		for (const [one, item] of wanted) {
			const { x, y, width, height, turn_deg: turn = 0 } = item.box;
			surface.append(
				svg(
					"g",
					{
						class: "others-frame",
						transform: `rotate(${turn} ${x + width / 2} ${y + height / 2})`,
						"data-of": item.id,
					},
					svg("rect", { x: x - 5, y: y - 5, width: width + 10, height: height + 10 }),
					svg("text", { x: x - 4, y: y - 12 }, one.name),
				),
			);
		}
	}
}
