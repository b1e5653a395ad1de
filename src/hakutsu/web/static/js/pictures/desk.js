/** The desk queue by keyboard: j and k go on and back. */

import { maybe, typing } from "../dom.js";

document.addEventListener("keydown", (event) => {
  if (typing(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  maybe(`[data-key="${CSS.escape(event.key)}"]`, HTMLElement)?.click();
});
document.documentElement.dataset.ready = "desk";
