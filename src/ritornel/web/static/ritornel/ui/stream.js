// A stream of server-sent events that reconnects: after a lost line by itself, after a refusal when some time has
// passed.
const AGAIN_MS = 20_000;

/**
 * @param {string} address
 * @param {Object<string, (data: any) => void>} heard what to do with each kind of event, with its data; "message" for
 * those without a kind, "over" when
 * there is nothing more to hear
 * @param {{up?: () => void, down?: () => void}} line how the line is
 * @returns {{close: () => void}}
 */
export function openStream(address, heard, { up = () => undefined, down = () => undefined } = {}) {
	/** @type {EventSource | null} */
	let source = null;
	let timer = 0;
	const close = () => {
		clearTimeout(timer);
		source?.close();
	};
	const open = () => {
		const line = new EventSource(address);
		source = line;
		for (const kind of new Set(["over", ...Object.keys(heard)]))
			line.addEventListener(kind, (event) => {
				if (kind === "over") close();
				heard[kind]?.(JSON.parse(event.data));
			});
		line.addEventListener("open", up);
		line.addEventListener("error", () => {
			down();
			// The browser itself comes back where the line was lost, and gives up where it was refused.
			if (line.readyState === EventSource.CLOSED) timer = setTimeout(open, AGAIN_MS);
		});
	};
	open();
	return { close };
}
