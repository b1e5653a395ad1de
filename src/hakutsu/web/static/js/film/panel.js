/** Cues, magnet and covers of the panel in hand: each a tap that becomes an entry. */

/**
 * @param {{note: (kind: string, body: object) => Promise<void>}} station
 */
export function panelForms(station) {
  let light = "daylight";

  document.addEventListener("click", (event) => {
    const cue = event.target.closest("[data-cue]");
    const magnet = event.target.closest("[data-magnet]");
    if (cue) {
      const note = document.querySelector("#cue-note").value.trim();
      station.note("film.cue", { cue: cue.dataset.cue, there: cue.dataset.there === "true", light, note });
    }
    if (magnet) station.note("film.magnet", { grade: magnet.dataset.magnet, ...station.position() });
  });

  document.addEventListener("change", (event) => {
    if (event.target.id === "cue-light") light = event.target.value;
  });

  document.addEventListener("submit", (event) => {
    const form = event.target.closest("[data-cover-form]");
    if (!form) return;
    event.preventDefault();
    const { kind, thickness } = form.elements;
    const text = thickness.value.trim().replace(",", ".");
    const { umEach, keptUm } = thickness.dataset;
    // What is left as it was shown keeps its stored value; anything else is in the unit beside the field.
    const same = keptUm && thickness.value === thickness.defaultValue;
    const um = text === "" ? null : same ? Number(keptUm) : Number(text) * Number(umEach);
    const fault = document.querySelector("[data-cover-fault]");
    const none = kind.value === "nothing";
    fault.textContent = none && um !== null ? "Where no edge was felt there is no thickness" : `A thickness lies above 0 and up to ${umEach === "1" ? "1,000 µm" : "39 mil"}`;
    fault.hidden = um === null || (!none && um > 0 && um <= 1000);
    if (!fault.hidden) return thickness.focus();
    station.note("film.cover", { kind: kind.value, ...(um === null ? {} : { thickness_um: um }) });
  });

  return { restore: () => document.querySelector("#cue-light") && (document.querySelector("#cue-light").value = light) };
}
