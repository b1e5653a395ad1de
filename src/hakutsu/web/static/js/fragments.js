/** Swap the moving parts of a page for what the server rendered, keeping opened details open and scroll in place. */

/** @param {Record<string, string>} fragments */
export function swap(fragments) {
  for (const [name, html] of Object.entries(fragments)) {
    const place = document.querySelector(`[data-fragment="${name}"]`);
    if (!place) continue;
    const focused = place.contains(document.activeElement) ? identify(document.activeElement) : null;
    const details = new Map([...place.querySelectorAll("details[id]")].map((one) => [one.id, one.open]));
    const { scrollLeft, scrollTop } = place;
    place.innerHTML = html;
    for (const [id, open] of details) {
      const same = place.querySelector(`#${CSS.escape(id)}`);
      if (same) same.open = open;
    }
    place.scrollLeft = scrollLeft;
    place.scrollTop = scrollTop;
    if (focused) place.querySelector(focused)?.focus();
  }
}

/** A selector that finds the same element again after a swap. @param {Element} element */
function identify(element) {
  if (element.dataset.panel) return `a[data-panel="${CSS.escape(element.dataset.panel)}"]`;
  if (element.id) return `#${CSS.escape(element.id)}`;
  const details = element.closest("details[id]");
  return details && element.tagName === "SUMMARY" ? `#${CSS.escape(details.id)} > summary` : null;
}
