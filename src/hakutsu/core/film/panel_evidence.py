"""Marginal likelihood of one car's readings per panel and state, over the grid of baselines."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from hakutsu.core.film.grids import SPREADS, Grids
from hakutsu.core.film.observation import Floats, Shown, excess_table, reading_table, shown
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.spots import spots
from hakutsu.core.film.survey import STATES, FilmSurvey, Observation, State

TINY = 1e-300


@dataclass(frozen=True)
class PanelEvidence:
    """Log marginal likelihoods.

    `factory` has shape (panels, states, baselines, guards): given the car's factory baseline, and for sills the stone
    guard. `resprayed` has shape (panels, states, baselines): given the level of a whole-car respray.
    """

    panels: tuple[str, ...]
    factory: Floats
    resprayed: Floats


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

    def shifted(self, more_um: float) -> Floats:
        """The reading table where film differs from the panel's level by `more_um`."""
        below, share = self.grid.shift(more_um)
        part = share[None, :, None]
        return np.asarray((1 - part) * self.table[:, below] + part * self.table[:, below + 1])


def _sum_over(terms: Sequence[tuple[float, Floats]]) -> Floats:
    """Log of a weighted sum of likelihoods given as logs; weights are normalised."""
    total = sum(weight for weight, _ in terms)
    stack = np.array([log + np.log(weight / total) for weight, log in terms])
    return np.asarray(np.logaddexp.reduce(stack, axis=0))


def _changed_part(panels: _Panels, amounts: Floats, steps: Sequence[float], shares: Sequence[float]) -> Floats:
    """Factory film, with a share of the panel thicker or thinner by up to an amount [µm]."""
    terms = []
    for amount in amounts:
        changed = np.mean([panels.shifted(step * amount) for step in steps], axis=0)
        for share in shares:
            mixed = (1 - share) * panels.table + share * changed
            terms.append((1.0, panels.product(mixed, panels.grid.factory_spread)))
    return _sum_over(terms)


def _filled(panels: _Panels) -> Floats:
    """Refinished film, with filler under a share of it; low edges more often than high ones."""
    p = panels.p.filled
    excess = excess_table(panels.seen, panels.grid.level_um, p.excess_median_um, p.excess_sd_log)
    place = np.interp(panels.seen.v, [0.15, 0.5, 0.85], [p.low_edge_factor, 1.0, p.high_edge_factor])
    place = np.where(np.isnan(place), 1.0, place)
    terms = []
    for share, weight in zip(p.area_shares, p.area_weights, strict=True):
        here = np.minimum(share * place, 0.9)[:, None]
        mixed = (1 - here)[..., None] * panels.table + (here * excess)[..., None]
        terms.append((weight, panels.product(mixed, panels.grid.refinished_spread)))
    return _sum_over(terms)


def _on_baselines(log_levels: Floats, kernel: Floats) -> Floats:
    """Log of ∫ kernel(level | baseline) · likelihood(level): shapes (p, k) and (b, k) give (p, b)."""
    top = log_levels.max(axis=1, keepdims=True)
    return np.asarray(np.log(np.maximum(np.exp(log_levels - top) @ kernel.T, TINY)) + top)


def _original_kernels(survey: FilmSurvey, panel: str, grid: Grids, p: FilmParameters, main: str) -> list[Floats]:
    """Kernel of the factory level for each amount of stone guard; only sills differ between them."""
    kernel = grid.original if survey.substrate(panel) == main else grid.original_wide
    if panel == "roof":
        share = p.between.two_tone_roof_share
        kernel = (1 - share) * kernel + share * _moved(kernel, grid, p.between.two_tone_roof_um)
    if not panel.startswith("sill"):
        return [kernel] * len(p.between.stone_guard_um)
    return [_moved(kernel, grid, guard) if guard else kernel for guard in p.between.stone_guard_um]


def _moved(kernel: Floats, grid: Grids, more_um: float) -> Floats:
    """The kernel of panels that carry `more_um` on top of the baseline's film."""
    place = np.interp(grid.baseline_um + more_um, grid.baseline_um, np.arange(len(grid.baseline_um)))
    below = np.minimum(place.astype(int), len(grid.baseline_um) - 2)
    share = (place - below)[:, None]
    return np.asarray((1 - share) * kernel[below] + share * kernel[below + 1])


def panel_evidence(survey: FilmSurvey, grid: Grids, p: FilmParameters) -> PanelEvidence | None:
    """Evidence of every panel with at least one reading, or none without readings."""
    names = tuple(key for key in survey.metal_panels() if survey.on_panel(key))
    if not names:
        return None
    panels = _Panels([spots(survey.on_panel(key), p.retest) for key in names], grid, p)
    even = panels.product(panels.table, grid.factory_spread)
    uneven = panels.product(panels.table, grid.refinished_spread)
    twice = panels.product(panels.table, grid.rebuilt_spread)
    cut = -np.linspace(p.thinned.least_um, p.thinned.most_um, 4)
    fade = np.linspace(p.blended.least_um, p.blended.most_um, 4)
    thinned = _changed_part(panels, cut, (0.6, 1.0), p.thinned.one_sided_share)
    blended = _changed_part(panels, fade, (0.3, 0.65, 1.0), p.blended.faded_share)
    filled = _filled(panels)

    kinds = [str(survey.substrate(key)) for key in names]
    main = max(sorted(set(kinds)), key=kinds.count)
    factory = np.empty((len(names), len(STATES), len(grid.baseline_um), len(p.between.stone_guard_um)))
    resprayed = np.empty(factory.shape[:3])
    at = {state: STATES.index(state) for state in State}
    factory[:, at[State.REFINISHED]] = _on_baselines(uneven, grid.refinished)[..., None]
    factory[:, at[State.REBUILT]] = _on_baselines(twice, grid.rebuilt)[..., None]
    factory[:, at[State.FILLED]] = _on_baselines(filled, grid.refinished)[..., None]
    resprayed[:, at[State.REFINISHED]] = _on_baselines(uneven, grid.resprayed)
    resprayed[:, at[State.REBUILT]] = _on_baselines(twice, grid.respray_rebuilt)
    resprayed[:, at[State.FILLED]] = _on_baselines(filled, grid.resprayed)
    for state, levels in ((State.ORIGINAL, even), (State.THINNED, thinned), (State.BLENDED, blended)):
        for i, name in enumerate(names):
            kernels = _original_kernels(survey, name, grid, p, main)
            one = levels[i : i + 1]
            if name.startswith("sill"):
                for g, kernel in enumerate(kernels):
                    factory[i, at[state], :, g] = _on_baselines(one, kernel)[0]
            else:
                factory[i, at[state]] = _on_baselines(one, kernels[0])[0][:, None]
        # A panel left alone in a resprayed car has the film of the factory, of which nothing else tells the level.
        resprayed[:, at[state]] = _on_baselines(levels, grid.factory_prior[None, :] @ grid.original)
    return PanelEvidence(names, factory, resprayed)
