/** The cabin: a tap grades a part or says of a thing whether it is there; forms say what is smelt, felt and seen. */

import { around } from "../dom.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";

const station = openStation("cabin");
station.forms();

document.addEventListener("click", (event) => {
  const { part, wear, renewed, thing, there } = around(event, "[data-part], [data-thing]")?.dataset ?? {};
  if (part) station.outbox.add([draft("cabin.wear", { part, wear, ...(renewed ? { renewed: true } : {}) })]);
  if (thing) station.outbox.add([draft("cabin.inventory", { thing, there })]);
});

station.ready();
