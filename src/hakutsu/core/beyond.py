"""Whether a reading is beyond its limit, or only noise: nobody settles money on what a better look may take back."""

from __future__ import annotations

from dataclasses import replace

from scipy.special import ndtr

from hakutsu.core.findings import Finding, Open
from hakutsu.vehicle.vocabulary import Consequence

SURE = 0.9  # chance from which a reading beyond its limit is settled before paying (ours)


def chance_beyond(value: float, limit: float, sd: float) -> float:
    """The chance that a true value lies above a limit: a reading with a normal error of standard deviation `sd`."""
    return float(ndtr((value - limit) / sd))


def if_sure(finding: Finding, chance: float, again: str) -> Finding:
    """The finding as it is where it is sure; else budgeted for and open, with how to measure it again.

    Parameters
    ----------
    finding : what the reading says if it is taken at its word
    chance : that the true value is beyond the limit
    again : with what to measure
    """
    if chance >= SURE or not finding.settles:
        return finding
    why = f"{100 * chance:.0f} % that it is beyond its limit: the reading alone is not sure enough"
    return replace(
        finding, consequence=Consequence.BUDGET, condemns=False, sureness=max(chance, 1 - SURE),
        open=Open(why, f"measure again, {again}"),
    )  # fmt: skip
