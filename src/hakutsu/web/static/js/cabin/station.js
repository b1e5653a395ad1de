/** The cabin: a tap grades a part or says of a thing whether it is there; forms say what is smelt, felt and seen. */

import { draft } from "../outbox.js";
import { openStation, readForm, say } from "../station.js";

const station = openStation("cabin");

document.addEventListener("submit", (event) => {
  const form = event.target.closest("form[data-entry]");
  if (!form) return;
  event.preventDefault();
  const body = readForm(form);
  if (!body) return;
  station.note(form, form.dataset.entry, body);
  say(form, "noted");
  form.reset();
});

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-part], [data-thing]");
  if (!target) return;
  const { part, wear, renewed, thing, there } = target.dataset;
  if (part) station.outbox.add([draft("cabin.wear", { part, wear, ...(renewed ? { renewed: true } : {}) })]);
  if (thing) station.outbox.add([draft("cabin.inventory", { thing, there })]);
});

station.ready();
