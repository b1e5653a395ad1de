/**
 * The last act can be taken back from where it was done: entries made together are one act, and the focus goes back to
 * where it was.
 */

import { find, maybe } from "./dom.js";
import { draft } from "./outbox.js";

/** @typedef {import("./outbox.js").Draft} Draft */

/** @param {import("./outbox.js").Outbox} outbox what every act of the page goes through */
export function openUndo(outbox) {
  /** @type {{ids: string[], from: Element | null} | null} */
  let last = null;
  const add = outbox.add.bind(outbox);

  const show = () => {
    const button = maybe("[data-undo]", HTMLButtonElement);
    if (!button) return;
    button.hidden = last === null;
    button.textContent = last && last.ids.length > 1 ? `Take back all ${last.ids.length}` : "Take it back";
  };

  outbox.add = async (/** @type {Draft[]} */ drafts) => {
    const ids = drafts.filter((one) => !one.strikes).map((one) => one.id);
    last = ids.length ? { ids, from: document.activeElement } : null;
    await add(drafts);
    show();
  };

  const back = () => {
    if (!last) return;
    const { ids, from } = last;
    last = null;
    add(ids.map((id) => draft("general.strike", {}, { strikes: id })));
    show();
    if (from instanceof HTMLElement && from.isConnected) from.focus();
    find("#saved", HTMLElement).textContent = ids.length > 1 ? `took back all ${ids.length}` : "took it back";
  };

  document.addEventListener("click", (event) => {
    if (event.target instanceof Element && event.target.closest("[data-undo]")) back();
  });
  document.addEventListener("keydown", (event) => {
    const typing = event.target instanceof HTMLElement && event.target.matches("input, textarea, select");
    if (typing || event.key.toLowerCase() !== "z" || !(event.ctrlKey || event.metaKey) || !last) return;
    event.preventDefault();
    back();
  });
  return show;
}
