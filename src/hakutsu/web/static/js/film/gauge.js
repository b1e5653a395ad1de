/** The gauge in use and its verification, as forms whose entries go through the outbox. */

import { draft } from "../outbox.js";

const MIL = 25.4;

/** A number as typed, or NaN. @param {string} text */
function typed(text) {
  return text.trim() === "" ? NaN : Number(text.trim().replace(",", "."));
}

/**
 * @param {{config: object, outbox: import("../outbox.js").Outbox, said: import("./said.js").Said, line: HTMLInputElement}} station
 */
export function gaugeForms({ config, outbox, said, line }) {
  const form = document.querySelector("[data-gauge-form]");
  const factor = () => (config.gauge.unit === "mil" ? MIL : 1);

  document.addEventListener("click", (event) => {
    const kept = event.target.closest("[data-kept-gauge]");
    if (!kept) return;
    for (const name of ["name", "unit", "step", "limit"]) form.elements[name].value = kept.dataset[name];
    form.requestSubmit();
  });

  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    const fields = form.elements;
    const inUm = fields.unit.value === "mil" ? MIL : 1;
    const step = typed(fields.step.value) * inUm;
    const limit = typed(fields.limit.value.replace(",", "")) * inUm;
    const fault = document.querySelector("[data-gauge-fault]");
    fault.hidden = step > 0 && step <= 100 && limit >= 100 && limit <= config.doubt.most_um;
    fault.textContent = step > 0 && step <= 100 ? "The range ends between 100 and 25,000 µm (4 to 980 mil)" : "The display step lies above 0 and up to 100 µm (4 mil)";
    if (!fault.hidden) return;
    const name = fields.name.value.trim() || "Film gauge";
    await outbox.add([draft("film.gauge", { name, unit: fields.unit.value, step_um: step, limit_um: limit })]);
    showGauge(config, { name, unit: fields.unit.value, step_um: step, limit_um: limit });
    document.querySelector("#gauge-details").open = false;
    said.say(`Gauge in use: ${name}`);
    line.focus();
  });

  document.querySelector("[data-verify-form]").addEventListener("submit", async (event) => {
    event.preventDefault();
    const fields = event.target.elements;
    const pairs = [...fields.reference].map((one, i) => [one.value, fields.shown[i].value]).filter(([, shown]) => shown.trim() !== "");
    const checks = pairs.map(([reference, shown]) => ({ reference_um: typed(reference) * factor(), shown_um: typed(shown) * factor() }));
    const fault = document.querySelector("[data-verify-fault]");
    const bad = checks.some(({ reference_um: a, shown_um: b }) => !(a >= 0 && a <= 25000) || !(b > -500 && b <= 25000));
    const plate = checks.some((one) => one.reference_um === 0);
    const shim = checks.some((one) => one.reference_um > 0);
    fault.textContent = bad ? "References and what was shown are numbers, references from 0 up" : "It takes the bare plate (reference 0) and at least one shim";
    fault.hidden = !bad && plate && shim;
    if (!fault.hidden) return;
    await outbox.add([draft("film.verification", { when: fields.when.value, gauge: config.gauge.name || "", checks })]);
    [...fields.shown].forEach((one) => (one.value = ""));
    said.say(`Verification at the ${fields.when.value} noted`);
  });
}

/** Show another gauge in use. @param {object} config @param {{name: string, unit: "um"|"mil", step_um: number, limit_um: number}} gauge */
export function showGauge(config, gauge) {
  config.gauge = gauge;
  const label = gauge.unit === "mil" ? "mil" : "µm";
  document.querySelector("[data-unit]").textContent = label;
  document.querySelector("[data-gauge-name]").textContent = `${gauge.name}, ${label}`;
}
