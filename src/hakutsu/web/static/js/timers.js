/** Timers count down on every page and ring on the screen; the server keeps them. */

import { all, find, maybe } from "./dom.js";

/** @param {number} seconds */
function clock(seconds) {
  const whole = Math.abs(Math.round(seconds));
  return `${seconds < 0 ? "+" : ""}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** @param {HTMLElement} bar */
function tick(bar) {
  const rung = [];
  for (const timer of all("[data-timer]", HTMLElement, bar)) {
    const left = (new Date(timer.dataset.rings ?? "").getTime() - Date.now()) / 1000;
    find("[data-left]", HTMLElement, timer).textContent = left >= 0 ? `${clock(left)} left` : `${clock(left)} over`;
    timer.classList.toggle("ringing", left < 0);
    if (left < 0) rung.push(timer.querySelector("strong")?.textContent ?? "");
  }
  const said = find("[data-ringing]", HTMLElement, bar);
  const words = rung.length ? `Time to look: ${rung.join(", ")}` : "";
  if (said.textContent !== words) said.textContent = words;
  said.hidden = !words;
}

const there = maybe("[data-timers]", HTMLElement);
if (there) {
  tick(there);
  setInterval(() => tick(there), 1000);
}
