/** Entry forms: a form's named fields become an entry's body, each by its data-type; empty fields are left out. */

/** @param {string} text */
export function numberOf(text) {
  const plain = text.trim().replace("−", "-").replace(",", ".");
  return plain === "" ? null : Number(plain);
}

/** A number as it is stored: what was kept where the field still shows it, or converted from the unit shown. */
function stored(field, number) {
  if (field.dataset.kept !== undefined && field.value.trim() === field.defaultValue.trim()) return Number(field.dataset.kept);
  return number * Number(field.dataset.factor ?? 1) + Number(field.dataset.offset ?? 0);
}

/** Several numbers, apart by blanks, "to" or a dash: "4 to 5", "24.1 24.0 24.1". @param {HTMLInputElement} field */
function numbersOf(field) {
  const text = field.value.trim();
  if (text === "") return undefined;
  if (text === field.defaultValue.trim() && field.dataset.keptlist) return JSON.parse(field.dataset.keptlist);
  const parts = text.split(/\s*(?:to|[-–;])\s*|\s+/).map(numberOf);
  return parts.some(Number.isNaN) ? NaN : parts.map((one) => one * Number(field.dataset.factor ?? 1) + Number(field.dataset.offset ?? 0));
}

/** What a field says, or undefined where it says nothing. @param {HTMLInputElement|HTMLSelectElement} field */
function valueOf(field) {
  const { type } = field.dataset;
  const text = field.value.trim();
  if (type === "tick") return field.checked ? true : undefined;
  if (type === "number") return text === "" ? undefined : stored(field, numberOf(text));
  if (type === "numbers" || type === "span") {
    const found = numbersOf(field);
    return type === "span" && found?.length === 1 ? [found[0], found[0]] : found;
  }
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
    if (field.dataset.type === "radio") {
      if (field.checked) body[field.name] = field.value;
      continue;
    }
    const value = valueOf(field);
    if (Number.isNaN(value)) return { body, fault: `“${field.value}” is no number.`, field };
    if (field.required && value === "") return { body, fault: "This is needed.", field };
    if (field.dataset.into && value !== undefined) body[field.dataset.into] = [...(body[field.dataset.into] ?? []), value];
    else if (value !== undefined) body[field.name] = value;
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
