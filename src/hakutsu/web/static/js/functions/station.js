/** Functions: a tap is a try; more than yes or no goes through the form beside. */

import { around, field, find, input } from "../dom.js";
import { say, sayAt } from "../faults.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";

/** @typedef {import("../station.js").Made} Made */

const more = find("[data-entry='function.tried']", HTMLFormElement);
const station = openStation("functions", { fallback: () => more });

document.addEventListener("click", (event) => {
  const target = around(event, "[data-item], [data-more], [data-fitted], [data-rest]");
  if (!target) return;
  const { item, result, more: which, name, fitted, rest } = target.dataset;
  if (item) station.outbox.add([draft("function.tried", { item, result })]);
  if (fitted) station.outbox.add([draft("function.fitted", { item: fitted, there: true })]);
  if (rest) station.outbox.add(rest.split(",").map((one) => draft("function.tried", { item: one, result: "works" })));
  if (which) {
    field(more, "item").value = which;
    find("[data-of]", HTMLElement, more).textContent = name ?? which;
    field(more, "but").focus();
  }
});

/** A try that says more, or nothing after saying what is missing. @param {string} result @returns {Made | null} */
function tried(result) {
  const item = field(more, "item").value;
  if (!item) {
    say(more, "Tap “more” at a thing first.", true);
    return null;
  }
  if (result === "absent") return { kind: "function.fitted", body: { item, there: false } };
  const but = field(more, "but");
  /** @type {Record<string, unknown>} */
  const body = { item, result };
  if (but.value.trim()) body.but = but.value.trim();
  for (const count of [field(more, "working"), field(more, "of")]) {
    const text = count.value.trim();
    if (!text) continue;
    if (!/^\d+$/.test(text)) {
      sayAt(more, count, `“${count.value}” is no whole number.`);
      return null;
    }
    body[count.name] = Number(text);
  }
  if (!body.but && result !== "partly") {
    sayAt(more, but, result === "not_tested" ? "Say why not." : "Say what is unlike it should be.");
    return null;
  }
  return { kind: "function.tried", body };
}

/** @param {HTMLFormElement} form @param {string} kind @returns {Made | null} */
function lit(form, kind) {
  const name = field(form, "name");
  if (!name.value.trim()) {
    sayAt(form, name, "Say which lamp.");
    return null;
  }
  return { kind: "function.lamp", body: { name: name.value.trim(), kind, red: input(form, "red").checked } };
}

station.forms({
  complete: (form, _made, button) => (form === more ? tried(button?.value ?? "") : lit(form, button?.value ?? "")),
  done(form, made) {
    if (made.kind === "function.fitted") say(form, "taken off the list; “Also fitted?” below it brings it back");
    const emptied = form === more ? ["but", "working", "of"] : ["name"];
    for (const name of emptied) field(form, name).value = "";
    if (form !== more) input(form, "red").checked = false;
  },
});

station.ready();
