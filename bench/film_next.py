"""Does the advice where to read next pay? Paired on simulated cars: the same number of further readings, once where the
advice says, once spread evenly over the panels; the log score of altered and filled over all panels, afterwards.

Run: .venv/bin/python -m bench.film_next [CARS]
"""

from __future__ import annotations

import sys

import numpy as np
from tests.core.film.scoring import log_score

from hakutsu.core.film import FilmModel, FilmSurvey, analyse, next_spots, parameters
from hakutsu.core.film.simulate import paint_car, usual_gauge
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import spot_pattern

FURTHER = 12


def pair(seed: int) -> float:
    """Log score with the advice followed less that of even spreading, on one car."""
    rng = np.random.default_rng(seed)
    car, gauge = paint_car(rng), usual_gauge(rng)
    first = car.survey(rng, gauge, spots=1)
    keys = list(car.panels)
    told, even = list(first.observations), list(first.observations)
    for i in range(FURTHER):
        model = FilmModel(FilmSurvey("told", told, car.finish, first.substrates), parameters())
        spot = next_spots(model, car.finish)[0]
        told.append(car.read(spot.panel, spot.u, spot.v, gauge, rng))
        key = keys[(i * len(keys)) // FURTHER]
        pattern = spot_pattern(panels()[key])
        taken = sum(o.panel == key for o in even)
        even.append(car.read(key, *pattern[taken % len(pattern)], gauge, rng))
    scores = [log_score(car, analyse(FilmSurvey("x", seen, car.finish, first.substrates))) for seen in (told, even)]
    return scores[0] - scores[1]


def main(cars: int) -> None:
    """Compare and print the mean difference with its 95 % interval."""
    found = np.array([pair(9000 + i) for i in range(cars)])
    mean, half = found.mean(), 1.96 * found.std(ddof=1) / np.sqrt(len(found))
    print(f"{cars} cars, {FURTHER} further readings: advice less even spreading, log score of altered and filled")
    print(f"mean difference {mean:+.4f} nats a panel, 95 % interval {mean - half:+.4f} to {mean + half:+.4f}")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 240)
