/** Towing: one form, which is an entry. */

import { openStation } from "../station.js";

const station = openStation("towing");
station.forms();
station.ready();
