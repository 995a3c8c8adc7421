// What the files of the stage hand to each other. Places are px of the slide.

/** A press on something of the stage: what it happened to is an element. */
interface StageEvent extends PointerEvent {
	readonly target: any;
}

interface Point {
	x: number;
	y: number;
}

/** A box as it is drawn and pulled: one that is not turned need not say so. */
interface StageBox extends Point {
	width: number;
	height: number;
	turn_deg?: number;
}

/** A paragraph as it is written: one that is new has no id yet. */
interface WrittenParagraph {
	id?: string;
	runs: Core.TextRun[];
	list?: any;
	level?: number;
}

/** How far a pointer went since it pressed, where it is, and the keys that are held. */
interface PointerWay extends Point {
	at: Point;
	shift: boolean;
	alt: boolean;
	[more: string]: any;
}
