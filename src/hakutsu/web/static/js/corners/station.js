/** The corner station: forms keep what was noted, every button of theirs is an entry through the outbox. */

import { draft } from "../outbox.js";
import { openStation, readForm, say } from "../station.js";

const SHARED = ["size", "make", "season"];
const NAMES = { wheel_note: "note", tyre_note: "note", brake_note: "note", fluid_note: "note", pedal_note: "note", brake_cracks: "cracks" };
const station = openStation("corners");
const { outbox } = station;
let lastTyre = document.querySelector("[data-entry='corner.tyre'] [name=size]:not([value=''])")?.form;

/** Field names that differ from the entry's, because two fields of a corner must not share an id. */
function renamed(body) {
  return Object.fromEntries(Object.entries(body).map(([name, value]) => [NAMES[name] ?? name, value]));
}

async function note(form, kind, body) {
  await station.note(form, kind, body, form.dataset.place ? { place: form.dataset.place } : {});
  say(form, `${body.part ? `${form.elements.part.selectedOptions[0].text}: ${body.grade}` : "It is"} noted`);
}

document.addEventListener("submit", (event) => {
  const form = event.target.closest("form[data-entry]");
  if (!form) return;
  event.preventDefault();
  const body = readForm(form);
  if (!body) return;
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
  const target = event.target.closest("[data-rest], [data-same], [data-at]");
  if (!target) return;
  const { rest, same, at } = target.dataset;
  if (rest) restSound(rest);
  if (same) copyShared(same);
  if (at) {
    event.preventDefault();
    show(at);
  }
});

station.ready();
