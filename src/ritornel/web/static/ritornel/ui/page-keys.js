// The keys of each page, for its `?`.

/** @typedef {[string, string][]} Keys what to press, and what it does */

/** @type {Keys} */
const EDITING = [
	["Ctrl Z, Ctrl Shift Z", "Undo, do again"],
	["Ctrl D", "Duplicate what is picked"],
	["Ctrl A", "Pick all"],
	["Ctrl C, Ctrl X, Ctrl V", "Copy, cut, paste; with Shift in the same place"],
	["Delete", "Remove what is picked"],
	["Arrows", "Move what is picked by 1 px; with Shift by 10"],
	["Alt and an arrow", "On the stage: the next object. In the running order and in lists: move it"],
	["Enter", "Edit the words of the picked text"],
	["Page up, Page down", "The slide before, the slide after; with Shift pick them too"],
	["Arrows, Home, End", "On the score: from place to place along a row, and from row to row"],
	["Alt and an arrow", "On the score: move what is there, or change its length, by 0.1 s; with Shift by 1 s"],
	["Enter, Space", "On the score: type its number; open it in the panel"],
	["+ and −", "On the score: larger, smaller"],
	["Menu key", "What can be done with what is picked"],
	["F6, Shift F6", "To the next part of the page, to the one before"],
	["Esc", "Let go of what is picked; close what is open"],
];
/** @type {Keys} */
const PLAYING = [
	["Space, →, Page down, Enter", "The next cue; Space stops and goes on in a self-running show"],
	["←, Page up", "Back one beat"],
	["Home, End", "First slide, last slide"],
	["A number, then Enter", "To that slide"],
	["B", "Black, and back"],
	["C", "Captions on or off"],
	["F", "Full screen"],
];
/** @type {Keys} */
const DRAWING = [
	["S", "Spot: a light that follows the pointer"],
	["P, then I", "Pen, next ink"],
	["E", "Rub out what is touched"],
];

/** @type {Object<string, [string, Keys]>} */
export const KEYS = {
	compose: ["Keys of Compose", EDITING],
	play: ["Keys while it plays", [...PLAYING, ...DRAWING, ["Esc", "Put the pen away; leave"]]],
	watch: ["Keys while it plays", PLAYING],
	rehearse: [
		"Keys of Rehearse",
		[
			["Space, →, Page down, Enter", "Begin; after that, the next cue"],
			["←, Page up", "Back one beat"],
			["Esc", "End the run"],
		],
	],
	record: [
		"Keys of Record",
		[
			["Space", "Record; while it records, the next cue"],
			["→, Page down", "The next cue"],
			[".", "Pause, go on"],
			["Esc", "Pause"],
		],
	],
	page: [
		"Keys",
		[
			["Tab, Shift Tab", "To the next control, to the one before"],
			["Enter, Space", "Press it"],
			["F6, Shift F6", "To the next part of the page, to the one before"],
			["Esc", "Close what is open"],
		],
	],
	lectern: [
		"Keys of the Lectern",
		[
			["Space, →, Page down, Enter", "Begin; after that, the next cue"],
			...PLAYING.slice(1, 4),
			["/", "Go to a slide by its name"],
			["B", "Black, and back"],
			...DRAWING,
			["K", "Keep drawings, or let them go with their slide"],
			[".", "Pause, go on"],
			["H", "Open the House"],
			["+ and −", "Larger and smaller notes"],
			["T, Shift T", "Keep this run as a take, remove it"],
			["F", "Full screen"],
			["Esc", "Put the pen away; end the run"],
		],
	],
};
