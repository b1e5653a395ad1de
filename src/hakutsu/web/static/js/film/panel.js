/** Cues, magnet, covers, notes and limits of the panel in hand: each a tap or a line that becomes an entry. */

import { around, field, find, maybe } from "../dom.js";
import { numberOf, onSubmit } from "../entry-form.js";

const MOST_COVER_UM = 1000;

/** Take what a field says, once it says something. @param {HTMLFormElement} form @param {string} name @param {(text: string) => unknown} use */
function textIn(form, name, use) {
  const typed = field(form, name);
  const text = typed.value.trim();
  if (!text) {
    typed.focus();
    return;
  }
  typed.value = "";
  use(text);
}

/**
 * @param {{note: (kind: string, body: Record<string, unknown>) => Promise<void>, position: () => {u?: number, v?: number}}} station
 */
export function panelForms(station) {
  let light = "daylight";

  document.addEventListener("click", (event) => {
    const { cue, there } = around(event, "[data-cue]")?.dataset ?? {};
    const { magnet } = around(event, "[data-magnet]")?.dataset ?? {};
    if (cue) {
      const note = find("#cue-note", HTMLInputElement).value.trim();
      station.note("film.cue", { cue, there: there === "true", light, note });
    }
    if (magnet) station.note("film.magnet", { grade: magnet, ...station.position() });
  });

  document.addEventListener("change", (event) => {
    if (event.target instanceof HTMLSelectElement && event.target.id === "cue-light") light = event.target.value;
  });

  onSubmit("[data-cover-form]", (form) => {
    const kind = field(form, "kind").value;
    const thickness = field(form, "thickness");
    const { umEach = "1", keptUm } = thickness.dataset;
    // What is left as it was shown keeps its stored value; anything else is in the unit beside the field.
    const same = keptUm && thickness instanceof HTMLInputElement && thickness.value === thickness.defaultValue;
    const typed = numberOf(thickness.value);
    const um = typed === null ? null : same ? Number(keptUm) : typed * Number(umEach);
    const fault = find("[data-cover-fault]", HTMLElement);
    const none = kind === "nothing";
    fault.textContent = none && um !== null ? "Where no edge was felt there is no thickness" : `A thickness lies above 0 and up to ${umEach === "1" ? "1,000 µm" : "39 mil"}`;
    fault.hidden = um === null || (!none && um > 0 && um <= MOST_COVER_UM);
    if (fault.hidden) station.note("film.cover", { kind, ...(um === null ? {} : { thickness_um: um }) });
    else thickness.focus();
  });

  onSubmit("[data-limit-form]", (form) => textIn(form, "because", (because) => station.note("general.limit", { station: "film", because })));
  onSubmit("[data-note-form]", (form, button) => {
    const kind = button?.value || "general.seen";
    textIn(form, "note", (text) => station.note(kind, { station: "film", [kind === "general.seen" ? "text" : "done"]: text }));
  });

  return {
    restore() {
      const chosen = maybe("#cue-light", HTMLSelectElement);
      if (chosen) chosen.value = light;
    },
  };
}
