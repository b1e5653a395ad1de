/** The film station: one line always ready; every reading is an entry in the outbox before anything else happens. */

import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";
import { Aim } from "./aim.js";
import { gaugeForms } from "./gauge.js";
import { Doubts } from "./doubts.js";
import { hold, Keeping } from "./keeping.js";
import { readLine } from "./line.js";
import { gaugeLink } from "./link.js";
import { panelForms } from "./panel.js";
import { micrometres } from "./reading.js";
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
/** When fragments were asked for: what was asked earlier never replaces what was asked later. @type {WeakMap<object, number>} */
const askedAt = new WeakMap();
let asked = 0;
let shown = 0;
/** What was asked for and is still to come: while something newer is on its way, older parts are not drawn. @type {Set<number>} */
const coming = new Set();

function ask() {
  coming.add(++asked);
  return asked;
}

const outbox = new Outbox(config.inspection, {
  context: () => {
    const context = { view: "film", panel, drawing: drawingNow() };
    askedAt.set(context, ask());
    return context;
  },
  onReply: (reply, context) => {
    keeping.arrived(reply.acknowledged);
    coming.delete(askedAt.get(context));
    if (reply.fragments && context.panel === panel) show(reply.fragments, askedAt.get(context));
  },
  onMissed: (context) => coming.delete(askedAt.get(context)),
  onState: showSaved,
  onRefused: (refused) => {
    keeping.arrived(refused.map((one) => one.id));
    const words = refused.map((one) => `${one.draft.place ? names.get(one.draft.place) || one.draft.place : "entry"}: ${one.message}`);
    said.fault(`Not stored: ${words.join("; ")}`);
  },
});

const keeping = new Keeping(outbox, config, (panelKey) => names.get(panelKey));

/** What the server last said about the panel shown. */
function readNow() {
  return { ...document.querySelector("[data-now]").dataset };
}

