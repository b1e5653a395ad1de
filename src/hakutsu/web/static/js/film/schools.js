/** Other methods side by side: computed only where they are open. */

import { maybe } from "../dom.js";

/** What the page asks for besides the parts that always show. */
export const opened = () => (maybe("#schools", HTMLDetailsElement)?.open ? "schools" : "");

/** Have them worked out when they are opened. @param {() => unknown} again asks for the page's parts anew */
export function whenOpened(again) {
  document.addEventListener("toggle", ({ target }) => {
    const mine = target instanceof HTMLDetailsElement && target.id === "schools";
    if (mine && target.open && !target.querySelector("table")) again();
  }, true);
}
