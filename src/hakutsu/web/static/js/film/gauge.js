/** The gauge in use and its verification, as forms whose entries go through the outbox. */

import { all, around, field, find } from "../dom.js";
import { numberOf, onSubmit } from "../entry-form.js";
import { draft } from "../outbox.js";

/** @typedef {import("./reading.js").Gauge} Gauge */
/** @typedef {{gauge: Gauge, doubt: {most_um: number}}} Config the gauge may change */

const MIL = 25.4;
const MOST_STEP_UM = 100;
const LEAST_LIMIT_UM = 100;

/** A number as typed, or NaN. @param {string} text */
const typed = (text) => numberOf(text) ?? NaN;

/**
 * @param {{config: Config, outbox: import("../outbox.js").Outbox, said: import("./said.js").Said, line: HTMLInputElement}} station
 */
export function gaugeForms({ config, outbox, said, line }) {
  document.addEventListener("click", (event) => {
    const none = around(event, "[data-no-gauge]");
    if (none) {
      void outbox.add([draft("general.limit", { station: "film", because: none.dataset.noGauge ?? "" })]);
      said.say("No gauge: eye and hand are asked at each place instead");
    }
    const kept = around(event, "[data-kept-gauge]");
    if (!kept) return;
    const form = find("[data-gauge-form]", HTMLFormElement);
    for (const name of ["name", "unit", "step", "limit"]) field(form, name).value = kept.dataset[name] ?? "";
    form.requestSubmit();
  });

  onSubmit("[data-gauge-form]", async (form) => {
    const unit = field(form, "unit").value === "mil" ? "mil" : "um";
    const each = unit === "mil" ? MIL : 1;
    const step = typed(field(form, "step").value) * each;
    const limit = typed(field(form, "limit").value.replace(",", "")) * each;
    const fault = find("[data-gauge-fault]", HTMLElement);
    const fine = step > 0 && step <= MOST_STEP_UM;
    fault.hidden = fine && limit >= LEAST_LIMIT_UM && limit <= config.doubt.most_um;
    fault.textContent = fine ? "The range ends between 100 and 25,000 µm (4 to 980 mil)" : "The display step lies above 0 and up to 100 µm (4 mil)";
    if (!fault.hidden) return;
    /** @type {Gauge} */
    const gauge = { name: field(form, "name").value.trim() || "Film gauge", unit, step_um: step, limit_um: limit };
    await outbox.add([draft("film.gauge", gauge)]);
    showGauge(config, gauge);
    find("#gauge-details", HTMLDetailsElement).open = false;
    said.say(`Gauge in use: ${gauge.name}`);
    line.focus();
  });

  onSubmit("[data-verify-form]", async (form) => {
    const each = config.gauge.unit === "mil" ? MIL : 1;
    const references = all("[name=reference]", HTMLInputElement, form);
    const displays = all("[name=shown]", HTMLInputElement, form);
    const checks = displays.flatMap(({ value }, i) => {
      if (value.trim() === "") return [];
      return [{ reference_um: typed(references[i].value) * each, shown_um: typed(value) * each }];
    });
    const most = config.doubt.most_um;
    const fault = find("[data-verify-fault]", HTMLElement);
    const bad = checks.some(({ reference_um: a, shown_um: b }) => !(a >= 0 && a <= most) || !(b > -500 && b <= most));
    const plate = checks.some((one) => one.reference_um === 0);
    const shim = checks.some((one) => one.reference_um > 0);
    fault.textContent = bad ? "References and what was shown are numbers, references from 0 up" : "It takes the bare plate (reference 0) and at least one shim";
    fault.hidden = !bad && plate && shim;
    if (!fault.hidden) return;
    const when = String(new FormData(form).get("when"));
    await outbox.add([draft("film.verification", { when, gauge: config.gauge.name || "", checks })]);
    displays.forEach((one) => (one.value = ""));
    said.say(`Verification at the ${when} noted`);
  });
}

/** Show another gauge in use. @param {Config} config @param {Gauge} gauge */
export function showGauge(config, gauge) {
  config.gauge = gauge;
  const label = gauge.unit === "mil" ? "mil" : "µm";
  find("[data-unit]", HTMLElement).textContent = label;
  find("[data-gauge-name]", HTMLElement).textContent = `${gauge.name}, ${label}`;
}
