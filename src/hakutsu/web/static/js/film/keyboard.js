/** What the keys of the film station do, in its line and outside it. */

import { typing } from "../dom.js";

/** Keys of the line, and those of an empty one. @type {Record<string, string>} */
const ALWAYS = { ArrowDown: "next", ArrowUp: "back" };
/** @type {Record<string, string>} */
const EMPTY = { "+": "next", "-": "back", "/": "undo", "?": "help", "*": "over", "@": "spot" };

/** @param {{line: HTMLInputElement, keys: HTMLDialogElement, act: Record<string, () => unknown>, escape: () => void}} station */
export function keyboard({ line, keys, act, escape }) {
  line.addEventListener("keydown", (event) => {
    const command = ALWAYS[event.key] || (line.value === "" && EMPTY[event.key]);
    if (!command) return;
    event.preventDefault();
    act[command]();
  });

  document.addEventListener("keydown", (event) => {
    const elsewhere = typing(event, "input:not(#line), select, textarea");
    const outside = !elsewhere && event.target !== line;
    if (event.key === "Escape" && !keys.open) {
      escape();
    } else if ((event.ctrlKey || event.metaKey) && event.key === "z" && !elsewhere && !line.value) {
      event.preventDefault();
      act.undo();
    } else if (event.key === "?" && outside) {
      keys.showModal();
    } else if (/^[0-9]$/.test(event.key) && outside && !keys.open && !event.ctrlKey && !event.altKey) {
      line.focus();
    }
  });
}
