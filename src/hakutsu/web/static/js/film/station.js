/** The film station: one line always ready; every reading is an entry in the outbox before anything else happens. */

import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";
import { Aim } from "./aim.js";
import { gaugeForms } from "./gauge.js";
import { looksLike, readLine } from "./line.js";
import { gaugeLink } from "./link.js";
import { panelForms } from "./panel.js";
import { bodyOf, micrometres, wordsOf } from "./reading.js";
import { Said } from "./said.js";
import { drawingNow, remember, showCurrent, showLayers, switchLayer, tapped, wantedDrawing } from "./sheet.js";

const main = document.querySelector("[data-film-station]");
const config = JSON.parse(main.dataset.config);
const line = document.querySelector("#line");
const fitted = new Map(config.panels.map((panel) => [panel.code, panel.key]));
const names = new Map(config.panels.map((panel) => [panel.key, panel.name]));
const keys = document.querySelector("#keys");
const wide = matchMedia("(min-width: 64rem)");
const said = new Said(document.querySelector("[data-said]"), document.querySelector("[data-question]"));
const aim = new Aim(document.querySelector("[data-aim-words]"), document.querySelector('[data-do="follow"]'));

let now = readNow();
let panel = now.panel;
let repeating = false;
let edge = false;
/** Ids of readings entered in this window, newest last. @type {{id: string, words: string}[]} */
const mine = [];

const outbox = new Outbox(config.inspection, {
  context: () => ({ view: "film", panel, drawing: drawingNow() }),
  onReply: (reply) => reply.fragments && show(reply.fragments),
  onState: showSaved,
  onRefused: (refused) => {
    const words = refused.map((one) => `${one.draft.place ? names.get(one.draft.place) || one.draft.place : "entry"}: ${one.message}`);
    said.fault(`Not stored: ${words.join("; ")}`);
  },
});

/** What the server last said about the panel shown. */
function readNow() {
  return { ...document.querySelector("[data-now]").dataset };
}

/** @param {Record<string, string>} fragments */
function show(fragments) {
  swap(fragments);
  now = readNow();
  if (now.panel !== panel) return go(panel);
  document.querySelector("[data-current-name]").textContent = now.name;
  document.querySelector("[data-current-count]").textContent = now.count;
  showRepeat();
  showLayers();
  showCurrent();
  forms.restore();
  aim.facing(now.panel, JSON.parse(now.spots || "[]"));
  history.replaceState(null, "", `?panel=${panel}${drawingNow() === "sheet" ? "&drawing=sheet" : ""}`);
}

function showRepeat() {
  const box = document.querySelector("[data-repeat]");
  box.hidden = !now.surprise;
  if (!now.surprise) repeating = false;
  const start = box.querySelector("[data-repeat-start]");
  start.setAttribute("aria-pressed", String(repeating));
  start.textContent = repeating ? "Repeating: the next readings belong to it" : "Next readings repeat it";
  const count = Number(now.repeats || 0);
  box.querySelector("[data-repeat-words]").textContent = `${now.surpriseWords || ""}${count ? ` (repeated ${count} of 2)` : ""}.`;
}

/** Go to another panel. @param {string} key @param {boolean} [quiet] the connected gauge is not aimed there */
async function go(key, quiet = false) {
  if (!quiet && key !== panel) link.aim({ panel: key }, false);
  panel = key;
  repeating = false;
  document.querySelector("[data-current-name]").textContent = names.get(key);
  main.setAttribute("aria-busy", "true");
  try {
    const response = await fetch(`/inspections/${config.inspection}/film/fragments?panel=${key}&drawing=${drawingNow()}`, {
      headers: { Accept: "application/json" },
    });
    const fragments = await response.json();
    if (panel === key) show(fragments);
  } catch {
    document.querySelector("[data-current-count]").textContent = "";
    said.say(`${names.get(key)}: no connection; readings are kept on this device`);
  } finally {
    if (panel === key) main.removeAttribute("aria-busy");
  }
}

function neighbour(step) {
  const place = config.panels.findIndex((one) => one.key === panel);
  return config.panels[(place + step + config.panels.length) % config.panels.length].key;
}

/** @param {object} reading */
function readingDraft(reading) {
  const repeats = (reading.repeat || repeating) && now.surprise && reading.panel === now.panel ? now.surprise : undefined;
  return draft("film.reading", bodyOf({ ...reading, edge: reading.edge || edge }, config.gauge, repeats), { place: reading.panel });
}

/** Readings with the places they were taken at, where one was aimed. Repeats stand beside the reading they repeat. */
function placed(readings) {
  if (readings.some((one) => one.repeat) || repeating) return readings;
  const places = aim.take(readings[0].panel, readings.filter((one) => one.panel === readings[0].panel).length);
  let next = 0;
  return readings.map((one) => (one.panel === readings[0].panel ? { ...one, place: places[next++] } : one));
}

