/** Life and money: controls that show what they would change, and forms that are entries. */

import { swap } from "../fragments.js";
import { draft } from "../outbox.js";
import { openStation, readForm, say, sayAt } from "../station.js";

const PAUSE_MS = 120;
const control = document.querySelector("[data-control]");
const station = openStation("life", { again: (kept) => document.querySelector(kept.again), fallback: () => control });
const { config, outbox } = station;

/** An amount as it is written: "1,250.50", "1250,50". @param {string} text */
function amountOf(text) {
  const plain = text.replaceAll(/\s/g, "");
  const decimal = /,\d{1,2}$/.test(plain) ? plain.replaceAll(".", "").replace(",", ".") : plain.replaceAll(",", "");
  return /^\d+(\.\d+)?$/.test(decimal) ? decimal : null;
}

document.addEventListener("submit", (event) => {
  const form = event.target.closest("form");
  if (form === control) {
    event.preventDefault();
    show();
    return;
  }
  if (!form?.dataset.entry) return;
  event.preventDefault();
  const body = readForm(form);
  if (!body) return;
  if ("amount" in body) {
    const amount = amountOf(body.amount);
    if (amount === null) {
      sayAt(form, form.elements.amount, `“${body.amount}” is no amount; write it in figures, such as 250 or 250.50.`);
      return;
    }
    body.amount = amount;
  }
  if (event.submitter?.name === "treat") body.treat = event.submitter.value;
  if (form.dataset.code) Object.assign(body, { code: form.dataset.code, subject: form.dataset.subject });
  if (form.dataset.of) body.of = form.dataset.of;
  const place = form.elements.place?.value;
  const line = `[data-code="${CSS.escape(form.dataset.code ?? "")}"][data-subject="${CSS.escape(form.dataset.subject ?? "")}"]`;
  const again = form.dataset.code ? line : `[data-of="${form.dataset.of}"]`;
  station.note(form, form.dataset.entry, form.dataset.wrap ? { [form.dataset.wrap]: body } : body, place ? { place } : {}, { again });
  say(form, "noted");
  if (form.dataset.entry === "life.proof") form.elements.proof.value = "";
});

/** What the control says: distance as it is written, uses ticked. */
function asked() {
  const uses = [...control.querySelectorAll("[data-use]:checked")].map((one) => one.dataset.use);
  return new URLSearchParams({ km: control.elements.km.value, use: uses.join(",") });
}

let turn = 0;
async function show() {
  const mine = (turn += 1);
  const text = control.elements.km.value.replaceAll(/[\s,]/g, "");
  const wrong = !/^\d+(\.\d+)?$/.test(text) || Number(text) < 1 || Number(text) > 200000;
  control.elements.km.toggleAttribute("aria-invalid", wrong);
  if (wrong) {
    say(control, "Write a yearly distance in figures, from 1 to 200,000.", true);
    return;
  }
  const response = await fetch(`/inspections/${config.inspection}/life/${config.room}/picture?${asked()}`);
  if (mine !== turn) return; // a later move of the control is under way
  if (!response.ok) {
    say(control, "The server does not answer; what you see is for the distance before.", true);
    return;
  }
  swap((await response.json()).fragments);
  say(control, "Shown for this distance and use; nothing is kept until you say so.");
}

if (control) {
  let timer;
  control.addEventListener("input", () => {
    clearTimeout(timer);
    timer = setTimeout(show, PAUSE_MS);
  });
  control.querySelector("[data-keep]").addEventListener("click", () => {
    const km = Math.round(Number(control.elements.km.value.replaceAll(/[\s,]/g, "")) * config.factor);
    if (!(km >= 1 && km <= 200000)) {
      show();
      return;
    }
    config.brief = { ...config.brief, km_per_year: km, use_factors: asked().get("use").split(",").filter(Boolean) };
    outbox.add([draft("inspection.brief", config.brief)]);
    say(control, "Kept in the brief.");
  });
}

station.ready();
