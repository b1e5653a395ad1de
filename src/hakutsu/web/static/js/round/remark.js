/** What a remark says beyond its words: a range, what a hint may mean, with whose leave, which picture. */

import { field, input } from "../dom.js";
import { numberOf } from "../entry-form.js";

/**
 * The further fields of a kind of remark that hold something, or the fault in them.
 * @param {string} kind
 * @param {HTMLFormElement} form
 * @returns {{body: Record<string, unknown>, fault?: string}}
 */
export function moreOf(kind, form) {
  if (kind === "general.seen") return range(form);
  if (kind === "general.more_alike") return number(form);
  if (kind === "general.hint") return { body: kept(form, ["may_mean", "settled_by"]) };
  if (kind === "general.intervention") return { body: { ...kept(form, ["with_leave_of"]), ...(input(form, "put_back").checked ? {} : { put_back: false }) } };
  return { body: kind === "general.for_desk" ? kept(form, ["picture"]) : {} };
}

/** @param {HTMLFormElement} form @param {string[]} names */
function kept(form, names) {
  return Object.fromEntries(names.map((name) => [name, field(form, name).value.trim()]).filter(([, text]) => text));
}

/** @param {HTMLFormElement} form */
function number(form) {
  const text = field(form, "at_least").value.trim();
  return /^[1-9]\d*$/.test(text) ? { body: { at_least: Number(text) } } : { body: {}, fault: "Say how many more at least, in figures." };
}

/** @param {HTMLFormElement} form */
function range(form) {
  const low = numberOf(field(form, "low").value);
  const high = numberOf(field(form, "high").value);
  const [from, to] = [low ?? high, high ?? low];
  if (from === null || to === null) return { body: {} };
  if (Number.isNaN(from) || Number.isNaN(to)) return { body: {}, fault: "From and to are numbers, such as 50 and 60." };
  if (from > to) return { body: {}, fault: "The lower end of a range comes first." };
  return { body: { low: from, high: to, unit: field(form, "unit").value.trim() } };
}
