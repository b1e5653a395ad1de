/** Elements of a page by their kind; one that must be there and is not is a fault of the page, said at once. */

/** @typedef {HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement} Field */
/** @typedef {HTMLElement | SVGElement} Shown what carries a dataset */

/**
 * The first element a selector finds that is of a kind, or null.
 * @template {Element} T
 * @param {string} selector
 * @param {abstract new (...given: any[]) => T} kind
 * @param {ParentNode} [within]
 * @returns {T | null}
 */
export function maybe(selector, kind, within = document) {
  const found = within.querySelector(selector);
  return found instanceof kind ? found : null;
}

/**
 * As `maybe`, of something that must be there.
 * @template {Element} T
 * @param {string} selector
 * @param {abstract new (...given: any[]) => T} kind
 * @param {ParentNode} [within]
 * @returns {T}
 */
export function find(selector, kind, within = document) {
  const found = maybe(selector, kind, within);
  if (!found) throw new Error(`the page has no ${kind.name} at ${selector}`);
  return found;
}

/**
 * Every element a selector finds that is of a kind.
 * @template {Element} T
 * @param {string} selector
 * @param {abstract new (...given: any[]) => T} kind
 * @param {ParentNode} [within]
 * @returns {T[]}
 */
export function all(selector, kind, within = document) {
  return [...within.querySelectorAll(selector)].flatMap((one) => (one instanceof kind ? [one] : []));
}

/** What an event happened at, or the nearest around it, by a selector. @param {Event} event @param {string} selector @returns {Shown | null} */
export function around(event, selector) {
  const found = event.target instanceof Element ? event.target.closest(selector) : null;
  return found instanceof HTMLElement || found instanceof SVGElement ? found : null;
}

/** Whether something is typed or chosen where an event happened. @param {Event} event @param {string} [fields] */
export function typing(event, fields = "input, select, textarea") {
  return event.target instanceof Element && event.target.matches(fields);
}

/** @param {unknown} one @returns {one is Field} */
export function isField(one) {
  return one instanceof HTMLInputElement || one instanceof HTMLSelectElement || one instanceof HTMLTextAreaElement;
}

/** The fields of a form that have a name. @param {HTMLFormElement} form @returns {Field[]} */
export function fieldsOf(form) {
  return [...form.elements].filter(isField).filter((one) => one.name);
}

/** A field of a form by its name. @param {HTMLFormElement} form @param {string} name @returns {Field} */
export function field(form, name) {
  const found = form.elements.namedItem(name);
  if (!isField(found)) throw new Error(`the form has no field ${name}`);
  return found;
}

/** A field that is an `input`. @param {HTMLFormElement} form @param {string} name @returns {HTMLInputElement} */
export function input(form, name) {
  const found = field(form, name);
  if (!(found instanceof HTMLInputElement)) throw new Error(`${name} is no input`);
  return found;
}

/** A field that is a `select`. @param {HTMLFormElement} form @param {string} name @returns {HTMLSelectElement} */
export function select(form, name) {
  const found = field(form, name);
  if (!(found instanceof HTMLSelectElement)) throw new Error(`${name} is no select`);
  return found;
}

/** Whether a field is ticked. @param {Field} one */
export function ticked(one) {
  return one instanceof HTMLInputElement && one.checked;
}

/** What a station's element says of it, as JSON. @param {HTMLElement} main @returns {any} */
export function configOf(main) {
  return JSON.parse(main.dataset.config ?? "{}");
}

/** Where the pointer is, in the units of the drawing a part belongs to. @param {MouseEvent} event @param {Element} part @returns {DOMPoint} */
export function pointIn(event, part) {
  const matrix = part.closest("svg")?.getScreenCTM();
  if (!matrix) throw new Error("the drawing is not shown");
  return new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
}

/** Resolves once what was changed so far is on the screen; soon on a page nobody sees. */
export function painted() {
  return new Promise((resolve) => {
    setTimeout(resolve, 100);
    requestAnimationFrame(() => setTimeout(resolve));
  });
}
