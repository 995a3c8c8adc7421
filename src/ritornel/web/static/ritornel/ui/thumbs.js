// Thumbnails of slides: the old picture of an edited slide stays until the new one has loaded.

export class Thumbs {
	/** @param {function} came is called when a picture that was waited for is there */
	constructor(came) {
		this.came = came;
		this.shown = new Map();
		this.asked = new Set();
	}

	/**
	 * The address to show for a slide now. @param {{id: string, thumb: string}} line @param {boolean} ask whether a new
	 * one may be fetched
	 */
	of({ id, thumb }, ask = true) {
		const now = this.shown.get(id);
		if (now === undefined || now === thumb) {
			if (ask) this.shown.set(id, thumb);
			return thumb;
		}
		if (ask && !this.asked.has(thumb)) {
			this.asked.add(thumb);
			const picture = new Image();
			const done = () => {
				this.asked.delete(thumb);
				this.shown.set(id, thumb);
				this.came();
			};
			picture.addEventListener("load", done);
			picture.addEventListener("error", done);
			picture.src = thumb;
		}
		return now;
	}
}
