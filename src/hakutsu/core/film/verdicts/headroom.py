"""Polish headroom: how likely enough clear coat is left on a panel for one careful polish."""

from __future__ import annotations

from collections.abc import Sequence
from math import sqrt
from statistics import NormalDist, mean

from hakutsu.core.film.judging import Headroom as Limits
from hakutsu.core.film.result import Baseline, Headroom
from hakutsu.core.film.survey import Observation, State
from hakutsu.core.film.verdicts.reasons import chance_words
from hakutsu.core.film.verdicts.spots import film_um
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.vocabulary import Paint

UNTOUCHED = (State.ORIGINAL, State.THINNED)
KNOWN_FROM, LIKELY, PERHAPS = 0.7, 0.8, 0.4


def lowest_of(count: int) -> float:
    """How far below their mean the lowest of n normal readings lies by chance, in standard deviations.

    References
    ----------
    [1] G. Blom, Statistical Estimates and Transformed Beta-Variables, Wiley 1958: Φ⁻¹((n − 0.375)/(n + 0.25)).
    """
    return 0.0 if count < 2 else NormalDist().inv_cdf((count - 0.375) / (count + 0.25))


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
    Against the panel's own film: P(clear − missing ≥ what a polish takes + what must stay), with clear coat normal and
    `missing` how far the lowest reading lies under the panel's mean beyond what the lowest of n does by chance. On a
    thinned panel as much again may be gone. Excluded only where the corrected lowest lies under 80 µm (0.7 of the
    baseline where that is lower), and on matt and single-stage paint. A gauge cannot see clear coat by itself; edges
    and creases are thinner than any reading beside them.
    """
    if paint in (Paint.MATT, Paint.SINGLE_STAGE):
        return Headroom(0.0, f"{paint} paint: none", 0.0)
    if not read or baseline is None:
        return Headroom(None, "read here first" if not read else "no baseline to hold it against")
    if sum(chances[state] for state in UNTOUCHED) < KNOWN_FROM or baseline.kind != "factory":
        return Headroom(None, "not known on paint that may not be the factory’s")
    films = [film_um(o) for o in read]
    own, count = mean(films), len(films)
    offset, gain = gauge_sd
    one = sqrt((p.unevenness * own) ** 2 + (offset + gain * own) ** 2)
    lowest = min(films) + lowest_of(count) * one
    floor = min(p.never_below_um, p.share_of_baseline * baseline.median)
    if lowest < floor:
        return Headroom(0.0, f"none: the thinnest reading lies under {terms.film_words(floor)}", 0.0)
    missing, thinned = max(0.0, own - lowest), chances[State.THINNED] / sum(chances[state] for state in UNTOUCHED)
    doubt = sqrt(p.clear_sd_um**2 + one**2 / count)
    needed = p.usual_um + p.stays_um

    def left(gone: float) -> float:
        return 1 - NormalDist(p.clear_um - missing - gone, doubt).cdf(needed)

    chance = (1 - thinned) * left(0.0) + thinned * left(max(p.thinned_um, baseline.median - own))
    if chance < PERHAPS:
        return Headroom(
            0.0, f"unlikely ({chance_words(chance)}): the thinnest reading lies far under the panel’s own film", chance
        )
    word = "likely" if chance >= LIKELY else "perhaps"
    clear = "" if paint is Paint.CLEAR else ", if there is clear coat on it"
    return Headroom(
        p.usual_um,
        f"{word} enough for one careful polish, about {terms.film_words(p.usual_um)} ({chance_words(chance)}){clear}; "
        "none at edges and creases",
        chance,
    )
