/** The road: a tap says what was noticed, or that the rest was fine; forms say more of it. */

import { all, around, maybe } from "../dom.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";

const station = openStation("road");
station.forms({
  complete(form, made) {
    const chosen = form.elements.namedItem("place");
    const own = form.querySelector("[data-own-doing]");
    const place = form.dataset.place || (chosen instanceof HTMLSelectElement ? chosen.value : "");
    const ours = own instanceof HTMLInputElement && own.checked;
    return { ...made, envelope: { ...(place ? { place } : {}), ...(ours ? { own_doing: true } : {}) } };
  },
  done(form) {
    if (!form.dataset.keep) form.reset();
  },
});

document.addEventListener("click", (event) => {
  const { sign, restOf, doubtful } = around(event, "[data-sign], [data-rest-of]")?.dataset ?? {};
  if (sign) station.outbox.add([draft("road.noticed", { sign })]);
  if (restOf) station.outbox.add([draft("road.rest", { subject: restOf, ...(doubtful ? { doubtful: true } : {}) })]);
});

/** Only what is asked of the sign that is chosen stands in the form; what goes away is emptied. */
function askOnly() {
  const [asks] = all("#n-sign option:checked", HTMLOptionElement);
  if (!asks) return;
  for (const box of all("[data-asked]", HTMLElement)) {
    box.hidden = !(asks.dataset.asks ?? "").split(" ").includes(box.dataset.asked ?? "");
    if (box.hidden) for (const one of box.querySelectorAll("input, select")) empty(one);
  }
}

/** @param {Element} one */
function empty(one) {
  if (one instanceof HTMLInputElement) one.value = "";
  if (one instanceof HTMLSelectElement) one.selectedIndex = 0;
}

maybe("#n-sign", HTMLSelectElement)?.addEventListener("change", askOnly);
document.addEventListener("reset", () => setTimeout(askOnly));
askOnly();
station.ready();
