/** The engine station: every form is an entry; doubtful numbers are asked about first; the link fills the run. */

import { all, around, field, fieldsOf } from "../dom.js";
import { fieldOf, sayAt } from "../faults.js";
import { draft } from "../outbox.js";
import { ask } from "../server.js";
import { openStation } from "../station.js";
import { openLink } from "./link.js";
import { stopwatches } from "./stopwatch.js";

const ASK_MS = 1500;
const station = openStation("engine");
const { config, outbox } = station;
let started = config.started ? new Date(config.started) : null;

/** What a reading lacks, or an empty text; adds the minute where none was typed. @param {import("../station.js").Body} body */
function completed(body) {
  if (body.minute === undefined && started) body.minute = Math.round((Date.now() - started.getTime()) / 6000) / 10;
  if (body.coolant_c === undefined && body.rpm === undefined && body.oil_bar === undefined && body.vent_c === undefined) {
    return "No number yet: coolant, speed, oil or vent.";
  }
  return "";
}

/**
 * What the server doubts in an entry about to be stored; nothing where it does not answer: storing goes on then.
 * @param {string} kind
 * @param {object} body
 * @returns {Promise<{field: string, message: string}[]>}
 */
async function doubts(kind, body) {
  try {
    return await ask("POST", `/inspections/${config.inspection}/engine/doubts`, { kind, body }, AbortSignal.timeout(ASK_MS));
  } catch {
    return [];
  }
}

/** Ask at the field; sending the same once more keeps it. Whether to wait. @param {HTMLFormElement} form @param {string} kind @param {object} body */
async function asks(form, kind, body) {
  const same = JSON.stringify(body);
  if (form.dataset.sure === same) return false;
  const [first] = await doubts(kind, body);
  if (!first) return false;
  form.dataset.sure = same;
  sayAt(form, fieldOf(form, first.field), `${first.message} Send it once more to keep it as it is.`);
  return true;
}

/** What the fields of a form held when it was sent. @type {WeakMap<HTMLFormElement, Map<Element, string>>} */
const held = new WeakMap();
/** Where the cursor was then. @type {WeakMap<HTMLFormElement, Element | null>} */
const cursor = new WeakMap();

station.forms({
  async complete(form, made) {
    const { kind, body } = made;
    if (form.dataset.asking) return null;
    const typed = body.minute !== undefined;
    held.set(form, new Map(fieldsOf(form).map((one) => [one, one.value])));
    cursor.set(form, document.activeElement);
    const lacking = kind === "engine.sample" ? completed(body) : kind === "engine.idle" && !body.rpm ? "No speeds yet." : "";
    if (lacking) {
      sayAt(form, fieldsOf(form).find((one) => one.type !== "hidden" && !(one instanceof HTMLSelectElement)), lacking);
      return null;
    }
    form.dataset.asking = "yes";
    const waits = await asks(form, kind, body);
    delete form.dataset.asking;
    if (waits) {
      if (kind === "engine.sample" && !typed) field(form, "minute").value = body.minute;
      return null;
    }
    delete form.dataset.sure;
    return made;
  },
  done(form, { kind }, one) {
    if (kind === "engine.start") started = new Date(one.at);
    if (kind !== "engine.sample" && kind !== "engine.idle") return;
    // What was typed on while the server was asked stays.
    for (const typed of all("input:not([type=checkbox]):not([name=hertz]), textarea", HTMLElement, form)) {
      if ("value" in typed && typed.value === held.get(form)?.get(typed)) typed.value = "";
    }
    if (kind === "engine.sample" && document.activeElement === cursor.get(form)) field(form, "coolant_c").focus();
  },
});

document.addEventListener("click", (event) => {
  const { gear, grade } = around(event, "[data-gear]")?.dataset ?? {};
  if (gear) outbox.add([draft("corner.gear", { part: gear, grade, tested: "by eye and hand" })]);
});

stopwatches();
openLink(station);
station.ready();
