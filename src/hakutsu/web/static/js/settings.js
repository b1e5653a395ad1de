/** Offers the time zone of this device beside the field. */
const button = document.querySelector("[data-own-zone]");
const field = /** @type {HTMLInputElement | null} */ (document.querySelector("#zone"));
const own = Intl.DateTimeFormat().resolvedOptions().timeZone;

if (button instanceof HTMLButtonElement && field && own && field.value !== own) {
  button.textContent = `as on this device: ${own}`;
  button.hidden = false;
  button.addEventListener("click", () => {
    field.value = own;
    button.hidden = true;
  });
}
