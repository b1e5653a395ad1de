/**
 * `?` lists the keys of the page, `/` leads to search; neither while something is being typed. A row of tabs that is wider
 * than the screen begins with the one we are at in sight.
 */

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

for (const tab of document.querySelectorAll("nav [aria-current=page]")) {
  const row = tab.closest("nav");
  row.scrollLeft += tab.getBoundingClientRect().left - row.getBoundingClientRect().left - (row.clientWidth - tab.offsetWidth) / 2;
}
