/** The first run: units, rules and time zone as this browser is set, to be changed before they are saved. */

import { maybe } from "./dom.js";

/** Regions in which one drives on the left, by their codes (ISO 3166-1). */
const LEFT = new Set(["AU", "BD", "BN", "BW", "CY", "FJ", "FK", "GB", "GG", "HK", "ID", "IE", "IM", "IN", "JE", "JM", "JP", "KE", "LK", "LS", "MT", "MU", "MW", "MY", "MZ", "NA", "NP", "NZ", "PG", "PK", "SG", "SZ", "TH", "TT", "TZ", "UG", "ZA", "ZM", "ZW"]);
const AMERICAN = new Set(["US", "LR", "PR"]);

const region = new Intl.Locale(navigator.language).maximize().region ?? "";
const writing = maybe("#writing", HTMLSelectElement);
const rules = maybe("#rules", HTMLSelectElement);
const zone = maybe("#zone", HTMLInputElement);

if (writing && !writing.value) writing.value = AMERICAN.has(region) ? "american" : region === "GB" ? "british" : "metric";
if (rules && !rules.value) rules.value = LEFT.has(region) ? "general_left" : "general_right";
if (zone && !zone.value) zone.value = Intl.DateTimeFormat().resolvedOptions().timeZone;
