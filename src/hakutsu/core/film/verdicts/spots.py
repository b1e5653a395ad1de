"""Places read more than once, readings that surprise, and what looking again there said."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cache
from math import hypot
from statistics import median

from hakutsu.core.film.judging import Retest
from hakutsu.core.film.survey import FilmSurvey, Observation
from hakutsu.vehicle.panels import walk_order
from hakutsu.vehicle.shell import shell

PLACED_TO_MM = 5.0  # how exactly a finger marks a place
USUAL_MM = (900.0, 550.0)  # of a panel whose size is not known


class SpotVerdict(StrEnum):
    """What is said about a single reading: by its repeats, by where filler lies, by where it was taken."""

    OPEN = "open"
    STANDS = "stands"
    MISREAD = "misread"
    FILLER = "filler"
    EDGE = "edge"


@dataclass(frozen=True, slots=True)
class Surprise:
    """A reading far from what its panel and the car's baseline let expect.

    `expected_um` [µm] is that expectation; `repeats` how many readings at its place there are beside it.
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


@cache
def usual_mm(panel: str) -> tuple[float, float]:
    """Length along u and v of a panel of a usual car [mm]."""
    for style in (("hatch", 5), ("saloon", 4), ("van", 4), ("pickup", 4)):
        try:
            patch = shell(*style, fitted=tuple(walk_order(*style))).get(panel)
        except (KeyError, ValueError):
            continue
        if patch is not None and patch.joined:
            ends = [patch.at(u, v) for u, v in ((0, 0.5), (1, 0.5), (0.5, 0), (0.5, 1))]
            return tuple(10 * hypot(b[0] - a[0], b[1] - a[1]) for a, b in (ends[:2], ends[2:]))  # type: ignore[return-value]
    return USUAL_MM


def apart_mm(one: Observation, other: Observation) -> float | None:
    """How far apart two readings of a panel were taken [mm]; none where a position is missing."""
    if one.u is None or one.v is None or other.u is None or other.v is None:
        return None
    along, up = usual_mm(one.panel)
    return hypot((one.u - other.u) * along, (one.v - other.v) * up)


def places(observations: Sequence[Observation], p: Retest) -> list[list[Observation]]:
    """Readings by place: a first reading, then those that repeat it or lie within 60 mm of it."""
    ordered = sorted(observations, key=_order)
    known = {o.key for o in ordered if o.key is not None}
    firsts = [o for o in ordered if o.repeats is None or o.repeats not in known]
    films = [film_um(o) for o in firsts]
    middle = median(films) if films else 0.0
    groups: list[list[Observation]] = []
    at: list[int] = []
    # Far readings first: a place is where one stood out, not where the neighbour of a neighbour did.
    for i in sorted(range(len(firsts)), key=lambda i: (-abs(films[i] - middle), i)):
        near = next((group for group in groups if _within(firsts[i], group[0], p)), None)
        if near is None:
            groups.append([firsts[i]])
            at.append(i)
        else:
            near.append(firsts[i])
    for one in ordered:
        if one.repeats is not None and one.repeats in known:
            mine = next((group for group in groups if any(o.key == one.repeats for o in group)), None)
            (mine if mine is not None else groups[0]).append(one)
    return [groups[j] for j in sorted(range(len(groups)), key=at.__getitem__)]


def _within(one: Observation, other: Observation, p: Retest) -> bool:
    far = apart_mm(one, other)
    return far is not None and far <= p.same_place_mm + PLACED_TO_MM


def spots(observations: Sequence[Observation], p: Retest, baseline_um: float | None = None) -> list[Observation]:
    """One observation per place: readings of one place share one true film, so counting each would make a panel look
    more certain than it is.

    The middle one of those on the same side of the panel's film speaks, or each where they stand out and differ, as
    film over filler does. Where a reading stood out and its repeats fell back, they speak.
    """
    groups = places(observations, p)
    if not groups:
        return []
    firsts = [film_um(group[0]) for group in groups]
    found = []
    for i, group in enumerate(groups):
        if len(group) == 1:
            found += group
        else:
            found += _speaks(group, _expected([*firsts[:i], *firsts[i + 1 :]], baseline_um), p)
    return sorted(found, key=_order) if len(groups) < len(observations) else found


