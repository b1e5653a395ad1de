/** Marking on the shell sheet: a tap is a point, a drag a line, taps in outline mode the corners of a field. */

import { around, pointIn } from "../dom.js";
import { placeOf } from "../film/aim.js";

const SHORTEST_PX = 8;
const MOST_CORNERS = 24;
const within = (/** @type {number} */ one) => Math.min(1, Math.max(0, Math.round(one * 1000) / 1000));

/** The place on a panel under a pointer. @param {MouseEvent} event @param {import("../dom.js").Shown} link */
function under(event, link) {
  const point = pointIn(event, link);
  const [u, v] = placeOf(JSON.parse(link.dataset.quad ?? ""), point.x, point.y);
  return { place: [within(u), within(v)], at: [point.x, point.y] };
}

/**
 * @param {HTMLElement} box holds the sheet, also after a swap
 * @param {{outline: () => boolean, onPath: (panel: string, path: number[][]) => void}} hooks
 */
export function drawOn(box, hooks) {
  /** @type {{link: import("../dom.js").Shown, x: number, y: number, place: number[], at: number[]} | null} */
  let start = null;
  /** @type {{panel: string, path: number[][], seen: number[][]} | null} */
  let field = null;

  const aim = (/** @type {number[][]} */ points, /** @type {Element | null | undefined} */ sheet = null) => {
    const layer = (sheet ?? box).querySelector("[data-aim]");
    if (!layer) return;
    const [first, ...rest] = points;
    const sign = rest.length ? `<polyline class="bl-aim" points="${points.map((one) => one.join(",")).join(" ")}"/>` : "";
    layer.innerHTML = first ? `<circle class="bl-aim" cx="${first[0]}" cy="${first[1]}" r="4"/>${sign}` : "";
  };

  box.addEventListener("pointerdown", (event) => {
    const link = around(event, "a[data-panel]");
    if (link) start = { link, x: event.clientX, y: event.clientY, ...under(event, link) };
  });

  box.addEventListener("click", (event) => {
    const link = around(event, "a[data-panel]");
    if (!link) return;
    event.preventDefault();
    if (event.clientX === 0 && event.clientY === 0) hooks.onPath(link.dataset.panel ?? "", []); // by keyboard: the panel alone
  });

  box.addEventListener("dragstart", (event) => event.preventDefault());

  addEventListener("pointerup", (event) => {
    if (!start) return;
    const { link, place, at, x, y } = start;
    start = null;
    const panel = link.dataset.panel ?? "";
    const end = under(event, link);
    if (Math.hypot(event.clientX - x, event.clientY - y) >= SHORTEST_PX && !hooks.outline()) {
      field = null;
      aim([at, end.at], link.closest("[data-shell]"));
      hooks.onPath(panel, [place, end.place]);
      return;
    }
    if (hooks.outline() && field?.path.length === MOST_CORNERS) return;
    const before = hooks.outline() && field?.panel === panel ? field : { path: [], seen: [] };
    field = { panel, path: [...before.path, place], seen: [...before.seen, at] };
    aim(field.seen, link.closest("[data-shell]"));
    hooks.onPath(panel, field.path);
  });

  return {
    clear() {
      field = null;
      for (const layer of box.querySelectorAll("[data-aim]")) layer.replaceChildren();
    },
  };
}
