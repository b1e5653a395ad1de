"""How often the 80 % interval of measured wear holds the truth, on simulated parts: `python -m bench.life_calibration`.

Populations: `any` (share worn uniform, also past the limit), `usable` (those still above the limit), `driven` (distance
uniform, then a tyre's age and the buyer's distance as well). Half of them with a distance, within a fifth or a quarter
either way; half of tyres and pads with what they measured when new. `bare`: usable, and nobody knows that thickness.
"""

from __future__ import annotations

import sys
from collections.abc import Iterable, Iterator
from dataclasses import replace

import numpy as np

from hakutsu.core.life import WearCase, remaining
from hakutsu.core.life.measured import wear_table

POPULATIONS = ("any", "usable", "bare", "driven")
COMPONENTS = ("tyre", "pad", "disc")
WORN = 0.3


def _priors(component: str, axle: str, drive: str) -> tuple[float, float, float, float, float]:
    row = wear_table()[component]
    mine = row if component == "tyre" else row[axle]
    if component == "tyre":
        key = "all" if drive == "all" else "driven" if drive == axle else "other"
        k, gsd = row["km_per_mm"][key]
    else:
        k, gsd = mine["km_per_mm"]
    new, sd = mine["new_mm"] if component != "disc" else (25.0, row["given_new_sd_mm"])
    return k, gsd, new, sd, row.get("limit_mm", 23.0)


def cases(population: str, component: str, count: int, seed: int) -> Iterator[tuple[WearCase, float]]:
    """Simulated parts with the distance [km] that is truly left."""
    rng = np.random.default_rng(seed)
    made = 0
    while made < count:
        axle, drive = rng.choice(["front", "rear"]), rng.choice(["front", "rear", "all"])
        k_median, gsd, new, new_sd, limit = _priors(component, axle, drive)
        k, n = k_median * gsd ** rng.normal(), new + new_sd * rng.normal()
        share = rng.uniform(0, 1.25) * (new - limit) / n if component == "disc" else rng.uniform(0, 1)
        d = share * n * k
        if population == "driven":
            d = rng.uniform(2_000, 60_000)
        now = n - d / k
        if now <= 0.2 or (population in ("usable", "bare") and now <= limit):
            continue
        method = "gauge" if rng.random() < 0.65 else "eye"
        sd = wear_table()[component]["sd_mm"][method]
        measured = round(max(0.0, now + sd * rng.normal()), 1)
        low, high = d * rng.uniform(0.8, 1), d * rng.uniform(1, 1.25)
        since = (low, high) if rng.random() < 0.5 else None
        new_mm = 25.0 if component == "disc" else None
        if component != "disc" and population != "bare" and rng.random() < 0.5:
            new_mm = round(n + wear_table()[component]["given_new_sd_mm"] * rng.normal(), 1)
        left = max(0.0, now - limit) * k * 1.2 ** rng.normal()
        age = year = None
        if population == "driven" and component == "tyre":
            year = float(rng.uniform(5_000, 25_000))
            age = float(max(d / 38_000, rng.uniform(0.5, 11)))
            left = min(left, max(0.0, 10 - age) * year)
        case = WearCase(
            str(made), component, str(axle), str(drive), measured, method,
            new_mm=new_mm, limit_mm=limit if component == "disc" else None,
            since_km=since, age_years=age, km_per_year=year,
        )  # fmt: skip
        made += 1
        yield case, left


def held(population: str, component: str, count: int, seed: int) -> float:
    """Share of simulated parts whose truth lies in the interval."""
    inside = []
    for case, left in cases(population, component, count, seed):
        km = remaining(case).km
        assert km is not None
        inside.append(km.p10 <= left <= km.p90)
    return float(np.mean(inside))


def narrowing(population: str, component: str, count: int, seed: int, *, exact: bool = False) -> list[float]:
    """ln(P90/P10) with the distance known over that without, of each gauge reading 30 % worn and more.

    `exact`: the middle of the distance's bounds is taken for known.
    """
    ratios = []
    for case, _ in cases(population, component, count, seed):
        *_, usual, _, limit = _priors(component, case.axle, case.drive or "all")
        new = case.new_mm or usual
        if case.since_km is None or case.method != "gauge" or (new - (case.now_mm or 0.0)) / (new - limit) < WORN:
            continue
        told = replace(case, since_km=(sum(case.since_km) / 2,) * 2) if exact else case
        known, unknown = (remaining(one).km for one in (told, replace(case, since_km=None, age_years=None)))
        if known and unknown and known.p10 > 0 and unknown.p10 > 0:
            ratios.append(float(np.log(known.p90 / known.p10) / np.log(unknown.p90 / unknown.p10)))
    return ratios


def _row(name: str, figures: Iterable[float], form: str) -> None:
    print(f"{name:30}" + "".join(f"{one:{form}}" for one in figures))


def main(count: int = 1500) -> None:
    """Print the table of populations and components."""
    print(f"{'held by the 80 % interval [%]':30}" + "".join(f"{one:>8}" for one in (*COMPONENTS, "all")))
    for population in POPULATIONS:
        found = [100 * held(population, one, count, 11) for one in COMPONENTS]
        _row(population, (*found, float(np.mean(found))), "8.1f")
    print("ln(P90/P10) with distance over without, mean")
    for population in POPULATIONS[1:]:
        for exact in (False, True):
            each = [narrowing(population, one, count, 12, exact=exact) for one in COMPONENTS]
            name = f"{population}, {'exact' if exact else 'within bounds'}"
            _row(name, (float(np.mean(one)) for one in (*each, [ratio for one in each for ratio in one])), "8.3f")


if __name__ == "__main__":
    main(*(int(one) for one in sys.argv[1:]))
