/** The shell sheet: a tap is a panel and a place; layers are shown and hidden; the choice of drawing is remembered. */

import { all, around, find, maybe, pointIn, typing } from "../dom.js";
import { placeOf } from "./aim.js";

const KEPT = "hakutsu.drawing";
const HIDDEN = "hakutsu.layers-hidden";

/** @typedef {"profile" | "sheet"} Drawing */

/** @param {string | null | undefined} name @returns {Drawing} */
function drawingOf(name) {
  return name === "sheet" ? "sheet" : "profile";
}

/** The drawing shown. */
export function drawingNow() {
  return drawingOf(find(".film-station", HTMLElement).dataset.drawing);
}

/** @param {string} drawing */
export function remember(drawing) {
  find(".film-station", HTMLElement).dataset.drawing = drawing;
  localStorage.setItem(KEPT, drawing);
}

/** The drawing used last on this device, if it is another than the page came with. */
export function wantedDrawing() {
  const kept = localStorage.getItem(KEPT);
  return kept && drawingOf(kept) !== drawingNow() ? drawingOf(kept) : null;
}

/** Panel and place under a click or tap on the sheet. @param {MouseEvent} event */
export function tapped(event) {
  const link = around(event, "[data-shell] a[data-panel]");
  // A click made by the keyboard has no place: it goes to the panel.
  if (!link || (event.clientX === 0 && event.clientY === 0)) return null;
  const point = pointIn(event, link);
  const [u, v] = placeOf(JSON.parse(link.dataset.quad ?? ""), point.x, point.y);
  return { panel: link.dataset.panel ?? "", u, v };
}

/** Bring the panel in hand into sight where the sheet is wider than the screen. */
export function showCurrent() {
  const patch = maybe(".sheet-scroll .shell-sheet:not(.sh-upright) .sh-current", Element);
  const box = patch?.closest(".sheet-scroll");
  if (!patch || !box || box.scrollWidth <= box.clientWidth) return;
  const middle = patch.getBoundingClientRect();
  const frame = box.getBoundingClientRect();
  box.scrollLeft += middle.left + middle.width / 2 - frame.left - frame.width / 2;
}

function hiddenLayers() {
  return new Set(JSON.parse(localStorage.getItem(HIDDEN) || "[]"));
}

/** Show and hide layers as chosen; after every swap. */
export function showLayers() {
  const hidden = hiddenLayers();
  for (const one of all("[data-layer-switch]", HTMLInputElement)) one.checked = !hidden.has(one.dataset.layerSwitch);
  for (const one of all("[data-shell] [data-layer]", SVGElement)) one.toggleAttribute("hidden", hidden.has(one.dataset.layer));
}

/** Layers as they were chosen, and as they are switched from now on. */
export function followLayers() {
  showLayers();
  document.addEventListener("change", (event) => {
    if (event.target instanceof HTMLInputElement && typing(event, "[data-layer-switch]")) switchLayer(event.target);
  });
}

/** @param {HTMLInputElement} box */
function switchLayer(box) {
  const hidden = hiddenLayers();
  if (box.checked) hidden.delete(box.dataset.layerSwitch);
  else hidden.add(box.dataset.layerSwitch);
  localStorage.setItem(HIDDEN, JSON.stringify([...hidden]));
  showLayers();
}
