/** Functions: a tap is a try; more than yes or no goes through the form beside. */

import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";

const main = document.querySelector("[data-functions]");
const config = JSON.parse(main.dataset.config);
const more = document.querySelector("[data-say]");
const lamp = document.querySelector("[data-lamp]");

const outbox = new Outbox(config.inspection, {
  context: () => ({ view: "functions" }),
  onReply: (reply) => reply.fragments && swap(reply.fragments),
  onState: showSaved,
  onRefused: (refused) => {
    const form = refused[0].draft.kind === "function.lamp" ? lamp : more;
    say(form, `Not stored: ${refused[0].message}`, true);
  },
});

function say(form, words, fault = false) {
  const said = form.querySelector("[data-said]");
  said.textContent = words;
  said.className = `min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-item], [data-more], [data-strike], [data-fitted]");
  if (!target) return;
  const { item, result, more: which, name, strike, fitted } = target.dataset;
  if (item) outbox.add([draft("function.tried", { item, result })]);
  if (strike) outbox.add([draft("general.strike", {}, { strikes: strike })]);
  if (fitted) outbox.add([draft("function.fitted", { item: fitted, there: true })]);
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
  const body = { item: item.value, result: event.submitter.value };
  if (but.value.trim()) body.but = but.value.trim();
  for (const field of [working, of]) {
    if (!field.value.trim()) continue;
    if (!/^\d+$/.test(field.value.trim())) {
      say(more, `“${field.value}” is no whole number.`, true);
      field.focus();
      return;
    }
    body[field.name] = Number(field.value);
  }
  if (!body.but && body.result !== "partly") {
    say(more, body.result === "not tested" ? "Say why not." : "Say what is unlike it should be.", true);
    but.focus();
    return;
  }
  outbox.add([draft("function.tried", body)]);
  say(more, "noted");
  for (const field of [but, working, of]) field.value = "";
});

lamp.addEventListener("submit", (event) => {
  event.preventDefault();
  const { name, red } = lamp.elements;
  if (!name.value.trim()) {
    say(lamp, "Say which lamp.", true);
    name.focus();
    return;
  }
  outbox.add([draft("function.lamp", { name: name.value.trim(), kind: event.submitter.value, red: red.checked })]);
  say(lamp, "noted");
  name.value = "";
  red.checked = false;
});

outbox.send();
document.documentElement.dataset.ready = "functions";
