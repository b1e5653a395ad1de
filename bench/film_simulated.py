"""Score the film engine on simulated cars with known truth: usual, rough and coarse gauges; by readings a panel; by
state; and how often the 80 % interval of the filled share holds the truth.

Run: .venv/bin/python -m bench.film_simulated [CARS]
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from typing import Any

import numpy as np
from tests.core.film.scoring import area_under_curve, calibration_error, found_at

from hakutsu.core.film import STATES, State, analyse
from hakutsu.core.film.simulate import Gauge, coarse_gauge, paint_car, rough_gauge, usual_gauge

FIRST_SEED = 500_000
KINDS: dict[str, tuple[Callable[[np.random.Generator], Gauge], dict[str, Any], dict[str, Any]]] = {
    "usual gauge": (usual_gauge, {}, {"placed": 0.94}),
    "rough car, worn gauge, dust": (rough_gauge, {"roughness": 1.25}, {"placed": 0.6, "skipped": 0.15}),
    "half-mil steps, limit 508": (coarse_gauge, {}, {"placed": 0.94}),
}


class Judged:
    """What was said of every panel read, and what is true."""

    def __init__(self) -> None:
        self.chances: list[list[float]] = []
        self.true: list[State] = []
        self.held: list[tuple[int, bool]] = []

    def take(self, gauge: Any, seed: int, car_kind: dict[str, Any], survey_kind: dict[str, Any], spots: Any) -> None:
        """Paint, read and analyse one car."""
        rng = np.random.default_rng(seed)
        car = paint_car(rng, **car_kind)
        for panel in analyse(car.survey(rng, gauge(rng), spots=spots, **survey_kind)).panels:
            truth = car.panels[panel.panel]
            self.chances.append([panel.probabilities[state] for state in STATES])
            self.true.append(truth.state)
            if truth.state is State.FILLED and panel.filled_share:
                share = panel.filled_share
                self.held.append((panel.readings, share.low <= truth.filled_share <= share.high))

    def scores(self) -> dict[str, tuple[np.ndarray, np.ndarray]]:
        """Score and truth of altered and filled."""
        chances, true = np.array(self.chances), np.array(self.true)
        altered = 1 - chances[:, 0] - chances[:, 1]
        return {
            "altered": (altered, ~np.isin(true, (State.ORIGINAL, State.THINNED))),
            "filled": (chances[:, STATES.index(State.FILLED)], true == State.FILLED),
        }

    def say(self, name: str) -> None:
        """Print the figures."""
        print(f"{name}: {len(self.true)} panels")
        for what, (score, positive) in self.scores().items():
            found, auc = found_at(score, positive), area_under_curve(score, positive)
            error = calibration_error(score, positive)
            print(f"   {what:8} found at 2 % {found:.3f}  AUC {auc:.4f}  calibration error {error:.4f}")

    def say_states(self) -> None:
        """Print calibration by state."""
        chances, true = np.array(self.chances), np.array(self.true)
        for i, state in enumerate(STATES):
            happened = true == state
            error = calibration_error(chances[:, i], happened)
            print(f"   {state:10} said {chances[:, i].mean():.4f}  true {happened.mean():.4f}  error {error:.4f}")


def main(cars: int) -> None:
    """Judge and print."""
    for name, (gauge, car_kind, survey_kind) in KINDS.items():
        judged = Judged()
        for i in range(cars):
            judged.take(gauge, FIRST_SEED + i, car_kind, survey_kind, (2, 3, 3, 4, 5, 6, 8))
        judged.say(name)
        if gauge is usual_gauge:
            judged.say_states()
    for count in (1, 3, 5, 8):
        judged = Judged()
        for i in range(cars):
            judged.take(usual_gauge, FIRST_SEED + 5000 + i, {}, {}, count)
        judged.say(f"usual gauge, {count} readings a panel")
    judged = Judged()
    for i in range(cars):
        judged.take(usual_gauge, FIRST_SEED + 9000 + i, {"repairs": 2.0}, {}, (8, 9, 10, 12))
    print(f"filled share, 8 readings and more: 80 % interval held {np.mean([h for _, h in judged.held]):.3f}"
          f" of {len(judged.held)}")  # fmt: skip


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 300)
