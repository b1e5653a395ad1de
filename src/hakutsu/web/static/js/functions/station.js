/** Functions: a tap is a try; more than yes or no goes through the form beside. */

import { draft } from "../outbox.js";
import { openStation, say, sayAt } from "../station.js";

const more = document.querySelector("[data-say]");
const lamp = document.querySelector("[data-lamp]");
const { outbox, note, ready } = openStation("functions", { fallback: () => more });

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-item], [data-more], [data-fitted], [data-rest]");
  if (!target) return;
  const { item, result, more: which, name, fitted, rest } = target.dataset;
  if (item) outbox.add([draft("function.tried", { item, result })]);
  if (fitted) outbox.add([draft("function.fitted", { item: fitted, there: true })]);
  if (rest) outbox.add(rest.split(",").map((one) => draft("function.tried", { item: one, result: "works" })));
  if (which) {
    more.elements.item.value = which;
    more.querySelector("[data-of]").textContent = name;
    more.elements.but.focus();
  }
});

more.addEventListener("submit", (event) => {
  event.preventDefault();
  const { item, but, working, of } = more.elements;
  if (!item.value) {
    say(more, "Tap “more” at a thing first.", true);
    return;
  }
  if (event.submitter.value === "absent") {
    outbox.add([draft("function.fitted", { item: item.value, there: false })]);
    say(more, "taken off the list; “Also fitted?” below it brings it back");
    return;
  }
  const body = { item: item.value, result: event.submitter.value };
  if (but.value.trim()) body.but = but.value.trim();
  for (const field of [working, of]) {
    if (!field.value.trim()) continue;
    if (!/^\d+$/.test(field.value.trim())) {
      sayAt(more, field, `“${field.value}” is no whole number.`);
      return;
    }
    body[field.name] = Number(field.value);
  }
  if (!body.but && body.result !== "partly") {
    sayAt(more, but, body.result === "not_tested" ? "Say why not." : "Say what is unlike it should be.");
    return;
  }
  note(more, "function.tried", body);
  say(more, "noted");
  for (const field of [but, working, of]) field.value = "";
});

lamp.addEventListener("submit", (event) => {
  event.preventDefault();
  const { name, red } = lamp.elements;
  if (!name.value.trim()) {
    sayAt(lamp, name, "Say which lamp.");
    return;
  }
  note(lamp, "function.lamp", { name: name.value.trim(), kind: event.submitter.value, red: red.checked });
  say(lamp, "noted");
  name.value = "";
  red.checked = false;
});

ready();
