"""Time of planning a day, as a ratio to the fixed NumPy loop in the same run: with all steps the product has, and with
60 of them (the last ones taken a second time under other names), each with enough time and in a shortage.

Run: OPENBLAS_NUM_THREADS=1 .venv/bin/python -m bench.run_sheet
"""

from __future__ import annotations

import time
from dataclasses import replace
from statistics import median
from unittest.mock import patch

from bench.film_speed import numpy_loop
from hakutsu.core.runsheet import Conditions, Step, plan, planning, steps
from hakutsu.vehicle.vocabulary import Protocol

MANY = 60
ROUNDS = 7
DAYS = {
    "enough time": Conditions(600, Protocol.THOROUGH, lift=True, helper=True),
    "shortage": Conditions(75, Protocol.THOROUGH, lift=True, seller_until=50, daylight_until=60, dry_until=30),
}


def sixty() -> dict[str, Step]:
    """The steps, and as many of the last ones again as make 60."""
    every = list(steps().values())
    again = [replace(one, key=f"{one.key}_again") for one in every[-(MANY - len(every)) :]]
    return {one.key: one for one in (*every, *again)}


def main() -> None:
    """Measure and print."""
    loop = median(numpy_loop() for _ in range(5))
    print(f"fixed NumPy loop        {1000 * loop:7.1f} ms   1.00")
    for known in (steps(), sixty()):
        with patch.object(planning, "steps", lambda known=known: known):
            for name, day in DAYS.items():
                took = []
                for _ in range(ROUNDS):
                    start = time.perf_counter()
                    made = plan(day)
                    took.append(time.perf_counter() - start)
                each = median(took)
                figures = f"{1000 * each:7.1f} ms   {each / loop:.2f}   {len(made.steps)} planned"
                print(f"{len(known)} steps, {name:12} {figures}")


if __name__ == "__main__":
    main()