/** Store readings, in order. @param {object[]} readings */
async function store(readings) {
  const repeat = readings.some((one) => one.repeat);
  if (repeat && readings.some((one) => one.panel !== now.panel)) return said.fault("Go to the panel first, then repeat its reading");
  if (repeat && !now.surprise) return said.fault("There is no open repeat on this panel: leave out the r");
  const drafts = placed(readings).map(readingDraft);
  try {
    await outbox.add(drafts);
  } catch {
    return said.fault("This browser could not keep the reading: free some space, then press Enter again");
  }
  drafts.forEach((one, i) => mine.push({ id: one.id, words: wordsOf(readings[i], names.get(readings[i].panel)) }));
  if (edge) setEdge(false);
  line.value = "";
  said.say(`${readings.map((one) => one.raw || one.status).join(" ")} on ${names.get(readings[0].panel)}`);
}

/** Ask about numbers that look like the other unit, then store. */
function accept(readings, target) {
  const most = config.doubt.most_um;
  const tooMuch = readings.find((one) => micrometres(one) > most);
  if (tooMuch) return said.fault(`${tooMuch.raw}: more than ${most.toLocaleString("en")} µm is no film`);
  const odd = readings.find((one) => looksLike(one, config.doubt));
  const done = async (chosen) => {
    await store(chosen);
    if (target !== panel) await go(target);
    line.focus();
  };
  if (!odd) return done(readings);
  const other = looksLike(odd, config.doubt);
  const label = { um: "µm", mil: "mil" };
  return said.ask(`${odd.raw} ${label[odd.unit]} looks like a number in ${label[other]}.`, [
    [`It was ${odd.raw} ${label[other]}`, () => done(readings.map((one) => (looksLike(one, config.doubt) ? { ...one, unit: other, explicit: true } : one)))],
    [`Keep ${odd.raw} ${label[odd.unit]}`, () => done(readings.map((one) => ({ ...one, explicit: true })))],
  ]);
}

async function enter() {
  const text = line.value;
  if (!text.trim()) return said.say("Type a reading, then Enter");
  const read = readLine(text, { panel, unit: config.gauge.unit, fitted, codes: config.codes });
  if (read.fault) return said.fault(read.fault);
  const readings = read.actions.filter((one) => one.kind === "reading");
  if (readings.length) return accept(readings, read.panel);
  line.value = "";
  const [action] = read.actions;
  if (action.kind === "go") return go(read.panel);
  return act[action.kind]();
}

const single = (status) => ({ kind: "reading", panel, value: null, unit: config.gauge.unit, status, edge: false, repeat: false });

const act = {
  next: () => go(neighbour(1)),
  back: () => go(neighbour(-1)),
  help: () => keys.showModal(),
  over: () => store([single("over")]),
  none: () => store([single("none")]),
  edge: () => setEdge(!edge),
  follow: () => aim.toggle(),
  spot: () => (aim.place ? aim.toggle() : (aim.nextSpot(), aim.show())),
  undo: async () => {
    const last = mine.pop() || (now.last && { id: now.last, words: now.lastWords });
    if (!last) return said.say("Nothing to undo");
    await strike(last.id, last.words);
  },
};

function setEdge(on) {
  edge = on;
  document.querySelector('[data-do="edge"]').setAttribute("aria-pressed", String(on));
}

/** Strike an entry and offer to bring it back. */
async function strike(id, label) {
  const one = draft("general.strike", {}, { strikes: id });
  await outbox.add([one]);
  const place = mine.findIndex((reading) => reading.id === id);
  if (place >= 0) mine.splice(place, 1);
  said.say(`Struck: ${label}`, ["Bring it back", async () => {
    await outbox.add([draft("general.strike", { because: "struck by mistake" }, { strikes: one.id })]);
    mine.push({ id, words: label });
    said.say(`Back again: ${label}`);
    line.focus();
  }]);
}

async function note(kind, body) {
  await outbox.add([draft(kind, body, { place: panel })]);
  said.say(`Noted for ${names.get(panel)}`);
  line.focus();
}

/** Go to a panel and stand at a place on it; a connected stand-in reads there at once. */
async function stand(place, probe) {
  if (place.panel !== panel) await go(place.panel, true);
  const words = place.words || `${place.u.toFixed(2)}, ${place.v.toFixed(2)}`;
  aim.at({ ...place, words });
  if (!link.aim(place, probe)) line.focus({ preventScroll: true });
}

/** Show the other drawing. @param {"profile"|"sheet"} drawing */
async function draw(drawing) {
  remember(drawing);
  await go(panel, true);
}

