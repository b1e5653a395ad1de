/** The film station: one line always ready; every reading is an entry in the outbox before anything else happens. */

import { around, configOf, find, painted } from "../dom.js";
import { onSubmit } from "../entry-form.js";
import { swap } from "../fragments.js";
import { draft, Outbox, showSaved } from "../outbox.js";
import { ask } from "../server.js";
import { Aim } from "./aim.js";
import { Doubts } from "./doubts.js";
import { gaugeForms } from "./gauge.js";
import { hold, Keeping } from "./keeping.js";
import { keyboard } from "./keyboard.js";
import { readLine } from "./line.js";
import { gaugeLink } from "./link.js";
import { handForms } from "./by-hand.js";
import { panelForms } from "./panel.js";
import { Parts } from "./parts.js";
import { micrometres } from "./reading.js";
import { Repeat } from "./repeat.js";
import { Said } from "./said.js";
import { opened, whenOpened } from "./schools.js";
import { drawingNow, followLayers, remember, showCurrent, showLayers, tapped, wantedDrawing } from "./sheet.js";

/**
 * @typedef {import("./line.js").Reading} Reading
 * @typedef {import("./keeping.js").Held} Held
 * @typedef {{inspection: string, panels: import("./line.js").Panel[], codes: Record<string, string>,
 *   gauge: import("./reading.js").Gauge, doubt: import("./doubts.js").Bounds}} Config
 */

const main = find("[data-film-station]", HTMLElement);
/** @type {Config} */
const config = configOf(main);
const base = `/inspections/${config.inspection}/film`;
const line = find("#line", HTMLInputElement);
const fitted = new Map(config.panels.map((one) => [one.code, one.key]));
const names = new Map(config.panels.map((one) => [one.key, one.name]));
const nameOf = (/** @type {string} */ key) => names.get(key) ?? key;
const keys = find("#keys", HTMLDialogElement);
const wide = matchMedia("(min-width: 64rem)");
const said = new Said(find("[data-said]", HTMLElement), find("[data-question]", HTMLElement));
const aim = new Aim(find("[data-aim-words]", HTMLElement), find('[data-do="follow"]', HTMLElement));
const parts = new Parts();
const repeat = new Repeat();

let now = readNow();
let panel = now.panel ?? "";
let edge = false;

const outbox = new Outbox(config.inspection, {
  context: () => {
    const context = { view: "film", panel, drawing: drawingNow(), shows: opened() };
    parts.ask(context);
    return context;
  },
  onReply: (reply) => keeping.arrived(reply.acknowledged),
  onParts: (fragments, context) => {
    const order = parts.ended(context);
    return context.panel === panel ? show(fragments, order) : undefined;
  },
  onMissed: (context) => parts.ended(context),
  onState: showSaved,
  onRefused: (refused) => {
    keeping.arrived(refused.map((one) => one.id));
    const words = refused.map((one) => `${one.draft.place ? nameOf(one.draft.place) : "entry"}: ${one.message}`);
    said.fault(`Not stored: ${words.join("; ")}`);
  },
});

const keeping = new Keeping(outbox, config, nameOf);

/** What the server last said about the panel shown. */
function readNow() {
  return { ...find("[data-now]", HTMLElement).dataset };
}

/** Show fragments of the panel in hand, the drawing first, unless newer ones are there. @param {Record<string, string>} fragments @param {number} order */
async function show(fragments, order) {
  if (!parts.draws(order)) return;
  const { drawing, ...others } = fragments;
  const of = panel;
  swap({ drawing });
  showLayers();
  await painted();
  if (parts.shown !== order || panel !== of) return;
  swap(others);
  now = readNow();
  find("[data-current-name]", HTMLElement).textContent = now.name ?? "";
  find("[data-current-count]", HTMLElement).textContent = now.count ?? "";
  face();
  forms.restore();
  history.replaceState(null, "", `?panel=${panel}${drawingNow() === "sheet" ? "&drawing=sheet" : ""}`);
}

/** Repeat, sheet and aim follow what the server last said. */
function face() {
  repeat.show(now);
  showCurrent();
  aim.facing(now.panel ?? "", keeping.left(JSON.parse(now.spots || "[]")));
}

let going = new AbortController();

