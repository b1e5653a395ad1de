/** Life and money: controls that show what they would change, and forms that are entries. */

import { all, field, fieldsOf, find, maybe } from "../dom.js";
import { onSubmit } from "../entry-form.js";
import { say, sayAt } from "../faults.js";
import { swap } from "../fragments.js";
import { draft } from "../outbox.js";
import { ask } from "../server.js";
import { openStation } from "../station.js";

const PAUSE_MS = 120;
const LEAST_KM = 1;
const MOST_KM = 200000;
const control = maybe("form[data-control]", HTMLFormElement);
const station = openStation("life", { fallback: () => control });
const { config, outbox } = station;

/** An amount as it is written: "9 900", "1,250.50", "1250,50"; what is wrong with it where it is none, or may be two. @param {string} text @returns {{amount: string} | {fault: string}} */
function amountOf(text) {
  const plain = text.replaceAll(/[\s’'_]/g, "");
  if (/^\d+([.,]\d{1,2})?$/.test(plain)) return { amount: plain.replace(",", ".") };
  const found = /^(\d{1,3}(?:([.,])\d{3})(?:\2\d{3})*)(?:(?!\2)[.,](\d{1,3}))?$/.exec(plain);
  if (!found) return { fault: `“${text}” is no amount; write it in figures, such as 250 or 250.50.` };
  const digits = (found[1] ?? "").replaceAll(/[.,]/g, "");
  if (found[3] === undefined && plain.length <= 7) return { fault: `“${text}” may be ${digits} or ${plain.replace(",", ".")}: write ${digits}, or two decimals.` };
  return { amount: found[3] === undefined ? digits : `${digits}.${found[3]}` };
}

/** What a line was before a button of it is pressed: its own amount and note stay. @param {HTMLFormElement} form @param {Record<string, any>} body */
function kept(form, body) {
  const { treat, note = "", disclosed, figure } = form.dataset;
  return { treat, note, disclosed: disclosed === "yes", ...(figure && !("amount" in body) ? { amount: figure } : {}) };
}

station.forms({
  complete(form, { kind, body }, button) {
    if ("amount" in body) {
      const read = amountOf(body.amount);
      if ("fault" in read) {
        sayAt(form, field(form, "amount"), read.fault);
        return null;
      }
      body.amount = read.amount;
    }
    const { code, subject, of, wrap } = form.dataset;
    if (code) Object.assign(body, { code, subject }, kept(form, body));
    if (button?.name === "treat") body.treat = button.value;
    if (button?.name === "told") {
      body.disclosed = button.value !== "new";
      body.taken_off = button.value === "taken_off";
    }
    if (of) body.of = of;
    const place = fieldsOf(form).find((one) => one.name === "place")?.value;
    const line = `[data-code="${CSS.escape(code ?? "")}"][data-subject="${CSS.escape(subject ?? "")}"]`;
    const again = code ? line : `[data-of="${of}"]`;
    return { kind, body: wrap ? { [wrap]: body } : body, envelope: place ? { place } : {}, again };
  },
  done(form) {
    if (form.dataset.entry === "life.proof") field(form, "proof").value = "";
  },
});

if (control) openControl(control);

/** The control of distance and use, and the picture for what it says. @param {HTMLFormElement} form */
function openControl(form) {
  const km = field(form, "km");
  const figures = () => km.value.replaceAll(/[\s,]/g, "");
  const used = () => all("[data-use]:checked", HTMLInputElement, form).map((one) => one.dataset.use ?? "");
  let turn = 0;
  let timer = 0;

  async function show() {
    const mine = (turn += 1);
    const text = figures();
    const wrong = !/^\d+(\.\d+)?$/.test(text) || Number(text) < LEAST_KM || Number(text) > MOST_KM;
    km.toggleAttribute("aria-invalid", wrong);
    if (wrong) {
      say(form, "Write a yearly distance in figures, from 1 to 200,000.", true);
      return;
    }
    const asked = new URLSearchParams({ km: km.value, use: used().join(",") });
    try {
      const { fragments } = await ask("GET", `/inspections/${config.inspection}/life/${config.room}/picture?${asked}`);
      if (mine !== turn) return; // a later move of the control is under way
      swap(fragments);
      say(form, "Shown for this distance and use; nothing is kept until you say so.");
    } catch {
      if (mine === turn) say(form, "The server does not answer; what you see is for the distance before.", true);
    }
  }

  form.addEventListener("input", () => {
    clearTimeout(timer);
    timer = setTimeout(show, PAUSE_MS);
  });
  onSubmit("form[data-control]", show);
  find("[data-keep]", HTMLButtonElement, form).addEventListener("click", () => {
    const distance = Math.round(Number(figures()) * config.factor);
    if (!(distance >= LEAST_KM && distance <= MOST_KM)) {
      show();
      return;
    }
    config.brief = { ...config.brief, km_per_year: distance, use_factors: used() };
    outbox.add([draft("inspection.brief", config.brief)]);
    say(form, "Kept in the brief.");
  });
}

station.ready();
