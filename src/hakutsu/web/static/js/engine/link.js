/** The scan link on the page of the run: opened, watched and closed here; its samples come from the server. */

import { field, find, input, maybe } from "../dom.js";
import { onSubmit } from "../entry-form.js";
import { say } from "../faults.js";
import { swap } from "../fragments.js";
import { ask, wordsOf } from "../server.js";

/**
 * @typedef {{open: boolean, standIn: boolean, words: string, said: string, entries: number, idle: {taken: number, wanted: number} | null}} State
 */

const LOOK_MS = 700;

/** @param {ReturnType<typeof import("../station.js").openStation>} station */
export function openLink({ config }) {
  const link = maybe("[data-link]", HTMLFormElement);
  if (!link) return;
  const form = link;
  const address = `/inspections/${config.inspection}/engine/link`;
  const live = find("[data-live]", HTMLElement, form);
  const close = find("[data-close]", HTMLButtonElement, form);
  const idlePart = find("[data-idle-part]", HTMLElement, form);
  const idle = find("[data-idle]", HTMLButtonElement, form);
  /** @type {number | null} */
  let seen = null;
  let timer = 0;

  /** Entries came by the link: fetch the moving parts of the page. */
  async function refresh() {
    try {
      swap(await ask("GET", `/inspections/${config.inspection}/fragments?view=engine&room=${config.room}`));
    } catch {
      // What is shown stays until the next sample.
    }
  }

  /** @param {State} state */
  function show(state) {
    const taking = state.idle ? `, speed ${state.idle.taken} of ${state.idle.wanted}` : "";
    live.textContent = state.open ? `${state.standIn ? "Stand-in" : "Link"} open: ${state.words || "waiting"}${taking}` : "";
    close.hidden = !state.open;
    idlePart.hidden = !state.open;
    idle.disabled = Boolean(state.idle);
    if (state.said) say(form, `The link closed: ${state.said}.`, true);
    if (seen !== null && state.entries !== seen) refresh();
    seen = state.entries;
    clearTimeout(timer);
    if (state.open) timer = setTimeout(look, LOOK_MS);
  }

  async function look() {
    try {
      show(await ask("GET", address));
    } catch {
      timer = setTimeout(look, 3 * LOOK_MS);
    }
  }

  /** @param {string} method @param {string} path @param {object | undefined} body @param {string} words */
  async function act(method, path, body, words) {
    say(form, words);
    try {
      const state = await ask(method, address + path, body);
      say(form, "");
      show(state);
    } catch (thrown) {
      say(form, wordsOf(thrown), true);
    }
  }

  onSubmit("form[data-link]", () => {
    const chosen = { url: field(form, "url").value.trim(), engine: field(form, "engine").value, fast: Number(field(form, "fast").value) };
    act("POST", "", chosen, "opening …");
  });
  close.addEventListener("click", () => act("DELETE", "", undefined, "closing …"));
  idle.addEventListener("click", () => {
    act("POST", "/idle", { switched: input(form, "switched").checked, carburettor: input(form, "carburettor").checked }, "");
  });
  look();
}
