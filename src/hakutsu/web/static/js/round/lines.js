/** The lines of a place sheet: short forms that are entries, keys that open them, one tap for all the rest. */

import { all, around, field, fieldsOf, find, isField, maybe, typing } from "../dom.js";
import { clearOnce, onSubmit } from "../entry-form.js";
import { say, sayAt } from "../faults.js";
import { draft } from "../outbox.js";
import { drawOn } from "../outside/draw.js";
import { CLEAR, sortRust } from "../under/zone.js";

/** @typedef {import("../station.js").Made} Made */

/** What a button says by itself, without the fields of its form. @type {Record<string, (body: import("../station.js").Body) => object>} */
const ALONE = {
  even: () => ({ gaps: "even" }),
  sound: () => ({ fault: "none" }),
  nothing: (body) => ({ zone: body.zone, clear: CLEAR }),
  noneSeen: () => ({ signs: [] }),
};

/** Whether a field says anything but what the form began with. @param {import("../dom.js").Field} one */
function touched(one) {
  if (one instanceof HTMLSelectElement) return [...one.options].some((option, i) => option.selected && !option.defaultSelected && (one.multiple || i > 0));
  if (one instanceof HTMLInputElement && (one.type === "checkbox" || one.type === "radio")) return one.checked;
  return one.value.trim() !== one.defaultValue.trim();
}

/** The axle, where what is said holds for both of its wheels. @param {HTMLFormElement} form */
function axleOf(form) {
  const both = form.querySelector("[data-axle]");
  return both instanceof HTMLInputElement && both.checked ? `axle_${form.dataset.place?.split("_")[1]}` : "";
}

/** @param {HTMLFormElement} form @param {Made} made @param {HTMLButtonElement | null} button @returns {Made | null} */
function complete(form, { kind, body }, button) {
  const alone = Object.keys(ALONE).find((one) => button?.dataset[one] !== undefined);
  if (button?.name === "kind") body.kind = button.dataset.other === undefined ? button.value : find("[data-other-kind]", HTMLSelectElement, form).value;
  if (button?.name === "grade") body.grade = button.value;
  if (kind === "under.zone") sortRust(body);
  const said = alone ? ALONE[alone]?.(body) ?? body : body;
  if (!alone && !button?.value && !fieldsOf(form).some(touched)) {
    say(form, "Nothing was entered yet.", true);
    return null;
  }
  if (body.kind === "unidentified" && !body.note) {
    sayAt(form, field(form, "note"), "Of an unidentified mark say what was tried: wipe, nail, lamp.");
    return null;
  }
  const place = axleOf(form) || form.dataset.place;
  return { kind, body: said, envelope: place ? { place } : {} };
}

/** A function that works, but. @param {ReturnType<typeof import("../station.js").openStation>} station @param {string} item */
function worksBut(station, item) {
  const words = find(`[data-but-words="${item}"]`, HTMLInputElement);
  if (words.value.trim()) station.outbox.add([draft("function.tried", { item, result: "but", but: words.value.trim() })]);
  else words.focus();
}

/** Fill what may be the same on both sides; what is measured stays empty and is asked first. @param {HTMLFormElement} form @param {Record<string, string>} same */
function takeOver(form, same) {
  for (const [name, value] of Object.entries(same)) if (form.elements.namedItem(name)) field(form, name).value = value;
  const asked = [...form.elements].find((one) => isField(one) && one.type !== "hidden" && one.value === "");
  if (asked instanceof HTMLElement) asked.focus();
}

/** @param {ReturnType<typeof import("../station.js").openStation>} station */
export function openLines(station) {
  /** @type {Map<HTMLFormElement, ReturnType<typeof drawOn>>} */
  const drawn = new Map();
  for (const box of all("[data-patch]", HTMLElement)) {
    const form = box.closest("form");
    if (form) drawn.set(form, drawOn(box, { outline: () => false, onPath: (_panel, path) => (field(form, "path").value = path.length ? JSON.stringify(path) : "") }));
  }

  station.forms({
    complete,
    done(form, { body }) {
      const line = form.closest("[data-lines] > details, [data-lines] details")?.querySelector("summary > .grow")?.textContent ?? "";
      say(form, `${[line, body.kind || body.grade].filter(Boolean).join(": ")} saved`.trim());
      clearOnce(form);
      drawn.get(form)?.clear();
    },
  });

  document.addEventListener("click", (event) => {
    const but = around(event, "[data-but]")?.dataset.but;
    if (but) worksBut(station, but);
    const { item, result, part, wear, restFine } = around(event, "[data-item], [data-part], [data-rest-fine]")?.dataset ?? {};
    if (item) station.outbox.add([draft("function.tried", { item, result })]);
    if (part) station.outbox.add([draft("cabin.wear", { part, wear })]);
    if (restFine) station.outbox.add(restFine.split(",").map((place) => draft("general.nothing_found", { station: "general" }, { place, how: "by eye" })));
  });

  document.addEventListener("click", (event) => {
    const button = around(event, "[data-same], [data-same-entries]");
    const { same, sameEntries } = button?.dataset ?? {};
    const form = button?.closest("details")?.querySelector("form");
    if (!form) return;
    if (same) takeOver(form, JSON.parse(same));
    const place = form.dataset.place;
    if (sameEntries && place) station.outbox.add(JSON.parse(sameEntries).map((/** @type {Record<string, unknown>} */ one) => draft("corner.gear", one, { place })));
    if (sameEntries) say(form, "saved as tested here");
  });

  onSubmit("[data-own-function]", (form, button) => {
    const name = field(form, "name");
    station.outbox.add([draft("function.tried", { item: "own", name: name.value.trim(), result: button?.value ?? "works" })]);
    name.value = "";
  });

  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || typing(event)) return;
    const line = /^[a-z]$/.test(event.key) ? maybe(`[data-lines] [data-letter="${event.key}"]`, HTMLDetailsElement) : null;
    if (!line) return;
    event.preventDefault();
    line.open = true;
    const first = [...line.querySelectorAll("input, select, button")].find((one) => isField(one) || one instanceof HTMLButtonElement);
    if (first instanceof HTMLElement) first.focus();
    line.scrollIntoView({ block: "nearest" });
  });
}
