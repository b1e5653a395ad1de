/**
 * Entries that the server would not take: shown with their reason on every page that writes, to be mended, sent again or
 * dropped. They stay on this device until then.
 * @typedef {import("./outbox.js").Row} Row
 * @typedef {import("./outbox.js").Outbox} Outbox
 */

import { maybe } from "./dom.js";

/**
 * @template {keyof HTMLElementTagNameMap} T
 * @param {T} tag
 * @param {string} look
 * @param {...(string|Node)} inside
 */
function element(tag, look, ...inside) {
  const made = document.createElement(tag);
  if (look) made.className = look;
  made.append(...inside);
  return made;
}

/** @param {string} words @param {() => void} action @param {string} [look] */
function button(words, action, look = "button") {
  const made = element("button", look, words);
  made.type = "button";
  made.addEventListener("click", action);
  return made;
}

const MAIN = new Set(["value_um", "text", "place", "question", "because", "note"]);
/** @type {Record<string, string>} */
const UNITS = { um: "µm", mm: "mm", c: "°C", km: "km", bar: "bar", v: "V", s: "s" };
const plain = (/** @type {string} */ key) => key.replace(/[._]/g, " ");

/** A field's name in words, with its unit. @param {string} name */
function label(name) {
  const [, stem, ending] = /^(.+)_([a-z]+)$/.exec(name) ?? [];
  return UNITS[ending] ? `${plain(stem)} [${UNITS[ending]}]` : plain(name);
}

const capital = (/** @type {string} */ words) => words.charAt(0).toUpperCase() + words.slice(1);

/** What a field of the dialog says, in the kind of value it was. @param {HTMLInputElement} field @param {unknown} before */
function valueOf(field, before) {
  if (typeof before === "boolean") return field.checked;
  const text = field.value.trim();
  if (typeof before === "string") return text;
  const number = Number(text.replace("−", "-").replace(",", "."));
  if (typeof before === "number" && text !== "" && !Number.isNaN(number)) return number;
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/** @param {string} name @param {unknown} value @param {string} id */
function fieldOf(name, value, id) {
  const field = element("input", typeof value === "boolean" ? "size-6" : "field w-full");
  field.id = id;
  field.name = name;
  field.type = typeof value === "boolean" ? "checkbox" : "text";
  if (typeof value === "boolean") field.checked = value;
  else field.value = typeof value === "object" ? JSON.stringify(value) : String(value ?? "");
  const words = element("label", "block", label(name));
  words.htmlFor = id;
  return element("div", "", words, field);
}

/** @param {Row} row @param {Outbox} outbox */
function item(row, outbox) {
  const { draft, aside = { field: "", message: "" } } = row;
  const form = element("form", "grid gap-2 border-t border-line py-3");
  const where = draft.place ? ` at ${plain(draft.place)}` : "";
  const at = new Date(draft.at).toLocaleString([], { dateStyle: "short", timeStyle: "short" });
  const reason = [label(aside.field), aside.message].filter(Boolean).join(": ");
  /** @type {[string, unknown][]} */
  const fields = [...Object.entries(draft.body ?? {}), ["place", draft.place ?? ""]];
  const first = fields.filter(([name]) => name === aside.field.split(".")[0] || MAIN.has(name));
  const more = fields.filter((one) => !first.includes(one));
  const shown = (/** @type {[string, unknown]} */ [name, value]) => fieldOf(name, value, `aside-${draft.id}-${name}`);
  form.append(
    element("p", "font-bold", capital(`${plain(draft.kind)}${where}, ${at}`)),
    element("p", "font-bold text-needs wrap-anywhere", `Not stored: ${reason}`),
    ...first.map(shown),
    element("details", more.length ? "" : "hidden", element("summary", "min-h-11 inline-flex items-center", "All that it says"), ...more.map(shown)),
  );
  const send = element("button", "button button-main", "Send again");
  form.append(element("p", "flex gap-2", send, button("Drop", () => outbox.drop(draft.id))));
  form.addEventListener("submit", (event) => {
    event.preventDefault();
    outbox.retry(row.order, mended(row, form));
  });
  return form;
}

/** The entry as the dialog has it now; with an id of its own where that was what was wrong. @param {Row} row @param {HTMLFormElement} form */
function mended({ draft, aside }, form) {
  const field = (/** @type {string} */ name) => /** @type {HTMLInputElement} */ (document.getElementById(`aside-${draft.id}-${name}`));
  const body = Object.fromEntries(Object.entries(draft.body ?? {}).map(([name, value]) => [name, valueOf(field(name), value)]));
  const place = form.isConnected ? field("place").value.trim() || null : draft.place;
  return { ...draft, id: aside?.field === "id" ? crypto.randomUUID() : draft.id, place, body };
}

/** @returns {HTMLDialogElement} */
function dialog() {
  const there = maybe("#aside", HTMLDialogElement);
  if (there) return there;
  const made = element("dialog", "m-auto max-h-[90vh] w-[min(92vw,36rem)] overflow-y-auto border border-edge bg-sheet p-4 text-ink");
  made.id = "aside";
  made.setAttribute("aria-labelledby", "aside-title");
  document.body.append(made);
  return made;
}

/** Show what stepped aside, and the button that leads to it. @param {Row[]} rows @param {Outbox} outbox */
export function showAside(rows, outbox) {
  const chip = document.querySelector("#saved");
  let open = document.querySelector("#aside-open");
  if (!rows.length) {
    open?.remove();
    maybe("#aside", HTMLDialogElement)?.close();
    return;
  }
  const box = dialog();
  const title = element("h2", "text-xl font-bold", rows.length === 1 ? "One entry is not stored" : `${rows.length} entries are not stored`);
  title.id = "aside-title";
  box.replaceChildren(
    element("div", "flex items-start justify-between gap-4", title, button("Close", () => box.close())),
    element("p", "my-2", "They are kept on this device. Mend what is wrong and send them again, or drop them."),
    ...rows.map((row) => item(row, outbox)),
  );
  if (!open && chip) {
    open = button("", () => dialog().showModal(), "button button-needs px-2");
    open.id = "aside-open";
    chip.after(open);
  }
  if (open) open.textContent = `${rows.length} not stored`;
}
