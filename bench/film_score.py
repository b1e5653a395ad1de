"""Score `hakutsu film` against labels: surveys.csv (the exchange format) and truth.csv (survey, panel, state).

Altered score = 1 − original − thinned; filled score = filled. Threshold: the 98th percentile of the score over panels
not in the class; found: share of the class above it. Calibration error over ten equal-width bins. Sure and wrong:
altered below 5 % on an altered panel, or above 95 % on an untouched one.

Run: .venv/bin/python -m bench.film_score DIRECTORY [EVERY [FIRST]]   (each EVERYth survey from the FIRST)
"""

from __future__ import annotations

import csv
import sys
import time
from pathlib import Path

import numpy as np
from tests.core.film.scoring import area_under_curve, calibration_error, found_at

from hakutsu.core.film import State, analyse
from hakutsu.exchange.film_csv import read_film_csv

LEAST_SURE, MANY = 0.05, 30


def main(directory: str, every: str = "1", first: str = "0") -> None:
    """Analyse surveys and print the figures."""
    place = Path(directory)
    with (place / "truth.csv").open() as file:
        rows = list(csv.DictReader(file))
    truth = {(row["survey"], row["panel"]): row["state"] for row in rows}
    detail = {(row["survey"], row["panel"]): row["detail"] for row in rows}
    surveys = read_film_csv((place / "surveys.csv").read_bytes()).surveys()[int(first) :: int(every)]
    start = time.perf_counter()
    results = [analyse(survey) for survey in surveys]
    taken = time.perf_counter() - start
    rows = [
        (panel.probabilities, truth[key], panel.readings, detail[key])
        for result in results
        for panel in result.panels
        if panel.probabilities is not None and (key := (result.survey, panel.panel)) in truth
    ]
    state = np.array([row[1] for row in rows])
    counts = np.array([row[2] for row in rows])
    altered = np.array([1 - row[0][State.ORIGINAL] - row[0][State.THINNED] for row in rows])
    filled = np.array([row[0][State.FILLED] for row in rows])
    families = np.array([row[3] for row in rows])
    changed = ~np.isin(state, ("original", "thinned"))
    wrong = np.where(changed, altered < LEAST_SURE, altered > 1 - LEAST_SURE)
    print(f"{len(surveys)} surveys, {len(rows)} panels, {1000 * taken / len(surveys):.1f} ms a survey")
    for name, score, positive in (
        ("altered", altered, ~np.isin(state, ("original", "thinned"))),
        ("filled", filled, state == "filled"),
    ):
        found, auc = found_at(score, positive), area_under_curve(score, positive)
        print(f"{name:8} found {found:.3f}  AUC {auc:.4f}  calibration error {calibration_error(score, positive):.4f}")
        for low, high in ((1, 1), (2, 3), (4, 5), (6, 8), (9, 99)):
            some = (counts >= low) & (counts <= high)
            if positive[some].sum() > 5:
                part = found_at(score[some], positive[some])
                print(f"    {low} to {high} readings: found {part:.3f} of {positive[some].sum()}")
    print(f"sure and wrong {wrong.mean():.4f}")
    flagged = altered > np.quantile(altered[~changed], 0.98)
    holds = filled > np.quantile(filled[state != "filled"], 0.98)
    for family in sorted(set(families)) if len(set(families)) < MANY else ():
        mine, in_it = families == family, (state == "filled")
        print(f"    {family:14} {mine.sum():5} panels, sure and wrong {wrong[mine].mean():.4f}, altered found "
              f"{_share(flagged[mine & changed])}, wrong flags {_share(flagged[mine & ~changed])}, filled found "
              f"{_share(holds[mine & in_it])}, wrong {_share(holds[mine & ~in_it])}")  # fmt: skip


def _share(found: np.ndarray) -> str:
    return f"{found.mean():.3f} of {len(found)}" if len(found) else "none"


if __name__ == "__main__":
    main(*sys.argv[1:])
