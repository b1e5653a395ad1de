/** What a typed reading becomes: the body of its entry, and the words undo names it by. */

const MIL = 25.4;

/**
 * @typedef {import("./line.js").Reading} Reading
 * @typedef {{name: string, unit: import("./line.js").Unit, step_um: number, limit_um: number | null}} Gauge
 */

/** Its thickness in µm, to a nanometre; nothing where it has no number. @param {Pick<Reading, "value" | "unit">} reading */
export function micrometres({ value, unit }) {
  return unit === "mil" && value !== null ? Math.round(value * MIL * 1000) / 1000 : value;
}

/**
 * The body of its `film.reading` entry.
 * @param {Reading} reading
 * @param {Pick<Gauge, "step_um" | "limit_um">} gauge
 * @param {string} [repeats] id of the reading this one repeats
 */
export function bodyOf(reading, gauge, repeats) {
  /** @type {Record<string, unknown>} */
  const body = { status: reading.status, unit: reading.unit, step_um: gauge.step_um, limit_um: gauge.limit_um, edge: reading.edge };
  if (reading.value !== null) body.value_um = micrometres(reading);
  if (repeats) body.retest_of = repeats;
  if (reading.place) [body.u, body.v] = [reading.place.u, reading.place.v];
  return body;
}

/** Words for a reading on a named panel, for undo. @param {Reading} reading @param {string} panelName */
export function wordsOf(reading, panelName) {
  const number = reading.value === null ? "" : `${reading.value} ${reading.unit === "mil" ? "mil" : "µm"}`;
  const status = { ok: "", over: "over range ", none: "no reading" }[reading.status];
  return `${status}${number} on ${panelName}`;
}
