"""Polish headroom: how much clear coat may still be taken off, judged on the careful side."""

from __future__ import annotations

from collections.abc import Sequence

from hakutsu.core.film.parameters import Headroom as Limits
from hakutsu.core.film.result import Baseline, Headroom
from hakutsu.core.film.survey import Observation, State
from hakutsu.core.film.verdicts.spots import film_um
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.vocabulary import Paint

NINETIETH = 1.2816  # standard normal quantile: the 10 % quantile of headroom is the 90 % quantile of film missing
UNTOUCHED = (State.ORIGINAL, State.THINNED)
KNOWN_FROM = 0.7
LEAST_UM = 1.0  # less than what any polish takes is none


def polish_headroom(
    read: Sequence[Observation],
    chances: dict[State, float],
    baseline: Baseline | None,
    paint: Paint,
    p: Limits,
    gauge_sd: tuple[float, float],
    terms: Terms = PLAIN,
) -> Headroom:
    """Headroom of a panel at its thinnest reading.

    Parameters
    ----------
    read : the panel's readings that count
    chances : its state probabilities
    baseline : the car's own film
    paint : how the colour is built up
    gauge_sd : the gauge's offset [µm] and gain [relative] standard deviations
    terms : words and units in which it is told

    Notes
    -----
    max(0, 8 µm − max(0, baseline − reading)) at its 10 % quantile, baseline and reading taken as normal. None on matt
    and single-stage paint, on panels painted again, and below 80 µm (0.7 of the baseline where that is lower). A gauge
    cannot see clear coat by itself; edges and creases are thinner than any reading beside them.
    """
    if paint in (Paint.MATT, Paint.SINGLE_STAGE):
        return Headroom(0.0, f"{paint} paint: none")
    if not read or baseline is None:
        return Headroom(None, "read here first" if not read else "no baseline to hold it against")
    if sum(chances[state] for state in UNTOUCHED) < KNOWN_FROM or baseline.kind != "factory":
        return Headroom(None, "not known on paint that may not be the factory’s")
    lowest = min(film_um(o) for o in read)
    floor = min(p.never_below_um, p.share_of_baseline * baseline.median)
    if lowest < floor:
        return Headroom(0.0, f"none: a reading below {terms.film_words(floor)}")
    offset, gain = gauge_sd
    base_sd = (baseline.high - baseline.low) / (2 * NINETIETH)
    sd = (base_sd**2 + (offset + gain * lowest) ** 2) ** 0.5
    missing = max(0.0, baseline.median - lowest + NINETIETH * sd)
    left = max(0.0, p.usual_um - missing)
    doubt = "" if paint is Paint.CLEAR else ", if there is clear coat on it"
    if left < LEAST_UM:
        return Headroom(0.0, "none that is sure: the thinnest reading may lie that far below the baseline")
    return Headroom(left, f"about {terms.film_words(left)} at the thinnest reading{doubt}; none at edges and creases")
