/** Readings whose number is in doubt: each waits for its answer, and what is typed meanwhile goes on. */

import { looksLike } from "./line.js";
import { micrometres } from "./reading.js";

/**
 * @typedef {import("./line.js").Reading} Reading
 * @typedef {import("./keeping.js").Held} Held
 * @typedef {import("./reading.js").Gauge} Gauge
 * @typedef {{words: string, otherwise: string, meant: Reading & {stops?: number}, keep: string}} Doubt
 * @typedef {{um_below: number, mil_above: number, most_um: number, stops: {um: number[], mil: number[]}}} Bounds
 */

const UNIT = { um: "µm", mil: "mil" };

/**
 * What is odd about a number, with what it may have been; nothing where it may stand.
 * @param {Reading} reading @param {Bounds} bounds @param {Gauge} gauge
 * @returns {Doubt | null}
 */
export function doubtOf(reading, bounds, gauge) {
  const other = looksLike(reading, bounds);
  const typed = `${reading.raw} ${UNIT[reading.unit]}`;
  const keep = `Keep ${typed}`;
  if (other) {
    const meant = { ...reading, unit: other, explicit: true };
    return { words: `${typed} looks like a number in ${UNIT[other]}.`, otherwise: `It was ${reading.raw} ${UNIT[other]}`, meant, keep };
  }
  const limit = gauge.limit_um;
  const um = micrometres(reading);
  if (um !== null && atRangeStop(reading, bounds, limit)) {
    const meant = { ...reading, status: /** @type {const} */ ("over"), value: null, stops: um };
    return { words: `${typed} is where many gauges stop: is it the end of this one’s range?`, otherwise: "It stops there: over range", meant, keep };
  }
  if (reading.status !== "ok" || reading.explicit || !limit || um === null || um <= limit) return null;
  const most = reading.unit === "mil" ? `${Math.round(limit / 2.54) / 10} mil` : `${Math.round(limit)} µm`;
  /** @type {Reading} */
  const meant = { ...reading, status: "over", value: null };
  return { words: `${typed} lies beyond this gauge’s range of ${most}: two numbers run together?`, otherwise: "It was over range", meant, keep };
}

/** Numbers that somebody said are readings and no range stops. @type {Set<string>} */
const readings = new Set();

/** Whether a number is one at which gauges stop, below what this one is said to reach. @param {Reading} reading @param {Bounds} bounds @param {number | null} limit */
function atRangeStop(reading, bounds, limit) {
  const um = micrometres(reading);
  if (reading.status !== "ok" || reading.explicit || um === null || (limit && um >= limit)) return false;
  return bounds.stops[reading.unit].includes(Number(reading.raw)) && !readings.has(`${reading.raw} ${reading.unit}`);
}

export class Doubts {
  /**
   * @param {import("./said.js").Said} said
   * @param {{doubt: Bounds, gauge: Gauge}} config the gauge may change
   * @param {{name: (panel: string) => string, settled: (held: Held[], text: string) => void, back: (text: string, panel: string) => void, answered: () => void, stops: (um: number) => void}} hooks
   */
  constructor(said, config, hooks) {
    this.said = said;
    this.config = config;
    this.hooks = hooks;
    /** The oldest first. @type {{held: Held[], text: string}[]} */
    this.waiting = [];
  }

  get open() {
    return this.waiting.length > 0;
  }

  /** The first reading in doubt, or nothing. @param {Held[]} held */
  about(held) {
    return held.find((one) => this.of(one));
  }

  /** @param {Held} held */
  of(held) {
    return doubtOf(held.reading, this.config.doubt, this.config.gauge);
  }

  /** Ask before readings are stored. @param {Held[]} held @param {string} text as they were typed */
  ask(held, text) {
    this.waiting.push({ held, text });
    this.askNext();
  }

  askNext() {
    const [first] = this.waiting;
    if (!first) {
      this.said.leave();
      return;
    }
    const at = first.held.findIndex((one) => this.of(one));
    const doubt = this.of(first.held[at]);
    if (!doubt) return;
    const more = this.waiting.length > 1 ? ` (${this.waiting.length - 1} more in doubt)` : "";
    this.said.ask(`${this.hooks.name(first.held[at].place)}: ${doubt.words}${more}`, [
      [doubt.otherwise, () => this.otherwise(at, doubt.meant)],
      [doubt.keep, () => this.keep(at, first.held[at].reading)],
      ["Back to the line", () => this.takeBack()],
    ]);
  }

  /** It is something else; a gauge that stops there has that limit from now on. @param {number} at @param {Doubt["meant"]} meant */
  otherwise(at, { stops, ...reading }) {
    if (stops) this.hooks.stops(stops);
    this.answer(at, reading);
  }

  /** It may stand. @param {number} at @param {Reading} reading */
  keep(at, reading) {
    readings.add(`${reading.raw} ${reading.unit}`);
    this.answer(at, reading);
  }

  /** @param {number} at @param {Reading} reading */
  answer(at, reading) {
    const [first] = this.waiting;
    first.held[at] = { ...first.held[at], reading: { ...reading, explicit: true } };
    if (!this.about(first.held)) {
      this.waiting.shift();
      this.hooks.settled(first.held, first.text);
    }
    this.askNext();
    this.hooks.answered();
  }

  /** Put what is in doubt back into the line, to be typed anew. */
  takeBack() {
    const back = this.waiting.shift();
    if (!back) return;
    this.hooks.back(back.text, back.held[0].place);
    this.askNext();
    this.hooks.answered();
  }
}
