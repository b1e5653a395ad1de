/** Asking the server: JSON both ways, and its reason where it refuses. */

/** The server answered, and not with what was asked for. */
export class Refused extends Error {
  /** @param {number} status @param {{message?: string, detail?: unknown, field?: string}} said */
  constructor(status, said) {
    const detail = typeof said.detail === "string" ? said.detail : "";
    super(said.message || detail || `the server answered ${status}`);
    this.status = status;
    this.field = said.field ?? "";
  }
}

/**
 * Ask, and get what the answer says. Without an answer it throws as `fetch` does.
 * @param {string} method
 * @param {string} url
 * @param {unknown} [body]
 * @param {AbortSignal} [signal]
 * @returns {Promise<any>}
 * @throws {Refused}
 */
export async function ask(method, url, body, signal) {
  /** @type {Record<string, string>} */
  const headers = { Accept: "application/json" };
  if (body !== undefined) headers["Content-Type"] = "application/json";
  const response = await fetch(url, { method, headers, body: body === undefined ? undefined : JSON.stringify(body), signal });
  if (response.ok) return response.json();
  throw new Refused(response.status, await response.json().catch(() => ({})));
}

/** The words of anything that was thrown. @param {unknown} thrown */
export function wordsOf(thrown) {
  return thrown instanceof Error ? thrown.message : String(thrown);
}
