"""What an inspector's own vehicles of a make and colour say of the next: where factory film lies, and how evenly."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from statistics import fmean, median

import numpy as np

from hakutsu.core.film.judging import Known
from hakutsu.core.film.model.grids import Grids
from hakutsu.core.film.model.numeric import Floats, normal_weights
from hakutsu.core.film.model.shuts import WRAPPED
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.result import FilmAnalysis
from hakutsu.core.film.survey import FilmSurvey, HonestFilm, State
from hakutsu.core.film.verdicts.spots import film_um
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.units import show
from hakutsu.vehicle.vocabulary import CoverKind, Finish, Substrate

OWN = "own"


@dataclass(frozen=True, slots=True)
class Learnt:
    """A log-normal quantity of the next vehicle: its median, and the standard deviation of its logarithm."""

    median: float
    sd_log: float


def honest_film(survey: FilmSurvey, analysis: FilmAnalysis, p: FilmParameters) -> HonestFilm | None:
    """A finished vehicle's honest film.

    None where it teaches nothing: simulated readings, a finish not the factory's, a level that stays in doubt, or too
    few steel panels that are likely untouched and read well enough.
    """
    q = p.own_vehicles
    if any(o.simulated for o in survey.observations) or survey.finish is not Finish.FACTORY:
        return None
    base = analysis.baseline
    if base is None or base.kind != "factory" or base.weak or base.probability < q.sure:
        return None
    read = []
    for panel in analysis.panels:
        films = [film_um(o) for o in survey.on_panel(panel.panel) if not o.censored]
        cover = survey.covers.get(panel.panel)
        bare = cover is None or cover.kind is CoverKind.NOTHING
        sure = (panel.probabilities or {}).get(State.ORIGINAL, 0.0) >= q.sure and not panel.panel.startswith("sill")
        if sure and bare and survey.substrate(panel.panel) is Substrate.STEEL and len(films) >= q.least_readings:
            read.append(films)
    if len(read) < q.least_panels:
        return None
    middles = np.log([median(films) for films in read])
    within = fmean(float(np.var(films, ddof=1)) / fmean(films) ** 2 for films in read) ** 0.5
    return HonestFilm(
        float(np.exp(np.median(middles))), max(float(np.std(middles, ddof=1)), q.least_sd), max(within, q.least_sd)
    )


def learnt(values: Sequence[float], usual: Known) -> Learnt:
    """What a log-normal quantity of the next vehicle is, given those of vehicles like it.

    The mean of a kind is normal about the usual one; how far vehicles of a kind lie apart is known beforehand as well
    as from `usual.worth` vehicles (scaled inverse chi-square), so few vehicles say little. Gelman et al., Bayesian Data
    Analysis, 3rd ed., sections 2.5 and 3.2.
    """
    logs = np.log(values)
    count = len(logs)
    apart = usual.worth * usual.apart_sd_log**2 + float(((logs - logs.mean()) ** 2).sum())
    within = apart / (usual.worth + count - 1)
    precision = 1 / usual.sd_log**2 + count / within
    middle = (np.log(usual.median) / usual.sd_log**2 + count * logs.mean() / within) / precision
    return Learnt(float(np.exp(middle)), float((within + 1 / precision) ** 0.5))


def enough(own: Sequence[HonestFilm], finish: Finish, p: FilmParameters) -> bool:
    """Whether own vehicles speak about a car of this finish: not about restored paint or paint aged under clear."""
    return len(own) >= p.own_vehicles.least and finish in (Finish.FACTORY, Finish.UNKNOWN)


def with_own(grid: Grids, own: Sequence[HonestFilm], p: FilmParameters) -> Grids:
    """The grids with the factory's level, spread between panels and evenness as own vehicles of this kind had them.

    A share stays with what is usual for any factory: the car may come from another line, or the colour be another.
    """
    q = p.own_vehicles
    level = learnt([one.level_um for one in own], q.level)
    here = q.trust * normal_weights(np.log(grid.baseline_um), np.log(level.median), level.sd_log)
    parts = {}
    for finish, of_finish in grid.factory_parts.items():
        if not enough(own, finish, p):
            parts[finish] = dict(of_finish)
            continue
        wrapped = float(of_finish[WRAPPED].sum())
        rest = {name: (1 - q.trust) * weight for name, weight in of_finish.items() if name != WRAPPED}
        parts[finish] = {**rest, WRAPPED: of_finish[WRAPPED], OWN: here * (1 - wrapped)}
    between = learnt([one.spread for one in own], q.spread)
    even = learnt([one.unevenness for one in own], q.unevenness)
    return replace(
        grid,
        factory_parts=parts,
        factory_prior={finish: np.asarray(sum(found.values())) for finish, found in parts.items()},
        between=_mixed(grid.between, p.between.panel_sd_log, between, q.trust),
        factory_even=_mixed(grid.factory_even, p.unevenness.factory, even, q.trust),
    )


def _mixed(prior: Floats, at: Sequence[float], known: Learnt, trust: float) -> Floats:
    weight = normal_weights(np.log(at), np.log(known.median), known.sd_log)
    return np.asarray((1 - trust) * prior + trust * weight / weight.sum())


def own_words(own: Sequence[HonestFilm], whose: str = "your own", terms: Terms = PLAIN) -> str:
    """How many there are, and between which levels they lie."""
    levels = sorted(one.level_um for one in own)
    low, high = show(levels[0], terms.film, with_unit=False), show(levels[-1], terms.film)
    said = high if high.startswith(f"{low} ") else f"{low} to {high}"
    return f"{len(own)} of {whose} vehicles of this make and colour lie at {said}"
