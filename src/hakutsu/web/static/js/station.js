/**
 * What all stations of entry forms share: the outbox, messages at the form, strikes, and that a refused entry's form
 * gets back what was typed.
 */

import { bodyOfForm, restore, snapshot } from "./entry-form.js";
import { swap } from "./fragments.js";
import { draft, Outbox, showSaved } from "./outbox.js";

/** Say something at a form, or at the nearest place that has room for it. @param {Element} form */
export function say(form, words, fault = false) {
  const rooms = [form, form?.closest("[data-corner]"), document.querySelector("main")];
  const said = rooms.map((one) => one?.querySelector("[data-said]")).find(Boolean);
  if (!said) return;
  said.textContent = words;
  said.className = `min-h-6 ${fault ? "font-bold text-needs" : "text-soft"}`;
}

/** Say what is wrong with a field, below its row, and go there. @param {Element} form @param {HTMLElement} field */
export function sayAt(form, field, words) {
  const marked = field && mark(field, words);
  say(form, marked ? "" : words, true);
  field?.focus();
}

/** Mark a field as wrong and say why below its row, until it is changed; false where there is no room for it. @param {HTMLElement} field */
function mark(field, words) {
  unmark(field);
  field.setAttribute("aria-invalid", "true");
  const row = rowOf(field);
  if (!row) return false;
  const fault = document.createElement("p");
  fault.className = "field-fault basis-full col-span-full font-bold text-needs";
  fault.setAttribute("role", "alert");
  fault.id = `fault-${crypto.randomUUID()}`;
  fault.textContent = words;
  row.after(fault);
  field.dataset.fault = fault.id;
  field.setAttribute("aria-describedby", [...describedBy(field), fault.id].join(" "));
  field.addEventListener("input", () => unmark(field), { once: true });
  return true;
}

/** What stands in a line with a field: the outermost grid or row of boxes that is not the form itself. @param {HTMLElement} field */
function rowOf(field) {
  const form = field.closest("form, fieldset, details");
  let row = field.parentElement;
  if (!form || row === form) return form ? field : null;
  while (row.parentElement !== form && /grid|flex/.test(getComputedStyle(row.parentElement).display)) row = row.parentElement;
  return row;
}

/** Take back what was said of a field. @param {HTMLElement} field */
function unmark(field) {
  field.removeAttribute("aria-invalid");
  const { fault } = field.dataset;
  if (!fault) return;
  document.getElementById(fault)?.remove();
  const others = describedBy(field).filter((id) => id !== fault);
  if (others.length) field.setAttribute("aria-describedby", others.join(" "));
  else field.removeAttribute("aria-describedby");
  delete field.dataset.fault;
}

/** Ids of what describes a field. @param {HTMLElement} field */
function describedBy(field) {
  return (field.getAttribute("aria-describedby") ?? "").split(" ").filter(Boolean);
}

/** The field an entry's field came from. @param {HTMLFormElement} form @param {string} name */
export function fieldOf(form, name) {
  const plain = CSS.escape(name.split(".")[0]);
  return form.querySelector(`[name="${plain}"], [data-into="${plain}"]`);
}

/** What a form describes, or null after its fault was said at the field. @param {HTMLFormElement} form */
export function readForm(form) {
  form.querySelectorAll("[aria-invalid]").forEach(unmark);
  const { body, fault, field } = bodyOfForm(form);
  if (!fault) return body;
  sayAt(form, field, fault);
  return null;
}

/**
 * Open a station: its element carries `data-<view>` and its config as JSON.
 * @param {string} view
 * @param {{context?: () => object, again?: (kept: object) => HTMLFormElement|null, after?: () => void, fallback?: (refused: object) => Element}} hooks
 *   `again` finds a form that was swapped meanwhile, `after` runs after fragments came
 */
export function openStation(view, { context = () => ({}), again, after, fallback } = {}) {
  const main = document.querySelector(`[data-${view}]`);
  const config = JSON.parse(main.dataset.config);
  const sent = new Map(); // what a form held, by the id of its entry, until that is known to be stored

  const outbox = new Outbox(config.inspection, {
    context: () => ({ view, ...(config.room ? { room: config.room } : {}), ...context() }),
    onReply: (reply) => {
      reply.acknowledged.forEach((id) => sent.delete(id));
      if (reply.fragments) swap(reply.fragments);
      after?.();
    },
    onState: showSaved,
    onRefused: (refused) => {
      for (const one of refused) {
        const kept = sent.get(one.draft.id);
        const form = kept && (kept.form.isConnected ? kept.form : again?.(kept));
        if (form === kept?.form && kept) restore(kept.held);
        if (form) form.dataset.mends = one.draft.id; // sent anew from here, it need not be kept aside any longer
        const field = form && one.field ? fieldOf(form, one.field) : null;
        const name = field?.labels?.[0]?.textContent.trim() || one.field;
        const marked = field && mark(field, one.message);
        const words = [name, marked ? "" : one.message].filter(Boolean).join(": ");
        say(form ?? fallback?.(one), `Not stored: ${words}`, true);
      }
    },
  });

  document.addEventListener("click", (event) => {
    const strike = event.target.closest("[data-strike]")?.dataset.strike;
    if (strike) outbox.add([draft("general.strike", {}, { strikes: strike })]);
  });

  return {
    main,
    config,
    outbox,
    /** Make an entry of a form and send it; resolves once this device keeps it. @returns {Promise<object>} its draft */
    async note(form, kind, body, envelope = {}, more = {}) {
      const made = draft(kind, body, envelope);
      sent.set(made.id, { form, held: snapshot(form), ...more });
      await outbox.add([made]);
      const { mends } = form.dataset;
      delete form.dataset.mends;
      if (mends) await outbox.drop(mends);
      return made;
    },
    /** Send what waited, and tell tests and tools that the page listens. */
    ready() {
      outbox.send();
      document.documentElement.dataset.ready = view;
    },
  };
}
