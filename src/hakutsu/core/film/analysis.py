"""One car's film survey, analysed: baseline, states, reasons, concerns, surprises."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from statistics import median

import numpy as np

from hakutsu.core.film import filler, graded
from hakutsu.core.film.car import CarPosterior, car_posterior, state_prior, weighted_quantiles
from hakutsu.core.film.grids import Grids, grids
from hakutsu.core.film.panel_evidence import PanelEvidence, panel_evidence
from hakutsu.core.film.parameters import FilmParameters, Side, parameters
from hakutsu.core.film.reasons import LIKELY, Context, panel_reasons, sureness
from hakutsu.core.film.schools import Judged, School, default_school, judge, prior_finish
from hakutsu.core.film.spots import SpotVerdict, Surprise, film_um, surprises
from hakutsu.core.film.survey import STATES, FilmSurvey, State
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import Substrate, Unit

ANCHOR = 0.7
BOTH_LEVELS_BELOW = 0.8
FILLED_FROM = 0.05
SIDE_FROM = 0.6
_ENDS = {  # what u = 0, u = 1, v = 0 and v = 1 are, by the plane a panel lies in
    "flank": ("its front edge", "its rear edge", "its lower edge", "its upper edge"),
    "top": ("its left edge", "its right edge", "its front edge", "its rear edge"),
    "end": ("its left edge", "its right edge", "its lower edge", "its upper edge"),
}
_SIDES = (Side.FRONT, Side.REAR, Side.LOW, Side.HIGH)


@dataclass(frozen=True, slots=True)
class Baseline:
    """The car's own film [µm] with its 80 % interval: of the factory, or of a respray of the whole car."""

    median: float
    low: float
    high: float
    kind: str
    probability: float
    anchored_on: tuple[str, ...] = ()
    weak: bool = False


@dataclass(frozen=True, slots=True)
class FilledShare:
    """Share of a panel's area under more than 150 µm of filler, given that there is filler; 80 % interval."""

    median: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class PanelFilm:
    """What is said about one panel; `probabilities` and `state` are none where no gauge reads.

    `filled_share` is given once filler has a chance of 5 %; `changes_towards` is the likeliest side of a blended or
    thinned panel with its probability, where positions tell.
    """

    panel: str
    substrate: Substrate
    readings: int
    state: State | None
    probabilities: dict[State, float] | None
    words: str
    reasons: tuple[str, ...]
    judged: Judged | None
    median_um: float | None = None
    filled_share: FilledShare | None = None
    changes_towards: tuple[Side, float] | None = None

    @property
    def settled(self) -> bool:
        """True when the likeliest state is likely enough to be named alone."""
        return self.probabilities is not None and self.state is not None and self.probabilities[self.state] >= LIKELY


@dataclass(frozen=True)
class FilmAnalysis:
    """The whole survey; `alternative` is the other baseline when neither is likelier than 0.8."""

    survey: str
    school: School
    baseline: Baseline | None
    alternative: Baseline | None
    panels: tuple[PanelFilm, ...]
    surprises: tuple[Surprise, ...]
    warnings: tuple[str, ...] = field(default=())

    @property
    def open_surprises(self) -> list[Surprise]:
        """Surprising readings whose repeats are still missing."""
        return [surprise for surprise in self.surprises if surprise.verdict is SpotVerdict.OPEN]

    def panel(self, key: str) -> PanelFilm | None:
        """One panel's result by key."""
        return next((panel for panel in self.panels if panel.panel == key), None)


def analyse(
    survey: FilmSurvey,
    *,
    school: School | None = None,
    band_um: tuple[float, float] | None = None,
    unit: Unit = Unit.UM,
    p: FilmParameters | None = None,
) -> FilmAnalysis:
    """Analyse one car's survey.

    Parameters
    ----------
    survey : the car's observations
    school : the school of judging; by default that of the declared finish
    band_um : limits [µm] of the band of the schools *fixed* and *restored*
    unit : the unit in which reasons are worded
    p : the model's parameters, as shipped by default
    """
    p = p or parameters()
    grid = grids(p)
    school = school or default_school(survey.finish)
    prior_from = prior_finish(school, survey.finish)
    evidence = panel_evidence(survey, grid, p)
    car = car_posterior(evidence, prior_from, grid, p) if evidence else None
    baseline, alternative = _baselines(car, grid)
    odd = surprises(survey, baseline.median if baseline else None, p.retest)
    prior = dict(zip(STATES, (float(x) for x in state_prior(prior_from, p)), strict=True))
    medians = {key: median([film_um(o) for o in read]) for key in survey.all_panels() if (read := survey.on_panel(key))}
    metal = set(survey.metal_panels())
    results = []
    for key in survey.all_panels():
        if key not in metal:
            results.append(_not_metal(survey, key))
            continue
        chances = dict(prior)
        if car and key in car.panels:
            chances = dict(zip(STATES, (float(x) for x in car.states[car.panels.index(key)]), strict=True))
        mirror = panels()[key].mirror
        context = Context(
            baseline.median if baseline else None, medians.get(mirror or ""), unit, key.startswith("sill")
        )
        results.append(_metal(survey, key, chances, context, school, band_um, p))
    if evidence and car:
        results = [_with_extent(result, evidence, car, grid, p) for result in results]
    waiting = {s.observation.panel for s in odd if s.verdict is SpotVerdict.OPEN}
    results = [
        replace(r, words=f"{r.words}; one reading waits for its repeat") if r.panel in waiting else r for r in results
    ]
    return FilmAnalysis(
        survey.id, school, baseline, alternative, tuple(results), tuple(odd), tuple(_warnings(survey, car, baseline, p))
    )


