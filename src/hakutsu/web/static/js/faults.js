/** What is said at a form and at a field: news, and what is wrong until it is changed. */

import { isField } from "./dom.js";

/** @typedef {import("./dom.js").Field} Field */

/** Say something at a form, or at the nearest place that has room for it. @param {Element | null} form @param {string} words @param {boolean} [fault] */
export function say(form, words, fault = false) {
  const rooms = [form, form?.closest("[data-corner]"), document.querySelector("main")];
  const said = rooms.map((one) => one?.querySelector("[data-said]")).find(Boolean);
  if (!said) return;
  said.textContent = words;
  said.className = `min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

/** Say what is wrong with a field, below its row, and go there. @param {Element} form @param {Field | null | undefined} field @param {string} words */
export function sayAt(form, field, words) {
  const marked = field && mark(field, words);
  say(form, marked ? "" : words, true);
  field?.focus();
}

/** Mark a field as wrong and say why below its row, until it is changed; false where there is no room for it. @param {Field} field @param {string} words */
export function mark(field, words) {
  unmark(field);
  field.setAttribute("aria-invalid", "true");
  const row = rowOf(field);
  if (!row) return false;
  const fault = document.createElement("p");
  fault.className = "field-fault basis-full col-span-full font-bold text-needs";
  fault.setAttribute("role", "alert");
  fault.id = `fault-${crypto.randomUUID()}`;
  fault.textContent = words;
  row.after(fault);
  field.dataset.fault = fault.id;
  field.setAttribute("aria-describedby", [...describedBy(field), fault.id].join(" "));
  field.addEventListener("input", () => unmark(field), { once: true });
  return true;
}

/** What stands in a line with a field: the outermost grid or row of boxes that is not the form itself. @param {Field} field */
function rowOf(field) {
  const form = field.closest("form, fieldset, details");
  if (!form) return null;
  /** @type {HTMLElement} */
  let row = field;
  for (let box = field.parentElement; box && box !== form; box = box.parentElement) {
    if (row !== field && !/grid|flex/.test(getComputedStyle(box).display)) break;
    row = box;
  }
  return row;
}

/** Take back what was said of a field. @param {Field} field */
export function unmark(field) {
  field.removeAttribute("aria-invalid");
  const { fault } = field.dataset;
  if (!fault) return;
  document.getElementById(fault)?.remove();
  const others = describedBy(field).filter((id) => id !== fault);
  if (others.length) field.setAttribute("aria-describedby", others.join(" "));
  else field.removeAttribute("aria-describedby");
  delete field.dataset.fault;
}

/** Ids of what describes a field. @param {Field} field */
function describedBy(field) {
  return (field.getAttribute("aria-describedby") ?? "").split(" ").filter(Boolean);
}

/** The field an entry's field came from. @param {HTMLFormElement} form @param {string} name @returns {Field | null} */
export function fieldOf(form, name) {
  const plain = CSS.escape(name.split(".")[0]);
  const found = form.querySelector(`[name="${plain}"], [data-into="${plain}"]`);
  return isField(found) ? found : null;
}
