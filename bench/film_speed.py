"""Time of the film engine, as a ratio to a fixed NumPy loop in the same run: 400 surveys of about 60 readings (states
and story), and one car's full reckoning (states, story, contour, three schools, next spot, shell sheet).

Run: OPENBLAS_NUM_THREADS=1 .venv/bin/python -m bench.film_speed
"""

from __future__ import annotations

import time
from statistics import median

import numpy as np

from hakutsu.core.film import FilmModel, advice, analyse, analyse_model, parameters, schools_side_by_side
from hakutsu.core.film.simulate import paint_car, usual_gauge

SURVEYS = 400
LOOP = 60


def numpy_loop() -> float:
    """The fixed loop: 60 times exponentials and a product of 300 × 300 doubles [s]."""
    values = np.linspace(-3, 3, 90_000).reshape(300, 300)
    start = time.perf_counter()
    total = 0.0
    for i in range(LOOP):
        total += float((np.exp(values * (1 + i / LOOP)) @ values).sum())
    assert np.isfinite(total)
    return time.perf_counter() - start


def main() -> None:
    """Measure and print."""
    surveys = []
    for seed in range(SURVEYS):
        rng = np.random.default_rng(seed)
        surveys.append(paint_car(rng).survey(rng, usual_gauge(rng), spots=(2, 3, 4, 5)))
    readings = sum(len(survey.observations) for survey in surveys) / len(surveys)
    analyse(surveys[0])
    loop = median(numpy_loop() for _ in range(5))

    start = time.perf_counter()
    for survey in surveys:
        analyse(survey)
    each = (time.perf_counter() - start) / len(surveys)

    whole, advised = [], []
    for survey in surveys[:60]:
        start = time.perf_counter()
        model = FilmModel(survey, parameters())
        analyse_model(model)
        schools_side_by_side(model)
        whole.append(time.perf_counter() - start)
        advice(model, survey.finish)
        advised.append(time.perf_counter() - start)
    print(f"fixed NumPy loop                                    {1000 * loop:7.1f} ms   1.00")
    print(
        f"one of {SURVEYS} surveys of {readings:.0f} readings, states, story {1000 * each:8.1f} ms   {each / loop:.2f}"
    )
    for name, took in (
        ("full reckoning: contour, three schools", whole),
        ("the same, and the next best spot", advised),
    ):
        print(f"{name:51} {1000 * median(took):7.1f} ms   {median(took) / loop:.2f}")


if __name__ == "__main__":
    main()
