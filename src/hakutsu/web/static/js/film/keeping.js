/** Readings on their way: as they were when Enter was pressed, until the server has them. */

import { draft } from "../outbox.js";
import { bodyOf, wordsOf } from "./reading.js";

/** @typedef {import("./line.js").Reading} Reading */
/** @typedef {{id: string, at: string, kind: string, place: string, repeats: string | undefined, reading: Reading}} Held */

/**
 * A reading held as it was when Enter was pressed.
 * @param {Reading} reading @param {string|undefined} repeats id of the reading it repeats
 * @returns {Held}
 */
export function hold(reading, repeats) {
  const { id, at, kind } = draft("film.reading", {});
  return { id, at, kind, place: reading.panel, repeats, reading };
}

export class Keeping {
  /**
   * @param {import("../outbox.js").Outbox} outbox
   * @param {{gauge: import("./reading.js").Gauge}} config the gauge may change
   * @param {(panel: string) => string} name
   */
  constructor(outbox, config, name) {
    this.outbox = outbox;
    this.config = config;
    this.name = name;
    /** Readings entered in this window, newest last. @type {{id: string, words: string}[]} */
    this.mine = [];
    /** Places that readings stand at which the server has not acknowledged yet. @type {Map<string, {u: number, v: number}>} */
    this.taken = new Map();
  }

  /** Keep readings on this device; false, and none of them kept, if it cannot. @param {Held[]} held */
  async keep(held) {
    for (const one of held) {
      this.mine.push({ id: one.id, words: wordsOf(one.reading, this.name(one.place)) });
      if (one.reading.place) this.taken.set(one.id, one.reading.place);
    }
    try {
      await this.outbox.add(
        held.map(({ repeats, reading, ...envelope }) => ({ ...envelope, body: bodyOf(reading, this.config.gauge, repeats) })),
      );
    } catch {
      this.forget(held.map((one) => one.id));
      return false;
    }
    return true;
  }

  /** The server has them, or will not take them. @param {string[]} ids */
  arrived(ids) {
    ids.forEach((id) => this.taken.delete(id));
  }

  /** They are no readings of this window any longer. @param {string[]} ids */
  forget(ids) {
    this.arrived(ids);
    this.mine = this.mine.filter((one) => !ids.includes(one.id));
  }

  /** Spots that neither the server nor readings on their way have. @param {[number, number, string][]} spots */
  left(spots) {
    const used = [...this.taken.values()];
    return spots.filter(([u, v]) => !used.some((one) => one.u === u && one.v === v));
  }
}
