/** The underside: a tap on the schematic chooses the zone of the form; every form is an entry. */

import { all, around, field, fieldsOf, find, maybe, ticked } from "../dom.js";
import { say, sayAt } from "../faults.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";
import { CLEAR, sortRust } from "./zone.js";

const zoneForm = find("[data-entry='under.zone']", HTMLFormElement);
const zone = field(zoneForm, "zone");
const station = openStation("under", { after: () => mark(zone.value) });

/** @param {string} chosen */
function mark(chosen) {
  for (const one of all("[data-zone]", SVGElement)) one.querySelector("rect")?.classList.toggle("ud-chosen", one.dataset.zone === chosen);
}

station.forms({
  complete(form, { kind, body }, button) {
    if (kind === "leak.seen" && !body.origin) {
      sayAt(form, field(form, "origin"), "Say where it comes from, or “not known”.");
      return null;
    }
    if (body.leak_note !== undefined) {
      body.note = body.leak_note;
      delete body.leak_note;
    }
    const own = fieldsOf(form).some((one) => one.name === "own_doing" && ticked(one));
    const nothing = button?.dataset.nothing !== undefined;
    if (kind === "under.zone") sortRust(body);
    return { kind, body: nothing ? { zone: body.zone, clear: CLEAR } : body, envelope: own ? { own_doing: true } : {} };
  },
  done(form) {
    if (form !== zoneForm) {
      for (const name of ["drops", "minutes", "counted", "counted_min", "leak_note"]) field(form, name).value = "";
      return;
    }
    const chosen = zone.value;
    form.reset();
    zone.value = chosen;
  },
});

document.addEventListener("click", (event) => {
  const target = around(event, "[data-zone], [data-rest], [data-again]");
  const { zone: chosen, rest, again } = target?.dataset ?? {};
  if (chosen) {
    event.preventDefault();
    zone.value = chosen;
    mark(chosen);
    maybe("[data-nothing]", HTMLElement, zoneForm)?.focus({ preventScroll: true });
  }
  if (rest) station.outbox.add(rest.split(",").map((one) => draft("under.zone", { zone: one, clear: CLEAR })));
  if (again) lookAgain(JSON.parse(again));
});

/** A second look begins with the same fluid, origin and place. @param {{fluid: string, origin: string, zone: string}} leak */
function lookAgain(leak) {
  const form = find("[data-entry='leak.seen']", HTMLFormElement);
  for (const [name, value] of Object.entries(leak)) field(form, name).value = value;
  say(form, "Second look: say its stage now.");
  field(form, "stage").focus();
}

zone.addEventListener("change", () => mark(zone.value));
mark(zone.value);
station.ready();
