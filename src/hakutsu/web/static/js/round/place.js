/** The place sheet: film by short codes, remarks of every kind, "nothing found" and limits, all through the outbox. */

import { around, field, fieldsOf, find, input, maybe } from "../dom.js";
import { onSubmit, restore, snapshot } from "../entry-form.js";
import { doubtOf } from "../film/doubts.js";
import { readLine } from "../film/line.js";
import { bodyOf } from "../film/reading.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";
import { openLines } from "./lines.js";
import { moreOf } from "./remark.js";

/** @type {ReturnType<typeof openStation>} */
const station = openStation("place", { main: find("[data-place-sheet]", HTMLElement), context: () => ({ place: station.config.place }) });
const { config, outbox } = station;
const fitted = new Map(config.panels.map((/** @type {import("../film/line.js").Panel} */ panel) => [panel.code, panel.key]));

/** @param {string} words @param {boolean} [fault] */
function say(words, fault = false) {
  const said = document.querySelector("[data-film-line] [data-said]");
  if (!said) return;
  said.textContent = words;
  said.className = `mt-1 min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

/** The part that remarks, "nothing found" and limits hold for: a panel, or the whole place. @returns {string} */
const where = () => maybe("[data-where]", HTMLSelectElement)?.value || config.place;

/** @param {string} kind @param {Record<string, unknown>} body @param {object} [envelope] */
function here(kind, body, envelope = {}) {
  return outbox.add([draft(kind, body, { place: where(), ...envelope })]);
}

/** Why a line's readings cannot be kept, or those that can. @param {string} text @returns {{fault: string} | {readings: import("../film/line.js").Reading[]}} */
function readingsOf(text) {
  const start = config.panels.length ? config.panels[0].key : "";
  const read = readLine(text, { panel: start, unit: config.gauge.unit, fitted, codes: config.codes });
  if (read.fault) return { fault: read.fault };
  const readings = read.actions.filter((one) => one.kind === "reading");
  if (!readings.length) return { fault: "Numbers are missing: code and readings in one line" };
  const doubt = readings.map((one) => doubtOf(one, config.doubt, config.gauge)).find(Boolean);
  return doubt ? { fault: `${doubt.words} If it is right, write the unit behind it; if the gauge stops there, write “over”.` } : { readings };
}

onSubmit("[data-film-line]", async () => {
  const line = find("#line", HTMLInputElement);
  const text = line.value;
  if (!text.trim()) {
    say("Type a panel's code and its readings, then Enter");
    return;
  }
  const read = readingsOf(text);
  if ("fault" in read) {
    say(read.fault, true);
    return;
  }
  // The line is empty before anything else happens: what is typed next belongs to the next reading.
  line.value = "";
  line.focus();
  try {
    await outbox.add(read.readings.map((one) => draft("film.reading", bodyOf(one, config.gauge), { place: one.panel })));
    say(`${read.readings.length} reading${read.readings.length > 1 ? "s" : ""} kept`);
  } catch {
    line.value = [text, line.value].filter(Boolean).join(" ");
    say("This browser could not keep the reading: free some space, then press Enter again", true);
  }
});

/** What an entry holds for: a whole station, or this place. @param {string} which */
function holdsFor(which) {
  const of = find(`[data-of-station="${which}"]`, HTMLSelectElement).value;
  return of ? { station: of, place: null } : { station: "general", place: where() };
}

/** @param {string} how */
function nothing(how) {
  const { station: of, place } = holdsFor("nothing");
  const text = find("#nothing-text", HTMLInputElement);
  outbox.add([draft("general.nothing_found", { station: of, ...(text.value.trim() ? { text: text.value.trim() } : {}) }, { place, how })]);
  text.value = "";
}

onSubmit("[data-limit]", (form) => {
  const because = field(form, "because");
  if (!because.value.trim()) {
    because.focus();
    return;
  }
  const { station: of, place } = holdsFor("limit");
  const hides = field(form, "hides").value.trim();
  const body = { station: of, because: because.value.trim(), ...(hides ? { hides } : {}), ...(input(form, "partly").checked ? { partly: true } : {}) };
  outbox.add([draft("general.limit", body, { place })]);
  form.reset();
});

/** Which field of its entry a remark's words are. @type {Record<string, string>} */
const FIELD = { "general.hint": "seen", "general.ask_seller": "question", "general.for_desk": "question", "general.intervention": "done", "general.seen": "text" };
const WITH_STATION = new Set(["general.seen", "general.did_not_work", "general.do_not_know", "general.not_fitted", "general.intervention", "general.more_alike"]);

/** @param {string} words @param {import("../dom.js").Field} at */
function refuse(words, at) {
  const fault = find("[data-remark-fault]", HTMLElement);
  fault.textContent = words;
  fault.hidden = !words;
  if (words) at.focus();
}

/** @param {HTMLFormElement} form */
function sure(form) {
  const said = field(form, "said_as").value;
  return said ? { said_as: said } : {};
}

onSubmit("[data-remark]", async (form, button) => {
  const text = field(form, "text");
  const words = text.value.trim();
  const kind = button?.value || "general.seen";
  refuse(words ? "" : "Write it down first.", text);
  if (!words) return;
  const more = moreOf(kind, form);
  if (more.fault) {
    find("#remark-more", HTMLDetailsElement).open = true;
    refuse(more.fault, field(form, kind === "general.more_alike" ? "at_least" : "low"));
    return;
  }
  const body = { [FIELD[kind] || "what"]: words, ...(WITH_STATION.has(kind) ? { station: "general" } : {}), ...more.body };
  const remark = draft(kind, body, { place: where(), ...(input(form, "own").checked ? { own_doing: true } : {}), ...sure(form) });
  const again = field(form, "again").value;
  const look = /^\d+$/.test(again) ? { of: remark.id, minutes: Number(again) } : { of: remark.id, moment: again };
  const held = snapshot(form);
  const keeping = outbox.add(again ? [remark, draft("general.look_again", look, { place: where() })] : [remark]);
  form.reset();
  try {
    await keeping;
  } catch {
    restore(held);
    refuse("This browser could not keep it: free some space, then send it again.", text);
  }
});

/** Every form that answers a second look or a proposal goes through the outbox, so that it works without a network. */
onSubmit("[data-again], [data-proposal]", (form, button) => {
  const values = Object.fromEntries(fieldsOf(form).map((one) => [one.name, one.value.trim()]));
  const place = form.dataset.place || null;
  if (form.hasAttribute("data-again")) {
    const looked = { of: values.of, outcome: button?.value || "same", text: values.text };
    return outbox.add([draft("general.looked_again", looked, { place })]);
  }
  if (button?.value === "take") {
    const { hides, instead } = form.dataset;
    const limit = { station: "general", because: hides, caused_by: values.of, rule: values.rule, instead };
    return outbox.add([draft("general.limit", limit, { place })]);
  }
  return outbox.add([draft("general.proposal_dropped", { of: values.of, rule: values.rule }, { place })]);
});

document.addEventListener("click", (event) => {
  const { nothingHow, placeLimit } = around(event, "[data-nothing-how], [data-place-limit]")?.dataset ?? {};
  if (nothingHow) nothing(nothingHow);
  if (placeLimit) here("general.limit", { station: "general", because: placeLimit });
});

openLines(station);
station.ready();
