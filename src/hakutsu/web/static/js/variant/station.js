/** The variant: a tap says how a feature or a weak point was found. */

import { around } from "../dom.js";
import { draft } from "../outbox.js";
import { openStation } from "../station.js";

const station = openStation("variant");

document.addEventListener("click", (event) => {
  const { feature, weak, result } = around(event, "[data-feature], [data-weak]")?.dataset ?? {};
  if (feature) station.outbox.add([draft("variant.feature", { feature, result })]);
  if (weak) station.outbox.add([draft("variant.weak", { weak, result })]);
});

station.ready();
