/** The outside: every form is an entry, through the outbox; the sheet gives the place of a mark. */

import { bodyOfForm, clearOnce, restore, snapshot } from "../entry-form.js";
import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";
import { drawOn } from "./draw.js";

const main = document.querySelector("[data-outside]");
const config = JSON.parse(main.dataset.config);
const sent = new Map(); // what the form held, by the id of its entry, until that is known to be stored
let shows = new URLSearchParams(location.search).get("shows") || "all";

const outbox = new Outbox(config.inspection, {
  context: () => ({ view: "outside", room: config.room, shows }),
  onReply: (reply) => {
    reply.acknowledged.forEach((id) => sent.delete(id));
    if (reply.fragments) swap(reply.fragments);
  },
  onState: showSaved,
  onRefused: (refused) => {
    say(null, `Not stored: ${refused.map((one) => `${one.field}: ${one.message}`).join("; ")}`, true);
    const held = sent.get(refused[0].draft.id);
    if (held) restore(held);
  },
});

function say(form, words, fault = false) {
  const said = (form || main).querySelector("[data-said]") || main.querySelector("[data-said]");
  if (!said) return;
  said.textContent = words;
  said.className = `min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

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
  const { body, fault, field } = bodyOfForm(form);
  if (fault) {
    say(form, fault, true);
    field.focus();
    return;
  }
  if (button?.name === "kind") body.kind = button.dataset.other === undefined ? button.value : form.querySelector("[data-other-kind]").value;
  if (form.dataset.ids) body.blemishes = form.dataset.ids.split(",");
  if (kind === "body.event_dropped") delete body.what;
  if (button?.dataset.empty !== undefined) Object.keys(body).forEach((name) => name !== "place" && delete body[name]);
  if (body.kind === "unidentified" && !body.note) {
    document.querySelector("#more").open = true;
    say(form, "Of an unidentified mark say what was tried: wipe, nail, lamp.", true);
    form.elements.note.focus();
    return;
  }
  const place = form.elements.place?.value || null;
  const made = draft(kind, body, place ? { place } : {});
  sent.set(made.id, snapshot(form));
  await outbox.add([made]);
  say(form, `${body.kind || "It"} noted`);
  clearOnce(form);
  drawn?.clear();
  const words = document.querySelector("[data-path-words]");
  if (words) words.textContent = "no place on it yet";
});

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-strike], [data-fill], [data-shows], [data-none]");
  if (!target) return;
  const { strike, fill, value, shows: reach, none } = target.dataset;
  if (none) {
    const place = document.querySelector("#f-place").value;
    outbox.add([draft("general.nothing_found", { station: "outside", text: none }, { place })]);
  }
  if (strike) outbox.add([draft("general.strike", {}, { strikes: strike })]);
  if (fill) {
    const field = document.querySelector(`[name="${fill}"]`);
    field.value = value;
    field.focus();
  }
  if (reach) shows = reach;
});

outbox.send();
document.documentElement.dataset.ready = "outside";
