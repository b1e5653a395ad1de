/**
 * What all stations of entry forms share: the outbox, messages at the form, strikes, and that a refused entry's form
 * gets back what was typed.
 */

import { around, configOf, find } from "./dom.js";
import { bodyOfForm, onSubmit, restore, snapshot } from "./entry-form.js";
import { fieldOf, mark, say, sayAt, unmark } from "./faults.js";
import { swap } from "./fragments.js";
import { draft, Outbox, showSaved } from "./outbox.js";
import { openUndo } from "./undo.js";

/**
 * @typedef {import("./outbox.js").Draft} Draft
 * @typedef {import("./outbox.js").Refused} Refused
 * @typedef {Record<string, any>} Body
 * @typedef {{place?: string | null, how?: string, own_doing?: boolean, said_as?: string}} Envelope
 * @typedef {{form: HTMLFormElement, held: ReturnType<typeof snapshot>, again?: string}} Sent what a form held when it was
 *   sent, and a selector of the form that may have taken its place
 * @typedef {{kind: string, body: Body, envelope?: Envelope, again?: string}} Made
 */

/** How sure it was said, where a form asks and somebody answered. @param {HTMLFormElement} form */
function sureness(form) {
  const asked = form.querySelector("select[name=said_as]");
  return asked instanceof HTMLSelectElement && asked.value ? { said_as: asked.value } : {};
}

/** What a form describes, or null after its fault was said at the field. @param {HTMLFormElement} form @returns {Body | null} */
function readForm(form) {
  form.querySelectorAll("[aria-invalid]").forEach((one) => unmark(/** @type {import("./dom.js").Field} */ (one)));
  const { body, fault, field } = bodyOfForm(form);
  if (!fault) return body;
  sayAt(form, field, fault);
  return null;
}

/**
 * Open a station: its element carries `data-<view>`, or is given, and has its config as JSON.
 * @param {string} view
 * @param {{main?: HTMLElement, context?: () => Record<string, string>, after?: () => void, fallback?: (refused: Refused) => Element | null}} [hooks]
 *   `context` goes along with what is sent, `after` runs after fragments came, `fallback` says where a refusal without a
 *   form is told
 */
export function openStation(view, { main = find(`[data-${view}]`, HTMLElement), context = () => ({}), after, fallback } = {}) {
  const config = configOf(main);
  /** By the id of an entry, until that is known to be stored. @type {Map<string, Sent>} */
  const sent = new Map();

  const outbox = new Outbox(config.inspection, {
    context: () => ({ view, ...(config.room ? { room: config.room } : {}), ...context() }),
    onReply: (reply) => reply.acknowledged.forEach((id) => sent.delete(id)),
    onParts: (parts) => {
      swap(parts);
      showUndo();
      after?.();
    },
    onState: showSaved,
    onRefused: (refused) => refused.forEach((one) => sayRefused(one, sent.get(one.draft.id), fallback?.(one) ?? null)),
  });

  const showUndo = openUndo(outbox);

  document.addEventListener("click", (event) => {
    const strike = around(event, "[data-strike]")?.dataset.strike;
    if (strike) outbox.add([draft("general.strike", {}, { strikes: strike })]);
  });

  /** Send an entry of a form; where this device cannot keep it, the form gets back what it held. @param {HTMLFormElement} form @param {Made} made @returns {Draft} */
  function note(form, { kind, body, envelope = {}, again }) {
    const one = draft(kind, body, { ...envelope, ...sureness(form) });
    const held = snapshot(form);
    sent.set(one.id, { form, held, again });
    keep(form, one).catch(() => {
      restore(held);
      say(form, "This browser could not keep it: free some space, then send it again.", true);
    });
    return one;
  }

  /** @param {HTMLFormElement} form @param {Draft} one */
  async function keep(form, one) {
    await outbox.add([one]);
    const { mends } = form.dataset;
    delete form.dataset.mends;
    if (mends) await outbox.drop(mends);
  }

  return {
    main,
    config,
    outbox,
    note,
    /**
     * Every form with `data-entry` is an entry of that kind: read, completed, sent, then `done`, which empties it for the
     * next. A station completes what the fields say, or says what is missing and gives nothing.
     * @param {{
     *   complete?: (form: HTMLFormElement, made: Made, button: HTMLButtonElement | null) => Made | null | Promise<Made | null>,
     *   done?: (form: HTMLFormElement, made: Made, one: Draft) => void,
     * }} [hooks]
     */
    forms({ complete = (_form, made) => made, done = (form) => form.reset() } = {}) {
      onSubmit("form[data-entry]", async (form, button) => {
        const body = readForm(form);
        if (!body) return;
        // Without a pause where nothing is asked: what is typed next must find the form as it was left.
        const given = complete(form, { kind: form.dataset.entry ?? "", body }, button);
        const made = given instanceof Promise ? await given : given;
        if (!made) return;
        const one = note(form, made);
        say(form, "noted");
        done(form, made, one);
      });
    },
    /** Send what waited, and tell tests and tools that the page listens. */
    ready() {
      outbox.send();
      document.documentElement.dataset.ready = view;
    },
  };
}

/** Give back what a refused entry's form held, and say why. @param {Refused} refused @param {Sent | undefined} kept @param {Element | null} fallback */
function sayRefused(refused, kept, fallback) {
  const again = kept?.again ? document.querySelector(kept.again) : null;
  const form = kept?.form.isConnected ? kept.form : again instanceof HTMLFormElement ? again : null;
  if (kept && form === kept.form) restore(kept.held);
  if (form) form.dataset.mends = refused.draft.id; // sent anew from here, it need not be kept aside any longer
  const field = form && refused.field ? fieldOf(form, refused.field) : null;
  const name = field?.labels?.[0]?.textContent?.trim() || refused.field;
  const marked = field && mark(field, refused.message);
  const words = [name, marked ? "" : refused.message].filter(Boolean).join(": ");
  say(form ?? fallback, `Not stored: ${words}`, true);
}
