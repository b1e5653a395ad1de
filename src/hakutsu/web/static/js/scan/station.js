/** The scan: a sweep started, watched and stopped here while other steps go on; forms note lamp, number and why not. */

import { field, find, input } from "../dom.js";
import { onSubmit } from "../entry-form.js";
import { say } from "../faults.js";
import { swap } from "../fragments.js";
import { ask, wordsOf } from "../server.js";
import { openStation } from "../station.js";

/** @typedef {{running: boolean, doing: string, found: number, read: number, said: string, entries: number}} State */

const LOOK_MS = 600;
const station = openStation("scan");
station.forms();

const form = find("[data-sweep]", HTMLFormElement);
const address = `/inspections/${station.config.inspection}/scan/link`;
const doing = find("[data-doing]", HTMLElement, form);
const meanwhile = find("[data-meanwhile]", HTMLElement, form);
const start = find("[data-start]", HTMLButtonElement, form);
const practise = find("[data-practise]", HTMLButtonElement, form);
const stop = find("[data-stop]", HTMLButtonElement, form);
/** @type {number | null} */
let seen = null;
let timer = 0;

/** What was read has come: fetch the moving parts of the page. */
async function refresh() {
  try {
    swap(await ask("GET", `/inspections/${station.config.inspection}/fragments?view=scan`));
  } catch {
    // What is shown stays until the page is opened again.
  }
}

/** @param {State} state */
function show(state) {
  const units = state.found ? `; ${state.read} of ${state.found} units read` : "";
  doing.textContent = state.running ? `${state.doing}${units}` : "";
  meanwhile.hidden = !state.running;
  stop.hidden = !state.running;
  start.disabled = practise.disabled = state.running;
  if (state.said) say(form, `${state.said.charAt(0).toUpperCase()}${state.said.slice(1)}.`.replace("?.", "?"), true);
  if (seen !== null && state.entries !== seen) refresh();
  seen = state.entries;
  clearTimeout(timer);
  if (state.running) timer = setTimeout(look, LOOK_MS);
}

async function look() {
  try {
    show(await ask("GET", address));
  } catch {
    timer = setTimeout(look, 3 * LOOK_MS);
  }
}

/** @param {string} method @param {object | undefined} body */
async function act(method, body) {
  say(form, "");
  try {
    show(await ask(method, address, body));
  } catch (thrown) {
    say(form, wordsOf(thrown), true);
  }
}

onSubmit("form[data-sweep]", () => act("POST", { url: field(form, "url").value.trim(), wide: input(form, "wide").checked }));
practise.addEventListener("click", () => act("POST", { scenario: field(form, "scenario").value }));
stop.addEventListener("click", () => act("DELETE", undefined));

look();
station.ready();
