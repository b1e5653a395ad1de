/** One picture: marks are drawn over it and kept as an entry; words, tags and questions too. */

import { draft, Outbox, showSaved } from "../outbox.js";

const main = document.querySelector("[data-picture]");
const config = JSON.parse(main.dataset.config);
const canvas = document.querySelector("[data-canvas]");
const overlay = document.querySelector("[data-overlay]");
const words = document.querySelector("#mark-text");
let marks = config.marks;
let tool = "";
let start = null;

const outbox = new Outbox(config.inspection, {
  context: () => ({}),
  onReply: () => {},
  onState: showSaved,
  onRefused: (refused) => {
    const fault = document.querySelector("[data-fault]");
    fault.hidden = false;
    fault.textContent = `Not stored: ${refused.map((one) => one.message).join("; ")}`;
  },
});

const SVG = "http://www.w3.org/2000/svg";
function element(name, attributes, text = "") {
  const made = document.createElementNS(SVG, name);
  Object.entries(attributes).forEach(([key, value]) => made.setAttribute(key, value));
  made.textContent = text;
  return made;
}

/** The same signs as the server draws. */
function show(extra = []) {
  const { width, height } = canvas.querySelector("img").getBoundingClientRect();
  const high = (1000 * height) / width;
  const svg = element("svg", { class: "annotation", viewBox: `0 0 1000 ${high.toFixed(0)}` });
  for (const { shape, points, text } of [...marks, ...extra]) {
    const [[x, y], [a, b] = [x, y]] = points.map(([u, v]) => [u * 1000, v * high]);
    if (shape === "ring") svg.append(element("circle", { class: "an-line", cx: x, cy: y, r: Math.max(Math.hypot(a - x, b - y), 12) }));
    if (shape === "arrow") {
      const way = Math.atan2(b - y, a - x);
      const head = [1, -1].map((side) => `M${a} ${b}L${a - 34 * Math.cos(way + (side * Math.PI) / 7)} ${b - 34 * Math.sin(way + (side * Math.PI) / 7)}`);
      svg.append(element("path", { class: "an-line", d: `M${x} ${y}L${a} ${b}${head.join("")}` }));
    }
    if (text) svg.append(element("text", { class: "an-text", x, y }, text));
  }
  overlay.replaceChildren(svg);
}

function choose(name) {
  tool = tool === name ? "" : name;
  document.querySelectorAll("[data-tool]").forEach((one) => one.setAttribute("aria-pressed", String(one.dataset.tool === tool)));
}

const within = (one) => Math.min(1, Math.max(0, Math.round(one * 10000) / 10000));
function place(event) {
  const box = canvas.getBoundingClientRect();
  return [within((event.clientX - box.left) / box.width), within((event.clientY - box.top) / box.height)];
}

function keep() {
  outbox.add([draft("picture.annotated", { of: config.of, marks })]);
  show();
}

canvas?.addEventListener("pointerdown", (event) => {
  if (!tool) return;
  if (tool === "text" && !words.value.trim()) {
    words.focus();
    return;
  }
  start = place(event);
  canvas.setPointerCapture(event.pointerId);
});
canvas?.addEventListener("pointermove", (event) => start && show([{ shape: tool, points: [start, place(event)], text: words.value.trim() }]));
canvas?.addEventListener("pointerup", (event) => {
  if (!start) return;
  const points = tool === "text" ? [start] : [start, place(event)];
  const text = words.value.trim();
  marks = [...marks, { shape: tool, points, ...(text ? { text } : {}) }];
  start = null;
  words.value = "";
  keep();
});

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-tool], [data-undo], [data-strike]");
  if (!target) return;
  if (target.dataset.tool) choose(target.dataset.tool);
  if (target.dataset.undo !== undefined && marks.length) {
    marks = marks.slice(0, -1);
    keep();
  }
  if (target.dataset.strike) {
    outbox.add([draft("general.strike", {}, { strikes: target.dataset.strike })]).then(() => outbox.send()).then(() => (location.href = `/inspections/${config.inspection}/pictures`));
  }
});

document.querySelector("[data-describe]").addEventListener("submit", (event) => {
  event.preventDefault();
  const { words: said, looks, tag } = event.target.elements;
  outbox.add([draft("picture.described", { of: config.of, words: said.value.trim(), looks: looks.value, tags: tag.value ? [tag.value] : [] })]);
});
document.querySelector("[data-question]").addEventListener("submit", (event) => {
  event.preventDefault();
  const { question } = event.target.elements;
  if (!question.value.trim()) return;
  outbox.add([draft("general.for_desk", { question: question.value.trim(), shows: config.of })]);
  const line = document.createElement("p");
  line.className = "border-l-4 border-line pl-2 wrap-anywhere";
  line.textContent = question.value.trim();
  question.before(line);
  question.value = "";
});

document.addEventListener("keydown", (event) => {
  if (event.target.matches("input, textarea, select") || event.ctrlKey || event.metaKey || event.altKey) return;
  const tools = { a: "arrow", o: "ring", t: "text" };
  if (event.key === "ArrowLeft") document.querySelector("[data-back]").click();
  if (event.key === "ArrowRight") document.querySelector("[data-next]").click();
  if (tools[event.key] && canvas) choose(tools[event.key]);
});

outbox.send();
document.documentElement.dataset.ready = "picture";