def _speaks(group: Sequence[Observation], expected: float | None, p: Retest) -> list[Observation]:
    first = group[0]
    same, _ = _sides(group, expected, p)
    stands = _verdict(group, expected, p) is not SpotVerdict.MISREAD
    told = same if stands and same else [o for o in group[1:] if o not in same] or list(group[1:])
    values = sorted(told, key=_order)
    middle = values[(len(values) - 1) // 2]
    agreeing = sum(o.censored == middle.censored and _agree(film_um(o), film_um(middle), p) for o in values)
    out = expected is not None and _far(film_um(first), expected, p)
    company = out and stands and len(same) > 1
    if company and not all(_agree(film_um(o), film_um(middle), p) for o in same):
        # Film that differs so much within a hand's breadth is told by each of them.
        return [replace(o, u=_or(o.u, first.u), v=_or(o.v, first.v), repeats=None, confirmed=True) for o in same]
    one = replace(middle, u=first.u, v=first.v, key=first.key, repeats=None, confirmed=company or agreeing > p.wanted)
    return [one]


def _or(place: float | None, other: float | None) -> float | None:
    return other if place is None else place


def _order(observation: Observation) -> tuple[object, ...]:
    """A total order of what readings say, so that the order in which they came cannot matter."""
    o = observation
    place = (-1.0 if o.u is None else o.u, -1.0 if o.v is None else o.v)
    shown = (o.limit_um or 0.0, o.step_um or 0.0, o.extra_sd_um, str(o.substrate), o.value_um or 0.0)
    return (o.panel, o.censored, film_um(o), *place, *shown)


def _sides(
    group: Sequence[Observation], expected: float | None, p: Retest
) -> tuple[list[Observation], list[Observation]]:
    """Readings of a place that stand on the same side of the expected film as its first, and those that fell back."""
    first = film_um(group[0])
    if expected is None or not _far(first, expected, p):
        return list(group), []
    high = first > expected
    same = [o for o in group if _far(film_um(o), expected, p) and (film_um(o) > expected) == high]
    return same, [o for o in group if o not in same]


def _verdict(group: Sequence[Observation], expected: float | None, p: Retest) -> SpotVerdict:
    """Once two more were taken at its place it stands if more lie on its side than fall back, else it is dismissed."""
    if len(group) <= p.wanted:
        return SpotVerdict.OPEN
    same, back = _sides(group, expected, p)
    return SpotVerdict.STANDS if len(same) > len(back) else SpotVerdict.MISREAD


def surprises(survey: FilmSurvey, baseline_um: float | None, p: Retest) -> list[Surprise]:
    """Readings that stand out and so ask for two more within 20 mm, what their repeats said, one open line a panel.

    The expectation is the median of the panel's other places when there are three or more, else the car's baseline; a
    reading must be far from both. Two other places on the same side of the car's film settle it: they are no surprise.
    """
    found = []
    for panel in survey.metal_panels():
        groups = places(survey.on_panel(panel), p)
        films = [film_um(group[0]) for group in groups]
        told = []
        for i, group in enumerate(groups):
            others = [*films[:i], *films[i + 1 :]]
            expected = _expected(others, baseline_um)
            if expected is None or not _stands_out(films[i], expected, baseline_um, p):
                continue
            around = expected if baseline_um is None else baseline_um
            if sum(_far(x, around, p) and (x > around) == (films[i] > around) for x in others) >= p.wanted:
                continue
            told.append(Surprise(group[0], expected, len(group) - 1, _verdict(group, expected, p)))
        waiting = [one for one in told if one.verdict is SpotVerdict.OPEN]
        furthest = max(waiting, key=lambda one: abs(film_um(one.observation) / one.expected_um - 1), default=None)
        found += [one for one in told if one.verdict is not SpotVerdict.OPEN or one is furthest]
    return found


def unsettled(odd: Iterable[Surprise], settled: Iterable[str]) -> list[Surprise]:
    """Without the open ones of panels whose state is settled: there is nothing more to ask there.

    Where the repeats were begun, the second is still taken: it says where the disturbed film ends.
    """
    done = set(settled)
    return [
        one for one in odd if one.verdict is not SpotVerdict.OPEN or one.repeats or one.observation.panel not in done
    ]


def _stands_out(film: float, expected: float, baseline_um: float | None, p: Retest) -> bool:
    return _far(film, expected, p) and (baseline_um is None or _far(film, baseline_um, p))


def _expected(others: Sequence[float], baseline_um: float | None) -> float | None:
    """With fewer than three others one odd reading among them would make the sound ones look odd."""
    if len(others) >= 3 or (baseline_um is None and len(others) == 2):
        return median(others)
    return baseline_um


def _far(value: float, expected: float, p: Retest) -> bool:
    return abs(value - expected) > max(p.least_um, p.share * expected)


def _agree(value: float, other: float, p: Retest) -> bool:
    return abs(value - other) <= p.confirmed_within * max(value, other)
