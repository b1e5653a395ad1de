"""One car's film survey, analysed: baseline, states, reasons, concerns, surprises, story."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from statistics import median

import numpy as np

from hakutsu.core.film.cues import grade_name
from hakutsu.core.film.model.car import CarPosterior
from hakutsu.core.film.model.grids import METAL, kernels
from hakutsu.core.film.model.numeric import Floats, log_sum, weighted_quantiles
from hakutsu.core.film.modelled import FilmModel
from hakutsu.core.film.own_vehicles import own_words
from hakutsu.core.film.parameters import FilmParameters, parameters
from hakutsu.core.film.result import Baseline, FilmAnalysis, PanelFilm, Weights
from hakutsu.core.film.survey import STATES, FilmSurvey, State
from hakutsu.core.film.verdicts.extent import FILLED_FROM, changing_side, filled_extent, side_words
from hakutsu.core.film.verdicts.headroom import polish_headroom
from hakutsu.core.film.verdicts.questions import even_and_thick, is_upper, two_tone, under_neighbours
from hakutsu.core.film.verdicts.reasons import CONSISTENT, Context, judged_by, panel_reasons, sureness
from hakutsu.core.film.verdicts.schools import Concern, Judged, School, default_school, judge, prior_finish
from hakutsu.core.film.verdicts.spots import SpotVerdict, film_um, surprises, unsettled
from hakutsu.core.film.verdicts.story import film_story
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.vocabulary import Finish, Substrate

ANCHOR = 0.7
BOTH_LEVELS_BELOW = 0.8
DESIGN = 0.5
UNTOUCHED = (STATES.index(State.ORIGINAL), STATES.index(State.THINNED))


def analyse(
    survey: FilmSurvey,
    *,
    school: School | None = None,
    band_um: tuple[float, float] | None = None,
    terms: Terms = PLAIN,
    p: FilmParameters | None = None,
) -> FilmAnalysis:
    """Analyse one car's survey.

    Parameters
    ----------
    survey : the car's observations
    school : the school of judging; by default that of the declared finish
    band_um : limits [µm] of the band of the schools *fixed* and *restored*
    terms : words and units in which reasons are told
    p : the model's parameters, as shipped by default
    """
    return analyse_model(FilmModel(survey, p or parameters()), school=school, band_um=band_um, terms=terms)


def analyse_model(
    model: FilmModel,
    *,
    school: School | None = None,
    band_um: tuple[float, float] | None = None,
    terms: Terms = PLAIN,
) -> FilmAnalysis:
    """Analyse a survey already made ready, so that several schools share its evidence."""
    survey, p = model.survey, model.p
    school = school or default_school(survey.finish)
    prior_from = prior_finish(school, survey.finish)
    car = model.posterior(prior_from) if model.names else None
    baseline, alternative = _baselines(car, model)
    odd = surprises(survey, baseline.median if baseline else None, p.retest)
    odd = unsettled(odd, _settled(car, model)) if car else odd
    waiting = {s.observation.panel for s in odd if s.verdict is SpotVerdict.OPEN}
    design = car is not None and two_tone(car) > DESIGN
    medians = {key: median([film_um(o) for o in read]) for key in model.names if (read := survey.on_panel(key))}
    metal = set(model.names)
    own = [key for key in model.groups if car is not None and car.chances(key)[State.ORIGINAL] >= ANCHOR]
    known = own_words(survey.own_vehicles, terms=terms) if model.own else ""
    results = {}
    for key in survey.all_panels():
        if car is None or key not in metal:
            results[key] = _not_metal(survey, key)
            continue
        context = Context(
            baseline.median if baseline else None,
            medians.get(panels()[key].mirror or ""),
            terms,
            key.startswith("sill"),
            survey.cues.get(key, ()),
            survey.covers.get(key),
            [grade_name(m.between_um) for m in survey.magnets if m.panel == key],
            design and is_upper(key) and survey.substrate(key) in (Substrate.STEEL, Substrate.ALUMINIUM),
        )
        films = [film_um(o) for o in survey.on_panel(key)]
        under = None
        if car.chances(key)[State.ORIGINAL] + car.chances(key)[State.THINNED] > 0.5:
            under = under_neighbours(key, films, medians, own, p.asks, terms)
            context = replace(context, more=[under] if under else [])
        if known and films:
            context = replace(context, more=[*context.more, known])
        result = _with_extent(_metal(model, car, key, context), model, prior_from)
        judged = judge(school, films, *_likeliest(car.chances(key)), band_um, p.schools, terms)
        judged = _looked_at_again(judged, school, key in waiting, under)
        room = polish_headroom(survey.on_panel(key), car.chances(key), baseline, survey.paint, p.headroom,
                               (p.gauge.offset_sd_um, p.gauge.gain_sd), terms)  # fmt: skip
        words = f"{result.words}; one reading waits for its repeat" if key in waiting else result.words
        results[key] = replace(result, judged=judged, headroom=room, words=words)
    return FilmAnalysis(
        survey.id,
        school,
        baseline,
        alternative,
        tuple(results.values()),
        tuple(odd),
        tuple(_warnings(model, car, baseline, terms)),
        film_story(car, results, terms) if car and model.evidence else (),
        _by_substrate(model, car) if car else {},
    )


def schools_side_by_side(
    model: FilmModel, band_um: tuple[float, float] | None = None, terms: Terms = PLAIN
) -> dict[str, dict[School, Judged]]:
    """Every panel read, as each school judges it; states come from the priors each school goes by, `band_um` is the
    inspector's own band for the school *fixed*.
    """
    survey, found = model.survey, dict[str, dict[School, Judged]]()
    for key in model.names:
        films = [film_um(o) for o in survey.on_panel(key)]
        if films:
            found[key] = {}
            for school in School:
                car = model.posterior(prior_finish(school, survey.finish))
                band = band_um if school is School.FIXED else None
                found[key][school] = judge(school, films, *_likeliest(car.chances(key)), band, model.p.schools, terms)
    return found


def _settled(car: CarPosterior, model: FilmModel) -> list[str]:
    """Panels painted again beyond doubt: one odd reading more would change nothing."""
    found = ((key, *_likeliest(car.chances(key))) for key in model.groups)
    return [
        key for key, state, chance in found if state not in (State.ORIGINAL, State.THINNED) and chance >= CONSISTENT
    ]


def _looked_at_again(judged: Judged, school: School, waiting: bool, under: str | None) -> Judged:
    """While a reading waits for its repeat, and under thin film, a panel is at least looked at again."""
    if judged.concern is not Concern.NONE or school is School.FIXED:
        return judged
    if waiting:
        return Judged(Concern.LOOK, "one reading stands out and was not repeated yet")
    return Judged(Concern.LOOK, under) if under else judged


def _likeliest(chances: dict[State, float]) -> tuple[State, float]:
    first = max(STATES, key=lambda state: chances[state])
    return first, chances[first]


def _not_metal(survey: FilmSurvey, key: str) -> PanelFilm:
    kind = survey.substrate(key)
    why = "substrate unknown and no reading" if kind is Substrate.UNKNOWN else f"{kind}: no gauge reads it"
    return PanelFilm(key, kind, 0, None, None, "no gauge reads this", (why,), None)


def _metal(model: FilmModel, car: CarPosterior, key: str, context: Context) -> PanelFilm:
    survey, chances = model.survey, car.chances(key)
    films = [film_um(o) for o in survey.on_panel(key)]
    first, second = sorted(STATES, key=lambda state: -chances[state])[:2]
    hidden = context.cover is not None and context.cover.hides
    reasons = panel_reasons(
        sorted(survey.every_on(key), key=film_um),
        f"a declared {survey.finish} finish",
        context,
    )
    words = sureness(first, chances[first], second) if key in model.groups or context.cues else "not read"
    if not films and (by := judged_by(context)):
        words = f"{words}, {by}"
    return PanelFilm(
        key,
        survey.substrate(key),
        len(films),
        first,
        chances,
        "not measurable under film or wrap" if hidden else words,
        tuple(reasons),
        None,
        median(films) if films else None,
        sorted(films)[len(films) // 4] if films else None,
        weights=_weights(model, car, key),
        not_measurable=hidden,
    )


def _weights(model: FilmModel, car: CarPosterior, key: str) -> Weights:
    """Log2 odds of "painted again", taken apart into where they come from."""
    i = car.panels.index(key)
    looked = model.survey.cues.get(key, ())
    declared = _odds(model.declared(model.survey.finish))
    rest = _odds(car.expected[i])
    final = _odds(car.states[i])
    if not looked:
        return Weights(declared, rest - declared, final - rest, 0.0)
    cueless = car.states[i] * np.exp(-model.cue_ratios(key))
    without = _odds(cueless / cueless.sum())
    return Weights(declared, rest - declared, without - rest, final - without)


def _odds(chances: Floats) -> float:
    untouched = float(sum(chances[j] for j in UNTOUCHED))
    return float(np.log2(max(1 - untouched, 1e-12) / max(untouched, 1e-12)))


def _with_extent(result: PanelFilm, model: FilmModel, finish: Finish) -> PanelFilm:
    """Add how far filler reaches, and to which side a blend or a polish lies."""
    state = result.state
    if result.probabilities is None or state is None:
        return result
    if result.probabilities[State.FILLED] >= FILLED_FROM and (found := filled_extent(model, finish, result.panel)):
        share, where = found
        extent = f"if filled, then {share.low:.0%} to {share.high:.0%} of the panel".replace("%", " %")
        reasons = (*result.reasons, extent) if state is State.FILLED else result.reasons
        result = replace(result, filled_share=share, filler_map=where, reasons=reasons)
    side = changing_side(model, finish, result.panel, state)
    if side is not None:
        said = side_words(result.panel, state, side[0])
        result = replace(result, changes_towards=side, reasons=(*result.reasons, said))
    return result


def _anchors(car: CarPosterior, model: FilmModel) -> tuple[str, ...]:
    original = STATES.index(State.ORIGINAL)
    return tuple(key for key in model.groups if car.states[car.panels.index(key)][original] >= ANCHOR)


def _baselines(car: CarPosterior | None, model: FilmModel) -> tuple[Baseline | None, Baseline | None]:
    """The likelier baseline and, when neither exceeds 0.8, the other; none with fewer than two panels read."""
    if car is None or sum(bool(model.survey.on_panel(name)) for name in model.groups) < 2:
        return None, None
    anchors = _anchors(car, model)
    weak = len(anchors) < max(2, len(model.groups) / 3)

    def make(kind: str) -> Baseline:
        levels, weights, chance = model.grid.baseline_um, car.baseline, 1 - car.resprayed
        if kind == "respray":
            levels, weights, chance = model.grid.respray_um, car.respray, car.resprayed
        low, middle, high = weighted_quantiles(levels, weights, (0.1, 0.5, 0.9))
        return Baseline(middle, low, high, kind, chance, anchors if kind == "factory" else (), weak)

    first, second = ("respray", "factory") if car.resprayed > 0.5 else ("factory", "respray")
    likely = make(first)
    return likely, make(second) if likely.probability <= BOTH_LEVELS_BELOW else None


def _by_substrate(model: FilmModel, car: CarPosterior) -> dict[Substrate, Baseline]:
    """The level of panels on another metal than most: the car's baseline, widened, and those panels' readings."""
    evidence, grid = model.evidence, model.grid
    if len(model.groups) < 2:
        return {}
    found = {}
    others = [name for name, one in evidence.items() if not one.kind[1]]
    metals = model.grid.variants[METAL]
    own = np.einsum("v,b,t,vbtl->l", metals, car.baseline, car.between, kernels(("panel", False), model.p).own)
    for kind in sorted({model.survey.substrate(name) for name in others}):
        mine = [name for name in others if model.survey.substrate(name) is kind]
        original = [car.chances(name)[State.ORIGINAL] for name in mine]
        log = np.log(np.maximum(own, 1e-300))
        for chance, name in zip(original, mine, strict=True):
            even = evidence[name].by_spread @ (grid.factory_spread @ grid.factory_even)
            log = log + chance * np.log(np.maximum(even, 1e-300))
        weight = np.exp(log - log_sum(log, axis=0))
        low, middle, high = weighted_quantiles(grid.level_um, weight, (0.1, 0.5, 0.9))
        anchors = tuple(name for chance, name in zip(original, mine, strict=True) if chance >= ANCHOR)
        found[kind] = Baseline(middle, low, high, "factory", 1 - car.resprayed, anchors, not anchors)
    return found


def _warnings(model: FilmModel, car: CarPosterior | None, baseline: Baseline | None, terms: Terms) -> Sequence[str]:
    survey = model.survey
    if car is None or not any(survey.on_panel(key) for key in model.names):
        return ["no readings yet"]
    said = []
    if baseline is None:
        said.append("no baseline: only one panel was read, so nothing on this car can be compared")
    elif baseline.kind == "respray":
        said.append("the whole car reads like a respray: the baseline is that of the respray, not of the factory")
    elif baseline.weak:
        said.append("weak baseline: few panels look untouched")
    if any(o.censored and o.limit_um is None and o.value_um is None for o in survey.observations):
        least = model.p.gauge.lowest_limit_um
        said.append(f"over-range readings without a limit were taken as at least {terms.film_words(least)}")
    if 1 - BOTH_LEVELS_BELOW <= car.resprayed <= BOTH_LEVELS_BELOW:
        said.append("factory film or a respray of the whole car: both levels remain possible")
    said += even_and_thick(model, car, baseline, terms)
    if two_tone(car) > DESIGN:
        said.append("roof and pillars are alike thicker than the rest: two-tone by design")
    return said
