"""Read a labelled fleet again with worse gauges, for `bench.film_score`: a worn gauge with dust, misreads, lost places;
half-mil steps with a range of 508 µm; every position lost.

Run: .venv/bin/python -m bench.film_degraded DIRECTORY OUT   (writes OUT/rough, OUT/half_mil and OUT/unplaced)
"""

from __future__ import annotations

import csv
import shutil
import sys
from collections.abc import Callable
from pathlib import Path

import numpy as np

Row = dict[str, str]
MIL, HALF_MIL, SHORT_UM = 25.4, 12.7, 508.0
OFFSET_UM, GAIN, NOISE, NOISE_UM, DUST_UM = 2.0, 0.02, 0.015, 2.0, 3.0
MISREAD, MISREAD_SD_LOG, LOST = 0.025, 0.5, 0.4


def _um(row: Row) -> tuple[float | None, float]:
    unit = MIL if row["unit"] == "mil" else 1.0
    return float(row["reading"]) * unit if row["reading"] else None, float(row["gauge_limit"]) * unit


def _shown(row: Row, um: float, limit: float, step: float) -> None:
    row |= {"unit": "um", "gauge_limit": f"{limit:g}", "resolution": f"{step:g}"}
    over = um >= limit
    row |= {"status": "over", "reading": ""} if over else {"reading": f"{max(round(um / step) * step, step):.1f}"}


def _rough(row: Row, rng: np.random.Generator, gauge: np.ndarray) -> None:
    um, limit = _um(row)
    if row["status"] == "ok" and um is not None:
        um = um * (1 + GAIN * gauge[0]) + OFFSET_UM * gauge[1]
        um = um * np.exp(rng.normal(0, NOISE)) + rng.normal(0, NOISE_UM) + abs(rng.normal(0, DUST_UM))
        um *= np.exp(rng.normal(0, MISREAD_SD_LOG)) if rng.random() < MISREAD else 1.0
        _shown(row, um, limit, 1.0)
    if rng.random() < LOST:
        row |= {"u": "", "v": ""}


def _half_mil(row: Row, rng: np.random.Generator, gauge: np.ndarray) -> None:
    um, _ = _um(row)
    if row["status"] in ("ok", "over"):
        _shown(row, SHORT_UM if um is None else um, SHORT_UM, HALF_MIL)


def _unplaced(row: Row, rng: np.random.Generator, gauge: np.ndarray) -> None:
    row |= {"u": "", "v": ""}


KINDS: dict[str, Callable[[Row, np.random.Generator, np.ndarray], None]] = {
    "rough": _rough,
    "half_mil": _half_mil,
    "unplaced": _unplaced,
}


def main(directory: str, out: str) -> None:
    """Write the fleet as each of the worse gauges would have read it."""
    with (Path(directory) / "surveys.csv").open() as file:
        rows = list(csv.DictReader(file))
    for name, spoil in KINDS.items():
        place, rng, gauges = Path(out) / name, np.random.default_rng(7), dict[str, np.ndarray]()
        place.mkdir(parents=True, exist_ok=True)
        shutil.copy(Path(directory) / "truth.csv", place / "truth.csv")
        with (place / "surveys.csv").open("w", newline="") as file:
            writer = csv.DictWriter(file, list(rows[0]))
            writer.writeheader()
            for row in rows:
                if row["survey"] not in gauges:
                    gauges[row["survey"]] = rng.normal(size=2)
                read = dict(row)
                spoil(read, rng, gauges[row["survey"]])
                writer.writerow(read)


if __name__ == "__main__":
    main(*sys.argv[1:])
