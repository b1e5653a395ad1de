/** What a remark says beyond its words: a range, what a hint may mean, with whose leave, which picture. */

/** @param {string} text */
const number = (text) => (text.trim() ? Number(text.trim().replace(",", ".")) : null);

/**
 * The further fields of a kind of remark that hold something, or the fault in them.
 * @param {string} kind
 * @param {HTMLFormControlsCollection & Record<string, HTMLInputElement>} fields
 * @returns {Record<string, unknown>}
 */
export function moreOf(kind, fields) {
  if (kind === "general.seen") return range(fields);
  if (kind === "general.hint") return kept(fields, ["may_mean", "settled_by"]);
  if (kind === "general.intervention") return { ...kept(fields, ["with_leave_of"]), ...(fields.put_back.checked ? {} : { put_back: false }) };
  return kind === "general.for_desk" ? kept(fields, ["picture"]) : {};
}

function kept(fields, names) {
  return Object.fromEntries(names.filter((name) => fields[name].value.trim()).map((name) => [name, fields[name].value.trim()]));
}

function range(fields) {
  const [low, high] = [number(fields.low.value), number(fields.high.value)];
  if (low === null && high === null) return {};
  if (Number.isNaN(low) || Number.isNaN(high)) return { fault: "From and to are numbers, such as 50 and 60." };
  const ends = [low ?? high, high ?? low];
  if (ends[0] > ends[1]) return { fault: "The lower end of a range comes first." };
  return { low: ends[0], high: ends[1], unit: fields.unit.value.trim() };
}
