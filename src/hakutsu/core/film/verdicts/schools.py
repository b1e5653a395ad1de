"""Schools of judging film. A school changes the prior and the concern, never what a state means."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from statistics import median

from hakutsu.core.film.judging import Schools
from hakutsu.core.film.survey import State
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.vocabulary import Finish


class School(StrEnum):
    """By the car's own film, by a fixed band, or by what is usual on restored cars."""

    OWN = "own"
    FIXED = "fixed"
    RESTORED = "restored"


class Concern(StrEnum):
    """What a school says about a panel, in its own words."""

    NONE = "none"
    LOOK = "look again"
    NOTE = "of note"
    MAP = "to be mapped"
    OPEN = "not read"


@dataclass(frozen=True, slots=True)
class Judged:
    """A school's concern about a panel and the sentence behind it."""

    concern: Concern
    because: str


def default_school(finish: Finish) -> School:
    """The school that goes with a declared finish."""
    return School.RESTORED if finish is Finish.RESTORED else School.OWN


def prior_finish(school: School, finish: Finish) -> Finish:
    """The finish whose priors a school uses: the restored school expects refinish everywhere."""
    return Finish.RESTORED if school is School.RESTORED else finish


def judge(
    school: School,
    films_um: Sequence[float],
    state: State,
    sure: float,
    band_um: tuple[float, float] | None,
    p: Schools,
    terms: Terms = PLAIN,
) -> Judged:
    """A panel in the eyes of a school.

    Parameters
    ----------
    films_um : the panel's readings [µm]; censored ones as their bound
    state, sure : the model's state and its probability, used by the school *own*
    band_um : limits [µm] of the band, for *fixed* and *restored*; the default of the school if none
    terms : words and units in which it is told
    """
    if not films_um:
        return Judged(Concern.OPEN, "no reading")
    middle, top, film = median(films_um), max(films_um), terms.film_words
    if school is School.FIXED:
        low, high = band_um or p.fixed_band_um
        if middle <= low:
            return Judged(Concern.NONE, f"median {film(middle)}, up to {film(low)} counts as factory")
        if middle <= high:
            return Judged(
                Concern.LOOK,
                f"median {film(middle)}, between {film(low, with_unit=False)} and {film(high)} is doubtful",
            )
        return Judged(Concern.NOTE, f"median {film(middle)}, above {film(high)} counts as refinished")
    if school is School.RESTORED:
        low, high = band_um or p.restored_band_um
        if top <= low:
            return Judged(Concern.NONE, f"highest {film(top)}, up to {film(low)} is usual build")
        if top <= high:
            return Judged(
                Concern.LOOK, f"highest {film(top)}, between {film(low, with_unit=False)} and {film(high)} is heavy"
            )
        return Judged(Concern.MAP, f"highest {film(top)}, above {film(high)} is to be mapped")
    if state is State.ORIGINAL and sure >= 0.7:
        return Judged(Concern.NONE, "agrees with this car's own film")
    if state is State.ORIGINAL:
        return Judged(Concern.LOOK, "probably this car's own film, not settled")
    return Judged(Concern.MAP if state is State.FILLED else Concern.NOTE, "differs from this car's own film")
