// A camera's picture that ends before the voice does, told once the piece has been cut.
import { secondsText } from "../ui/times.js";
import { toast } from "../ui/toast.js";

/** A piece that is cut later than this gets no message; its line shows it. */
const CUT_MS = 60_000;

export class CameraEnds {
	constructor() {
		this.until = 0;
		/** @type {Set<string>} the pieces that were told of */
		this.told = new Set();
	}

	/** A take was ended: its pieces are being cut. */
	expect() {
		this.until = Date.now() + CUT_MS;
	}

	/**
	 * Whether the length of a picture is still to come.
	 * @param {any[]} takes
	 */
	waits(takes) {
		return (
			this.until > Date.now() &&
			takes.some(
				(take) =>
					take.progress === "ended" && take.pieces.some((/** @type {Piece} */ piece) => piece.still_ms === null),
			)
		);
	}

	/**
	 * Tells of the first picture that is new among those that end early.
	 * @param {any[]} takes
	 * @param {(piece: any) => {number: number, again: () => void}} about its slide's number, and recording it again
	 */
	tell(takes, about) {
		for (const { id, number, pieces } of takes) {
			for (const piece of pieces) {
				const key = `${id}/${piece.number}`;
				if (!piece.still_ms || this.told.has(key)) continue;
				this.told.add(key);
				if (this.until < Date.now()) continue;
				const slide = about(piece);
				toast(
					`Take ${number}: the camera's picture of slide ${slide.number} ends ${secondsText(piece.still_ms)} s before the voice.`,
					{ wrong: true, act: "Record the slide again", onact: slide.again },
				);
				return;
			}
		}
	}
}
