/** Stopwatches beside fields of seconds: one press begins, the next puts the seconds into the field. */

const TICK_MS = 100;

export function stopwatches() {
  for (const button of document.querySelectorAll("[data-watch]")) {
    const field = button.closest("form").elements[button.dataset.watch];
    let began = null;
    let timer = null;
    button.addEventListener("click", () => {
      if (began === null) {
        began = performance.now();
        button.textContent = "Stop";
        timer = setInterval(() => (field.value = ((performance.now() - began) / 1000).toFixed(1)), TICK_MS);
      } else {
        clearInterval(timer);
        field.value = ((performance.now() - began) / 1000).toFixed(1);
        began = null;
        button.textContent = "Time it";
      }
      button.setAttribute("aria-pressed", String(began !== null));
    });
  }
}
