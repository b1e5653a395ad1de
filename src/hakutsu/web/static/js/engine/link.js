/** The scan link on the page of the run: opened, watched and closed here; its samples come from the server. */

import { swap } from "../fragments.js";
import { say } from "../station.js";

const LOOK_MS = 700;

/** @param {ReturnType<typeof import("../station.js").openStation>} station */
export function openLink({ config }) {
  const form = document.querySelector("[data-link]");
  if (!form) return;
  const address = `/inspections/${config.inspection}/engine/link`;
  const live = form.querySelector("[data-live]");
  const close = form.querySelector("[data-close]");
  const idlePart = form.querySelector("[data-idle-part]");
  const idle = form.querySelector("[data-idle]");
  let seen = null;
  let timer = null;

  async function call(method, path = "", body = undefined) {
    const answer = await fetch(address + path, {
      method,
      headers: { "Content-Type": "application/json", Accept: "application/json" },
      body: body && JSON.stringify(body),
    });
    const said = await answer.json();
    if (!answer.ok) throw new Error(said.message ?? said.detail ?? "the server does not answer");
    return said;
  }

  /** Entries came by the link: fetch the moving parts of the page. */
  async function refresh() {
    const answer = await fetch(`/inspections/${config.inspection}/entries`, {
      method: "POST",
      headers: { "Content-Type": "application/json", Accept: "application/json" },
      body: JSON.stringify({ entries: [], view: "engine", room: config.room }),
    });
    if (answer.ok) swap((await answer.json()).fragments);
  }

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
      show(await call("GET"));
    } catch {
      timer = setTimeout(look, 3 * LOOK_MS);
    }
  }

  async function act(method, path, body, words) {
    say(form, words);
    try {
      const state = await call(method, path, body);
      say(form, "");
      show(state);
    } catch (error) {
      say(form, error.message, true);
    }
  }

  form.addEventListener("submit", (event) => {
    event.preventDefault();
    const { url, engine, fast } = form.elements;
    act("POST", "", { url: url.value.trim(), engine: engine.value, fast: Number(fast.value) }, "opening …");
  });
  close.addEventListener("click", () => act("DELETE", "", undefined, "closing …"));
  idle.addEventListener("click", () => {
    const { switched, carburettor } = form.elements;
    act("POST", "/idle", { switched: switched.checked, carburettor: carburettor.checked }, "");
  });
  look();
}
