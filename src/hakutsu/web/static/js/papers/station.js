/** Papers: numbers are counted while they are typed, marks say how they are written. */

import { all, maybe } from "../dom.js";
import { openStation } from "../station.js";

const LENGTH = 17;
const station = openStation("papers");
station.forms({
  complete(form, made) {
    const chosen = form.elements.namedItem("place");
    const place = form.dataset.place || (chosen instanceof HTMLSelectElement ? chosen.value : "");
    const { picture, register, station: limited } = form.dataset;
    const body = {
      ...made.body,
      ...(picture ? { from_picture: true, picture } : {}),
      ...(register ? { register_key: register } : {}),
      ...(limited ? { station: limited, partly: true } : {}),
    };
    return { ...made, body, envelope: place ? { place } : {} };
  },
  done(form) {
    const lasting = all("[data-lasting]", HTMLSelectElement).map((one) => /** @type {const} */ ([one, one.value]));
    form.reset();
    for (const [one, value] of lasting) one.value = value;
    counted();
    asWritten();
  },
});

/** How many characters there are, and which of them no number has. */
function counted() {
  for (const field of all("[data-number]", HTMLInputElement)) {
    const said = document.getElementById(field.getAttribute("aria-describedby") ?? "");
    const text = field.value.toUpperCase().replace(/[\s‐‑-]/g, "");
    const odd = [...new Set(text.replace(/[A-HJ-NPR-Z0-9?]/g, ""))].join(" ");
    if (said) said.textContent = text ? `${text.length} of ${LENGTH}${odd ? `; not used in one: ${odd}` : ""}` : "";
  }
}

/** The way the chosen kind of code is written, and its table only where it has one. */
function asWritten() {
  const code = maybe("#m-code", HTMLSelectElement)?.value ?? "";
  for (const one of all("[data-how]", HTMLElement)) one.hidden = one.dataset.how !== code;
  for (const one of all("[data-table-for]", HTMLElement)) {
    one.hidden = !(one.dataset.tableFor ?? "").split(" ").includes(code);
    const field = one.querySelector("input");
    if (one.hidden && field) field.value = "";
  }
}

document.addEventListener("input", counted);
maybe("#m-mark", HTMLSelectElement)?.addEventListener("change", (event) => {
  const [chosen] = event.target instanceof HTMLSelectElement ? event.target.selectedOptions : [];
  const code = maybe("#m-code", HTMLSelectElement);
  if (code && chosen?.dataset.code) code.value = chosen.dataset.code;
  asWritten();
});
maybe("#m-code", HTMLSelectElement)?.addEventListener("change", asWritten);
counted();
asWritten();
station.ready();
