/** The outside: every form is an entry, through the outbox; the sheet gives the place of a mark. */

import { around, field, fieldsOf, find, maybe } from "../dom.js";
import { clearOnce } from "../entry-form.js";
import { say, sayAt } from "../faults.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";
import { drawOn } from "./draw.js";

const NO_PLACE = "no place on it yet";
const PATH_WORDS = [NO_PLACE, "a point on the sheet", "a line on the sheet"];
let shows = new URLSearchParams(location.search).get("shows") || "all";
/** @type {ReturnType<typeof openStation>} */
const station = openStation("outside", { context: () => ({ shows }), fallback: () => station.main });

/** Looked, and nothing out of line: the gaps are even, nothing else is said. @param {import("../station.js").Body} body */
function emptied(body) {
  Object.keys(body).forEach((name) => name !== "place" && delete body[name]);
  body.gaps = "even";
}

/** @param {string} words */
function sayPath(words) {
  const place = document.querySelector("[data-path-words]");
  if (place) place.textContent = words;
}

const box = maybe("[data-draw]", HTMLElement);
const drawn =
  box &&
  drawOn(box, {
    outline: () => find("[data-outline]", HTMLInputElement).checked,
    onPath(panel, path) {
      const form = find("[data-entry='body.blemish']", HTMLFormElement);
      field(form, "place").value = panel;
      field(form, "path").value = path.length ? JSON.stringify(path) : "";
      sayPath(PATH_WORDS[path.length] ?? `a field of ${path.length} corners`);
    },
  });

station.forms({
  complete(form, made, button) {
    const { body } = made;
    const kind = button?.dataset.as || made.kind;
    if (button?.name === "kind") {
      body.kind = button.dataset.other === undefined ? button.value : find("[data-other-kind]", HTMLSelectElement, form).value;
    }
    if (form.dataset.ids) body.blemishes = form.dataset.ids.split(",");
    if (kind === "body.event_dropped") delete body.what;
    if (button?.dataset.empty !== undefined) emptied(body);
    if (body.kind === "unidentified" && !body.note) {
      find("#more", HTMLDetailsElement).open = true;
      sayAt(form, field(form, "note"), "Of an unidentified mark say what was tried: wipe, nail, lamp.");
      return null;
    }
    const place = fieldsOf(form).find((one) => one.name === "place")?.value;
    return { kind, body, envelope: place ? { place } : {} };
  },
  done(form, { body }) {
    say(form, `${body.kind || "It"} noted`);
    clearOnce(form);
    drawn?.clear();
    sayPath(NO_PLACE);
  },
});

document.addEventListener("click", (event) => {
  const { fill, value = "", shows: reach, none } = around(event, "[data-fill], [data-shows], [data-none]")?.dataset ?? {};
  if (none) {
    const place = find("#f-place", HTMLSelectElement).value;
    station.outbox.add([draft("general.nothing_found", { station: "outside", text: none }, { place })]);
  }
  if (fill) {
    const filled = find(`[name="${fill}"]`, HTMLInputElement);
    filled.value = value;
    filled.focus();
  }
  if (reach) shows = reach;
});

station.ready();
