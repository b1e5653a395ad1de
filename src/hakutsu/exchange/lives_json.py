"""What is left of every part of an inspection, and what it will cost, as JSON."""

from __future__ import annotations

from typing import Any

from hakutsu.core.life.jobs import Basis, Job
from hakutsu.core.life.money import HORIZONS, spending
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.life import Lives

KINDS = {
    Basis.MEASURED: "measured",
    Basis.NOT_MEASURED: "measured",  # worn by distance, only that nobody measured it: its basis says so
    Basis.SURVIVAL: "survival",
    Basis.SCHEDULED: "scheduled",
    Basis.FOUND: "graded",
}


def lives_json(reckoning: Reckoning, lives: Lives) -> list[dict[str, Any]]:
    """Every job that waits, the earliest first; `expected`: how many of it within so many months."""
    expected: dict[str, dict[str, float]] = {}
    for one in spending(lives.jobs, lives.prices):
        for driver in one.drivers:
            expected.setdefault(driver.key, {})[str(one.months)] = driver.times
    return [_job(job, expected.get(job.key, {}), reckoning, lives) for job in lives.jobs]


def _job(job: Job, expected: dict[str, float], reckoning: Reckoning, lives: Lives) -> dict[str, Any]:
    months = job.months()
    return {
        "part": job.key,
        "kind": KINDS[job.basis],
        "pieces": max(1, len(job.places)),
        "months": {"p10": round(months.low, 2), "p50": round(months.median, 2), "p90": round(months.high, 2)},
        "expected": {str(one): round(expected.get(str(one), 0.0), 4) for one in HORIZONS},
        "basis": "; ".join(reckoning.terms.say(one) for one in job.reasons),
        "limited_by": job.limited_by,
        "cost": round(lives.price(job), 2),
        "currency": reckoning.settings.currency,
    }


def money_json(reckoning: Reckoning) -> dict[str, Any]:
    """Spending within each horizon after what is settled now was done, and what drives it within the longest."""
    horizons = reckoning.lives.spending
    return {
        "currency": reckoning.settings.currency,
        "months": {
            str(one.months): {
                "p10": round(one.p10, 2), "p50": round(one.p50, 2), "p90": round(one.p90, 2),
                "mean": round(one.mean, 2),
            }
            for one in horizons
        },
        "drivers": [
            {"job": one.key, "chance": round(one.chance, 4), "mean_share": round(one.share, 2)}
            for one in horizons[-1].drivers
        ],
    }  # fmt: skip
