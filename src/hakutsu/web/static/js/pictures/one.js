/** One picture: marks are drawn over it and kept as an entry; words, tags and questions too. */

import { all, around, configOf, field, find, maybe, typing } from "../dom.js";
import { onSubmit } from "../entry-form.js";
import { draft, Outbox, showSaved } from "../outbox.js";

/** @typedef {[number, number]} Point from 0 to 1 across and down */
/** @typedef {{shape: string, points: Point[], text?: string}} Mark */

const SVG = "http://www.w3.org/2000/svg";
const WIDE = 1000;
const config = configOf(find("[data-picture]", HTMLElement));
const canvas = maybe("[data-canvas]", HTMLElement);

const outbox = new Outbox(config.inspection, {
  context: () => ({}),
  onReply: () => {},
  onParts: () => {},
  onState: showSaved,
  onRefused: (refused) => {
    const fault = find("[data-fault]", HTMLElement);
    fault.hidden = false;
    fault.textContent = `Not stored: ${refused.map((one) => one.message).join("; ")}`;
  },
});

/** @param {string} name @param {Record<string, string | number>} attributes */
function element(name, attributes, text = "") {
  const made = document.createElementNS(SVG, name);
  Object.entries(attributes).forEach(([key, value]) => made.setAttribute(key, String(value)));
  made.textContent = text;
  return made;
}

/** The signs of a mark, the same as the server draws. @param {Mark} mark @param {number} high */
function signs({ shape, points, text }, high) {
  const [[x, y], end] = points.map(([u, v]) => [u * WIDE, v * high]);
  const [a, b] = end ?? [x, y];
  const made = [];
  if (shape === "ring") made.push(element("circle", { class: "an-line", cx: x, cy: y, r: Math.max(Math.hypot(a - x, b - y), 12) }));
  if (shape === "arrow") {
    const way = Math.atan2(b - y, a - x);
    const head = [1, -1].map((side) => `M${a} ${b}L${a - 34 * Math.cos(way + (side * Math.PI) / 7)} ${b - 34 * Math.sin(way + (side * Math.PI) / 7)}`);
    made.push(element("path", { class: "an-line", d: `M${x} ${y}L${a} ${b}${head.join("")}` }));
  }
  if (text) made.push(element("text", { class: "an-text", x, y }, text));
  return made;
}

const within = (/** @type {number} */ one) => Math.min(1, Math.max(0, Math.round(one * 10000) / 10000));

/** Marking on a picture; gives what chooses a tool. @param {HTMLElement} frame */
function marking(frame) {
  const overlay = find("[data-overlay]", HTMLElement);
  const words = find("#mark-text", HTMLInputElement);
  /** @type {Mark[]} */
  let marks = config.marks;
  let tool = "";
  /** @type {Point | null} */
  let start = null;

  /** @param {MouseEvent} event @returns {Point} */
  function place(event) {
    const box = frame.getBoundingClientRect();
    return [within((event.clientX - box.left) / box.width), within((event.clientY - box.top) / box.height)];
  }

  /** @param {Mark[]} [extra] */
  function show(extra = []) {
    const { width, height } = find("img", HTMLImageElement, frame).getBoundingClientRect();
    const high = (WIDE * height) / width;
    const svg = element("svg", { class: "annotation", viewBox: `0 0 ${WIDE} ${high.toFixed(0)}` });
    svg.append(...[...marks, ...extra].flatMap((mark) => signs(mark, high)));
    overlay.replaceChildren(svg);
  }

  /** @param {Mark[]} now */
  function keep(now) {
    marks = now;
    outbox.add([draft("picture.annotated", { of: config.of, marks })]);
    show();
  }

  frame.addEventListener("pointerdown", (event) => {
    if (!tool) return;
    if (tool === "text" && !words.value.trim()) {
      words.focus();
      return;
    }
    start = place(event);
    frame.setPointerCapture(event.pointerId);
  });
  frame.addEventListener("pointermove", (event) => {
    if (start) show([{ shape: tool, points: [start, place(event)], text: words.value.trim() }]);
  });
  frame.addEventListener("pointerup", (event) => {
    if (!start) return;
    const text = words.value.trim();
    const points = tool === "text" ? [start] : [start, place(event)];
    start = null;
    words.value = "";
    keep([...marks, { shape: tool, points, ...(text ? { text } : {}) }]);
  });
  find("[data-undo]", HTMLElement).addEventListener("click", () => {
    if (marks.length) keep(marks.slice(0, -1));
  });

  return (/** @type {string} */ name) => {
    tool = tool === name ? "" : name;
    for (const one of all("[data-tool]", HTMLElement)) one.setAttribute("aria-pressed", String(one.dataset.tool === tool));
  };
}

const choose = canvas ? marking(canvas) : () => {};

/** @param {string} entry */
async function strike(entry) {
  await outbox.add([draft("general.strike", {}, { strikes: entry })]);
  await outbox.send();
  location.href = `/inspections/${config.inspection}/pictures`;
}

document.addEventListener("click", (event) => {
  const { tool, strike: entry } = around(event, "[data-tool], [data-strike]")?.dataset ?? {};
  if (tool) choose(tool);
  if (entry) strike(entry);
});

onSubmit("[data-describe]", (form) => {
  const tag = field(form, "tag").value;
  const said = { words: field(form, "words").value.trim(), looks: field(form, "looks").value, tags: tag ? [tag] : [] };
  outbox.add([draft("picture.described", { of: config.of, ...said })]);
});
onSubmit("[data-question]", (form) => {
  const question = field(form, "question");
  const text = question.value.trim();
  if (!text) return;
  outbox.add([draft("general.for_desk", { question: text, shows: config.of })]);
  const line = document.createElement("p");
  line.className = "border-l-4 border-line pl-2 wrap-anywhere";
  line.textContent = text;
  question.before(line);
  question.value = "";
});

/** @type {Record<string, string>} */
const TOOLS = { a: "arrow", o: "ring", t: "text" };
document.addEventListener("keydown", (event) => {
  if (typing(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === "ArrowLeft") find("[data-back]", HTMLElement).click();
  if (event.key === "ArrowRight") find("[data-next]", HTMLElement).click();
  if (TOOLS[event.key]) choose(TOOLS[event.key]);
});

outbox.send();
document.documentElement.dataset.ready = "picture";
