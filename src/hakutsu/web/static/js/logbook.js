/** The logbook's page: an exported inspection is taken in, with its progress, and can be stopped on the way. */

import { find, input } from "./dom.js";
import { onSubmit } from "./entry-form.js";

const said = find("[data-bundle-said]", HTMLElement);
const stop = find("[data-bundle-stop]", HTMLButtonElement);
/** @type {XMLHttpRequest | null} */
let sending = null;

/** @param {(string | Node)[]} parts @param {boolean} [fault] */
function say(parts, fault = false) {
  said.replaceChildren(...parts);
  said.className = `w-full wrap-anywhere ${fault ? "font-bold text-needs" : ""}`;
}

/** @param {string[]} faults */
function listed(faults) {
  const list = document.createElement("ul");
  list.append(...faults.slice(0, 20).map((one) => Object.assign(document.createElement("li"), { textContent: one })));
  if (faults.length > 20) list.append(`and ${faults.length - 20} more`);
  return list;
}

/** @param {{inspection: string, added: number, known: number, pictures: number, remarks: string[]}} done */
function showDone(done) {
  const link = Object.assign(document.createElement("a"), { href: `/inspections/${done.inspection}/logbook`, textContent: "Open its logbook" });
  const known = done.known ? `; ${done.known} were there already` : "";
  say([`${done.added} entries and ${done.pictures} pictures imported${known}. `, link, listed(done.remarks)]);
}

function ended() {
  stop.hidden = true;
  sending = null;
}

/** @param {File} file @param {boolean} newId */
function send(file, newId) {
  const request = new XMLHttpRequest();
  sending = request;
  stop.hidden = false;
  request.open("PUT", `/logbook/import?new_id=${newId}`);
  request.setRequestHeader("Accept", "application/json");
  request.responseType = "json";
  request.upload.addEventListener("progress", (event) => {
    const share = event.total ? Math.round((100 * event.loaded) / event.total) : 0;
    say([share < 100 ? `Sending: ${share} %` : "Looking at every line …"]);
  });
  request.addEventListener("load", () => {
    ended();
    const answer = request.response ?? {};
    if (request.status === 200) showDone(answer);
    else say(["Nothing was imported.", listed(answer.faults ?? [answer.message ?? `the server answered ${request.status}`])], true);
  });
  request.addEventListener("error", () => {
    ended();
    say(["No connection to the server: nothing was imported. The file is still chosen; press Import again."], true);
  });
  request.addEventListener("abort", () => {
    ended();
    say(["Stopped: nothing was imported."]);
  });
  request.send(file);
}

onSubmit("[data-bundle-form]", (form) => {
  const file = input(form, "file").files?.[0];
  if (!file) {
    say(["Choose an exported inspection first."], true);
    input(form, "file").focus();
    return;
  }
  if (!sending) send(file, input(form, "new_id").checked);
});
stop.addEventListener("click", () => sending?.abort());
document.documentElement.dataset.ready = "logbook";
