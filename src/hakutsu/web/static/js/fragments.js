/** Swap the moving parts of a page for what the server rendered, keeping opened details open and scroll in place. */

import { all, maybe } from "./dom.js";

/** What was swapped in last: what comes again as it is, is left alone. @type {WeakMap<Element, string>} */
const shown = new WeakMap();

/** @typedef {{place: Element, html: string, focused: string | null, details: Map<string, boolean>, scrollLeft: number, scrollTop: number}} Part */

/** @param {Record<string, string>} fragments */
export function swap(fragments) {
  // All is read before anything is written, so that the page is laid out once.
  const parts = Object.entries(fragments).flatMap(([name, html]) => partOf(name, html));
  for (const { place, html } of parts) {
    place.innerHTML = html;
    shown.set(place, html);
  }
  for (const { place, focused, details, scrollLeft, scrollTop } of parts) {
    for (const [id, open] of details) {
      const same = maybe(`#${CSS.escape(id)}`, HTMLDetailsElement, place);
      if (same && same.open !== open) same.open = open;
    }
    if (scrollLeft) place.scrollLeft = scrollLeft;
    if (scrollTop) place.scrollTop = scrollTop;
    const again = focused ? place.querySelector(focused) : null;
    if (again instanceof HTMLElement || again instanceof SVGElement) again.focus();
  }
}

/** A part that is to be swapped, and how it stands; nothing where it is not on the page or stays as it is. @param {string} name @param {string} html @returns {Part[]} */
function partOf(name, html) {
  const place = maybe(`[data-fragment="${name}"]`, Element);
  if (!place || shown.get(place) === html) return [];
  const at = document.activeElement;
  const focused = place.contains(at) ? identify(at) : null;
  const details = new Map(all("details[id]", HTMLDetailsElement, place).map((one) => [one.id, one.open]));
  return [{ place, html, focused, details, scrollLeft: place.scrollLeft, scrollTop: place.scrollTop }];
}

/** A selector that finds the same element again after a swap. @param {Element | null} element */
function identify(element) {
  if (!(element instanceof HTMLElement || element instanceof SVGElement)) return null;
  if (element.dataset.panel) return `a[data-panel="${CSS.escape(element.dataset.panel)}"]`;
  if (element.id) return `#${CSS.escape(element.id)}`;
  const details = element.closest("details[id]");
  return details && element.tagName === "SUMMARY" ? `#${CSS.escape(details.id)} > summary` : null;
}
