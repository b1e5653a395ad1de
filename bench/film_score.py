"""Score `hakutsu film` against labels: surveys.csv (the exchange format) and truth.csv (survey, panel, state).

Altered score = 1 − original − thinned; filled score = filled. Threshold: the 98th percentile of the score over panels
not in the class; found: share of the class above it. Calibration error over ten equal-width bins.

Run: .venv/bin/python -m bench.film_score DIRECTORY
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


def main(directory: str) -> None:
    """Analyse every survey and print the figures."""
    place = Path(directory)
    with (place / "truth.csv").open() as file:
        truth = {(row["survey"], row["panel"]): row["state"] for row in csv.DictReader(file)}
    surveys = read_film_csv((place / "surveys.csv").read_bytes()).surveys()
    start = time.perf_counter()
    results = [analyse(survey) for survey in surveys]
    taken = time.perf_counter() - start
    rows = [
        (panel.probabilities, truth[result.survey, panel.panel], panel.readings)
        for result in results
        for panel in result.panels
        if panel.probabilities is not None and (result.survey, panel.panel) in truth
    ]
    state = np.array([row[1] for row in rows])
    counts = np.array([row[2] for row in rows])
    altered = np.array([1 - row[0][State.ORIGINAL] - row[0][State.THINNED] for row in rows])
    filled = np.array([row[0][State.FILLED] for row in rows])
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


if __name__ == "__main__":
    main(sys.argv[1])
