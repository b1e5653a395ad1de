/**
 * The grammar of the film station's line.
 * @typedef {"um" | "mil"} Unit
 * @typedef {{key: string, code: string, name: string}} Panel
 * @typedef {{value: number | null, unit: Unit, status: "ok" | "over" | "none", edge: boolean, explicit?: boolean}} Measured read off a gauge
 * @typedef {Measured & {kind: "reading", panel: string, repeat: boolean, raw: string, place?: {u: number, v: number} | null}} Reading
 * @typedef {{kind: "next" | "back" | "undo" | "help"}} Command
 * @typedef {{kind: "go", panel: string} | Reading | Command} Action
 * @typedef {{actions: Action[], fault: string|null, panel: string}} Line
 */

/** @type {Record<string, Unit>} */
const SUFFIXES = { mil: "mil", m: "mil", um: "um", µm: "um", u: "um" };
const NUMBER = /^(\d{1,6}(?:[.,]\d{1,3})?)(mil|um|µm|u|m)?(e)?$/;
const OVER = /^(?:over|ov|\*|>)(\d{1,6}(?:[.,]\d{1,3})?)?$/;
/** @type {Record<string, Command["kind"]>} */
const COMMANDS = { "+": "next", "-": "back", "/": "undo", u: "undo", "?": "help" };

/**
 * Read one line. Nothing is done unless the whole line is understood.
 * @param {string} text
 * @param {{panel: string, unit: "um"|"mil", fitted: Map<string, string>, codes: Record<string, string>}} station
 *   `fitted` maps the short codes of this vehicle's panels to their keys, `codes` all codes to names
 * @returns {Line}
 */
export function readLine(text, station) {
  const words = text.trim().toLowerCase().split(/[\s;]+/).filter(Boolean);
  /** @type {Action[]} */
  const actions = [];
  let { panel } = station;
  let repeat = false;
  const fail = (/** @type {string} */ fault) => ({ actions: [], fault, panel: station.panel });
  if (words.length === 1 && COMMANDS[words[0]]) return { actions: [{ kind: COMMANDS[words[0]] }], fault: null, panel };
  for (const word of words) {
    if (word === "r" && actions.every((one) => one.kind === "go")) {
      repeat = true;
      continue;
    }
    const there = station.fitted.get(word);
    if (there) {
      panel = there;
      repeat = false;
      actions.push({ kind: "go", panel });
      continue;
    }
    if (station.codes[word]) return fail(`${station.codes[word]} (${word}) is not fitted on this vehicle`);
    const reading = readWord(word, station.unit);
    if (!reading) return fail(`“${word}” is neither a number nor a panel code`);
    if ("fault" in reading) return fail(reading.fault);
    actions.push({ kind: "reading", panel, repeat, raw: word, ...reading });
  }
  if (repeat && !actions.some((one) => one.kind === "reading")) return fail("r takes the repeated numbers behind it");
  return { actions, fault: null, panel };
}

/** One word as a reading, or nothing. @param {string} word @param {Unit} unit @returns {Measured | {fault: string} | null} */
function readWord(word, unit) {
  if (word === "none" || word === "n") return { value: null, unit, status: "none", edge: false };
  const over = OVER.exec(word);
  if (over) return { value: over[1] ? number(over[1]) : null, unit, status: "over", edge: false };
  const match = NUMBER.exec(word);
  if (!match) return null;
  const value = number(match[1]);
  if (value === 0) return { fault: "0 is no film; for a gauge that reads nothing write none" };
  return { value, unit: SUFFIXES[match[2]] ?? unit, status: "ok", edge: Boolean(match[3]), explicit: Boolean(match[2]) };
}

/** @param {string} text */
function number(text) {
  return Number(text.replace(",", "."));
}

/**
 * A number that looks like the other unit, to be asked about.
 * @param {Pick<Measured, "value" | "unit" | "explicit"> & {status: string}} reading
 * @param {{um_below: number, mil_above: number}} doubt
 * @returns {Unit | null} the unit it looks like
 */
export function looksLike(reading, doubt) {
  if (reading.value === null || reading.status === "none" || reading.explicit) return null;
  if (reading.unit === "um" && reading.value < doubt.um_below) return "mil";
  if (reading.unit === "mil" && reading.value > doubt.mil_above) return "um";
  return null;
}
