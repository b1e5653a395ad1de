/** The underside: a tap on the schematic chooses the zone of the form; every form is an entry. */

import { bodyOfForm, restore, snapshot } from "../entry-form.js";
import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";

const main = document.querySelector("[data-under]");
const config = JSON.parse(main.dataset.config);
const zoneForm = document.querySelector("[data-entry='under.zone']");
const sent = new Map();

const outbox = new Outbox(config.inspection, {
  context: () => ({ view: "under" }),
  onReply: (reply) => {
    reply.acknowledged.forEach((id) => sent.delete(id));
    if (reply.fragments) swap(reply.fragments);
    mark(zoneForm.elements.zone.value);
  },
  onState: showSaved,
  onRefused: (refused) => {
    for (const one of refused) {
      const kept = sent.get(one.draft.id);
      if (!kept) continue;
      restore(kept.held);
      say(kept.form, `Not stored: ${one.message}`, true);
    }
  },
});

function say(form, words, fault = false) {
  const said = form.querySelector("[data-said]");
  said.textContent = words;
  said.className = `min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

function mark(zone) {
  for (const one of document.querySelectorAll("[data-zone] rect")) {
    one.classList.toggle("ud-chosen", one.parentElement.dataset.zone === zone);
  }
}

/** All but the zone goes back to nothing said. @param {HTMLFormElement} form */
function emptied(form) {
  const zone = form.elements.zone?.value;
  form.reset();
  if (zone) form.elements.zone.value = zone;
}

document.addEventListener("submit", (event) => {
  const form = event.target.closest("form[data-entry]");
  if (!form) return;
  event.preventDefault();
  const { body, fault, field } = bodyOfForm(form);
  if (fault) {
    say(form, fault, true);
    field.focus();
    return;
  }
  if (form.dataset.entry === "leak.seen" && !body.origin) {
    say(form, "Say where it comes from, or “not known”.", true);
    form.elements.origin.focus();
    return;
  }
  if (body.leak_note !== undefined) {
    body.note = body.leak_note;
    delete body.leak_note;
  }
  const made = draft(form.dataset.entry, event.submitter?.dataset.nothing === undefined ? body : { zone: body.zone });
  sent.set(made.id, { form, held: snapshot(form) });
  outbox.add([made]);
  say(form, "noted");
  if (form === zoneForm) emptied(form);
  else for (const name of ["drops", "minutes", "leak_note"]) form.elements[name].value = "";
});

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-zone], [data-strike], [data-rest]");
  if (!target) return;
  const { zone, strike, rest } = target.dataset;
  if (zone) {
    event.preventDefault();
    zoneForm.elements.zone.value = zone;
    mark(zone);
    zoneForm.querySelector("[data-nothing]").focus({ preventScroll: true });
  }
  if (strike) outbox.add([draft("general.strike", {}, { strikes: strike })]);
  if (rest) outbox.add(rest.split(",").map((one) => draft("under.zone", { zone: one })));
});

zoneForm.elements.zone.addEventListener("change", () => mark(zoneForm.elements.zone.value));
mark(zoneForm.elements.zone.value);
outbox.send();
document.documentElement.dataset.ready = "under";