def _not_metal(survey: FilmSurvey, key: str) -> PanelFilm:
    kind = survey.substrate(key)
    why = "substrate unknown and no reading" if kind is Substrate.UNKNOWN else f"{kind}: no gauge reads it"
    return PanelFilm(key, kind, 0, None, None, "no gauge reads this", (why,), None)


def _metal(
    survey: FilmSurvey,
    key: str,
    chances: dict[State, float],
    context: Context,
    school: School,
    band_um: tuple[float, float] | None,
    p: FilmParameters,
) -> PanelFilm:
    films = [film_um(o) for o in survey.on_panel(key)]
    first, second = sorted(STATES, key=lambda s: -chances[s])[:2]
    reasons = panel_reasons(
        sorted((o for o in survey.observations if o.panel == key), key=film_um),
        f"a declared {survey.finish} finish",
        context,
    )
    return PanelFilm(
        key,
        survey.substrate(key),
        len(films),
        first,
        chances,
        sureness(first, chances[first], second) if films else "not read",
        tuple(reasons),
        judge(school, films, first, chances[first], band_um, p.schools),
        median(films) if films else None,
    )


def _with_extent(
    result: PanelFilm, evidence: PanelEvidence, car: CarPosterior, grid: Grids, p: FilmParameters
) -> PanelFilm:
    """Add how far filler reaches, and to which side a blend or a polish lies."""
    if result.probabilities is None or result.panel not in evidence.panels:
        return result
    i = evidence.panels.index(result.panel)
    own = result.probabilities
    if own[State.FILLED] >= FILLED_FROM:
        level = (1 - car.resprayed) * car.baseline @ grid.refinished + car.resprayed * car.respray @ grid.resprayed
        weight = np.interp(np.log(filler.LEVELS_UM), np.log(grid.level_um), level)
        values, weights = filler.area_posterior(evidence.per_dome[i], weight, result.readings, p.filled)
        low, middle, high = weighted_quantiles(values, weights, (0.1, 0.5, 0.9))
        extent = f"if filled, then {low:.0%} to {high:.0%} of the panel".replace("%", " %")
        reasons = (*result.reasons, extent) if result.state is State.FILLED else result.reasons
        result = replace(result, filled_share=FilledShare(middle, low, high), reasons=reasons)
    if result.state in (State.BLENDED, State.THINNED):
        family = graded.families(p)[0 if result.state is State.BLENDED else 1]
        per_gradient = evidence.per_blend if result.state is State.BLENDED else evidence.per_cut
        weight = np.interp(np.log(graded.LEVELS_UM), np.log(grid.level_um), car.baseline @ grid.own["panel", True][0])
        sides = graded.side_weights(per_gradient[i], weight, family)
        side = max(sorted(sides), key=lambda one: sides[one])
        if sides[side] >= SIDE_FROM:
            edge = _ENDS[panels()[result.panel].plane][_SIDES.index(side)] if side in _SIDES else ""
            change = "rises" if result.state is State.BLENDED else "thins"
            said = f"the film {change} towards {edge}" if edge else "the film is thinner all over"
            result = replace(result, changes_towards=(side, sides[side]), reasons=(*result.reasons, said))
    return result


def _baselines(car: CarPosterior | None, grid: Grids) -> tuple[Baseline | None, Baseline | None]:
    """The likelier baseline and, when neither exceeds 0.8, the other; none with fewer than two panels read."""
    if car is None or len(car.panels) < 2:
        return None, None
    anchors = tuple(
        key for key, row in zip(car.panels, car.states, strict=True) if row[STATES.index(State.ORIGINAL)] >= ANCHOR
    )
    weak = len(anchors) < max(2, len(car.panels) / 3)

    def make(kind: str) -> Baseline:
        weights, chance = (car.respray, car.resprayed) if kind == "respray" else (car.baseline, 1 - car.resprayed)
        low, middle, high = weighted_quantiles(grid.baseline_um, weights, (0.1, 0.5, 0.9))
        return Baseline(middle, low, high, kind, chance, anchors if kind == "factory" else (), weak)

    first, second = ("respray", "factory") if car.resprayed > 0.5 else ("factory", "respray")
    likely = make(first)
    return likely, make(second) if likely.probability <= BOTH_LEVELS_BELOW else None


def _warnings(
    survey: FilmSurvey, car: CarPosterior | None, baseline: Baseline | None, p: FilmParameters
) -> Sequence[str]:
    if car is None:
        return ["no reading on metal: nothing is known about this car's film"]
    said = []
    if baseline is None:
        said.append("no baseline: only one panel was read, so nothing on this car can be compared")
    elif baseline.kind == "respray":
        said.append("the whole car reads like a respray: the baseline is that of the respray, not of the factory")
    elif baseline.weak:
        said.append("weak baseline: few panels look untouched")
    if any(o.censored and o.limit_um is None and o.value_um is None for o in survey.observations):
        least = p.gauge.lowest_limit_um
        said.append(f"over-range readings without a limit were taken as at least {least:.0f} µm")
    if car.resprayed <= BOTH_LEVELS_BELOW and 1 - car.resprayed <= BOTH_LEVELS_BELOW:
        said.append("factory film or a respray of the whole car: both levels remain possible")
    return said
