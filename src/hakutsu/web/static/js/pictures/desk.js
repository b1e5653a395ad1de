/** The desk queue by keyboard: j and k go on and back. */
document.addEventListener("keydown", (event) => {
  if (event.target.matches("input, textarea, select") || event.ctrlKey || event.metaKey || event.altKey) return;
  document.querySelector(`[data-key="${CSS.escape(event.key)}"]`)?.click();
});
document.documentElement.dataset.ready = "desk";
