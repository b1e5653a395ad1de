/** The connected gauge: opened and closed here, its readings come in by themselves and are shown at once. */

import { around, field, find } from "../dom.js";
import { onSubmit } from "../entry-form.js";
import { ask, Refused } from "../server.js";

/**
 * @typedef {{open: boolean, connected?: boolean, standIn?: boolean, battery?: number | null, gauge?: string, url?: string,
 *   ended?: string, walked?: [number, number] | null, aim?: {words: string} | null}} State
 * @typedef {State & {type: "state"}
 *   | {type: "trouble", words: string}
 *   | {type: "garbled", why: string, line: string}
 *   | {type: "reading", words: string, panel: string, next: string | null}} News
 */

const MOST_GARBLED = 5;

/** A short tone, where the box for it is ticked. */
function beeper() {
  const wanted = find("[data-link-beep]", HTMLInputElement);
  /** @type {AudioContext | undefined} */
  let sound;
  return () => {
    if (!wanted.checked) return;
    sound ??= new AudioContext();
    const tone = sound.createOscillator();
    const loud = sound.createGain();
    tone.frequency.value = 880;
    loud.gain.value = 0.08;
    tone.connect(loud).connect(sound.destination);
    tone.start();
    tone.stop(sound.currentTime + 0.08);
  };
}

/** @param {State} now */
function show(now) {
  const charge = now.battery === null || now.battery === undefined ? "" : `, battery ${now.battery} %`;
  const name = now.gauge || now.url;
  const ended = now.ended ? `not connected: ${now.ended}` : "not connected";
  const words = now.connected ? `${name}: connected${charge}` : `${name}: looking for it …`;
  const chip = find("#gauge-chip", HTMLElement);
  const progress = find("[data-link-progress]", HTMLProgressElement);
  find("[data-link-state]", HTMLElement).textContent = now.open ? words : ended;
  chip.hidden = !now.open;
  chip.textContent = now.connected ? `gauge connected${now.aim?.words ? `, aimed ${now.aim.words}` : ""}` : "gauge: looking for it …";
  chip.classList.toggle("font-bold", now.open && !now.connected);
  find("[data-link-off]", HTMLElement).hidden = now.open;
  find("[data-link-on]", HTMLElement).hidden = !now.open;
  find('[data-link="walk"]', HTMLElement).hidden = !now.standIn || Boolean(now.walked);
  find('[data-link="stop"]', HTMLElement).hidden = !now.walked;
  progress.hidden = !now.walked;
  if (now.walked) progress.value = now.walked[1] ? now.walked[0] / now.walked[1] : 0;
}

/** What came garbled, the newest first. @param {string} words */
function listGarbled(words) {
  const garbled = find("[data-link-garbled]", HTMLElement);
  const item = document.createElement("li");
  item.textContent = words;
  garbled.prepend(item);
  while (garbled.children.length > MOST_GARBLED) garbled.lastElementChild?.remove();
}

/**
 * @param {{config: {inspection: string}, go: (panel: string, quiet?: boolean) => Promise<void>, said: import("./said.js").Said, flash: () => void}} station
 */
export function gaugeLink(station) {
  const base = `/inspections/${station.config.inspection}/film/link`;
  const beep = beeper();
  /** @type {State} */
  let state = { open: false };

  /** @param {State} now */
  function become(now) {
    state = now;
    show(now);
  }

  /** @param {string} method @param {string} path @param {object} [body] */
  async function tell(method, path, body) {
    try {
      become(await ask(method, base + path, body));
    } catch (thrown) {
      station.said.fault(thrown instanceof Refused ? thrown.message : "No connection to the server");
    }
  }

  /** @param {News} news */
  async function heard(news) {
    if (news.type === "state") become(news);
    if (news.type === "trouble") station.said.fault(news.words);
    if (news.type === "garbled") listGarbled(`dropped (${news.why}): ${news.line}`);
    if (news.type === "reading") {
      station.said.say(`From the gauge: ${news.words}`);
      beep();
      await station.go(news.next || news.panel, true);
      station.flash();
    }
  }

  const source = new EventSource(`${base}/news`);
  source.onmessage = (event) => heard(JSON.parse(event.data));
  addEventListener("pagehide", () => source.close());

  document.addEventListener("click", (event) => {
    const which = around(event, "[data-link]")?.dataset.link;
    if (which === "stand-in") tell("POST", "", {});
    if (which === "close") tell("DELETE", "");
    if (which === "walk") tell("POST", "/walk");
    if (which === "stop") tell("DELETE", "/walk");
  });
  onSubmit("[data-link-form]", (form) => {
    const url = field(form, "url");
    if (!url.value.trim()) url.focus();
    else tell("POST", "", { url: url.value.trim(), follows: find("#link-follows", HTMLInputElement).checked });
  });

  return {
    /** The probe is where the user says; a stand-in reads there at once. @param {{panel: string, u?: number, v?: number}} place @param {boolean} probe */
    aim(place, probe) {
      if (!state.open) return false;
      const reads = Boolean(state.standIn && state.connected && probe);
      tell("POST", "/aim", { panel: place.panel, u: place.u ?? null, v: place.v ?? null, probe: reads });
      return reads;
    },
  };
}
