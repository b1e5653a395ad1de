/** Stopwatches beside fields of seconds: one press begins, the next puts the seconds into the field. */

import { all, field } from "../dom.js";

const TICK_MS = 100;

export function stopwatches() {
  for (const button of all("[data-watch]", HTMLButtonElement)) {
    if (button.form) watch(button, field(button.form, button.dataset.watch ?? ""));
  }
}

/** @param {HTMLButtonElement} button @param {import("../dom.js").Field} seconds */
function watch(button, seconds) {
  /** @type {number | null} */
  let began = null;
  let timer = 0;
  /** @param {number} since */
  const show = (since) => (seconds.value = ((performance.now() - since) / 1000).toFixed(1));
  button.addEventListener("click", () => {
    if (began === null) {
      const start = performance.now();
      began = start;
      button.textContent = "Stop";
      timer = setInterval(() => show(start), TICK_MS);
    } else {
      clearInterval(timer);
      show(began);
      began = null;
      button.textContent = "Time it";
    }
    button.setAttribute("aria-pressed", String(began !== null));
  });
}
