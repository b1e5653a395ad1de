/** What eye and hand measure of the panel in hand: reflection, a mapped repair, workmanship; each form is one entry. */

import { numberOf, onSubmit } from "../entry-form.js";

/** What is wrong with a number, or nothing. @param {HTMLInputElement} input */
function faultOf(input) {
  const typed = numberOf(input.value);
  const { least = "0", most = "0" } = input.dataset;
  if (typed === null || Number.isNaN(typed)) return "Type a number in centimetres";
  return typed < Number(least) || typed > Number(most) ? `A number from ${least} to ${Number(most).toLocaleString("en")} cm` : "";
}

/** @param {{note: (kind: string, body: Record<string, unknown>) => Promise<void>}} station */
export function handForms(station) {
  onSubmit("[data-hand-form]", (form) => {
    /** @type {Record<string, unknown>} */
    const body = {};
    let wrong = "";
    /** @type {HTMLElement | null} */
    let where = null;
    for (const one of form.elements) {
      if (one instanceof HTMLSelectElement && one.value) body[one.name] = one.value;
      if (!(one instanceof HTMLInputElement)) continue;
      const fault = faultOf(one);
      one.setAttribute("aria-invalid", String(Boolean(fault)));
      if (fault && !wrong) [wrong, where] = [fault, one];
      else body[one.name] = numberOf(one.value);
    }
    if (!wrong && Object.keys(body).length === 0) [wrong, where] = ["Grade at least one of them", form.querySelector("select")];
    const told = form.querySelector("[data-hand-fault]");
    if (!(told instanceof HTMLElement)) return;
    told.textContent = wrong;
    told.hidden = !wrong;
    if (wrong) where?.focus();
    else station.note(form.dataset.handForm ?? "", body);
  });
}
