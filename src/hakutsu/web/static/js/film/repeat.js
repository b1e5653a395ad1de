/** The open repeat of the panel in hand: the reading that surprised, and whether the next readings belong to it. */

import { find } from "../dom.js";

export class Repeat {
  on = false;

  /** What the server last said of the panel. @param {DOMStringMap} now */
  show(now) {
    const box = find("[data-repeat]", HTMLElement);
    box.hidden = !now.surprise;
    if (!now.surprise) this.on = false;
    const start = find("[data-repeat-start]", HTMLElement, box);
    start.setAttribute("aria-pressed", String(this.on));
    start.textContent = this.on ? "Repeating: the next readings belong to it" : "Next readings repeat it";
    const count = Number(now.repeats || 0);
    find("[data-repeat-words]", HTMLElement, box).textContent = `${now.surpriseWords || ""}${count ? ` (repeated ${count} of 2)` : ""}.`;
  }

  /** Begin or end it, and go on typing. @param {DOMStringMap} now @param {HTMLElement} line */
  toggle(now, line) {
    this.on = !this.on;
    this.show(now);
    line.focus({ preventScroll: true });
  }

  /** Why readings cannot be repeats now; nothing if they can. @param {import("./line.js").Reading[]} readings @param {DOMStringMap} now */
  wrong(readings, now) {
    if (!readings.some((one) => one.repeat)) return "";
    if (readings.some((one) => one.panel !== now.panel)) return "Go to the panel first, then repeat its reading";
    return now.surprise ? "" : "There is no open repeat on this panel: leave out the r";
  }

  /** The reading that one repeats, if it does. @param {import("./line.js").Reading} reading @param {DOMStringMap} now */
  of(reading, now) {
    return (reading.repeat || this.on) && reading.panel === now.panel ? now.surprise || undefined : undefined;
  }
}