/** Go to another panel: at once for what is typed next, its parts when they come. @param {string} key @param {boolean} [quiet] the connected gauge is not aimed there */
async function go(key, quiet = false) {
  if (!quiet && key !== panel) link.aim({ panel: key }, false);
  if (key !== panel) repeat.on = false;
  panel = key;
  find("[data-current-name]", HTMLElement).textContent = nameOf(key);
  main.setAttribute("aria-busy", "true");
  going.abort();
  going = new AbortController();
  const { signal } = going;
  const order = parts.ask();
  try {
    const fragments = await ask("GET", `${base}/fragments?panel=${key}&drawing=${drawingNow()}&shows=${opened()}`, undefined, signal);
    parts.ended(order);
    if (panel === key) await show(fragments, order);
  } catch {
    parts.ended(order);
    if (signal.aborted) return;
    find("[data-current-count]", HTMLElement).textContent = "";
    said.say(`${nameOf(key)}: no connection; readings are kept on this device`);
  }
  if (panel === key) main.removeAttribute("aria-busy");
}

/** The panel so many further in walk order. @param {number} step */
function neighbour(step) {
  const place = config.panels.findIndex((one) => one.key === panel);
  return config.panels[(place + step + config.panels.length) % config.panels.length].key;
}

/** Readings with the places they were taken at, where one was aimed. Repeats stand beside the reading they repeat. @param {Reading[]} readings */
function placed(readings) {
  if (readings.some((one) => one.repeat) || repeat.on) return readings;
  const places = aim.take(readings[0].panel, readings.filter((one) => one.panel === readings[0].panel).length);
  let next = 0;
  return readings.map((one) => (one.panel === readings[0].panel ? { ...one, place: places[next++] } : one));
}

/** Keep readings, in order; what was typed comes back if this device cannot keep it. @param {Held[]} held @param {string} text */
async function store(held, text) {
  said.say(`${held.map((one) => one.reading.raw || one.reading.status).join(" ")} on ${nameOf(held[0].place)}`);
  if (await keeping.keep(held)) return;
  line.value = [text, line.value].filter(Boolean).join(" ");
  said.fault("This browser could not keep the reading: free some space, then press Enter again");
}

const doubts = new Doubts(said, config, {
  name: nameOf,
  settled: store,
  back: (text, key) => {
    line.value = [text, line.value].filter(Boolean).join(" ");
    if (key !== panel) go(key);
  },
  answered: () => line.focus(),
  stops: (um) => outbox.add([draft("film.gauge", Object.assign(config.gauge, { limit_um: um }))]),
});

/** Something is wrong with the line: it stays, marked, so that what is typed next takes its place. @param {string} words */
function refuse(words) {
  said.fault(words);
  line.select();
}

/** Take the line: it is empty, and what it says belongs to the panel shown, before anything else happens. */
function enter() {
  const text = line.value.trim();
  if (!text) {
    said.say("Type a reading, then Enter");
    return;
  }
  const read = readLine(text, { panel, unit: config.gauge.unit, fitted, codes: config.codes });
  const readings = read.actions.filter((one) => one.kind === "reading");
  const fault = read.fault || tooMuch(readings) || repeat.wrong(readings, now);
  if (fault) {
    refuse(fault);
    return;
  }
  line.value = "";
  if (readings.length) take(readings, text);
  const [action] = read.actions;
  if (action.kind !== "go" && action.kind !== "reading") act[action.kind]();
  else if (read.panel !== panel || !readings.length) go(read.panel);
}

/** What is wrong with numbers no film has; nothing otherwise. @param {Reading[]} readings */
function tooMuch(readings) {
  const most = config.doubt.most_um;
  const wrong = readings.find((one) => (micrometres(one) ?? 0) > most);
  const limit = config.gauge.unit === "mil" ? `${Math.floor(most / 25.4)} mil` : `${most.toLocaleString("en")} µm`;
  return wrong ? `${wrong.raw}: more than ${limit} is no film` : "";
}

/** Store readings, or ask about them first. @param {Reading[]} readings @param {string} text */
function take(readings, text) {
  const held = placed(readings).map((one) => hold({ ...one, edge: one.edge || edge }, repeat.of(one, now)));
  if (edge) setEdge(false);
  if (doubts.about(held)) doubts.ask(held, text);
  else store(held, text);
}

/** A reading without a number. @param {"over" | "none"} status @returns {Reading} */
const single = (status) => ({ kind: "reading", panel, value: null, unit: config.gauge.unit, status, edge: false, repeat: false, raw: "" });

