"""Spots read more than once, readings that surprise, and what their repeats said."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from statistics import median

from hakutsu.core.film.parameters import Retest
from hakutsu.core.film.survey import FilmSurvey, Observation


class SpotVerdict(StrEnum):
    """What is said about a single reading: by its repeats, by where filler lies, by where it was taken."""

    OPEN = "open"
    STANDS = "stands"
    MISREAD = "misread"
    FILLER = "filler"
    EDGE = "edge"


@dataclass(frozen=True, slots=True)
class Surprise:
    """A reading far from what its panel or the car's baseline lets expect.

    `expected_um` [µm] is that expectation; `repeats` how many readings beside it there are.
    """

    observation: Observation
    expected_um: float
    repeats: int
    verdict: SpotVerdict


def film_um(observation: Observation) -> float:
    """The film shown [µm]; for a censored reading its bound from below."""
    if observation.censored:
        return observation.limit_um or observation.value_um or 0.0
    return observation.value_um or 0.0


def spots(observations: Sequence[Observation], p: Retest) -> list[Observation]:
    """One observation per spot: a reading and its repeats become their middle one.

    Repeats share one true film, so counting each would make a panel look more certain than it is; the middle one of
    three drops a misread.
    """
    ordered = sorted(observations, key=_order)
    known = {o.key for o in ordered if o.key is not None}
    repeats: dict[object, list[Observation]] = {}
    for observation in ordered:
        if observation.repeats is not None and observation.repeats in known:
            repeats.setdefault(observation.repeats, []).append(observation)
    single = [o for o in ordered if o.repeats is None or o.repeats not in known]
    return [_middle(o, repeats.get(o.key, []), p) if o.key is not None else o for o in single]


def _order(observation: Observation) -> tuple[object, ...]:
    """A total order of what readings say, so that the order in which they came cannot matter."""
    o = observation
    place = (-1.0 if o.u is None else o.u, -1.0 if o.v is None else o.v)
    shown = (o.limit_um or 0.0, o.step_um or 0.0, o.extra_sd_um, str(o.substrate), o.value_um or 0.0)
    return (o.panel, o.censored, film_um(o), *place, *shown)


def _middle(first: Observation, others: list[Observation], p: Retest) -> Observation:
    if not others and first.repeats is None and not first.confirmed and p.wanted:
        return first
    values = sorted([first, *others], key=_order)
    middle = values[(len(values) - 1) // 2]
    agreeing = sum(o.censored == middle.censored and _agree(film_um(o), film_um(middle), p) for o in values)
    return replace(middle, u=first.u, v=first.v, key=first.key, repeats=None, confirmed=agreeing > p.wanted)


def surprises(survey: FilmSurvey, baseline_um: float | None, p: Retest) -> list[Surprise]:
    """Readings that stand out and so ask for two more within 20 mm.

    The expectation is the median of the panel's other spots when there are three or more, else the car's baseline. A
    reading that two others on the panel agree with does not surprise.
    """
    found = []
    for panel in survey.metal_panels():
        read = survey.on_panel(panel)
        first = sorted((o for o in read if o.repeats is None), key=_order)
        films = [film_um(o) for o in first]
        for i, (observation, film) in enumerate(zip(first, films, strict=True)):
            others = [*films[:i], *films[i + 1 :]]
            expected = _expected(others, baseline_um)
            if expected is None or not _far(film, expected, p):
                continue
            if sum(_agree(film, other, p) for other in others) >= p.wanted:
                continue
            repeats = [o for o in read if o.key is not None and o.repeats == observation.key]
            found.append(Surprise(observation, expected, len(repeats), _verdict(observation, repeats, p)))
    return found


def _expected(others: Sequence[float], baseline_um: float | None) -> float | None:
    """With fewer than three others one odd reading among them would make the sound ones look odd."""
    if len(others) >= 3 or (baseline_um is None and len(others) == 2):
        return median(others)
    return baseline_um


def _far(value: float, expected: float, p: Retest) -> bool:
    return abs(value - expected) > max(p.least_um, p.share * expected)


def _agree(value: float, other: float, p: Retest) -> bool:
    return abs(value - other) <= p.confirmed_within * max(value, other)


def _verdict(observation: Observation, repeats: Sequence[Observation], p: Retest) -> SpotVerdict:
    if len(repeats) < p.wanted:
        return SpotVerdict.OPEN
    middle = sorted(repeats, key=_order)[len(repeats) // 2]
    if observation.censored or middle.censored:
        return SpotVerdict.STANDS if observation.censored and middle.censored else SpotVerdict.MISREAD
    return SpotVerdict.STANDS if _agree(film_um(observation), film_um(middle), p) else SpotVerdict.MISREAD
