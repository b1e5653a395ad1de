/** Key facts: a field that was left is an entry; proposals are taken, fitted things confirmed or cleared. */

import { all, around, fieldsOf, find, select, ticked } from "../dom.js";
import { bodyOfForm } from "../entry-form.js";
import { mark, say, sayAt, unmark } from "../faults.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";

const form = find("#facts", HTMLFormElement);
const station = openStation("facts", { fallback: refusedAt });

/** A fact that was refused is told at its field. @param {import("../outbox.js").Refused} refused */
function refusedAt({ draft: one, message }) {
  const field = fieldsOf(form).find(({ name }) => name === one.body?.fact);
  if (field) mark(field, message);
  return form;
}

station.forms({
  complete(_, { kind, body }) {
    return { kind, body };
  },
  done(sent) {
    say(sent, "Saved");
  },
});

/** What a field says of its fact: a tick yes or no, an empty field that it is not known. @param {import("../dom.js").Field} field */
function factOf(field) {
  if (field.dataset.type === "tick") return ticked(field);
  const { body, fault, field: at } = bodyOfForm(form);
  return fault && at === field ? undefined : (body[field.name] ?? "");
}

form.addEventListener("change", (event) => {
  const field = fieldsOf(form).find((one) => one === event.target);
  if (!field?.name) return;
  unmark(field);
  const value = factOf(field);
  if (value === undefined) {
    sayAt(form, field, `“${field.value}” is no number.`);
    return;
  }
  const source = find("[data-source]", HTMLSelectElement).value;
  const corrects = !find("[data-beside]", HTMLInputElement).checked;
  station.outbox.add([draft("vehicle.fact", { fact: field.name, value, source, corrects })]);
  delete field.dataset.kept;
  say(form, value === "" ? "Taken back" : "Saved");
});

form.addEventListener("submit", (event) => event.preventDefault());

/** @param {HTMLElement | SVGElement} button */
function taken(button) {
  const { take = "", value = "" } = button.dataset;
  select(form, take).value = value;
  return draft("vehicle.fact", { fact: take, value, source: "unknown", corrects: true });
}

/** @param {string} group @param {boolean} none */
function fitted(group, none) {
  const boxes = all("[data-may]", HTMLInputElement).filter((one) => one.dataset.may === group);
  const there = none ? [] : boxes.filter((one) => one.checked).map((one) => one.value);
  const absent = boxes.map((one) => one.value).filter((one) => !there.includes(one));
  const drafts = [];
  for (let at = 0; at < Math.max(there.length, absent.length); at += 40) {
    drafts.push(draft("vehicle.fitted", { there: there.slice(at, at + 40), absent: absent.slice(at, at + 40) }));
  }
  station.outbox.add(drafts);
}

document.addEventListener("click", (event) => {
  const button = around(event, "[data-take], [data-take-all], [data-these], [data-none], [data-has], [data-turn]");
  if (!button) return;
  const { take, these, none, has, turn, to } = button.dataset;
  if (take) station.outbox.add([taken(button)]);
  else if ("takeAll" in button.dataset) station.outbox.add(all("[data-take]", HTMLElement).map(taken));
  else if (these) fitted(these, false);
  else if (none) fitted(none, true);
  else if (has) station.outbox.add([draft("vehicle.fitted", { there: [has], absent: [] })]);
  else if (turn) station.outbox.add([draft("vehicle.fitted", to === "yes" ? { there: [turn] } : { absent: [turn] })]);
});

station.ready();
