/** The underside: a tap on the schematic chooses the zone of the form; every form is an entry. */

import { draft } from "../outbox.js";
import { openStation, readForm, say, sayAt } from "../station.js";

const zoneForm = document.querySelector("[data-entry='under.zone']");
const station = openStation("under", { after: () => mark(zoneForm.elements.zone.value) });

function mark(zone) {
  for (const one of document.querySelectorAll("[data-zone] rect")) {
    one.classList.toggle("ud-chosen", one.parentElement.dataset.zone === zone);
  }
}

/** All but the zone goes back to nothing said. @param {HTMLFormElement} form */
function emptied(form) {
  const zone = form.elements.zone.value;
  form.reset();
  form.elements.zone.value = zone;
}

document.addEventListener("submit", (event) => {
  const form = event.target.closest("form[data-entry]");
  if (!form) return;
  event.preventDefault();
  const body = readForm(form);
  if (!body) return;
  if (form.dataset.entry === "leak.seen" && !body.origin) {
    sayAt(form, form.elements.origin, "Say where it comes from, or “not known”.");
    return;
  }
  if (body.leak_note !== undefined) {
    body.note = body.leak_note;
    delete body.leak_note;
  }
  const own = form.elements.own_doing?.checked ? { own_doing: true } : {};
  station.note(form, form.dataset.entry, event.submitter?.dataset.nothing === undefined ? body : { zone: body.zone }, own);
  say(form, "noted");
  if (form === zoneForm) emptied(form);
  else for (const name of ["drops", "minutes", "leak_note"]) form.elements[name].value = "";
});

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-zone], [data-rest], [data-again]");
  if (!target) return;
  const { zone, rest, again } = target.dataset;
  if (zone) {
    event.preventDefault();
    zoneForm.elements.zone.value = zone;
    mark(zone);
    zoneForm.querySelector("[data-nothing]").focus({ preventScroll: true });
  }
  if (rest) station.outbox.add(rest.split(",").map((one) => draft("under.zone", { zone: one })));
  if (again) lookAgain(JSON.parse(again));
});

/** A second look begins with the same fluid, origin and place. @param {{fluid: string, origin: string, zone: string}} leak */
function lookAgain(leak) {
  const form = document.querySelector("[data-entry='leak.seen']");
  for (const [name, value] of Object.entries(leak)) form.elements[name].value = value;
  say(form, "Second look: say its stage now.");
  form.elements.stage.focus();
}

zoneForm.elements.zone.addEventListener("change", () => mark(zoneForm.elements.zone.value));
mark(zoneForm.elements.zone.value);
station.ready();
