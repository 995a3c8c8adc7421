// What the files of the score hand to each other. Places and sizes are px on the score.

type Score = import("../src/ritornel/web/static/ritornel/score/score.js").Score;
type Scale = import("../src/ritornel/web/static/ritornel/score/scale.js").Scale;

interface Row {
	top: number;
	height: number;
}

interface Rows {
	slides: Row;
	builds: Row;
	voices: Row;
	music: Row;
	bottom: number;
}

/** The stretch of the score that is in view. */
interface View {
	from: number;
	to: number;
}

/** One slide as a bar. */
interface SlideBar {
	line: SlideLine;
	thumb: string;
	pictured: boolean;
	number: number;
	x: number;
	width: number;
	current: boolean;
	picked: boolean;
	slurPx: number;
	cued: boolean;
	waits: number;
}

/** An object that a carry brings into a slide. */
type Tie = Pick<CarriedPair, "name" | "after" | "why">;

/** What is drawn in one lane of a bar: a build, or a tie. */
interface LaneThing {
	build?: BuildLine;
	tie?: Tie;
	name: string;
	x1: number;
	x2: number;
	[more: string]: any;
}

/** What a drag pulls on: the score, or the overview. */
interface DragSurface {
	state: ShowState;
	scale: Scale;
	scroll: any;
	draw(): void;
	/** Shows what a pull has snapped to. */
	showLine(ms: number | null): void;
	showNumber(words: string, event?: any): void;
}

/** What a drag or a key changes: a kind of number, and whose it is. */
type NumberNames = { [name: string]: any };

/** How a number is changed by pulling: `from` is its value, `anchor` its place on the show's clock, both in ms. */
interface Drag {
	from: number;
	anchor: number;
	edit(value: number, free?: boolean): any;
	words(value: number, now?: SlideLine, free?: boolean): string;
	share?: number;
	bars?: boolean;
	[more: string]: any;
}

/** A place that keys reach, in ms on the show's clock. */
interface Place {
	id: string;
	at: number;
	to: number;
	title: string;
	times: string;
	words?: string;
	open: { pick: string; [name: string]: any };
	/** The kind of number and its names. */
	number?: any[] | null;
	length?: any[] | null;
}

/** How loud a sound is between two instants, 0 to 1. */
interface Peaks {
	peak(fromMs: number, toMs: number): number;
}
