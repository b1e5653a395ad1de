/** The connected gauge: opened and closed here, its readings come in by themselves and are shown at once. */

/**
 * @param {{config: object, go: (panel: string) => Promise<void>, said: import("./said.js").Said, panel: () => string,
 *   position: () => {u?: number, v?: number}, flash: () => void}} station
 */
export function gaugeLink(station) {
  const base = `/inspections/${station.config.inspection}/film/link`;
  const chip = document.querySelector("#gauge-chip");
  const words = document.querySelector("[data-link-state]");
  const progress = document.querySelector("[data-link-progress]");
  const garbled = document.querySelector("[data-link-garbled]");
  const beepWanted = document.querySelector("[data-link-beep]");
  let state = { open: false };
  let sound;

  async function ask(method, path, body) {
    try {
      const response = await fetch(base + path, {
        method,
        headers: { "Content-Type": "application/json", Accept: "application/json" },
        body: body ? JSON.stringify(body) : undefined,
      });
      const said = await response.json();
      if (!response.ok) return station.said.fault(said.message || "the gauge cannot do that now");
      show(said);
    } catch {
      station.said.fault("No connection to the server");
    }
    return undefined;
  }

  function show(now) {
    state = now;
    const charge = now.battery === null ? "" : `, battery ${now.battery} %`;
    const name = now.gauge || now.url;
    const ended = now.ended ? `not connected: ${now.ended}` : "not connected";
    words.textContent = !now.open ? ended : now.connected ? `${name}: connected${charge}` : `${name}: looking for it …`;
    chip.hidden = !now.open;
    chip.textContent = now.connected ? `gauge connected${now.aim && now.aim.words ? `, aimed ${now.aim.words}` : ""}` : "gauge: looking for it …";
    chip.classList.toggle("font-bold", now.open && !now.connected);
    document.querySelector("[data-link-off]").hidden = now.open;
    document.querySelector("[data-link-on]").hidden = !now.open;
    document.querySelector('[data-link="walk"]').hidden = !now.standIn || Boolean(now.walked);
    document.querySelector('[data-link="stop"]').hidden = !now.walked;
    progress.hidden = !now.walked;
    if (now.walked) progress.value = now.walked[1] ? now.walked[0] / now.walked[1] : 0;
  }

  function beep() {
    if (!beepWanted.checked) return;
    sound ||= new AudioContext();
    const tone = sound.createOscillator();
    const loud = sound.createGain();
    tone.frequency.value = 880;
    loud.gain.value = 0.08;
    tone.connect(loud).connect(sound.destination);
    tone.start();
    tone.stop(sound.currentTime + 0.08);
  }

  async function heard(news) {
    if (news.type === "state") show(news);
    if (news.type === "trouble") station.said.fault(news.words);
    if (news.type === "garbled") {
      const item = document.createElement("li");
      item.textContent = `dropped (${news.why}): ${news.line}`;
      garbled.prepend(item);
      while (garbled.children.length > 5) garbled.lastElementChild.remove();
    }
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
    const which = event.target.closest("[data-link]")?.dataset.link;
    if (which === "stand-in") ask("POST", "", {});
    if (which === "close") ask("DELETE", "");
    if (which === "walk") ask("POST", "/walk");
    if (which === "stop") ask("DELETE", "/walk");
  });
  document.querySelector("[data-link-form]").addEventListener("submit", (event) => {
    event.preventDefault();
    const url = event.target.elements.url.value.trim();
    if (!url) return event.target.elements.url.focus();
    return ask("POST", "", { url, follows: document.querySelector("#link-follows").checked });
  });

  return {
    /** The probe is where the user says; a stand-in reads there at once. @param {{panel: string, u?: number, v?: number}} place @param {boolean} probe */
    aim(place, probe) {
      if (!state.open) return false;
      ask("POST", "/aim", { panel: place.panel, u: place.u ?? null, v: place.v ?? null, probe: probe && Boolean(state.standIn && state.connected) });
      return Boolean(state.standIn && state.connected && probe);
    },
  };
}
