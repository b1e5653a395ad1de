/** What a typed reading becomes: the body of its entry, and the words undo names it by. */

const MIL = 25.4;

/** Its thickness in µm, to a nanometre. @param {{value: number, unit: "um"|"mil"}} reading */
export const micrometres = ({ value, unit }) => (unit === "mil" ? Math.round(value * MIL * 1000) / 1000 : value);

/**
 * The body of its `film.reading` entry.
 * @param {{value: number|null, unit: "um"|"mil", status: string, edge: boolean, place?: {u: number, v: number}}} reading
 * @param {{step_um: number, limit_um: number|null}} gauge
 * @param {string|undefined} repeats id of the reading this one repeats
 */
export function bodyOf(reading, gauge, repeats) {
  const body = { status: reading.status, unit: reading.unit, step_um: gauge.step_um, limit_um: gauge.limit_um, edge: reading.edge };
  if (reading.value !== null) body.value_um = micrometres(reading);
  if (repeats) body.retest_of = repeats;
  if (reading.place) [body.u, body.v] = [reading.place.u, reading.place.v];
  return body;
}

/** Words for a reading on a named panel, for undo. */
export function wordsOf(reading, panelName) {
  const number = reading.value === null ? "" : `${reading.value} ${reading.unit === "mil" ? "mil" : "µm"}`;
  const status = { ok: "", over: "over range ", none: "no reading" }[reading.status];
  return `${status}${number} on ${panelName}`;
}
