/** Service papers: forms become entries; a row of the plan is a plan of one row. */

import { openStation } from "../station.js";

const station = openStation("service");
station.forms({
  complete(form, made) {
    const chosen = form.elements.namedItem("place");
    const place = chosen instanceof HTMLSelectElement ? chosen.value : "";
    const body = made.kind === "service.plan" ? { rows: [made.body] } : made.body;
    return { ...made, body, envelope: place ? { place } : {} };
  },
});
station.ready();
