/** Entry forms: a form's named fields become an entry's body, each by its data-type; empty fields are left out. */

/** @param {string} text */
export function numberOf(text) {
  const plain = text.trim().replace("−", "-").replace(",", ".");
  return plain === "" ? null : Number(plain);
}

/** What a field says, or undefined where it says nothing. @param {HTMLInputElement|HTMLSelectElement} field */
function valueOf(field) {
  const { type } = field.dataset;
  const text = field.value.trim();
  if (type === "tick") return field.checked ? true : undefined;
  if (type === "number") return text === "" ? undefined : numberOf(text);
  if (type === "json") return text === "" ? undefined : JSON.parse(text);
  if (type === "maybe") return text === "" ? undefined : text === "yes";
  if (type === "optional") return text === "" ? undefined : text;
  return type === "text" ? text : undefined;
}

/**
 * The body a form describes, or the first fault in it.
 * @param {HTMLFormElement} form
 * @returns {{body: Record<string, unknown>, fault?: string, field?: HTMLElement}}
 */
export function bodyOfForm(form) {
  const body = {};
  for (const field of form.elements) {
    if (!field.name || field.name === "place" || !field.dataset.type) continue;
    if (field.dataset.type === "list") {
      if (field.checked) body[field.name] = [...(body[field.name] ?? []), field.value];
      continue;
    }
    const value = valueOf(field);
    if (Number.isNaN(value)) return { body, fault: `“${field.value}” is no number.`, field };
    if (field.required && value === "") return { body, fault: "This is needed.", field };
    if (value !== undefined) body[field.name] = value;
  }
  return { body };
}

/** All that a form holds, to put back. @param {HTMLFormElement} form */
export function snapshot(form) {
  return [...form.elements].filter((one) => one.name).map((one) => [one, one.value, one.checked]);
}

/** Put back what a form held. @param {ReturnType<typeof snapshot>} held */
export function restore(held) {
  for (const [field, value, checked] of held) {
    field.value = value;
    if (checked !== undefined) field.checked = checked;
  }
}

/** Empty the fields that do not stay for the next entry. @param {HTMLFormElement} form */
export function clearOnce(form) {
  for (const field of form.elements) {
    const { type } = field.dataset;
    if (field.dataset.once !== undefined || type === "number" || field.name === "note") field.value = "";
    if (type === "tick" || type === "list") field.checked = false;
  }
}
