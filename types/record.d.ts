// What the server gives the page Record (web/takes/sections.py, selecting.py), and what its files hand to each other.

type Microphone = import("../src/ritornel/web/static/ritornel/record/microphone.js").Microphone;
type Camera = import("../src/ritornel/web/static/ritornel/record/camera.js").Camera;
type Courier = import("../src/ritornel/web/static/ritornel/record/uploader.js").Courier;
type Placing = import("../src/ritornel/web/static/ritornel/record/placing.js").Placing;

/** A section in the list. */
interface SectionLine {
	id: string;
	number: string;
	name: string;
	first: number;
	last: number;
	slide_ids: string[];
	plan_ms: number;
	picked_ms: number;
	picked: number;
	takes: number;
	who: string;
	state: { mark: string; words: string };
}

/** A slide of the section that is recorded. */
interface RecordedSlideLine {
	id: string;
	name: string;
	number: number;
	thumb: string;
	plan_ms: number;
	cues: string[];
	notes: string;
	spoken_ms: number;
	beats: Core.BeatLine[];
}

/** What a take has of one slide. */
interface Piece {
	number: number;
	slide_id: string;
	from_ms: number;
	lasts_ms: number;
	camera?: boolean;
	still_ms?: number | null;
	[more: string]: any;
}

interface RecordedTake {
	id: string;
	number: number;
	length_ms: number;
	cues: number;
	progress: string;
	who: string;
	placement: CameraPlacement;
	not_fitting: string[];
	pieces: Piece[];
}

interface SectionDetail {
	id: string;
	slides: RecordedSlideLine[];
	takes: RecordedTake[];
	picks: { [slideId: string]: any };
}

interface RecordData {
	revision: number;
	history: { undo: string | null; redo: string | null };
	may_edit: boolean;
	may_invite: boolean;
	sections: SectionLine[];
	section: SectionDetail | null;
}

/** Where the camera stands: its middle and its width in per cent of the frame (core/document/camera.py). */
interface CameraPlacement {
	shape: "round" | "rectangle" | "apart" | "off";
	across_pct: number;
	down_pct: number;
	size_pct: number;
}

/** A device that can be chosen. */
interface DeviceLine {
	id: string;
	name: string;
}