/** Show fragments of the panel in hand, unless newer ones are there. @param {Record<string, string>} fragments @param {number} order */
function show(fragments, order) {
  if (order <= shown || [...coming].some((one) => one > order)) return;
  shown = order;
  swap(fragments);
  now = readNow();
  document.querySelector("[data-current-name]").textContent = now.name;
  document.querySelector("[data-current-count]").textContent = now.count;
  showRepeat();
  showLayers();
  showCurrent();
  forms.restore();
  aim.facing(now.panel, keeping.left(JSON.parse(now.spots || "[]")));
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

let going = new AbortController();

/** Go to another panel: at once for what is typed next, its parts when they come. @param {string} key @param {boolean} [quiet] the connected gauge is not aimed there */
async function go(key, quiet = false) {
  if (!quiet && key !== panel) link.aim({ panel: key }, false);
  if (key !== panel) repeating = false;
  panel = key;
  document.querySelector("[data-current-name]").textContent = names.get(key);
  main.setAttribute("aria-busy", "true");
  going.abort();
  going = new AbortController();
  const order = ask();
  try {
    const response = await fetch(`/inspections/${config.inspection}/film/fragments?panel=${key}&drawing=${drawingNow()}`, {
      headers: { Accept: "application/json" },
      signal: going.signal,
    });
    const fragments = await response.json();
    coming.delete(order);
    if (panel === key) show(fragments, order);
  } catch (trouble) {
    coming.delete(order);
    if (trouble.name === "AbortError") return;
    document.querySelector("[data-current-count]").textContent = "";
    said.say(`${names.get(key)}: no connection; readings are kept on this device`);
  }
  if (panel === key) main.removeAttribute("aria-busy");
}

function neighbour(step) {
  const place = config.panels.findIndex((one) => one.key === panel);
  return config.panels[(place + step + config.panels.length) % config.panels.length].key;
}

/** Readings with the places they were taken at, where one was aimed. Repeats stand beside the reading they repeat. */
function placed(readings) {
  if (readings.some((one) => one.repeat) || repeating) return readings;
  const places = aim.take(readings[0].panel, readings.filter((one) => one.panel === readings[0].panel).length);
  let next = 0;
  return readings.map((one) => (one.panel === readings[0].panel ? { ...one, place: places[next++] } : one));
}

/** Keep readings, in order; what was typed comes back if this device cannot keep it. @param {import("./keeping.js").Held[]} held @param {string} text */
async function store(held, text) {
  said.say(`${held.map((one) => one.reading.raw || one.reading.status).join(" ")} on ${names.get(held[0].place)}`);
  if (await keeping.keep(held)) return;
  line.value = [text, line.value].filter(Boolean).join(" ");
  said.fault("This browser could not keep the reading: free some space, then press Enter again");
}

const doubts = new Doubts(said, config, {
  name: (key) => names.get(key),
  settled: store,
  back: (text, key) => {
    line.value = [text, line.value].filter(Boolean).join(" ");
    if (key !== panel) go(key);
  },
  answered: () => line.focus(),
});

/** Something is wrong with the line: it stays, marked, so that what is typed next takes its place. @param {string} words */
function refuse(words) {
  said.fault(words);
  line.select();
}

/** Take the line: it is empty, and what it says belongs to the panel shown, before anything else happens. */
function enter() {
  const text = line.value.trim();
  if (!text) return said.say("Type a reading, then Enter");
  const read = readLine(text, { panel, unit: config.gauge.unit, fitted, codes: config.codes });
  if (read.fault) return refuse(read.fault);
  const readings = read.actions.filter((one) => one.kind === "reading");
  const most = config.doubt.most_um;
  const tooMuch = readings.find((one) => micrometres(one) > most);
  const limit = config.gauge.unit === "mil" ? `${Math.floor(most / 25.4)} mil` : `${most.toLocaleString("en")} µm`;
  if (tooMuch) return refuse(`${tooMuch.raw}: more than ${limit} is no film`);
  const wrong = readings.some((one) => one.repeat) && wrongRepeat(readings);
  if (wrong) return refuse(wrong);
  line.value = "";
  if (!readings.length) {
    const [action] = read.actions;
    return action.kind === "go" ? go(read.panel) : act[action.kind]();
  }
  take(readings, text);
  return read.panel === panel ? undefined : go(read.panel);
}

/** Why repeats cannot be taken now; nothing if they can. */
function wrongRepeat(readings) {
  if (readings.some((one) => one.panel !== now.panel)) return "Go to the panel first, then repeat its reading";
  return now.surprise ? "" : "There is no open repeat on this panel: leave out the r";
}

/** Store readings, or ask about them first. @param {object[]} readings @param {string} text */
function take(readings, text) {
  const held = placed(readings).map((one) => {
    const repeats = (one.repeat || repeating) && now.surprise && one.panel === now.panel ? now.surprise : undefined;
    return hold({ ...one, edge: one.edge || edge }, repeats);
  });
  if (edge) setEdge(false);
  return doubts.about(held) ? doubts.ask(held, text) : store(held, text);
}

const single = (status) => ({ kind: "reading", panel, value: null, unit: config.gauge.unit, status, edge: false, repeat: false });

const act = {
  next: () => go(neighbour(1)),
  back: () => go(neighbour(-1)),
  help: () => keys.showModal(),
  over: () => take([single("over")], "over"),
  none: () => take([single("none")], "none"),
  edge: () => setEdge(!edge),
  follow: () => aim.toggle(),
  spot: () => (aim.place ? aim.toggle() : (aim.nextSpot(), aim.show())),
  undo: async () => {
    const last = keeping.mine.pop() || (now.last && { id: now.last, words: now.lastWords });
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
  keeping.forget([id]);
  said.say(`Struck: ${label}`, ["Bring it back", async () => {
    await outbox.add([draft("general.strike", { because: "struck by mistake" }, { strikes: one.id })]);
    keeping.mine.push({ id, words: label });
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
    if (doubts.open) return doubts.takeBack();
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
aim.facing(now.panel, keeping.left(JSON.parse(now.spots || "[]")));
outbox.send();
if (wantedDrawing()) await draw(wantedDrawing());
document.documentElement.dataset.ready = "film";
