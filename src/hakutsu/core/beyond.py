"""Whether a reading is beyond its limit, or only noise: nobody settles money on what a better look may take back."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from scipy.special import ndtr

from hakutsu.core.findings import Finding, Open
from hakutsu.entries.corners import Method
from hakutsu.vehicle.vocabulary import Consequence

SURE = 0.9  # chance from which a reading beyond its limit is settled before paying (ours)


def chance_beyond(over: float, sd: float) -> float:
    """The chance that a true value lies beyond a limit which its reading is `over`, with a normal error of sd `sd`."""
    return float(ndtr(over / sd))


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


def against_law(finding: Finding, over: float, method: Method, sd_mm: Mapping[str, float], again: str) -> Finding:
    """A reading `over` [mm] a limit of law: a gauge is taken at its word, as the test will, a glance is not.

    Parameters
    ----------
    finding : what the reading says
    over : how far beyond [mm]
    method, sd_mm : how it was taken, and the error of each way [mm]
    again : with what to measure
    """
    sure = method is not Method.EYE
    return finding if sure else if_sure(finding, chance_beyond(over, sd_mm[method.value]), again)
