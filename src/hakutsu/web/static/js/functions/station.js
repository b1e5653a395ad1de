/** Functions: a tap is a try; more than yes or no goes through the form beside. */

import { around, field, find, input } from "../dom.js";
import { say, sayAt } from "../faults.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";

/** @typedef {import("../station.js").Made} Made */

const more = find("[data-entry='function.tried']:not([data-own])", HTMLFormElement);
const own = find("form[data-own]", HTMLFormElement);
const station = openStation("functions", { fallback: () => more });

document.addEventListener("click", (event) => {
  const target = around(event, "[data-item], [data-more], [data-fitted], [data-rest]");
  if (!target) return;
  const { item, result, more: which, name, fitted, rest } = target.dataset;
  if (item) station.outbox.add([draft("function.tried", { ...thing(item, name), result })]);
  if (fitted) station.outbox.add([draft("function.fitted", { item: fitted, there: true })]);
  if (rest) station.outbox.add(rest.split(",").map(works));
  if (which) {
    field(more, "item").value = which;
    find("[data-of]", HTMLElement, more).textContent = name ?? which;
    field(more, "but").focus();
  }
});

/** A thing of the list by its key; one that the inspector named by its name. @param {string} key @param {string} [name] */
function thing(key, name) {
  return key.startsWith("own:") ? { item: "own", name } : { item: key };
}

/** @param {string} key */
function works(key) {
  const row = find(`[data-item="${CSS.escape(key)}"]`, HTMLElement);
  return draft("function.tried", { ...thing(key, row.dataset.name), result: "works" });
}

/** What the inspector named: tried, or only listed. @param {string} result @returns {Made | null} */
function named(result) {
  const name = field(own, "name");
  if (!name.value.trim()) {
    sayAt(own, name, "Name it.");
    return null;
  }
  const body = { item: "own", name: name.value.trim() };
  return result === "there" ? { kind: "function.fitted", body: { ...body, there: true } } : { kind: "function.tried", body: { ...body, result } };
}

/** A try that says more, or nothing after saying what is missing. @param {string} result @returns {Made | null} */
function tried(result) {
  const item = field(more, "item").value;
  if (!item) {
    say(more, "Tap “more” at a thing first.", true);
    return null;
  }
  const what = thing(item, find("[data-of]", HTMLElement, more).textContent ?? "");
  if (result === "absent") return { kind: "function.fitted", body: { ...what, there: false } };
  const but = field(more, "but");
  /** @type {Record<string, unknown>} */
  const body = { ...what, result };
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
  complete(form, _made, button) {
    const value = button?.value ?? "";
    if (form === own) return named(value);
    return form === more ? tried(value) : lit(form, value);
  },
  done(form, made) {
    if (made.kind === "function.fitted" && form === more) say(form, "taken off the list; “Also fitted?” below it brings it back");
    const emptied = form === more ? ["but", "working", "of"] : ["name"];
    for (const name of emptied) field(form, name).value = "";
    if (form !== more && form !== own) input(form, "red").checked = false;
  },
});

station.ready();
