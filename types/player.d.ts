// What the rooms of the player hand to each other, and what the server gives them (core/schedule/performance.py,
// builtins_of; core/schedule/audience.py says which of it strangers get).

interface PlayedSlide {
	id: string;
	name?: string;
	notes?: string;
	advance: Core.Advance;
	schedule: Core.SlideSchedule;
	drawing: Core.SlideDrawing;
	motions: Core.Motion[];
	layers: Core.Layers;
	view: Core.Motion | null;
	beat_words: string[];
	clips: { [objectId: string]: Core.PressedClip };
	presses: { [objectId: string]: Core.PressAction };
	spoken?: Core.Caption[];
	/** Of editions of earlier days. */
	words?: string;
}

interface PlayedShow {
	title: string;
	frame: Core.Frame;
	end: Core.Show["end"];
	starts_ms: number[];
	content_ms: number;
	length_ms: number;
	language: string;
	slides: PlayedSlide[];
	music: Core.MusicTime[];
	voices: Core.SoundTime[];
	voices_live: boolean;
	effects: Core.SoundTime[];
	media: { [key: string]: string };
	revision?: number;
	/** Where an hour of sound is heard from, other than where it is kept. */
	heard?: { [key: string]: string };
}

/** One slide as it stands at an instant: what a painter is given. */
interface Layer {
	index: number;
	objects: Map<string, any>;
	values: any;
	view?: any;
	ground?: number;
	ground_played?: number | null;
}

/** What keys and fingers drive: a player; or, from the House, the Lectern's by its line. */
interface Driven {
	show: PlayedShow;
	live: boolean;
	readonly running: boolean;
	readonly black: boolean;
	readonly paused?: boolean;
	next(): void;
	previous(): void;
	goTo(index: number): void;
	setBlack(on: boolean): void;
	pause?(): void;
	resume?(): void;
}

/** What a frame shows, from the lowest layer up (core/schedule/performance.py). */
interface FrameState {
	layers: Layer[];
	black?: number;
	[more: string]: any;
}

/** Where a slide stands in its beats at an instant. */
interface Instant {
	beat: number;
	since_ms: number;
	slide_ms: number;
	begun_ms: number[];
}

/** A show run by cues, from press to press (core/reference/live.py). Times are on the slide's clock, but for its own. */
interface LiveState {
	index: number;
	began_ms: number;
	beat: number;
	begun_ms: number[];
	completed_ms: number | null;
	stepped_back: boolean;
	from_index: number;
	over: boolean;
}

/** What is spoken or sounds once: a voice, an effect, or a clip that was pressed. */
type Spoken = Pick<
	Core.SoundTime,
	"id" | "asset_id" | "in_ms" | "lasts_ms" | "gain_db" | "loops" | "pass_ms" | "fade_in_ms" | "fade_out_ms"
>;

/** The addresses of media by asset id. */
type Media = { [assetId: string]: string };

/** x, y, width and height in px of the slide. */
type Region = number[];

/** How an ink draws, and how it is told from the others without its colour. */
interface Ink {
	title: string;
	colour: string;
	edge: string;
	width_px: number;
	dash_px: number[];
}
