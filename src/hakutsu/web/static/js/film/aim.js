/** Where the next reading stands on its panel: tapped, picked from the spots, or the pattern's next. */

import { all } from "../dom.js";

/** @typedef {{panel: string, u: number, v: number, words: string}} Place */

export class Aim {
  /** @param {HTMLElement} words where the place is said @param {HTMLElement} follow the button of the pattern's order */
  constructor(words, follow) {
    this.words = words;
    this.follow = follow;
    /** @type {Place|null} */
    this.place = null;
    /** Spots of the panel shown that the protocol still wants. @type {[number, number, string][]} */
    this.left = [];
    this.panel = "";
  }

  get following() {
    return this.follow.getAttribute("aria-pressed") === "true";
  }

  /** @param {Place|null} place */
  at(place) {
    this.place = place;
    this.show();
  }

  /** The panel shown changed, or readings came in. @param {string} panel @param {[number, number, string][]} left */
  facing(panel, left) {
    this.left = left;
    if (panel !== this.panel) this.place = null;
    this.panel = panel;
    if (this.following && !this.place) this.nextSpot();
    this.show();
  }

  nextSpot() {
    const [spot] = this.left;
    this.place = spot ? { panel: this.panel, u: spot[0], v: spot[1], words: spot[2] } : null;
  }

  toggle() {
    const on = !this.following;
    this.follow.setAttribute("aria-pressed", String(on));
    if (on) this.nextSpot();
    else this.place = null;
    this.show();
  }

  /** Places for so many readings of a panel, used up. @param {string} panel @param {number} count */
  take(panel, count) {
    const places = [];
    for (let i = 0; i < count; i += 1) {
      const mine = this.place && this.place.panel === panel ? this.place : null;
      places.push(mine);
      if (mine) this.left = this.left.filter(([u, v]) => u !== mine.u || v !== mine.v);
      this.place = null;
      if (this.following && panel === this.panel) this.nextSpot();
    }
    this.show();
    return places;
  }

  show() {
    const { place } = this;
    this.words.textContent = place ? ` at ${place.words}` : "";
    for (const one of all("[data-spot]", HTMLElement)) {
      const here = place && one.dataset.spot === place.panel && Number(one.dataset.u) === place.u && Number(one.dataset.v) === place.v;
      one.setAttribute("aria-pressed", String(Boolean(here)));
    }
    mark(place);
  }
}

/** Mark the place on the sheet, where one is drawn. @param {Place|null} place */
function mark(place) {
  for (const group of all("[data-aim]", SVGElement)) {
    const patch = place && group.ownerSVGElement?.querySelector(`[data-panel="${place.panel}"]`);
    group.replaceChildren(...(place && patch instanceof SVGElement ? [ringAt(patch, place)] : []));
  }
}

/** @param {SVGElement} patch @param {Place} place */
function ringAt(patch, place) {
  const [x, y] = pointOf(JSON.parse(patch.dataset.quad ?? ""), place.u, place.v);
  const ring = document.createElementNS("http://www.w3.org/2000/svg", "path");
  ring.setAttribute("d", `M${x - 9} ${y}h18M${x} ${y - 9}v18M${x - 6} ${y}a6 6 0 1 0 12 0a6 6 0 1 0 -12 0`);
  return ring;
}

/** @param {number[][]} quad corners at (0,0), (1,0), (1,1), (0,1) @param {number} u @param {number} v */
export function pointOf(quad, u, v) {
  const weights = [(1 - u) * (1 - v), u * (1 - v), u * v, (1 - u) * v];
  return [0, 1].map((axis) => weights.reduce((sum, weight, i) => sum + weight * quad[i][axis], 0));
}

/** The (u, v) of a point in a patch, by Newton's method. @param {number[][]} quad @param {number} x @param {number} y */
export function placeOf(quad, x, y) {
  let [u, v] = [0.5, 0.5];
  for (let i = 0; i < 12; i += 1) {
    const [px, py] = pointOf(quad, u, v);
    const du = [0, 1].map((axis) => (1 - v) * (quad[1][axis] - quad[0][axis]) + v * (quad[2][axis] - quad[3][axis]));
    const dv = [0, 1].map((axis) => (1 - u) * (quad[3][axis] - quad[0][axis]) + u * (quad[2][axis] - quad[1][axis]));
    const determinant = du[0] * dv[1] - dv[0] * du[1];
    if (!determinant) break;
    u -= ((px - x) * dv[1] - dv[0] * (py - y)) / determinant;
    v -= (du[0] * (py - y) - (px - x) * du[1]) / determinant;
  }
  const round = (/** @type {number} */ value) => Math.round(Math.min(1, Math.max(0, value)) * 1000) / 1000;
  return [round(u), round(v)];
}
