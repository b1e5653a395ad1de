"""Distance judged on labelled histories, and on a world of other physics.

    python -m bench.distance READINGS.csv TRUTH.csv [--half]     labelled: case,kind,true_km
    python -m bench.distance --other 1000                         made here, as nothing in the model's table is set on

The other world: yearly distance returns to the vehicle's own mean (the model wanders), seasons, two-year pauses, owners
who change everything, readings rounded to ten or a hundred, distance taken off in small and in large parts, dates some
weeks off, units that hold a figure of another vehicle, and records that went wrong twice.
"""

from __future__ import annotations

import argparse
import csv
import io
import time
from collections import Counter
from datetime import date, timedelta
from pathlib import Path

import numpy as np

from hakutsu.core.papers.distance import Distance, judge
from hakutsu.core.papers.records import DIAL, KINDS, KM_PER_MILE, MODULE, History, Record
from hakutsu.exchange.distance_csv import read_histories

TODAY = date(2026, 11, 1)
TWO = "two things"
AT_MOST_WRONG = 0.02


def half_of(history: History) -> History:
    """Every second record, with the last ones kept."""
    kept = [one for at, one in enumerate(history.records) if at % 2 == 0 or one.source in (DIAL, MODULE)]
    return History(tuple(kept), history.dial_digits, history.first_used)


def other_world(count: int, seed: int = 5) -> tuple[dict[str, History], dict[str, tuple[str, float]]]:
    """Histories and truths of a world with other physics."""
    rng = np.random.default_rng(seed)
    kinds = ["consistent", "rolled_back", "replaced", "unit_slip", "digit_slip", "rolled_over", TWO]
    histories, truths = {}, {}
    for at in range(count):
        kind = str(rng.choice(kinds, p=[0.66, 0.12, 0.05, 0.05, 0.06, 0.03, 0.03]))
        made = _made(rng, kind)
        histories[f"o{at}"], truths[f"o{at}"] = made
    return histories, truths