/** What the buttons and keys do. @type {Record<string, () => unknown>} */
const act = {
  next: () => go(neighbour(1)),
  back: () => go(neighbour(-1)),
  help: () => keys.showModal(),
  over: () => take([single("over")], "over"),
  none: () => take([single("none")], "none"),
  edge: () => setEdge(!edge),
  follow: () => aim.toggle(),
  spot: () => (aim.place ? aim.toggle() : (aim.nextSpot(), aim.show())),
  undo: () => {
    const last = keeping.mine.pop() || (now.last && { id: now.last, words: now.lastWords ?? "the last reading" });
    if (last) strike(last.id, last.words);
    else said.say("Nothing to undo");
  },
};

/** @param {boolean} on */
function setEdge(on) {
  edge = on;
  find('[data-do="edge"]', HTMLElement).setAttribute("aria-pressed", String(on));
}

/** Strike an entry and offer to bring it back. @param {string} id @param {string} label */
async function strike(id, label) {
  const one = draft("general.strike", {}, { strikes: id });
  await outbox.add([one]);
  keeping.forget([id]);
  said.say(`Taken back: ${label}`, ["Bring it back", async () => {
    await outbox.add([draft("general.strike", { because: "struck by mistake" }, { strikes: one.id })]);
    keeping.mine.push({ id, words: label });
    said.say(`Back again: ${label}`);
    line.focus();
  }]);
}

/** An entry about the panel in hand. @param {string} kind @param {Record<string, unknown>} body */
async function note(kind, body) {
  await outbox.add([draft(kind, body, { place: panel })]);
  said.say(`Noted for ${nameOf(panel)}`);
  line.focus();
}

/** Go to a panel and stand at a place on it; a connected stand-in reads there at once. @param {{panel: string, u: number, v: number, words?: string}} place @param {boolean} probe */
async function stand(place, probe) {
  if (place.panel !== panel) await go(place.panel, true);
  const words = place.words || `${place.u.toFixed(2)}, ${place.v.toFixed(2)}`;
  aim.at({ ...place, words });
  if (!link.aim(place, probe)) line.focus({ preventScroll: true });
}

/** Show the other drawing. @param {string} drawing */
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
  position: () => (aim.place ? { u: aim.place.u, v: aim.place.v } : {}),
  flash: () => {
    const drawing = find('[data-fragment="drawing"]', HTMLElement);
    drawing.classList.remove("sh-flash", "fp-flash");
    requestAnimationFrame(() => drawing.classList.add(drawingNow() === "sheet" ? "sh-flash" : "fp-flash"));
  },
};
handForms(station);
const forms = panelForms(station);
const link = gaugeLink(station);
gaugeForms(station);
whenOpened(() => go(panel, true));

onSubmit("[data-line-form]", enter);
keyboard({ line, keys, act, escape });

/** Back to an empty line, or what is in doubt back into it. */
function escape() {
  if (doubts.open) {
    doubts.takeBack();
    return;
  }
  said.leave();
  line.value = "";
  repeat.on = false;
  repeat.show(now);
  line.focus();
}

document.addEventListener("click", (event) => {
  const target = around(
    event,
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
  const spot = dataset.spot || dataset.goSpot;
  if (spot) {
    stand({ panel: spot, u: Number(dataset.u), v: Number(dataset.v), words: dataset.words }, Boolean(dataset.spot));
    return;
  }
  if (dataset.strike) strike(dataset.strike, dataset.words || target.getAttribute("aria-label")?.replace("Take back ", "") || "what was noted");
  else if (dataset.limit) note("general.limit", { station: "film", because: dataset.limit });
  else if ("nothing" in dataset) note("general.nothing_found", { station: "film" });
  else if ("repeatStart" in dataset) repeat.toggle(now, line);
  else if (dataset.do) act[dataset.do]?.();
  else if (dataset.key) press(dataset.key);
  else if (dataset.panel && target.closest("a")) {
    event.preventDefault();
    go(dataset.panel);
  }
  if (!dataset.strike && wide.matches && !keys.open) line.focus({ preventScroll: true });
});

/** A key of the screen. @param {string} key */
function press(key) {
  line.value = key === "back" ? line.value.slice(0, -1) : line.value + key;
}

// Our own number keys stand on the screen of a narrow device: its keyboard would hide half of it.
const chooseKeyboard = () => line.setAttribute("inputmode", wide.matches ? "text" : "none");
wide.addEventListener("change", chooseKeyboard);
chooseKeyboard();

followLayers();
face();
outbox.send();
const wanted = wantedDrawing();
if (wanted) await draw(wanted);
document.documentElement.dataset.ready = "film";
