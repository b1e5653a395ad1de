/** The engine station: every form is an entry; a reading without a minute is counted from the start. */

import { bodyOfForm, restore, snapshot } from "../entry-form.js";
import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";

const main = document.querySelector("[data-engine]");
const config = JSON.parse(main.dataset.config);
const sent = new Map();
let started = config.started ? new Date(config.started) : null;

const outbox = new Outbox(config.inspection, {
  context: () => ({ view: "engine", room: config.room }),
  onReply: (reply) => {
    reply.acknowledged.forEach((id) => sent.delete(id));
    if (reply.fragments) swap(reply.fragments);
  },
  onState: showSaved,
  onRefused: (refused) => {
    for (const one of refused) {
      const kept = sent.get(one.draft.id);
      if (!kept) continue;
      restore(kept.held);
      say(kept.form, `Not stored: ${one.field}: ${one.message}`, true);
    }
  },
});

function say(form, words, fault = false) {
  const said = form.querySelector("[data-said]");
  said.textContent = words;
  said.className = `min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

/** What a reading lacks, or an empty text; adds the minute where none was typed. */
function completed(body) {
  if (body.minute === undefined && started) body.minute = Math.round((Date.now() - started.getTime()) / 6000) / 10;
  if (body.minute === undefined) return "Say at which minute, or note the first start before.";
  if (body.coolant_c === undefined && body.rpm === undefined && body.oil_bar === undefined && body.vent_c === undefined) {
    return "No number yet: coolant, speed, oil or vent.";
  }
  return "";
}

document.addEventListener("submit", (event) => {
  const form = event.target.closest("form[data-entry]");
  if (!form) return;
  event.preventDefault();
  const kind = form.dataset.entry;
  const { body, fault, field } = bodyOfForm(form);
  const lacking = fault || (kind === "engine.sample" ? completed(body) : "");
  if (lacking) {
    say(form, lacking, true);
    (field ?? form.querySelector("input")).focus();
    return;
  }
  const made = draft(kind, body);
  if (kind === "engine.start") started = new Date(made.at);
  sent.set(made.id, { form, held: snapshot(form) });
  outbox.add([made]);
  say(form, "noted");
  if (kind === "engine.sample") {
    for (const one of form.querySelectorAll("input:not([type=checkbox])")) one.value = "";
    form.elements.coolant_c.focus();
  }
});

document.addEventListener("click", (event) => {
  const strike = event.target.closest("[data-strike]")?.dataset.strike;
  if (strike) outbox.add([draft("general.strike", {}, { strikes: strike })]);
});

outbox.send();
document.documentElement.dataset.ready = "engine";
