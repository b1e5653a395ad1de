/** The cabin: a tap grades a part; what is smelt, felt and seen is a form. */

import { bodyOfForm, restore, snapshot } from "../entry-form.js";
import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";

const main = document.querySelector("[data-cabin]");
const config = JSON.parse(main.dataset.config);
const form = document.querySelector("[data-entry='cabin.looked']");
const sent = new Map();

const outbox = new Outbox(config.inspection, {
  context: () => ({ view: "cabin" }),
  onReply: (reply) => {
    reply.acknowledged.forEach((id) => sent.delete(id));
    if (reply.fragments) swap(reply.fragments);
  },
  onState: showSaved,
  onRefused: (refused) => {
    const held = sent.get(refused[0].draft.id);
    if (held) restore(held);
    say(`Not stored: ${refused[0].message}`, true);
  },
});

function say(words, fault = false) {
  const said = form.querySelector("[data-said]");
  said.textContent = words;
  said.className = `min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

form.addEventListener("submit", (event) => {
  event.preventDefault();
  const { body, fault, field } = bodyOfForm(form);
  if (fault) {
    say(fault, true);
    field.focus();
    return;
  }
  const made = draft("cabin.looked", body);
  sent.set(made.id, snapshot(form));
  outbox.add([made]);
  say("noted");
  form.reset();
});

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-part], [data-strike]");
  if (!target) return;
  const { part, wear, renewed, strike } = target.dataset;
  if (strike) outbox.add([draft("general.strike", {}, { strikes: strike })]);
  if (part) outbox.add([draft("cabin.wear", { part, wear, ...(renewed ? { renewed: true } : {}) })]);
});

outbox.send();
document.documentElement.dataset.ready = "cabin";
