/** Taking pictures in: chosen, dropped, pasted or from the camera; one after the other, with progress and reasons. */

import { all, configOf, find, typing } from "../dom.js";
import { swap } from "../fragments.js";
import { ask } from "../server.js";

const { inspection } = configOf(find("[data-pictures]", HTMLElement));
const base = `/inspections/${inspection}/pictures`;
const bar = find("[data-progress]", HTMLProgressElement);
const said = find("[data-said]", HTMLElement);
const where = find("[data-where]", HTMLSelectElement);
const tag = find("[data-tag]", HTMLSelectElement);
const compare = find("[data-compare]", HTMLButtonElement);
/** @type {{file: File, query: URLSearchParams}[]} */
const waiting = [];
let done = 0;
let busy = false;

/** @param {string} words @param {boolean} [fault] */
function note(words, fault = false) {
  const line = document.createElement("li");
  line.textContent = words;
  if (fault) line.className = "fault";
  said.prepend(line);
}

/** @param {File} file @param {URLSearchParams} query */
async function send(file, query) {
  try {
    const answer = await fetch(`${base}/${crypto.randomUUID()}?${query}`, { method: "PUT", body: file });
    const reply = await answer.json();
    if (!answer.ok) note(reply.message, true);
    else if (reply.fragments) swap(reply.fragments);
  } catch {
    note(`${file.name}: the server did not answer; the file is still where it was, add it again`, true);
  }
}

async function work() {
  if (busy) return;
  busy = true;
  bar.hidden = false;
  for (let next = waiting.shift(); next; next = waiting.shift()) {
    await send(next.file, next.query);
    done += 1;
    bar.value = done / (done + waiting.length);
  }
  bar.hidden = true;
  note(`${done} file${done === 1 ? "" : "s"} gone through`);
  done = 0;
  busy = false;
  watchCopies();
}

/** @param {Iterable<File>} files */
function take(files) {
  const chosen = where.value;
  for (const file of files) {
    const query = new URLSearchParams({ name: file.name });
    if (chosen.startsWith("of:")) query.set("of", chosen.slice(3));
    else query.set("place", chosen);
    if (tag.value) query.append("tag", tag.value);
    waiting.push({ file, query });
  }
  if (waiting.length) work();
}

/** Copies are made in the background; frames that stand for them are replaced as they come. */
async function watchCopies() {
  const { waiting: left } = await ask("GET", `${base}/progress`);
  find("[data-copies]", HTMLElement).textContent = left ? `${left} being scaled` : "";
  for (const one of all("img[src*='/400.jpg']", HTMLImageElement)) {
    if (one.complete && one.naturalWidth <= 40) one.src = `${one.src.split("?")[0]}?${Date.now()}`;
  }
  if (left) setTimeout(watchCopies, 800);
}

tag.addEventListener("change", () => {
  const { place } = tag.selectedOptions[0].dataset;
  if (place) where.value = place;
});
for (const files of all("[data-files]", HTMLInputElement)) {
  files.addEventListener("change", () => {
    take(files.files ?? []);
    files.value = "";
  });
}
const zone = find("[data-drop]", HTMLElement);
zone.addEventListener("dragover", (event) => {
  event.preventDefault();
  zone.classList.add("dropping");
});
zone.addEventListener("dragleave", () => zone.classList.remove("dropping"));
zone.addEventListener("drop", (event) => {
  event.preventDefault();
  zone.classList.remove("dropping");
  take(event.dataTransfer?.files ?? []);
});
addEventListener("paste", (event) => take(event.clipboardData?.files ?? []));

const picked = () => all("[data-pick]:checked", HTMLInputElement).map((one) => one.dataset.pick);

document.addEventListener("change", (event) => {
  if (typing(event, "[data-pick]")) compare.disabled = picked().length !== 2;
});
compare.addEventListener("click", () => {
  const [a, b] = picked();
  location.href = `${base}/compare?a=${a}&b=${b}`;
});

watchCopies();
document.documentElement.dataset.ready = "pictures";
