// Talking to the server. Every refusal is an error with the server's sentence.

export class Refused extends Error {
  constructor(message, { field = "", stale = false, status = 0 } = {}) {
    super(message);
    Object.assign(this, { field, stale, status });
  }
}

const csrf = () => document.querySelector("meta[name=csrf]")?.content ?? "";

async function read(reply) {
  const body = await reply.json().catch(() => ({}));
  if (!reply.ok) throw new Refused(body.error ?? `The server answered ${reply.status}. Nothing was changed.`, { ...body, status: reply.status });
  return body;
}

async function ask(url, options) {
  try {
    return await read(await fetch(url, options));
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused("The server cannot be reached. Nothing was changed; try again in a moment.");
  }
}

export const get = (url) => ask(url, { headers: { Accept: "application/json" } });

export const post = (url, body = {}) => ask(url, {
  method: "POST", headers: { "Content-Type": "application/json", "X-CSRFToken": csrf() }, body: JSON.stringify(body),
});

export const send = (url, file, fields = {}) => {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.append(name, value);
  form.append("file", file);
  return ask(url, { method: "POST", headers: { "X-CSRFToken": csrf() }, body: form });
};

/** The data a page was opened with. */
export const startData = () => JSON.parse(document.getElementById("start").textContent);