def _made(rng: np.random.Generator, kind: str) -> tuple[History, tuple[str, float]]:
    days = int(rng.integers(500, 9000))
    first = TODAY - timedelta(days=days)
    daily = _daily(rng, days)
    run = np.concatenate([[0.0], np.cumsum(daily)])
    count = max(3, round(days / 365 * rng.uniform(0.4, 1.1)))
    when = np.sort(rng.choice(np.arange(60, days), size=count, replace=False))
    when = np.append(when, days)
    shown = run[when].copy()
    true = float(run[-1])
    digits = 5 if kind == "rolled_over" else 6
    if kind == "rolled_over":
        shown = shown % 100_000
        if true < 100_000:
            kind = "consistent"
    if kind in ("rolled_back", TWO):
        on = int(rng.integers(days // 5, days))
        off = run[on] * rng.uniform(0.08, 0.85)
        shown = np.where(when > on, shown - off, shown)
    if kind == "replaced":
        on = int(rng.integers(days // 8, days))
        shown = np.where(when > on, shown - run[on] + (0 if rng.random() < 0.6 else rng.uniform(1e4, 2.5e5)), shown)
    unit = "mi" if rng.random() < 0.4 and digits == 6 else "km"
    values = shown / (KM_PER_MILE if unit == "mi" else 1)
    step = rng.choice([1, 1, 1, 10, 100])
    values = np.round(values / step) * step
    values[-1] = round(float(shown[-1] / (KM_PER_MILE if unit == "mi" else 1)))
    wrong = int(rng.integers(0, count))
    if kind == "unit_slip":
        values[wrong] = round(values[wrong] * (KM_PER_MILE if unit == "mi" else 1 / KM_PER_MILE))
    if kind in ("digit_slip", TWO):
        text = list(str(int(values[wrong])))
        spot = int(rng.integers(0, max(1, len(text) - 2)))
        text[spot] = str((int(text[spot]) + int(rng.integers(1, 10))) % 10)
        values[wrong] = float("".join(text))
    records = []
    for row, (day, value) in enumerate(zip(when, values, strict=True), start=2):
        off = 0 if row == count + 2 else int(rng.integers(-20, 21))
        on = min(TODAY, max(first, first + timedelta(days=int(day) + off)))
        records.append(Record(row, on, max(0.0, float(value)), unit, DIAL if row == count + 2 else "test"))
    if rng.random() < 0.2:
        held = true if rng.random() < 0.8 else float(rng.uniform(2e4, 2e5))
        records.append(Record(count + 3, TODAY, round(held), "km", MODULE))
    return History(tuple(records), digits, first), (kind, true)


def _daily(rng: np.random.Generator, days: int) -> np.ndarray:
    mean = np.log(rng.lognormal(np.log(12_000), 0.6) / 365)
    rate, logs = 0.0, np.empty(days)
    for day in range(days):
        if rng.random() < 1 / (365 * 6):
            mean += rng.normal(0, 0.7)
        rate = 0.995 * rate + rng.normal(0, 0.03)
        logs[day] = mean + rate
    daily = np.exp(logs) * (1 + 0.35 * np.sin(np.arange(days) / 365.25 * 2 * np.pi))
    if days > 3000 and rng.random() < 0.2:
        start = int(rng.integers(0, days - 700))
        daily[start : start + 700] = 0
    return daily


def scored(told: dict[str, Distance], truths: dict[str, tuple[str, float]]) -> str:
    """What the contract is held against, in one text."""
    names = [one for one in told if truths[one][0] in KINDS]
    guilty = np.array([truths[one][0] == "rolled_back" for one in names])
    chance = np.array([told[one].probabilities["rolled_back"] for one in names])
    others = np.sort(chance[~guilty])[::-1]
    threshold = others[int(AT_MOST_WRONG * others.size)]
    right = np.array([told[one].likeliest == truths[one][0] for one in names])
    sure = np.array([max(told[one].probabilities.values()) for one in names])
    inside = np.mean([told[one].km.p10 <= truths[one][1] <= told[one].km.p90 for one in names])
    wrongly = Counter((truths[one][0], told[one].likeliest) for one, ok in zip(names, right, strict=True) if not ok)
    two = [one for one in told if truths[one][0] == TWO]
    lines = [
        f"{len(names)} vehicles: rolled_back found at 2 % wrong {np.mean(chance[guilty] > threshold):.3f}"
        f" (from {threshold:.2f}), kind right {right.mean():.3f}, inside 80 % {inside:.3f}",
        f"calibration error: rolled_back {calibration(chance, guilty):.4f},"
        f" of the likeliest {calibration(sure, right):.4f}",
        f"above .9 and wrong {np.mean((sure > 0.9) & ~right):.4f}; consistent called rolled_back above .9:"
        f" {sum(c > 0.9 and truths[n][0] == 'consistent' for n, c in zip(names, chance, strict=True))}",
        "taken for another: " + ", ".join(f"{a} as {b} {n}" for (a, b), n in wrongly.most_common(8)),
    ]
    if two:
        lines.append(f"two things at once, {len(two)}: said to be more than one"
                     f" {np.mean([not told[one].fits for one in two]):.2f}, called consistent"
                     f" {np.mean([told[one].likeliest == 'consistent' for one in two]):.2f}")  # fmt: skip
    return "\n".join(lines)


def calibration(chance: np.ndarray, true: np.ndarray) -> float:
    """Expected calibration error in ten bins."""
    bins = np.minimum((chance * 10).astype(int), 9)
    return float(sum(abs(chance[bins == b].mean() - true[bins == b].mean()) * np.mean(bins == b) for b in set(bins)))


def main() -> None:
    """Judge and print."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("files", nargs="*")
    parser.add_argument("--half", action="store_true")
    parser.add_argument("--other", type=int, default=0)
    said = parser.parse_args()
    if said.other:
        histories, truths = other_world(said.other)
    else:
        histories = read_histories(Path(said.files[0]).read_bytes(), date.max)
        rows = csv.DictReader(io.StringIO(Path(said.files[1]).read_text()))
        truths = {row["case"]: (row["kind"], float(row["true_km"])) for row in rows}
    if said.half:
        histories = {name: half_of(one) for name, one in histories.items()}
    began = time.perf_counter()
    told = {name: judge(one) for name, one in histories.items()}
    print(scored(told, truths))
    print(f"{(time.perf_counter() - began) / len(told) * 1000:.1f} s a thousand")


if __name__ == "__main__":
    main()
