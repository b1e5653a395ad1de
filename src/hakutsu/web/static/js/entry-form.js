/**
 * Forms that become entries: named fields become an entry's body, each by its data-type; empty fields are left out. Every
 * form of a page that a script takes is submitted through here.
 * @typedef {import("./dom.js").Field} Field
 */

import { fieldsOf, ticked } from "./dom.js";

/**
 * Take the forms a selector finds, also those that come later; the page does not leave for them.
 * @param {string} selector
 * @param {(form: HTMLFormElement, button: HTMLButtonElement | null) => unknown} handler
 */
export function onSubmit(selector, handler) {
  document.addEventListener("submit", (event) => {
    const form = event.target;
    if (!(form instanceof HTMLFormElement) || !form.matches(selector)) return;
    event.preventDefault();
    handler(form, event.submitter instanceof HTMLButtonElement ? event.submitter : null);
  });
}

/** A number as typed, with a point or a comma; nothing where nothing was typed. @param {string} text @param {boolean} [whole] of a distance, digits in threes belong together */
export function numberOf(text, whole = false) {
  const blanks = text.trim().replace("−", "-").replaceAll(/(?<=\d)[\s’'](?=\d{3}(\D|$))/g, "");
  const plain = whole && /^\d{1,3}([.,]\d{3})+$/.test(blanks) ? blanks.replaceAll(/[.,]/g, "") : blanks.replace(",", ".");
  return plain === "" ? null : Number(plain);
}

const INCH_MM = 25.4;

/** A size written in inches, 3" or 3.5 in, as mm; nothing where it is not. @param {string} text */
function inches(text) {
  const found = /^(.+?)\s*(?:"|″|in|inch|inches)$/i.exec(text.trim());
  const number = found ? numberOf(found[1]) : null;
  return number === null || Number.isNaN(number) ? null : Math.round(number * INCH_MM * 10) / 10;
}

/** A number in the unit that is stored. @param {Field} field @param {number} number */
function converted(field, number) {
  return number * Number(field.dataset.factor ?? 1) + Number(field.dataset.offset ?? 0);
}

/** What was shown before anything was typed. @param {Field} field */
function shownFirst(field) {
  return field instanceof HTMLSelectElement ? "" : field.defaultValue.trim();
}

/** A number as it is stored: what was kept where the field still shows it, or converted from the unit shown. @param {Field} field */
function stored(field) {
  const text = field.value.trim();
  if (field.dataset.kept !== undefined && text === shownFirst(field)) return Number(field.dataset.kept);
  if (/_mm$/.test(field.name)) {
    const size = inches(text);
    if (size !== null) return size;
  }
  return converted(field, numberOf(text, field.dataset.whole !== undefined) ?? NaN);
}

/** Several numbers, apart by blanks, "to" or a dash: "4 to 5", "24.1 24.0 24.1". @param {Field} field @returns {number[] | number | undefined} */
function numbersOf(field) {
  const text = field.value.trim();
  if (text === "") return undefined;
  if (text === shownFirst(field) && field.dataset.keptlist) return JSON.parse(field.dataset.keptlist);
  const atLeast = /^(?:at least|over|≥|>)\s*(.+)$/i.exec(text);
  if (atLeast && field.dataset.most) {
    const least = converted(field, numberOf(atLeast[1]) ?? NaN);
    return Number.isNaN(least) ? NaN : [least, Math.max(least, Number(field.dataset.most))];
  }
  const parts = text.split(/\s*(?:to|[-–;])\s*|\s+/).map((one) => numberOf(one) ?? NaN);
  return parts.some(Number.isNaN) ? NaN : parts.map((one) => converted(field, one));
}

/** What a field says, or undefined where it says nothing. @param {Field} field @returns {unknown} */
function valueOf(field) {
  const { type } = field.dataset;
  const text = field.value.trim();
  if (type === "tick") return ticked(field) ? true : undefined;
  if (type === "text") return text;
  if (type === "numbers") return numbersOf(field);
  if (type === "span") {
    const found = numbersOf(field);
    return Array.isArray(found) && found.length === 1 ? [found[0], found[0]] : found;
  }
  if (text === "") return undefined;
  if (type === "number") return stored(field);
  if (type === "lines") return text.split("\n").map((one) => one.trim()).filter(Boolean);
  if (type === "json") return JSON.parse(text);
  if (type === "maybe") return text === "yes";
  return type === "optional" ? text : undefined;
}

/**
 * The body a form describes, or the first fault in it.
 * @param {HTMLFormElement} form
 * @returns {{body: Record<string, any>, fault?: string, field?: Field}}
 */
export function bodyOfForm(form) {
  /** @type {Record<string, any>} */
  const body = {};
  for (const field of fieldsOf(form)) {
    const { type, into } = field.dataset;
    if (field.name === "place" || !type) continue;
    if (type === "list") {
      if (ticked(field)) body[field.name] = [...(body[field.name] ?? []), field.value];
      continue;
    }
    if (type === "chosen" && field instanceof HTMLSelectElement) {
      const chosen = [...field.selectedOptions].map((one) => one.value);
      if (chosen.length) body[field.name] = chosen;
      continue;
    }
    if (type === "radio") {
      if (ticked(field)) body[field.name] = field.value;
      continue;
    }
    const value = valueOf(field);
    if (Number.isNaN(value)) return { body, fault: `“${field.value}” is no number.`, field };
    if (field.required && value === "") return { body, fault: "This is needed.", field };
    if (into && value !== undefined) body[into] = [...(body[into] ?? []), value];
    else if (value !== undefined) body[field.name] = value;
  }
  return { body };
}

/** All that a form holds, to put back. @param {HTMLFormElement} form @returns {[Field, string, boolean][]} */
export function snapshot(form) {
  return fieldsOf(form).map((one) => [one, one.value, ticked(one)]);
}

/** Put back what a form held. @param {ReturnType<typeof snapshot>} held */
export function restore(held) {
  for (const [field, value, checked] of held) {
    field.value = value;
    if (field instanceof HTMLInputElement) field.checked = checked;
  }
}

/** Empty the fields that do not stay for the next entry. @param {HTMLFormElement} form */
export function clearOnce(form) {
  for (const field of fieldsOf(form)) {
    const { type, once } = field.dataset;
    if (field instanceof HTMLSelectElement && field.multiple) field.selectedIndex = -1;
    if (field.name === "said_as" && field instanceof HTMLSelectElement) field.value = "";
    if (once !== undefined || type === "number" || field.name === "note") field.value = "";
    if (field instanceof HTMLInputElement && (type === "tick" || type === "list")) field.checked = false;
  }
}
