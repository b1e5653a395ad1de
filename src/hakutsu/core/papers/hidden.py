"""Readings of which a digit cannot be read, and wear beside the records."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import exp, log, sqrt

from hakutsu.core.life.measured import wear_table
from hakutsu.core.papers.distance import Distance, WearSays, judge
from hakutsu.core.papers.records import History, Record
from hakutsu.core.papers.tables import distance_table
from hakutsu.entries.cabin import CabinWear, Wear
from hakutsu.vehicle.cabin import cabin_parts

GRADES = list(Wear)
MOST = 30  # ways to read what is hidden that are tried
TOLD = 0.02


@dataclass(frozen=True, slots=True)
class Hidden:
    """What a record with unread digits may be: values in its unit with their chances, the likeliest first."""

    row: int | str
    values: tuple[tuple[float, float], ...]


def candidates(text: str) -> list[float]:
    """Every number a reading may be, with each ``?`` for a digit."""
    found = [""]
    for one in text:
        found = [before + digit for before in found for digit in ("0123456789" if one == "?" else one)]
    return [float(one) for one in found]


def judge_hidden(
    history: History, hidden: Mapping[int | str, str], wear: WearSays | None = None
) -> tuple[Distance, tuple[Hidden, ...]]:
    """Judge records, each hidden one read as it fits the others best; and the ways it may be read.

    Parameters
    ----------
    history : records, those with unread digits left out of it or with any value
    hidden : by row, the text of those with unread digits
    """
    told = list[Hidden]()
    for row, text in hidden.items():
        history, one = _read(history, row, text, wear)
        told.append(one)
    return judge(history, wear), tuple(told)


def _read(history: History, row: int | str, text: str, wear: WearSays | None) -> tuple[History, Hidden]:
    mine = next(one for one in history.records if one.row == row)
    ways = _near(history, mine, candidates(text))
    tries = [(value, judge(_with(history, mine, value), wear).evidence) for value in ways]
    best = max(evidence for _, evidence in tries)
    weights = [(value, exp(max(-60.0, evidence - best))) for value, evidence in tries]
    total = sum(weight for _, weight in weights)
    shares = sorted(((value, weight / total) for value, weight in weights), key=lambda one: -one[1])
    return _with(history, mine, shares[0][0]), Hidden(row, tuple(one for one in shares if one[1] >= TOLD))


def _near(history: History, mine: Record, ways: Sequence[float]) -> list[float]:
    """The ways that lie between the readings before and after, else those nearest to them."""
    others = [one for one in history.records if one is not mine]
    low = max((one.km for one in others if one.on <= mine.on), default=0.0)
    high = min((one.km for one in others if one.on > mine.on), default=float("inf"))
    per = mine.km / mine.value if mine.value else 1.0
    within = [one for one in ways if low <= one * per <= high] or list(ways)
    return sorted(within, key=lambda one: abs(one * per - low))[:MOST]


def _with(history: History, mine: Record, value: float) -> History:
    changed = replace(mine, value=value)
    return replace(history, records=tuple(changed if one.row == mine.row else one for one in history.records))


def wear_says(
    grades: Mapping[str, CabinWear], discs: Mapping[str, float] | None = None, shown_km: float | None = None
) -> WearSays | None:
    """What wear says of the distance by itself; none where nothing speaks.

    Parts said to be renewed say nothing. Parts of one driver wear together: the spread never falls below a least one.
    Discs are renewed in time, and speak only where they are worn far beyond the distance shown.

    Parameters
    ----------
    grades : graded wear of rim, pedals, seat, knob and belt
    discs : wear of the discs [mm] by axle, the most of it
    shown_km : what the dial shows [km], none where not known
    """
    row, middles = distance_table().wear, list[float]()
    for part, look in grades.items():
        reached = cabin_parts()[part].usual_km
        if not reached or look.renewed:
            continue
        at = min(GRADES.index(look.wear), len(reached))
        if at == 0:
            middles.append(log(float(row.new_share) * reached[0]))
        elif at == len(reached):
            middles.append(log(float(row.end_times) * reached[-1]))
        else:
            middles.append(log(sqrt(reached[at - 1] * reached[at])))
    for axle, worn in (discs or {}).items():
        km = worn * float(getattr(wear_table().disc, axle)["km_per_mm"][0])
        if shown_km and km > float(row.disc_beyond) * shown_km:
            middles.append(log(km))
    if not middles:
        return None
    spread = max(float(row.least), float(row.spread) / sqrt(len(middles)))
    return WearSays(exp(sum(middles) / len(middles)), spread)
