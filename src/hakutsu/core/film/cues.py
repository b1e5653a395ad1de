"""Cues by eye, hand and magnet as evidence: likelihood ratios per state, grouped where they come from one cause."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.film.survey import STATES, CueLooked, Observation, State
from hakutsu.core.film.tables import CuesTable
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.vocabulary import MagnetGrade, Substrate


@dataclass(frozen=True, slots=True)
class CueKind:
    """A cue one can look for: its name, its group, log likelihood ratios when it is there and when it is
    not, and the share of them that counts on panels lying flat; `measured` ones come from entries of their own."""

    key: str
    name: str
    group: str
    seen: tuple[float, ...]
    absent: tuple[float, ...]
    flat: float = 1.0
    measured: bool = False


@cache
def _table() -> CuesTable:
    return read_table("core.film", "cues", CuesTable)


@cache
def cue_kinds() -> dict[str, CueKind]:
    """All cues by key.

    Raises
    ------
    ValueError
        If a cue names no group of the file, or a ratio is not above zero.
    """
    found = {}
    for key, row in _table()["cue"].items():
        if row["group"] not in _table()["group"]:
            raise ValueError(f"cue {key} names the group {row['group']}, which the file does not have")
        found[key] = CueKind(
            key,
            row["name"],
            row["group"],
            _logs(row["seen"]),
            _logs(row["absent"]),
            float(row["flat"]),
            row["measured"],
        )
    return found


def cue_groups() -> dict[str, str]:
    """Names of the groups by key, in the order of the file."""
    return {key: row["name"] for key, row in _table()["group"].items()}


def _logs(ratios: Mapping[str, float]) -> tuple[float, ...]:
    if any(not ratio > 0 for ratio in ratios.values()):
        raise ValueError("likelihood ratios must be above zero")
    return tuple(float(np.log(ratios.get(state, 1.0))) for state in STATES)


def cue_ratios(looked: Sequence[CueLooked], *, weathered: bool = False) -> NDArray[np.float64]:
    """Log likelihood ratio of each state, from all cues looked for on one panel; shape (states,).

    `weathered` panels lie flat under sun and rain: lacquer that lets go there is age, and tells next to nothing.

    Notes
    -----
    ln R(s) = Σ over groups of [ ln r*(s) + 0.3 · Σ over the others of ln r(s) ], where r* is the group's strongest cue,
    by its largest |ln r| over the states.
    """
    kinds, exponent = cue_kinds(), float(_table()["others_exponent"])
    by_group: dict[str, list[NDArray[np.float64]]] = {}
    for one in sorted(looked, key=lambda one: (one.kind, one.there, one.share)):
        kind = kinds[one.kind]
        seen = one.share * np.array(kind.seen) + (1 - one.share) * np.array(kind.absent)
        ratio = seen if one.there else np.array(kind.absent)
        by_group.setdefault(kind.group, []).append(ratio * kind.flat if weathered else ratio)
    total = np.zeros(len(STATES))
    for ratios in by_group.values():
        ratios.sort(key=lambda ratio: -float(np.abs(ratio).max()))
        total += ratios[0] + exponent * sum(ratios[1:], np.zeros(len(STATES)))
    return total


def without(
    chances: Mapping[State, float], looked: Sequence[CueLooked], left_out: CueLooked, *, weathered: bool = False
) -> dict[State, float]:
    """State probabilities of a panel as they would be had one of its cues not been looked for."""
    rest = [one for one in looked if one != left_out]
    change = cue_ratios(rest, weathered=weathered) - cue_ratios(looked, weathered=weathered)
    weight = {state: chances[state] * float(np.exp(change[i])) for i, state in enumerate(STATES)}
    return {state: one / sum(weight.values()) for state, one in weight.items()}


def magnet_names() -> dict[MagnetGrade, str]:
    """The grades of a magnet in words."""
    return {grade: _table()["magnet"][grade]["name"] for grade in MagnetGrade}


def grade_name(between_um: tuple[float, float] | None) -> str:
    """The name of the grade that an interval of film [µm] stands for."""
    for grade, name in magnet_names().items():
        if between_um is not None and float(_table()["magnet"][grade]["between_um"][0]) == between_um[0]:
            return name
    return "tried"


def magnet_observation(panel: str, grade: MagnetGrade, u: float | None = None, v: float | None = None) -> Observation:
    """A magnet's grade as an interval of film at a spot, on steel."""
    low, high = _table()["magnet"][grade]["between_um"]
    return Observation(panel, None, u=u, v=v, substrate=Substrate.STEEL, between_um=(float(low), float(high)))
