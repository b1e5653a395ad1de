/** What a form says of a zone of the underside, as its entry has it. */

/** What is looked for in a zone that has nothing. */
export const CLEAR = ["rust", "damage", "repair"];

/** None of it and its grade not told are no grades. @param {import("../station.js").Body} body */
export function sortRust(body) {
  if (body.rust === "none") body.clear = ["rust", ...(body.clear ?? [])];
  if (body.rust === "untold") body.rust_untold = true;
  if (body.rust === "none" || body.rust === "untold") delete body.rust;
}
