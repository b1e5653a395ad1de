/** Timers count down on every page and ring on the screen; the server keeps them. */

const bar = document.querySelector("[data-timers]");

/** @param {number} seconds */
function clock(seconds) {
  const whole = Math.abs(Math.round(seconds));
  return `${seconds < 0 ? "+" : ""}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

function tick() {
  const rung = [];
  for (const timer of bar.querySelectorAll("[data-timer]")) {
    const left = (new Date(timer.dataset.rings) - Date.now()) / 1000;
    timer.querySelector("[data-left]").textContent = left >= 0 ? `${clock(left)} left` : `${clock(left)} over`;
    timer.classList.toggle("ringing", left < 0);
    if (left < 0) rung.push(timer.querySelector("strong").textContent);
  }
  const said = bar.querySelector("[data-ringing]");
  const words = rung.length ? `Time to look: ${rung.join(", ")}` : "";
  if (said.textContent !== words) said.textContent = words;
  said.hidden = !words;
}

if (bar) {
  tick();
  setInterval(tick, 1000);
}
