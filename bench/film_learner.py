"""How far a learner gets that is taught labelled surveys of one world and knows nothing of paint: the mark to reach.

Boosted trees over figures of each panel, its mirror panel and its car; taught one directory, judged on another at 2 %
wrong flags, as `bench.film_score` judges the engine. Needs scikit-learn (the `bench` extra).

Run: .venv/bin/python -m bench.film_learner TAUGHT JUDGED
"""

from __future__ import annotations

import csv
import sys
from pathlib import Path

import numpy as np
from sklearn.ensemble import HistGradientBoostingClassifier
from tests.core.film.scoring import calibration_error, found_at

from hakutsu.core.film.survey import FilmSurvey, Observation
from hakutsu.exchange.film_csv import read_film_csv
from hakutsu.vehicle.panels import panels

KINDS = ("roof", "bonnet", "boot_lid", "tailgate", "wing", "front_door", "rear_door", "quarter", "sill", "pillar")
FINISHES = ("factory", "restored", "preserved", "unknown")
RUNS = 5


def _film(group: list[Observation]) -> np.ndarray:
    return np.log(np.array([1.5 * (o.limit_um or 500.0) if o.censored else (o.value_um or 1.0) for o in group]))


def _own(group: list[Observation]) -> list[float]:
    """Figures of one panel by itself: level, spread, ends, censored share, where the ends lie, slopes."""
    film = np.sort(_film(group))
    log = _film(group)
    found = [len(log), float(np.mean([o.censored for o in group])), *np.quantile(log, (0, 0.25, 0.5, 0.75, 1)),
             log.mean(), log.std(), float(film[-1] - film[0]), float(np.diff(film).max()) if len(film) > 1 else 0.0,
             float(film[: max(1, len(film) - 1)].std())]  # fmt: skip
    place = [(o.u, o.v) for o in group]
    if any(u is None or v is None for u, v in place) or len(group) < 2:
        return [*found, *[np.nan] * 8]
    at = np.array(place, dtype=float)
    top, low = int(log.argmax()), int(log.argmin())
    slopes = [float(np.polyfit(at[:, i], log, 1)[0]) if np.ptp(at[:, i]) > 0.05 else 0.0 for i in (0, 1)]
    near = np.hypot(*(at - at[top]).T)
    return [*found, *at[top], *at[low], *slopes, float(near[near > 0].min(initial=1.0)), float((near < 0.1).sum())]


def figures(survey: FilmSurvey) -> tuple[list[str], np.ndarray]:
    """Panels read, and a row of figures for each."""
    groups: dict[str, list[Observation]] = {}
    for o in survey.observations:
        if o.value_um is not None or o.censored:
            groups.setdefault(o.panel, []).append(o)
    own = {name: _own(group) for name, group in groups.items()}
    middle = {name: float(np.median(_film(group))) for name, group in groups.items()}
    spread = np.array([row[8] for row in own.values()])
    levels = np.array(sorted(middle.values()))
    car = [*np.quantile(levels, (0, 0.1, 0.25, 0.5, 0.75, 0.9, 1)), levels.std(),
           *np.quantile(spread, (0.25, 0.5, 0.75)),
           len(levels), float(np.mean([row[0] for row in own.values()])),
           float(np.median([middle[n] for n in middle if n == "roof" or "pillar" in n] or [np.nan])),
           float(np.median([middle[n] for n in middle if n.startswith("sill")] or [np.nan])),
           FINISHES.index(str(survey.finish)), max((o.limit_um or 0.0) for o in survey.observations),
           max((o.step_um or 0.0) for o in survey.observations)]  # fmt: skip
    rows = []
    for name, row in own.items():
        mirror = panels()[name].mirror
        other = own.get(mirror) if mirror else None
        metal = str(survey.substrate(name))
        alike = [middle[n] for n in middle if n != name and str(survey.substrate(n)) == metal]
        kind = next((i for i, part in enumerate(KINDS) if part in name), -1)
        against = [middle[name] - q for q in (*car[1:5], float(np.median(alike or [np.nan])))]
        rank = float((levels < middle[name]).mean())
        rows.append([*row, kind, metal == "aluminium", *against, row[6] - car[3], row[2] - car[2], rank, *car,
                     *([other[4], other[6], other[8], middle[name] - other[4]] if other else [np.nan] * 4),
                     ])  # fmt: skip
    return list(own), np.array(rows, dtype=float)


def labelled(directory: str) -> tuple[np.ndarray, np.ndarray]:
    """Figures and true states of every labelled panel of a directory."""
    place = Path(directory)
    with (place / "truth.csv").open() as file:
        truth = {(row["survey"], row["panel"]): row["state"] for row in csv.DictReader(file)}
    table, states = [], []
    for survey in read_film_csv((place / "surveys.csv").read_bytes()).surveys():
        names, rows = figures(survey)
        for name, row in zip(names, rows, strict=True):
            if (survey.id, name) in truth:
                table.append(row)
                states.append(truth[survey.id, name])
    return np.array(table), np.array(states)


def main(taught: str, judged: str) -> None:
    """Teach, judge and print."""
    table, state = labelled(taught)
    others, truth = labelled(judged)
    print(f"taught {len(state)} panels, judged on {len(truth)}")
    for name, classes in (("altered", ("blended", "refinished", "rebuilt", "filled")), ("filled", ("filled",))):
        mine, true = np.isin(state, classes), np.isin(truth, classes)
        score = np.zeros(len(truth))
        for seed in range(RUNS):
            trees = HistGradientBoostingClassifier(
                max_iter=250, learning_rate=0.05, max_leaf_nodes=24, l2_regularization=3.0, random_state=seed,
                max_features=0.5,
            )  # fmt: skip
            score += trees.fit(table, mine).predict_proba(others)[:, 1] / RUNS
        print(f"{name:8} found {found_at(score, true):.3f}  calibration error {calibration_error(score, true):.4f}")


if __name__ == "__main__":
    main(*sys.argv[1:])
