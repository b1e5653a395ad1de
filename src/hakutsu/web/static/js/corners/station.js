/** The corner station: forms keep what was noted, every button of theirs is an entry through the outbox. */

import { all, around, field, find, input, maybe, select } from "../dom.js";
import { say } from "../faults.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";

const SHARED = ["size", "make", "season"];
/** Fields whose name differs from the entry's, because two of a corner must not share an id. @type {Record<string, string>} */
const NAMES = { wheel_note: "note", tyre_note: "note", brake_note: "note", fluid_note: "note", pedal_note: "note", brake_cracks: "cracks" };
const station = openStation("corners");
/** The tyre noted last, to take over from. @type {HTMLFormElement | null} */
let lastTyre = maybe("[data-entry='corner.tyre'] [name=size]:not([value=''])", HTMLInputElement)?.form ?? null;

station.forms({
  complete(form, { kind, body }, button) {
    if (button?.name === "grade" && button.value) body.grade = button.value;
    if (kind === "corner.tyre") lastTyre = form;
    const renamed = Object.fromEntries(Object.entries(body).map(([name, value]) => [NAMES[name] ?? name, value]));
    return { kind, body: renamed, envelope: form.dataset.place ? { place: placeOf(form) } : {} };
  },
  done(form, { body }) {
    say(form, `${body.part ? `${select(form, "part").selectedOptions[0].text}: ${body.grade ?? "not right"}` : "It is"} noted`);
    if (!body.part) return;
    field(form, "play_mm").value = "";
    for (const name of ["on_tyre", "seized"]) input(form, name).checked = false;
    const next = select(form, "part");
    if (next.selectedIndex < next.options.length - 1) next.selectedIndex += 1;
    testsOf(form);
  },
});

/** The corner of a form, or its axle where what it says holds for both wheels. @param {HTMLFormElement} form */
function placeOf(form) {
  const { place = "" } = form.dataset;
  const both = form.querySelector("[data-axle]");
  return both instanceof HTMLInputElement && both.checked ? `axle_${place.split("_")[1]}` : place;
}

/** The ways a part is tested follow the part. @param {HTMLFormElement} form */
function testsOf(form) {
  const ways = (select(form, "part").selectedOptions[0].dataset.tested ?? "").split("|");
  select(form, "tested").replaceChildren(...ways.map((way) => new Option(way)));
}

document.addEventListener("change", (event) => {
  if (event.target instanceof HTMLSelectElement && event.target.name === "part" && event.target.form) testsOf(event.target.form);
});

/** @param {string} kind @param {string} wheel */
function formOf(kind, wheel) {
  return find(`[data-entry="${kind}"][data-place="${wheel}"]`, HTMLFormElement);
}

/** @param {string} wheel */
function restSound(wheel) {
  const form = formOf("corner.gear", wheel);
  const said = (document.querySelector(`[data-fragment="said_${wheel}"]`)?.textContent ?? "").toLowerCase();
  const open = [...select(form, "part").options].filter((one) => one.dataset.detail === undefined && !said.includes(`${one.text.toLowerCase()}:`));
  const drafts = open.map((one) => draft("corner.gear", { part: one.value, grade: "sound", tested: "by eye" }, { place: wheel }));
  if (drafts.length) station.outbox.add(drafts);
  say(form, drafts.length ? `${drafts.length} noted as sound` : "Everything here is graded already");
}

/** @param {string} wheel */
function copyShared(wheel) {
  const form = formOf("corner.tyre", wheel);
  if (!lastTyre || lastTyre === form) {
    say(form, "No other one is noted yet");
    return;
  }
  for (const name of SHARED) field(form, name).value = field(lastTyre, name).value;
  say(form, "Taken over: look at the side wall all the same");
}

/** @param {string} at */
function show(at) {
  for (const one of all("[data-corner]", HTMLElement)) one.toggleAttribute("data-shown", one.dataset.corner === at);
  for (const one of all("[data-at]", HTMLElement)) {
    if (one.dataset.at === at) one.setAttribute("aria-current", "page");
    else one.removeAttribute("aria-current");
  }
  history.replaceState(null, "", `?at=${at}`);
}

document.addEventListener("click", (event) => {
  const { rest, same, at } = around(event, "[data-rest], [data-same], [data-at]")?.dataset ?? {};
  if (rest) restSound(rest);
  if (same) copyShared(same);
  if (at) {
    event.preventDefault();
    show(at);
  }
});

station.ready();
