// What the rooms of Compose hand to each other, and what the server gives them (web/editor/score.py, pages.py,
// stage_data.py; tests/test_script_types.py holds the names of the fields to what is sent).

type ShowState = import("../src/ritornel/web/static/ritornel/editor/show-state.js").ShowState;
type Panel = import("../src/ritornel/web/static/ritornel/panel/panel.js").Panel;
type Stage = import("../src/ritornel/web/static/ritornel/stage/stage.js").Stage;

/** A medium of the show, with where it is seen and what is made from it. */
interface ShelfAsset extends Core.Asset {
	kind: "picture" | "sound" | "clip";
	address: string;
	shown: string;
	derived: string;
	small: string | null;
	fault: string | null;
	/** Of another shelf: what is to be added to this one. */
	value?: Core.Asset;
}

/** A build in the running order, with its words and times. */
interface BuildLine {
	id: string;
	object_id: string;
	part: string | null;
	name: string;
	kind: EffectForm["kind"];
	effect: string;
	title: string;
	starts: Core.BuildStart;
	after_ms: number;
	lasts_ms: number;
	pace: Core.Build["pace"];
	repeats: number;
	settings: { [name: string]: any };
	sound: Core.SoundEffect | null;
	beat: number;
	cluster: number;
	offset_ms: number;
	runs_ms: number;
	clip: { asset_id: string; in_ms: number; out_ms: number; rate_pct: number } | null;
}

/** A slide in the score. */
interface SlideLine {
	id: string;
	name: string;
	opens_section: string;
	given_to: string;
	skipped: boolean;
	transition: Core.Transition;
	advance: Core.Advance;
	voice: Core.Voice | null;
	carrying: [Core.Link[], Core.Link[]];
	notes: string;
	objects: number;
	builds: BuildLine[];
	schedule: Core.SlideSchedule;
	reading_ms: number;
	layout: string;
	bare: boolean;
	lineage: string;
	thumb: string;
}

/** The slide on the stage, with everything that the stage needs to compose it. */
interface ViewedSlide {
	slide: Core.Slide;
	staged: PlayedSlide;
	carry: { pairs: CarriedPair[]; refusals: CarriedPair[]; before: { id: string; name: string }[] } | null;
	guides: Core.Guides;
	before: string[];
	seen: { [objectId: string]: Core.Visibility };
	away: string[];
	small: string[];
	readable_px: number;
	whole: Core.Framing;
	places: EmptyPlace[];
	differs: { [objectId: string]: string[] };
	ground: Core.Background;
}

/** Two objects that a carry takes for one, or does not. */
interface CarriedPair {
	before: string;
	after: string;
	why: string;
	name: string;
	from: [number, number];
	to: [number, number];
}

interface EmptyPlace extends Core.LayoutPlace {
	box: Core.Box;
}

interface ShowSettings {
	title: string;
	default_hold_ms: number;
	end: Core.Show["end"];
	runs: Core.Show["runs"];
	runs_titles: { [way: string]: string };
	voices_live: boolean;
	language: string;
	notes_as_captions: boolean;
	follows_take: string;
	frame: Core.Frame;
	theme: Core.Theme;
	weak: [role: string, behind: string, ratio: number][];
	theme_slide: string | null;
	furniture: Core.Furniture;
	habits: Core.Habits;
	usual: { [effect: string]: { lasts_ms: number; pace: Core.Build["pace"] } };
}

/** A setting of an effect, as the panel makes a control of it. */
interface Control {
	name: string;
	title: string;
	default: any;
	unit: string;
	choices?: any[];
	least?: number;
	most?: number;
	path?: boolean;
}

interface EffectForm {
	name: string;
	title: string;
	kind: "enters" | "leaves" | "accents" | "travels" | "plays" | "views";
	lasts_ms: number;
	repeats: boolean;
	controls: Control[];
}

type TransitionForm = Omit<EffectForm, "kind" | "repeats">;

/** All that Compose knows of the show. */
interface ShowData {
	show_id: string;
	revision: number;
	history: { undo: string | null; redo: string | null };
	settings: ShowSettings;
	order: string[];
	numbers: { [slideId: string]: number };
	cued: string[];
	starts_ms: { [slideId: string]: number };
	content_ms: number;
	length_ms: number;
	music: Core.MusicTime[];
	spans: Core.MusicSpan[];
	marks: Core.NamedMark[];
	voices: Core.SoundTime[];
	lost_spans: string[];
	slides: { [slideId: string]: SlideLine };
	assets: ShelfAsset[];
	uses: { [assetId: string]: string[] };
	/** Nothing where the show has no slide: whoever reads it asks `state.slide` first. */
	viewing: ViewedSlide;
	effects: EffectForm[];
	library: { name: string; title: string }[];
	transitions: TransitionForm[];
	paces: { [name: string]: number[] };
	families: string[];
	layouts: Core.SlideLayout[];
	themes: { [name: string]: Core.Theme };
	limits: { file_bytes: number; address_pattern: string };
	people: string[];
	me: number;
	shared: boolean;
}
