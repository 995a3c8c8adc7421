// Requests to the server. Every refusal is an error with the server's sentence; without an answer, the error says only
// what is known.

export class Refused extends Error {
	/**
	 * @param {string} message
	 * @param {{field?: string, stale?: boolean, status?: number, unanswered?: boolean, gone?: any}} [told]
	 */
	constructor(message, { field = "", stale = false, status = 0, unanswered = false, gone = null } = {}) {
		super(message);
		this.field = field;
		this.stale = stale;
		this.status = status;
		this.unanswered = unanswered;
		this.gone = gone;
	}
}

export const csrf = () => document.querySelector("meta[name=csrf]")?.content ?? "";
/** A server that restarts, or a proxy without one, gives no answer to the request. */
const AWAY = [502, 503, 504];
export const UNKNOWN = "It is not known whether this was done; look again in a moment.";

/** @param {Response} reply */
export async function read(reply) {
	const body = await reply.json().catch(() => ({}));
	if (reply.ok) return body;
	const words =
		body.error ??
		(reply.status >= 500
			? `The server could not answer (${reply.status}). ${UNKNOWN}`
			: `The server refused this (${reply.status}).`);
	throw new Refused(words, { ...body, status: reply.status, unanswered: AWAY.includes(reply.status) && !body.error });
}

/**
 * Sends a request; a refusal is an error.
 * @param {string} url
 * @param {any} options
 * @param {string} [unanswered]
 */
export async function ask(url, options, unanswered = `The server cannot be reached. ${UNKNOWN}`) {
	let reply;
	try {
		reply = await fetch(url, options);
	} catch {
		throw new Refused(unanswered, { unanswered: true });
	}
	return read(reply);
}

/** @param {string} url */
export const get = (url) =>
	ask(url, { headers: { Accept: "application/json" } }, "The server cannot be reached. Try again in a moment.");

/**
 * @param {string} url
 * @param {object} body
 * @param {string} [editId] by which an edit is made once, however often it is sent
 */
export const post = (url, body = {}, editId = "") =>
	ask(url, {
		method: "POST",
		headers: { "Content-Type": "application/json", "X-CSRFToken": csrf(), ...(editId ? { "X-Edit-Id": editId } : {}) },
		body: JSON.stringify(body),
	});

const AGAIN_MS = [500, 1000, 2000, 4000];

/**
 * Resolves after some time, or when the browser says that the line is back.
 * @param {number} ms
 */
const meanwhile = (ms) =>
	new Promise((/** @type {(done?: any) => void} */ done) => {
		const over = () => {
			clearTimeout(timer);
			removeEventListener("online", over);
			done();
		};
		const timer = setTimeout(over, ms);
		addEventListener("online", over);
	});

/**
 * Posts an edit again and again until the server answers: nothing typed is lost to a line that is cut.
 * @param {string} url
 * @param {object} body
 * @param {string} editId
 * @param {(away: boolean) => void} waiting told true when there is no answer, false when there is one again
 */
export async function postUntilAnswered(url, body, editId, waiting = () => undefined) {
	for (let turn = 0; ; turn += 1) {
		try {
			const reply = await post(url, body, editId);
			if (turn) waiting(false);
			return reply;
		} catch (error) {
			if (!error.unanswered) {
				if (turn) waiting(false);
				throw error;
			}
			waiting(true);
			await meanwhile(AGAIN_MS[Math.min(turn, AGAIN_MS.length - 1)]);
		}
	}
}

/** The data a page was opened with. */
export const startData = () => JSON.parse(document.getElementById("start").textContent);
