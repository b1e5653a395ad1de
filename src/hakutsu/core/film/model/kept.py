"""Evidence of panels, kept: of a car read further, only the panels read further are weighed again."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import fields, replace
from threading import Lock
from typing import Any

import numpy as np

from hakutsu.core.film.model.evidence import PanelEvidence, panel_evidence
from hakutsu.core.film.model.grids import Grids
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.survey import Observation

MOST = 300  # panels; about 100 kB each
Key = tuple[Any, ...]


class _Kept:
    """Single panels by all that their evidence rests on, those asked for last."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._panels: OrderedDict[Key, PanelEvidence] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Key) -> PanelEvidence | None:
        with self._lock:
            found = self._panels.get(key)
            if found is not None:
                self._panels.move_to_end(key)
            return found

    def put(self, key: Key, one: PanelEvidence) -> None:
        with self._lock:
            self._panels[key] = one
            while len(self._panels) > self._most:
                self._panels.popitem(last=False)


_kept = _Kept(MOST)


def kept_evidence(
    groups: Mapping[str, Sequence[Observation]],
    unusual: Mapping[str, bool],
    cover: Mapping[str, float],
    grid: Grids,
    p: FilmParameters,
) -> PanelEvidence:
    """As `panel_evidence`; panels that were weighed before are taken from there."""
    keys = {
        name: (p.key, name, unusual.get(name, False), cover.get(name, p.cover.share), tuple(group))
        for name, group in groups.items()
    }
    parts = {name: _kept.get(key) for name, key in keys.items()}
    new = {name: group for name, group in groups.items() if parts[name] is None}
    if new:
        made = panel_evidence(new, unusual, cover, grid, p)
        for i, name in enumerate(new):
            parts[name] = one = _single(made, i)
            _kept.put(keys[name], one)
    found = [one for one in parts.values() if one is not None]
    return found[0] if len(found) == 1 else _joined(found)


def _single(every: PanelEvidence, i: int) -> PanelEvidence:
    """One panel of several, with arrays of its own, so that the others need not be held for it."""
    return replace(every, **{one.name: _part(getattr(every, one.name), i) for one in fields(every)})


def _part(value: Any, i: int) -> Any:
    if isinstance(value, Mapping):
        return {name: _part(one, i) for name, one in value.items()}
    return value[i : i + 1].copy() if isinstance(value, np.ndarray) else value[i : i + 1]


def _joined(parts: Sequence[PanelEvidence]) -> PanelEvidence:
    return PanelEvidence(
        **{one.name: _together([getattr(part, one.name) for part in parts]) for one in fields(parts[0])}
    )


def _together(values: Sequence[Any]) -> Any:
    first = values[0]
    if isinstance(first, Mapping):
        return {name: _together([one[name] for one in values]) for name in first}
    if isinstance(first, np.ndarray):
        return np.concatenate(values)
    return tuple(one for value in values for one in value)
