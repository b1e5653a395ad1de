"""Time of the life engine, as a ratio to the fixed NumPy loop in the same run: the full life and money reckoning of a
vehicle (every piece counted per corner, 36 months), and 10,000 measured parts as `hakutsu life` reads them.

Run: OPENBLAS_NUM_THREADS=1 .venv/bin/python -m bench.life
"""

from __future__ import annotations

import time
from datetime import date
from statistics import median

import numpy as np

from bench.film_speed import numpy_loop
from hakutsu.core.costs import cost_table
from hakutsu.core.life.components import pieces
from hakutsu.core.life.money import Price, spending
from hakutsu.core.life.reckon import Given, scheduled_jobs, survival_jobs
from hakutsu.core.life.worn import WHEELS_OF, Corners, worn_jobs
from hakutsu.entries.corners import Brake, Grade, Tyre
from hakutsu.exchange.life_csv import COLUMNS, lives_of
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.rules import rule_sets

ROUNDS = 9
CASES = 10_000
ELECTRIC = Mechanics(power="electric", drive="rear", gearbox="single", timing="neither", rear_axle="independent")
DIESEL = Mechanics(
    power="diesel", drive="front", gearbox="manual", timing="belt", rear_axle="beam", rear_brakes="discs",
    also_fitted=("turbo", "air_charge", "air_compressor", "dual_mass_flywheel"),
)  # fmt: skip
WHEELS = (*WHEELS_OF["front"], *WHEELS_OF["rear"])


def reckoned(mechanics: Mechanics) -> tuple[int, int]:
    """Reckon a vehicle in full; returns the number of pieces and of jobs."""
    given = Given(
        mechanics, 5, 14_000, 9.7, 138_000, ("salt",), ("salt",), {"damper:front_left": Grade.WORN},
    )  # fmt: skip
    tyre = Tyre(depth_mm=(4.1, 4.6, 4.4), date_code="1222")
    brake = Brake(pad_inner_mm=6.0, pad_outer_mm=6.4, disc_mm=(24.2,), disc_min_mm=22.0, disc_new_mm=25.0)
    corners = Corners(
        dict.fromkeys(WHEELS, tyre), dict.fromkeys(WHEELS, brake), rule_sets()["orrin"], date(2026, 11, 25)
    )
    jobs = worn_jobs(given, corners) + survival_jobs(given) + scheduled_jobs(given)
    prices = {
        key: Price(65.0 * sum(j.figures.hours) / 2, sum(j.figures.materials) / 2) for key, j in cost_table({}).items()
    }
    spending(jobs, prices)
    return len(pieces(mechanics, 5)), len(jobs)


def csv_text() -> str:
    """10,000 cases, half of them with a distance."""
    rng = np.random.default_rng(1)
    rows = [",".join(COLUMNS)]
    for i in range(CASES):
        part = ("tyre", "pad", "disc")[i % 3]
        now, new, limit = ((4.5, "", ""), (7.0, "", ""), (24.0, "25", "22"))[i % 3]
        since = f"{rng.integers(8000, 20000)},{rng.integers(20000, 40000)}" if i % 2 else ","
        now = round(now + rng.uniform(-1, 1), 1)
        rows.append(f"{i},{part},front,front,{now},{('gauge', 'eye')[i % 5 == 0]},{new},{since},3,12000,{limit}")
    return "\n".join(rows)


def main() -> None:
    """Measure and print."""
    loop = median(numpy_loop() for _ in range(5))
    print(f"fixed NumPy loop             {1000 * loop:8.1f} ms   1.00")
    for name, mechanics in (("electric", ELECTRIC), ("diesel", DIESEL)):
        count, jobs = reckoned(mechanics)
        took = []
        for _ in range(ROUNDS):
            start = time.perf_counter()
            reckoned(mechanics)
            took.append(time.perf_counter() - start)
        each = median(took)
        print(f"{name}, {count} pieces, {jobs} jobs  {1000 * each:8.1f} ms   {each / loop:.2f}")
    text = csv_text()
    start = time.perf_counter()
    assert len(lives_of(text)) == CASES
    each = time.perf_counter() - start
    print(f"{CASES:,} cases of a file        {each:8.2f} s    {each / loop:.1f}")


if __name__ == "__main__":
    main()
