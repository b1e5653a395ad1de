/** Taking pictures in: chosen, dropped, pasted or from the camera; one after the other, with progress and reasons. */

import { swap } from "../fragments.js";

const main = document.querySelector("[data-pictures]");
const { inspection } = JSON.parse(main.dataset.config);
const base = `/inspections/${inspection}/pictures`;
const bar = document.querySelector("[data-progress]");
const said = document.querySelector("[data-said]");
const where = document.querySelector("[data-where]");
const tag = document.querySelector("[data-tag]");
const waiting = [];
let done = 0;
let busy = false;

function note(words, fault = false) {
  const line = document.createElement("li");
  line.textContent = words;
  if (fault) line.className = "fault";
  said.prepend(line);
}

/** @param {File} file */
async function send(file, query) {
  try {
    const answer = await fetch(`${base}/${crypto.randomUUID()}?${query}`, { method: "PUT", body: file });
    const reply = await answer.json();
    if (!answer.ok) return note(reply.message, true);
    if (reply.fragments) swap(reply.fragments);
    return undefined;
  } catch {
    return note(`${file.name}: the server did not answer; the file is still where it was, add it again`, true);
  }
}

async function work() {
  if (busy) return;
  busy = true;
  bar.hidden = false;
  while (waiting.length) {
    const { file, query } = waiting.shift();
    await send(file, query);
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
  const copies = document.querySelector("[data-copies]");
  const { waiting: left } = await (await fetch(`${base}/progress`)).json();
  copies.textContent = left ? `${left} being scaled` : "";
  document.querySelectorAll("img[src*='/400.jpg']").forEach((one) => {
    if (one.complete && one.naturalWidth <= 40) one.src = `${one.src.split("?")[0]}?${Date.now()}`;
  });
  if (left) setTimeout(watchCopies, 800);
}

tag.addEventListener("change", () => {
  const { place } = tag.selectedOptions[0].dataset;
  if (place) where.value = place;
});
document.querySelectorAll("[data-files]").forEach((input) =>
  input.addEventListener("change", () => {
    take(input.files);
    input.value = "";
  }),
);
const zone = document.querySelector("[data-drop]");
zone.addEventListener("dragover", (event) => {
  event.preventDefault();
  zone.classList.add("dropping");
});
zone.addEventListener("dragleave", () => zone.classList.remove("dropping"));
zone.addEventListener("drop", (event) => {
  event.preventDefault();
  zone.classList.remove("dropping");
  take(event.dataTransfer.files);
});
addEventListener("paste", (event) => event.clipboardData.files.length && take(event.clipboardData.files));

document.addEventListener("change", (event) => {
  if (!event.target.matches("[data-pick]")) return;
  const picked = document.querySelectorAll("[data-pick]:checked");
  document.querySelector("[data-compare]").disabled = picked.length !== 2;
});
document.querySelector("[data-compare]").addEventListener("click", () => {
  const [a, b] = [...document.querySelectorAll("[data-pick]:checked")].map((one) => one.dataset.pick);
  location.href = `${base}/compare?a=${a}&b=${b}`;
});

watchCopies();
document.documentElement.dataset.ready = "pictures";
