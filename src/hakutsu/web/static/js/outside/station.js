/** The outside: every form is an entry, through the outbox; the sheet gives the place of a mark. */

import { clearOnce } from "../entry-form.js";
import { draft } from "../outbox.js";
import { openStation, readForm, say, sayAt } from "../station.js";
import { drawOn } from "./draw.js";

let shows = new URLSearchParams(location.search).get("shows") || "all";
const station = openStation("outside", { context: () => ({ shows }), fallback: () => station.main });
const { outbox } = station;

const box = document.querySelector("[data-draw]");
const drawn =
  box &&
  drawOn(box, {
    outline: () => document.querySelector("[data-outline]").checked,
    onPath(panel, path) {
      const form = document.querySelector("[data-entry='body.blemish']");
      form.elements.place.value = panel;
      form.elements.path.value = path.length ? JSON.stringify(path) : "";
      const words = ["no place on it yet", "a point on the sheet", "a line on the sheet"][path.length] ?? `a field of ${path.length} corners`;
      document.querySelector("[data-path-words]").textContent = words;
    },
  });

document.addEventListener("submit", async (event) => {
  const form = event.target.closest("form[data-entry]");
  if (!form) return;
  event.preventDefault();
  const button = event.submitter;
  const kind = button?.dataset.as || form.dataset.entry;
  const body = readForm(form);
  if (!body) return;
  if (button?.name === "kind") body.kind = button.dataset.other === undefined ? button.value : form.querySelector("[data-other-kind]").value;
  if (form.dataset.ids) body.blemishes = form.dataset.ids.split(",");
  if (kind === "body.event_dropped") delete body.what;
  if (button?.dataset.empty !== undefined) Object.keys(body).forEach((name) => name !== "place" && delete body[name]);
  if (body.kind === "unidentified" && !body.note) {
    document.querySelector("#more").open = true;
    sayAt(form, form.elements.note, "Of an unidentified mark say what was tried: wipe, nail, lamp.");
    return;
  }
  const place = form.elements.place?.value || null;
  await station.note(form, kind, body, place ? { place } : {});
  say(form, `${body.kind || "It"} noted`);
  clearOnce(form);
  drawn?.clear();
  const words = document.querySelector("[data-path-words]");
  if (words) words.textContent = "no place on it yet";
});

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-fill], [data-shows], [data-none]");
  if (!target) return;
  const { fill, value, shows: reach, none } = target.dataset;
  if (none) {
    const place = document.querySelector("#f-place").value;
    outbox.add([draft("general.nothing_found", { station: "outside", text: none }, { place })]);
  }
  if (fill) {
    const field = document.querySelector(`[name="${fill}"]`);
    field.value = value;
    field.focus();
  }
  if (reach) shows = reach;
});

station.ready();
