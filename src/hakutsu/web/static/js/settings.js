/** Offers the time zone of this device beside the field. */

import { maybe } from "./dom.js";

const button = maybe("[data-own-zone]", HTMLButtonElement);
const field = maybe("#zone", HTMLInputElement);
const own = Intl.DateTimeFormat().resolvedOptions().timeZone;

if (button && field && own && field.value !== own) {
  button.textContent = `as on this device: ${own}`;
  button.hidden = false;
  button.addEventListener("click", () => {
    field.value = own;
    button.hidden = true;
  });
}
