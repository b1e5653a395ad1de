/** The corner station: forms keep what was noted, every button of theirs is an entry through the outbox. */

import { bodyOfForm, restore, snapshot } from "../entry-form.js";
import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";

const main = document.querySelector("[data-corners]");
const config = JSON.parse(main.dataset.config);
const SHARED = ["size", "make", "season"];
const NAMES = { wheel_note: "note", tyre_note: "note", brake_note: "note", fluid_note: "note", pedal_note: "note", brake_cracks: "cracks" };
const sent = new Map();
let lastTyre = document.querySelector("[data-entry='corner.tyre'] [name=size]:not([value=''])")?.form;

const outbox = new Outbox(config.inspection, {
  context: () => ({ view: "corners" }),
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
      say(kept.form, `Not stored: ${one.message}`, true);
      fieldOf(kept.form, one.field)?.setAttribute("aria-invalid", "true");
    }
  },
});

function fieldOf(form, name) {
  const plain = name.split(".")[0];
  return form.querySelector(`[name="${CSS.escape(plain)}"], [data-into="${CSS.escape(plain)}"]`);
}

function say(form, words, fault = false) {
  const said = form.querySelector("[data-said]") ?? form.closest("[data-corner]").querySelector("[data-said]");
  said.textContent = words;
  said.className = `min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

/** Field names that differ from the entry's, because two fields of a corner must not share an id. */
function renamed(body) {
  return Object.fromEntries(Object.entries(body).map(([name, value]) => [NAMES[name] ?? name, value]));
}

async function note(form, kind, body) {
  const made = draft(kind, body, form.dataset.place ? { place: form.dataset.place } : {});
  sent.set(made.id, { form, held: snapshot(form) });
  await outbox.add([made]);
  say(form, `${body.part ? `${form.elements.part.selectedOptions[0].text}: ${body.grade}` : "It is"} noted`);
}

document.addEventListener("submit", (event) => {
  const form = event.target.closest("form[data-entry]");
  if (!form) return;
  event.preventDefault();
  form.querySelectorAll("[aria-invalid]").forEach((one) => one.removeAttribute("aria-invalid"));
  const { body, fault, field } = bodyOfForm(form);
  if (fault) {
    say(form, fault, true);
    field.setAttribute("aria-invalid", "true");
    field.focus();
    return;
  }
  if (event.submitter?.name === "grade") body.grade = event.submitter.value;
  if (form.dataset.entry === "corner.tyre") lastTyre = form;
  note(form, form.dataset.entry, renamed(body));
  if (body.grade) {
    form.elements.play_mm.value = "";
    form.elements.on_tyre.checked = false;
    const next = form.elements.part;
    if (next.selectedIndex < next.options.length - 1) next.selectedIndex += 1;
    testsOf(form);
  }
});

/** The ways a part is tested follow the part. @param {HTMLFormElement} form */
function testsOf(form) {
  const ways = form.elements.part.selectedOptions[0].dataset.tested.split("|");
  form.elements.tested.replaceChildren(...ways.map((way) => new Option(way)));
}

document.addEventListener("change", (event) => {
  if (event.target.name === "part") testsOf(event.target.form);
});

function restSound(wheel) {
  const form = document.querySelector(`[data-entry="corner.gear"][data-place="${wheel}"]`);
  const said = document.querySelector(`[data-fragment="said_${wheel}"]`).textContent.toLowerCase();
  const open = [...form.elements.part.options].filter((one) => !said.includes(`${one.text.toLowerCase()}:`));
  const drafts = open.map((one) => draft("corner.gear", { part: one.value, grade: "sound", tested: "by eye" }, { place: wheel }));
  if (drafts.length) outbox.add(drafts);
  say(form, drafts.length ? `${drafts.length} noted as sound` : "Everything here is graded already");
}

function copyShared(wheel) {
  const form = document.querySelector(`[data-entry="corner.tyre"][data-place="${wheel}"]`);
  if (!lastTyre || lastTyre === form) {
    say(form, "No other one is noted yet");
    return;
  }
  for (const name of SHARED) form.elements[name].value = lastTyre.elements[name].value;
  say(form, "Taken over: look at the side wall all the same");
}

function show(at) {
  for (const one of document.querySelectorAll("[data-corner]")) one.toggleAttribute("data-shown", one.dataset.corner === at);
  for (const one of document.querySelectorAll("[data-at]")) {
    if (one.dataset.at === at) one.setAttribute("aria-current", "page");
    else one.removeAttribute("aria-current");
  }
  history.replaceState(null, "", `?at=${at}`);
}

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-strike], [data-rest], [data-same], [data-at]");
  if (!target) return;
  const { strike, rest, same, at } = target.dataset;
  if (strike) outbox.add([draft("general.strike", {}, { strikes: strike })]);
  if (rest) restSound(rest);
  if (same) copyShared(same);
  if (at) {
    event.preventDefault();
    show(at);
  }
});

outbox.send();
document.documentElement.dataset.ready = "corners";
