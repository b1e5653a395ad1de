/**
 * `?` lists the keys of the page, `/` leads to search; neither while something is being typed. A row of tabs that is wider
 * than the screen begins with the one we are at in sight.
 */

import { all, maybe, typing } from "./dom.js";

document.addEventListener("keydown", (event) => {
  if (typing(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  const keys = maybe("#keys", HTMLDialogElement);
  if (event.key === "?") keys?.showModal();
  if (event.key === "/" && !keys?.open) {
    event.preventDefault();
    window.location.assign("/search");
  }
});

for (const tab of all("nav [aria-current=page]", HTMLElement)) {
  const row = tab.closest("nav");
  if (row) row.scrollLeft += tab.getBoundingClientRect().left - row.getBoundingClientRect().left - (row.clientWidth - tab.offsetWidth) / 2;
}
