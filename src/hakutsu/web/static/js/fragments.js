/** Swap the moving parts of a page for what the server rendered, keeping opened details open and scroll in place. */

import { all, maybe } from "./dom.js";

/** @param {Record<string, string>} fragments */
export function swap(fragments) {
  for (const [name, html] of Object.entries(fragments)) {
    const place = maybe(`[data-fragment="${name}"]`, Element);
    if (!place) continue;
    const at = document.activeElement;
    const focused = place.contains(at) ? identify(at) : null;
    const details = new Map(all("details[id]", HTMLDetailsElement, place).map((one) => [one.id, one.open]));
    const { scrollLeft, scrollTop } = place;
    place.innerHTML = html;
    for (const [id, open] of details) {
      const same = maybe(`#${CSS.escape(id)}`, HTMLDetailsElement, place);
      if (same) same.open = open;
    }
    place.scrollLeft = scrollLeft;
    place.scrollTop = scrollTop;
    const again = focused ? place.querySelector(focused) : null;
    if (again instanceof HTMLElement || again instanceof SVGElement) again.focus();
  }
}

/** A selector that finds the same element again after a swap. @param {Element | null} element */
function identify(element) {
  if (!(element instanceof HTMLElement || element instanceof SVGElement)) return null;
  if (element.dataset.panel) return `a[data-panel="${CSS.escape(element.dataset.panel)}"]`;
  if (element.id) return `#${CSS.escape(element.id)}`;
  const details = element.closest("details[id]");
  return details && element.tagName === "SUMMARY" ? `#${CSS.escape(details.id)} > summary` : null;
}
