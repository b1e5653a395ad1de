/** A file dropped on the import form is looked at as if it had been picked. */

import { find } from "../dom.js";

const form = find("[data-drop]", HTMLFormElement);
const input = find('input[type="file"]', HTMLInputElement, form);

for (const type of ["dragenter", "dragover"]) {
  document.addEventListener(type, (event) => {
    event.preventDefault();
    form.classList.add("dropping");
  });
}
document.addEventListener("dragleave", (event) => {
  if (!event.relatedTarget) form.classList.remove("dropping");
});
document.addEventListener("drop", (event) => {
  event.preventDefault();
  form.classList.remove("dropping");
  if (!event.dataTransfer?.files.length) return;
  input.files = event.dataTransfer.files;
  form.requestSubmit();
});
