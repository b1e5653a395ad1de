/** The place sheet: film by short codes, remarks of every kind, "nothing found" and limits, all through the outbox. */

import { swap } from "../fragments.js";
import { doubtOf } from "../film/doubts.js";
import { readLine } from "../film/line.js";
import { bodyOf } from "../film/reading.js";
import { draft, Outbox, showSaved } from "../outbox.js";
import { moreOf } from "./remark.js";

const main = document.querySelector("[data-place-sheet]");
const config = JSON.parse(main.dataset.config);
const fitted = new Map(config.panels.map((panel) => [panel.code, panel.key]));
const line = document.querySelector("#line");
const said = document.querySelector("[data-said]");

const outbox = new Outbox(config.inspection, {
  context: () => ({ view: "place", place: config.place }),
  onReply: (reply) => reply.fragments && swap(reply.fragments),
  onState: showSaved,
  onRefused: (refused) => say(`Not stored: ${refused.map((one) => one.message).join("; ")}`, true),
});

function say(words, fault = false) {
  if (!said) return;
  said.textContent = words;
  said.className = `mt-1 min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

/** The part that remarks, "nothing found" and limits hold for: a panel, or the whole place. */
const where = () => document.querySelector("[data-where]")?.value || config.place;

function here(kind, body, envelope = {}) {
  return outbox.add([draft(kind, body, { place: where(), ...envelope })]);
}

document.querySelector("[data-film-line]")?.addEventListener("submit", async (event) => {
  event.preventDefault();
  if (!line.value.trim()) return say("Type a panel's code and its readings, then Enter");
  const start = config.panels.length ? config.panels[0].key : "";
  const read = readLine(line.value, { panel: start, unit: config.gauge.unit, fitted, codes: config.codes });
  if (read.fault) return say(read.fault, true);
  const readings = read.actions.filter((one) => one.kind === "reading");
  if (!readings.length) return say("Numbers are missing: code and readings in one line", true);
  const doubt = readings.map((one) => doubtOf(one, config.doubt, config.gauge)).find(Boolean);
  if (doubt) return say(`${doubt.words} If it is right, write the unit behind it.`, true);
  // The line is empty before anything else happens: what is typed next belongs to the next reading.
  const text = line.value;
  line.value = "";
  line.focus();
  try {
    await outbox.add(readings.map((one) => draft("film.reading", bodyOf(one, config.gauge), { place: one.panel })));
  } catch {
    line.value = [text, line.value].filter(Boolean).join(" ");
    return say("This browser could not keep the reading: free some space, then press Enter again", true);
  }
  return say(`${readings.length} reading${readings.length > 1 ? "s" : ""} kept`);
});

const FIELD = { "general.hint": "seen", "general.ask_seller": "question", "general.for_desk": "question", "general.intervention": "done", "general.seen": "text" };
const WITH_STATION = new Set(["general.seen", "general.did_not_work", "general.do_not_know", "general.not_fitted", "general.intervention"]);

function refuse(words, field) {
  const fault = document.querySelector("[data-remark-fault]");
  fault.textContent = words;
  fault.hidden = false;
  document.querySelector("#remark-more").open = true;
  field.focus();
}

document.querySelector("[data-remark]").addEventListener("submit", async (event) => {
  event.preventDefault();
  const { text, own } = event.target.elements;
  const kind = event.submitter?.value || "general.seen";
  const fault = document.querySelector("[data-remark-fault]");
  fault.textContent = "Write it down first.";
  fault.hidden = text.value.trim() !== "";
  if (!fault.hidden) return text.focus();
  const more = moreOf(kind, event.target.elements);
  if (more.fault) return refuse(more.fault, event.target.elements.low);
  const body = { [FIELD[kind] || "what"]: text.value.trim(), ...(WITH_STATION.has(kind) ? { station: "general" } : {}), ...more };
  const remark = draft(kind, body, { place: where(), ...(own.checked ? { own_doing: true } : {}) });
  const again = event.target.elements.again.value;
  const look = /^\d+$/.test(again) ? { of: remark.id, minutes: Number(again) } : { of: remark.id, moment: again };
  await outbox.add(again ? [remark, draft("general.look_again", look, { place: where() })] : [remark]);
  event.target.reset();
  return undefined;
});

/** Every form that answers a second look or a proposal goes through the outbox, so that it works without a network. */
document.addEventListener("submit", async (event) => {
  const form = event.target.closest("[data-again], [data-proposal]");
  if (!form) return;
  event.preventDefault();
  const { of, text, rule } = form.elements;
  const place = form.dataset.place || null;
  const chosen = event.submitter?.value;
  if (form.hasAttribute("data-again")) {
    await outbox.add([draft("general.looked_again", { of: of.value, outcome: chosen || "same", text: text.value.trim() }, { place })]);
  } else if (chosen === "take") {
    const { hides, instead } = form.dataset;
    await outbox.add([draft("general.limit", { station: "general", because: hides, caused_by: of.value, rule: rule.value, instead }, { place })]);
  } else {
    await outbox.add([draft("general.proposal_dropped", { of: of.value, rule: rule.value }, { place })]);
  }
});

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-nothing-how], [data-place-limit], [data-strike]");
  if (!target) return;
  const { dataset } = target;
  if (dataset.nothingHow) here("general.nothing_found", { station: "general" }, { how: dataset.nothingHow });
  if (dataset.placeLimit) here("general.limit", { station: "general", because: dataset.placeLimit });
  if (dataset.strike) outbox.add([draft("general.strike", {}, { strikes: dataset.strike })]);
});

outbox.send();
document.documentElement.dataset.ready = "place";
