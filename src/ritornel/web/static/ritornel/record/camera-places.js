// Where the camera's picture steps aside for text: the server, which knows the place of a slide's text, is asked.
import { get } from "../ui/requests.js";

const REST_MS = 150;

export class CameraPlaces {
	/**
	 * @param {{base: string, placing: import("./placing.js").Placing, section: function(): string, said: HTMLElement}}
	 * parts `section` tells the id of the section that is seen
	 */
	constructor({ base, placing, section, said }) {
		this.base = base;
		this.placing = placing;
		this.section = section;
		this.said = said;
		this.asked = 0;
		this.timer = 0;
	}

	/** Another section or placement: the places are requested once it rests. */
	ask() {
		clearTimeout(this.timer);
		this.see({});
		this.timer = setTimeout(() => this.load().catch(() => undefined), REST_MS);
	}

	async load() {
		this.asked += 1;
		const { asked } = this;
		const section = this.section();
		if (!section) return;
		const placement = encodeURIComponent(JSON.stringify(this.placing.placement));
		const { boxes } = await get(
			`${this.base}/record/camera.json?section=${encodeURIComponent(section)}&placement=${placement}`,
		);
		// An answer that was overtaken by a newer question is left.
		if (asked === this.asked) this.see({ aside: boxes });
	}

	/** Another slide, or other places. */
	see(/** @type {object} */ what) {
		this.placing.see(what);
		this.said.hidden = !this.placing.node.hasAttribute("data-aside");
	}
}
