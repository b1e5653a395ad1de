/**
 * What was typed into a form that the page is left for stays on this device until it was taken: a lost server, a closed
 * window or a slip of the finger loses nothing.
 */

import { all, fieldsOf, isField } from "./dom.js";

const DAYS = 3;
const DAY_MS = 24 * 60 * 60 * 1000;
const SENT = "draft-sent";

/** @typedef {{at: number, values: Record<string, string>}} Kept */

// Entries that a form has made are kept by the outbox; what stands in such a form and was not sent yet is kept here.
const ENTRIES = "form[data-entry], form[data-remark], form[data-limit]";

/** @param {HTMLFormElement} form */
const keyOf = (form) => {
  const { entry = "", place = "" } = form.dataset;
  const alike = all(form.method === "post" ? "form[method=post]" : ENTRIES, HTMLFormElement);
  return `draft:${location.pathname}:${form.getAttribute("action") ?? `${entry}:${place}`}:${alike.indexOf(form)}`;
};

/** What a form shows, by the names of its fields. @param {HTMLFormElement} form @returns {Record<string, string>} */
function shown(form) {
  const values = /** @type {Record<string, string>} */ ({});
  for (const one of fieldsOf(form)) {
    if (one instanceof HTMLInputElement && ["hidden", "file", "password", "submit"].includes(one.type)) continue;
    const ticks = one instanceof HTMLInputElement && ["checkbox", "radio"].includes(one.type);
    values[ticks ? `${one.name}=${one.value}` : one.name] = ticks ? String(one.checked) : one.value;
  }
  return values;
}

/** @param {HTMLFormElement} form @param {Record<string, string>} values */
function put(form, values) {
  for (const one of fieldsOf(form)) {
    const ticks = one instanceof HTMLInputElement && ["checkbox", "radio"].includes(one.type);
    const value = values[ticks ? `${one.name}=${one.value}` : one.name];
    if (value === undefined) continue;
    if (ticks) one.checked = value === "true";
    else one.value = value;
  }
}

/** @param {string} key @returns {Kept | null} */
function kept(key) {
  try {
    const found = JSON.parse(localStorage.getItem(key) ?? "null");
    return found && Date.now() - found.at < DAYS * DAY_MS ? found : null;
  } catch {
    return null;
  }
}

/** Say that a form was filled with what was typed before, and let it be dropped. @param {HTMLFormElement} form @param {string} key @param {Kept} draft @param {Record<string, string>} before */
function tell(form, key, draft, before) {
  const line = document.createElement("p");
  line.className = "basis-full border-l-4 border-needs pl-3";
  line.setAttribute("role", "status");
  line.append(`What you typed at ${new Date(draft.at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" })} was not saved; it is back. `);
  const drop = document.createElement("button");
  drop.type = "button";
  drop.className = "button button-plain";
  drop.textContent = "Drop it";
  drop.addEventListener("click", () => {
    put(form, before);
    localStorage.removeItem(key);
    line.remove();
  });
  line.append(drop);
  form.prepend(line);
}

/** Leave for the server's answer only where there is one: else the page stays, with all that was typed. @param {HTMLFormElement} form @param {string} key @param {HTMLElement | null} submitter */
async function send(form, key, submitter) {
  try {
    await fetch("/static/mark.svg", { method: "HEAD", cache: "no-store" });
  } catch {
    form.querySelector("[data-lost]")?.remove();
    const line = document.createElement("p");
    line.className = "basis-full font-bold text-needs";
    line.dataset.lost = "";
    line.setAttribute("role", "alert");
    line.textContent = "The server does not answer. What you typed stays here; send it again.";
    form.prepend(line);
    return;
  }
  sessionStorage.setItem(SENT, key);
  form.dataset.going = "";
  form.requestSubmit(submitter instanceof HTMLButtonElement ? submitter : null);
  delete form.dataset.going;
}

const sent = sessionStorage.getItem(SENT);
sessionStorage.removeItem(SENT);
// A form that came back with a fault shows what was typed by itself; one that went through is at another address, or shows no fault.
if (sent && !document.querySelector("[aria-invalid], .fault:not([hidden])")) localStorage.removeItem(sent);

/** Keep what is typed into a form, and bring back what was left in it. @param {HTMLFormElement} form @returns {string} */
function watch(form) {
  const key = keyOf(form);
  const before = shown(form);
  const draft = kept(key);
  if (draft && JSON.stringify(draft.values) !== JSON.stringify(before) && !form.querySelector("[aria-invalid]")) {
    put(form, draft.values);
    tell(form, key, draft, before);
    form.closest("details")?.setAttribute("open", "");
  }
  form.addEventListener("input", (event) => {
    if (!isField(event.target)) return;
    try {
      localStorage.setItem(key, JSON.stringify({ at: Date.now(), values: shown(form) }));
    } catch {
      // no space left on this device: the form itself still holds what was typed
    }
  });
  return key;
}

for (const form of all("form[method=post]", HTMLFormElement)) {
  const key = watch(form);
  form.addEventListener("submit", (event) => {
    if (event.defaultPrevented || form.dataset.going !== undefined) return;
    event.preventDefault();
    send(form, key, event.submitter);
  });
}

for (const form of all(ENTRIES, HTMLFormElement)) {
  const key = watch(form);
  form.addEventListener("submit", () => localStorage.removeItem(key));
}
