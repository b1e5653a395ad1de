/** The engine station: every form is an entry; doubtful numbers are asked about first; the link fills the run. */

import { draft } from "../outbox.js";
import { fieldOf, openStation, readForm, say, sayAt } from "../station.js";
import { openLink } from "./link.js";
import { stopwatches } from "./stopwatch.js";

const ASK_MS = 1500;
const station = openStation("engine");
const { config, outbox } = station;
let started = config.started ? new Date(config.started) : null;

/** What a reading lacks, or an empty text; adds the minute where none was typed. */
function completed(body) {
  if (body.minute === undefined && started) body.minute = Math.round((Date.now() - started.getTime()) / 6000) / 10;
  if (body.minute === undefined) return "Say at which minute, or note the first start before.";
  if (body.coolant_c === undefined && body.rpm === undefined && body.oil_bar === undefined && body.vent_c === undefined) {
    return "No number yet: coolant, speed, oil or vent.";
  }
  return "";
}

/** What the server doubts in an entry about to be stored; nothing where it does not answer: storing goes on then. */
async function doubts(kind, body) {
  try {
    const answer = await fetch(`/inspections/${config.inspection}/engine/doubts`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ kind, body }),
      signal: AbortSignal.timeout(ASK_MS),
    });
    return answer.ok ? await answer.json() : [];
  } catch {
    return [];
  }
}

/** Ask at the field; sending the same once more keeps it. @returns {Promise<boolean>} whether to wait */
async function asks(form, kind, body) {
  const same = JSON.stringify(body);
  if (form.dataset.sure === same) return false;
  const [first] = await doubts(kind, body);
  if (!first) return false;
  form.dataset.sure = same;
  sayAt(form, fieldOf(form, first.field), `${first.message} Send it once more to keep it as it is.`);
  return true;
}

document.addEventListener("submit", async (event) => {
  const form = event.target.closest("form[data-entry]");
  if (!form) return;
  event.preventDefault();
  const kind = form.dataset.entry;
  const body = readForm(form);
  if (!body) return;
  const typed = body.minute !== undefined;
  const held = new Map([...form.elements].map((one) => [one, one.value]));
  const at = document.activeElement;
  const lacking = kind === "engine.sample" ? completed(body) : kind === "engine.idle" && !body.rpm ? "No speeds yet." : "";
  if (lacking) {
    sayAt(form, form.querySelector("input, textarea"), lacking);
    return;
  }
  if (form.dataset.asking) return;
  form.dataset.asking = "yes";
  const waits = await asks(form, kind, body);
  delete form.dataset.asking;
  if (waits) {
    if (kind === "engine.sample" && !typed) form.elements.minute.value = body.minute;
    return;
  }
  delete form.dataset.sure;
  const made = await station.note(form, kind, body);
  if (kind === "engine.start") started = new Date(made.at);
  say(form, "noted");
  if (kind === "engine.sample" || kind === "engine.idle") {
    // What was typed on while the server was asked stays.
    for (const one of form.querySelectorAll("input:not([type=checkbox]):not([name=hertz]), textarea")) {
      if (one.value === held.get(one)) one.value = "";
    }
  }
  if (kind === "engine.sample" && document.activeElement === at) form.elements.coolant_c.focus();
});

document.addEventListener("click", (event) => {
  const { gear, grade } = event.target.closest("[data-gear]")?.dataset ?? {};
  if (gear) outbox.add([draft("corner.gear", { part: gear, grade, tested: "by eye and hand" })]);
});

stopwatches();
openLink(station);
station.ready();