const station = {
  config,
  outbox,
  said,
  line,
  go,
  note,
  panel: () => panel,
  position: () => (aim.place ? { u: aim.place.u, v: aim.place.v } : {}),
  flash: () => {
    const drawing = document.querySelector('[data-fragment="drawing"]');
    drawing.classList.remove("sh-flash", "fp-flash");
    requestAnimationFrame(() => drawing.classList.add(drawingNow() === "sheet" ? "sh-flash" : "fp-flash"));
  },
};
const forms = panelForms(station);
const link = gaugeLink(station);
gaugeForms(station);

document.querySelector("[data-line-form]").addEventListener("submit", (event) => {
  event.preventDefault();
  enter();
});

line.addEventListener("keydown", (event) => {
  const empty = line.value === "";
  const command = { ArrowDown: "next", ArrowUp: "back" }[event.key] || (empty && { "+": "next", "-": "back", "/": "undo", "?": "help", "*": "over", "@": "spot" }[event.key]);
  if (command) {
    event.preventDefault();
    act[command]();
  }
});

document.addEventListener("keydown", (event) => {
  const typing = event.target.matches("input:not(#line), select, textarea");
  if (event.key === "Escape" && !keys.open) {
    said.leave();
    line.value = "";
    repeating = false;
    showRepeat();
    line.focus();
  } else if ((event.ctrlKey || event.metaKey) && event.key === "z" && !typing && !line.value) {
    event.preventDefault();
    act.undo();
  } else if (event.key === "?" && !typing && event.target !== line) {
    keys.showModal();
  } else if (/^[0-9]$/.test(event.key) && !typing && event.target !== line && !keys.open && !event.ctrlKey && !event.altKey) {
    line.focus();
  }
});

document.addEventListener("click", (event) => {
  const target = event.target.closest(
    "[data-panel], [data-do], [data-key], [data-strike], [data-limit], [data-nothing], [data-repeat-start], [data-spot], [data-go-spot], [data-drawing-choice]",
  );
  if (!target || event.ctrlKey || event.metaKey) return;
  const { dataset } = target;
  const place = tapped(event);
  if (place) {
    event.preventDefault();
    stand(place, true);
    return;
  }
  if (dataset.drawingChoice) {
    draw(dataset.drawingChoice);
    return;
  }
  if (dataset.spot || dataset.goSpot) {
    stand({ panel: dataset.spot || dataset.goSpot, u: Number(dataset.u), v: Number(dataset.v), words: dataset.words }, Boolean(dataset.spot));
    return;
  }
  if (dataset.strike) strike(dataset.strike, dataset.words || target.getAttribute("aria-label")?.replace("Strike ", "") || "what was noted");
  else if (dataset.limit) note("general.limit", { station: "film", because: dataset.limit });
  else if ("nothing" in dataset) note("general.nothing_found", { station: "film" });
  else if ("repeatStart" in dataset) startRepeat();
  else if (dataset.do) act[dataset.do]();
  else if (dataset.key) press(dataset.key);
  else if (dataset.panel && target.closest("a")) {
    event.preventDefault();
    go(dataset.panel);
  }
  if (!dataset.strike && wide.matches && !keys.open) line.focus({ preventScroll: true });
});

function startRepeat() {
  repeating = !repeating;
  showRepeat();
  line.focus({ preventScroll: true });
}

function press(key) {
  line.value = key === "back" ? line.value.slice(0, -1) : line.value + key;
}

document.querySelector("[data-limit-form]").addEventListener("submit", (event) => {
  event.preventDefault();
  const field = event.target.elements.because;
  if (!field.value.trim()) return field.focus();
  note("general.limit", { station: "film", because: field.value });
  field.value = "";
});

document.querySelector("[data-note-form]").addEventListener("submit", async (event) => {
  event.preventDefault();
  const field = event.target.elements.note;
  const text = field.value.trim();
  if (!text) return field.focus();
  const kind = event.submitter?.value || "general.seen";
  await note(kind, kind === "general.seen" ? { station: "film", text } : { station: "film", done: text });
  field.value = "";
});

// Our own number keys stand on the screen of a narrow device: its keyboard would hide half of it.
const chooseKeyboard = () => line.setAttribute("inputmode", wide.matches ? "text" : "none");
wide.addEventListener("change", chooseKeyboard);
chooseKeyboard();
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-layer-switch]")) switchLayer(event.target);
});

showRepeat();
showLayers();
showCurrent();
aim.facing(now.panel, JSON.parse(now.spots || "[]"));
outbox.send();
if (wantedDrawing()) await draw(wantedDrawing());
document.documentElement.dataset.ready = "film";
