// Text from anywhere as plain lines.

const BULLET = /^\s*(?:[•◦▪‣·*–-])\s+(?=\S)/;
const NUMBER = /^\s*\d{1,3}[.)]\s+(?=\S)/;

/**
 * Plain text as rows of cells, as spreadsheets copy them: tabs separate cells, and white space at their ends is
 * removed.
 */
export function rowsOf(/** @type {string} */ text) {
	const lines = text
		.replace(/\r\n?/g, "\n")
		.replace(/[\u200b\ufeff]/g, "")
		.split("\n");
	while (lines.length > 1 && !lines[lines.length - 1].trim()) lines.pop();
	return lines.map((line) => line.split("\t").map((cell) => cell.trim()));
}

/** Plain text as lines; bullets and numbers typed as characters become lists, white space at the ends is removed. */
export function linesOf(/** @type {string} */ text) {
	const lines = text
		.replace(/\r\n?/g, "\n")
		.replace(/[\u00a0\u2007]/g, " ")
		.replace(/[\u200b\ufeff]/g, "")
		.split("\n");
	while (lines.length > 1 && !lines[lines.length - 1].trim()) lines.pop();
	return lines.map((line) => {
		const level = Math.min(5, Math.floor(line.slice(0, line.search(/\S|$/)).replace(/\t/g, "  ").length / 2));
		for (const [list, pattern] of Object.entries({ bullets: BULLET, numbers: NUMBER })) {
			if (pattern.test(line)) return { list, level, runs: [{ text: line.replace(pattern, "").trim() }] };
		}
		return { runs: [{ text: line.trim() }] };
	});
}
