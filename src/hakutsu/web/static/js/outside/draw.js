/** Marking on the shell sheet: a tap is a point, a drag a line, taps in outline mode the corners of a field. */

import { placeOf } from "../film/aim.js";

const SHORTEST_PX = 8;
const MOST_CORNERS = 24;
const within = (one) => Math.min(1, Math.max(0, Math.round(one * 1000) / 1000));

/** The panel under a pointer, and its place on it. */
function under(event, link) {
  const svg = link.closest("svg");
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
  const [u, v] = placeOf(JSON.parse(link.dataset.quad), point.x, point.y);
  return { place: [within(u), within(v)], at: [point.x, point.y] };
}

/**
 * @param {HTMLElement} box holds the sheet, also after a swap
 * @param {{outline: () => boolean, onPath: (panel: string, path: number[][]) => void}} hooks
 */
export function drawOn(box, hooks) {
  let start = null;
  let field = null;

  const aim = (points) => {
    const layer = box.querySelector("[data-aim]");
    if (!layer) return;
    const [first, ...rest] = points;
    const sign = rest.length ? `<polyline class="bl-aim" points="${points.map((one) => one.join(",")).join(" ")}"/>` : "";
    layer.innerHTML = first ? `<circle class="bl-aim" cx="${first[0]}" cy="${first[1]}" r="4"/>${sign}` : "";
  };

  box.addEventListener("pointerdown", (event) => {
    const link = event.target.closest("a[data-panel]");
    if (link) start = { link, x: event.clientX, y: event.clientY, ...under(event, link) };
  });

  box.addEventListener("click", (event) => {
    const link = event.target.closest("a[data-panel]");
    if (!link) return;
    event.preventDefault();
    if (event.clientX === 0 && event.clientY === 0) hooks.onPath(link.dataset.panel, []); // by keyboard: the panel alone
  });

  box.addEventListener("dragstart", (event) => event.preventDefault());

  addEventListener("pointerup", (event) => {
    if (!start) return;
    const { link, place, at, x, y } = start;
    start = null;
    const panel = link.dataset.panel;
    const end = under(event, link);
    if (Math.hypot(event.clientX - x, event.clientY - y) >= SHORTEST_PX && !hooks.outline()) {
      field = null;
      aim([at, end.at]);
      hooks.onPath(panel, [place, end.place]);
      return;
    }
    const goes = hooks.outline() && field?.panel === panel && field.path.length < MOST_CORNERS;
    if (hooks.outline() && field?.path.length === MOST_CORNERS) return;
    field = goes ? { panel, path: [...field.path, place], seen: [...field.seen, at] } : { panel, path: [place], seen: [at] };
    aim(field.seen);
    hooks.onPath(panel, field.path);
  });

  return {
    clear() {
      field = null;
      aim([]);
    },
  };
}
