/** `?` lists the keys of the page, `/` leads to search; neither while something is being typed. */

const keys = document.querySelector("#keys");

document.addEventListener("keydown", (event) => {
  const typing = event.target.matches("input, select, textarea");
  if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === "?") keys.showModal();
  if (event.key === "/" && !keys.open) {
    event.preventDefault();
    window.location.assign("/search");
  }
});
