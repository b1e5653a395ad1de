"""Marginal likelihood of one car's readings per panel and state, over the grid of baselines."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from hakutsu.core.film import graded
from hakutsu.core.film.filler import dome_likelihoods, on_levels
from hakutsu.core.film.grids import SPREADS, Grids
from hakutsu.core.film.observation import Floats, Shown, reading_table, shown
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.spots import spots
from hakutsu.core.film.survey import STATES, FilmSurvey, Observation, State

TINY = 1e-300


@dataclass(frozen=True)
class PanelEvidence:
    """Log marginal likelihoods.

    `factory` has shape (panels, states, baselines, guards): given the car's factory baseline, and for sills the stone
    guard. `resprayed` has shape (panels, states, baselines): given the level of a whole-car respray. `per_dome` has
    shape (panels, domes, refinish levels): the readings given each dome of filler; `per_blend` and `per_cut` likewise
    (panels, gradients, levels).
    """

    panels: tuple[str, ...]
    factory: Floats
    resprayed: Floats
    per_dome: Floats
    per_blend: Floats
    per_cut: Floats


class _Panels:
    """Readings of all measured panels in one table, panel after panel."""

    def __init__(self, groups: Sequence[Sequence[Observation]], grid: Grids, p: FilmParameters) -> None:
        self.grid, self.p = grid, p
        self.seen: Shown = shown([o for group in groups for o in group], p)
        self.starts = np.cumsum([0, *(len(group) for group in groups)])[:-1]
        self.table = reading_table(self.seen, grid.level_um, SPREADS, p)

    def product(self, per_reading: Floats, spread_prior: Floats) -> Floats:
        """Log likelihood of each panel's readings over levels: product over readings, sum over unevenness."""
        per_panel = np.add.reduceat(np.log(np.maximum(per_reading, TINY)), self.starts, axis=0)
        top = per_panel.max(axis=-1, keepdims=True)
        return np.asarray(np.log(np.exp(per_panel - top) @ spread_prior) + top[..., 0])


def _filled(panels: _Panels) -> tuple[Floats, Floats]:
    """Refinished film over a dome of filler: over the levels, and by dome for the filled area."""
    per_dome = dome_likelihoods(panels.seen, panels.starts, panels.p)
    return on_levels(per_dome, panels.grid.level_um, panels.p.filled), per_dome


def _on_baselines(log_levels: Floats, kernel: Floats) -> Floats:
    """Log of ∫ kernel(level | baseline) · likelihood(level): shapes (p, k) and (b, k) give (p, b)."""
    top = log_levels.max(axis=1, keepdims=True)
    return np.asarray(np.log(np.maximum(np.exp(log_levels - top) @ kernel.T, TINY)) + top)


def _kind(panel: str) -> str:
    return "sill" if panel.startswith("sill") else panel if panel == "roof" else "panel"


def _groups(survey: FilmSurvey, names: Sequence[str]) -> dict[tuple[str, bool], list[int]]:
    """Indices of panels that share a kernel: by kind, and whether they have the substrate most panels have."""
    substrates = [str(survey.substrate(key)) for key in names]
    main = max(sorted(set(substrates)), key=substrates.count)
    found: dict[tuple[str, bool], list[int]] = {}
    for i, name in enumerate(names):
        found.setdefault((_kind(name), substrates[i] == main), []).append(i)
    return found


def panel_evidence(survey: FilmSurvey, grid: Grids, p: FilmParameters) -> PanelEvidence | None:
    """Evidence of every panel with at least one reading, or none without readings."""
    names = tuple(key for key in survey.metal_panels() if survey.on_panel(key))
    if not names:
        return None
    panels = _Panels([spots(survey.on_panel(key), p.retest) for key in names], grid, p)
    even = panels.product(panels.table, grid.factory_spread)
    uneven = panels.product(panels.table, grid.refinished_spread)
    twice = panels.product(panels.table, grid.rebuilt_spread)
    spread = np.interp(graded.SPREADS, SPREADS, grid.factory_spread)
    blends, cuts = graded.families(p)
    changed = graded.changed_table(panels.seen, p)
    per_blend, per_cut = (
        graded.graded_likelihoods(panels.seen, panels.starts, changed, family, spread / spread.sum())
        for family in (blends, cuts)
    )
    blended = graded.on_levels(per_blend, grid.level_um, blends)
    thinned = graded.on_levels(per_cut, grid.level_um, cuts)
    filled, per_dome = _filled(panels)

    factory = np.empty((len(names), len(STATES), len(grid.baseline_um), len(p.between.stone_guard_um)))
    resprayed = np.empty(factory.shape[:3])
    at = {state: STATES.index(state) for state in State}
    factory[:, at[State.REFINISHED]] = _on_baselines(uneven, grid.refinished)[..., None]
    factory[:, at[State.REBUILT]] = _on_baselines(twice, grid.rebuilt)[..., None]
    factory[:, at[State.FILLED]] = _on_baselines(filled, grid.refinished)[..., None]
    resprayed[:, at[State.REFINISHED]] = _on_baselines(uneven, grid.resprayed)
    resprayed[:, at[State.REBUILT]] = _on_baselines(twice, grid.respray_rebuilt)
    resprayed[:, at[State.FILLED]] = _on_baselines(filled, grid.resprayed)
    groups = _groups(survey, names)
    for state, levels in ((State.ORIGINAL, even), (State.THINNED, thinned), (State.BLENDED, blended)):
        for which, members in groups.items():
            by_guard = [_on_baselines(levels[members], kernel) for kernel in grid.own[which]]
            factory[members, at[state]] = np.stack(by_guard, axis=-1)
        # A panel left alone in a resprayed car has the film of the factory, of which nothing else tells the level.
        resprayed[:, at[state]] = _on_baselines(levels, grid.factory_level)
    return PanelEvidence(names, factory, resprayed, per_dome, per_blend, per_cut)
