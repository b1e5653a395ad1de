"""Evidence of panels, kept: of a car read further, only the panels read further are weighed again."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from threading import Lock
from typing import Any

from hakutsu.core.film.model.evidence import PanelEvidence, panel_evidence
from hakutsu.core.film.model.grids import Grids
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.survey import Observation

MOST = 300  # panels; about 150 kB each
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
) -> dict[str, PanelEvidence]:
    """As `panel_evidence`; panels that were weighed before are taken from there."""
    keys = {
        name: (p.key, name, unusual.get(name, False), cover.get(name, p.cover.share), tuple(group))
        for name, group in groups.items()
    }
    found = {name: one for name, key in keys.items() if (one := _kept.get(key)) is not None}
    new = {name: group for name, group in groups.items() if name not in found}
    if new:
        for name, one in panel_evidence(new, unusual, cover, grid, p).items():
            _kept.put(keys[name], one)
            found[name] = one
    return {name: found[name] for name in groups}
