/** The shell sheet: a tap is a panel and a place; layers are shown and hidden; the choice of drawing is remembered. */

import { placeOf } from "./aim.js";

const KEPT = "hakutsu.drawing";
const HIDDEN = "hakutsu.layers-hidden";

/** @returns {"profile"|"sheet"} */
export function drawingNow() {
  return document.querySelector(".film-station").dataset.drawing;
}

/** @param {"profile"|"sheet"} drawing */
export function remember(drawing) {
  document.querySelector(".film-station").dataset.drawing = drawing;
  localStorage.setItem(KEPT, drawing);
}

/** The drawing used last on this device, if it is another than the page came with. */
export function wantedDrawing() {
  const kept = localStorage.getItem(KEPT);
  return kept && kept !== drawingNow() ? kept : null;
}

/** Panel and place under a click or tap on the sheet. @param {MouseEvent} event */
export function tapped(event) {
  const link = event.target.closest("[data-shell] a[data-panel]");
  // A click made by the keyboard has no place: it goes to the panel.
  if (!link || (event.clientX === 0 && event.clientY === 0)) return null;
  const svg = link.closest("svg");
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
  const [u, v] = placeOf(JSON.parse(link.dataset.quad), point.x, point.y);
  return { panel: link.dataset.panel, u, v };
}

/** Bring the panel in hand into sight where the sheet is wider than the screen. */
export function showCurrent() {
  const patch = document.querySelector(".sheet-scroll .sh-current");
  const box = patch?.closest(".sheet-scroll");
  if (!box || box.scrollWidth <= box.clientWidth) return;
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
  document.querySelectorAll("[data-layer-switch]").forEach((one) => (one.checked = !hidden.has(one.dataset.layerSwitch)));
  document.querySelectorAll("[data-shell] [data-layer]").forEach((one) => one.toggleAttribute("hidden", hidden.has(one.dataset.layer)));
}

/** @param {HTMLInputElement} box */
export function switchLayer(box) {
  const hidden = hiddenLayers();
  if (box.checked) hidden.delete(box.dataset.layerSwitch);
  else hidden.add(box.dataset.layerSwitch);
  localStorage.setItem(HIDDEN, JSON.stringify([...hidden]));
  showLayers();
}
