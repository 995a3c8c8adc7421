// What the server gives the page Release (web/releases/views.py, handing_in.py, guests.py).

interface FilmLine {
	id: number;
	name: string;
	state: "waiting" | "running" | "ready" | "cancelled" | "failed" | "interrupted";
	/** Whether the worker goes on with it by itself. */
	resumes: boolean;
	kind: "mp4" | "webm" | "webp" | "pdf" | "zip";
	style: string;
	/** The name of the take that gave the times, or nothing. */
	timing: string;
	size: string;
	rate: number;
	done: number;
	total: number;
	slide: number;
	left_s: number | null;
	message: string;
	size_bytes: number;
	cancel_wanted: boolean;
	file: string;
}

interface EditionLine {
	number: number;
	at: string;
	length_ms: number;
	slides: number;
	opened: number;
}

interface GuestLine {
	id: number;
	address: string;
	opened_at: string | null;
	withdrawn: boolean;
	link: string | null;
}

interface HandInLine {
	id: number;
	to: string;
	name: string;
	at: string;
	seen_at: string | null;
}

interface TakeLine {
	number: number;
	name: string;
}

type Audience = "anyone" | "invited" | "domain";

interface ReleaseData {
	show_id: string;
	title: string;
	revision: number;
	address: string | null;
	withdrawn: boolean;
	starts_itself: boolean;
	starts_silent: boolean;
	loops: boolean;
	frame: Core.Frame;
	audience: Audience | "";
	domain: string;
	guests: GuestLine[];
	mail: boolean;
	editions: EditionLine[];
	exports: { address: string; words: string; about: string }[];
	takes: TakeLine[];
	films: FilmLine[];
	handed: HandInLine[];
	people: string[];
	section_owners: { [section: string]: string[] };
}

/** What would disturb the audience (core/checks/finding.py), with its slide's picture and why it is set aside. */
interface FindingLine {
	id: string;
	check: string;
	severity: "stops" | "hurts" | "polish";
	title: string;
	why: string;
	slide_id: string | null;
	number: number | null;
	at_ms: number;
	fix: { words: string; edit: object } | null;
	asset_id: string | null;
	group: string;
	thumb: string | null;
	aside: string | null;
	asset_name: string | null;
}

/** How a release looks in another page. */
interface Embedding {
	/** Whether it is as wide as its place. */
	fills: boolean;
	width: number;
	height: number;
	/** Whether it starts by itself. */
	start: boolean;
	silent: boolean;
	loop: boolean;
	sound: boolean;
	steps: boolean;
	controls: boolean;
}
