/** The bar at the thumb: "here" leads to the place one stood at last. */

import { all, configOf, maybe } from "./dom.js";

const bar = maybe("[data-bar]", HTMLElement);
const sheet = maybe("[data-place-sheet]", HTMLElement);
const key = `place:${bar?.dataset.bar ?? ""}`;

if (sheet) localStorage.setItem(key, configOf(sheet).place);
const place = localStorage.getItem(key);
if (place) {
  for (const link of all("[data-here]", HTMLAnchorElement)) link.href = link.href.replace(/place\/[a-z_]+/, `place/${place}`).replace(/place=[a-z_]+/, `place=${place}`);
}
