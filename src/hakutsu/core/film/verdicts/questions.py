"""What a gauge leaves open about a whole car, and what to look at for it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from statistics import median, quantiles

from hakutsu.core.film.judging import Asks
from hakutsu.core.film.model.car import CarPosterior
from hakutsu.core.film.model.grids import UPPER, kind_of
from hakutsu.core.film.model.shuts import WRAPPED
from hakutsu.core.film.modelled import FilmModel
from hakutsu.core.film.result import Baseline
from hakutsu.core.film.verdicts.reasons import chance_words
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.units import show
from hakutsu.vehicle.vocabulary import CoverKind

LEAST_TOLD = 0.03


def even_and_thick(model: FilmModel, car: CarPosterior, baseline: Baseline | None, terms: Terms) -> list[str]:
    """The question of film that lies high all over the car, with what it may be, and what would tell.

    Thick factory film, a wrap or film over everything and a repaint of the whole car read alike. Shut faces, film under
    the lids, labels and edges do not.
    """
    asks = model.p.asks
    if baseline is None or baseline.median < asks.level_um or _felt(model):
        return []
    unpainted = 1 - car.resprayed
    chances = {
        "thick film of the factory": unpainted * (1 - car.factory.get(WRAPPED, 0.0)),
        "wrap or film all over": unpainted * car.factory.get(WRAPPED, 0.0),
        "a repaint of the whole car": car.resprayed,
    }
    told = [f"{what} ({chance_words(chance)})" for what, chance in sorted(chances.items(), key=lambda one: -one[1])]
    look = "read shut faces and under the lids, " if not model.shut_um else ""
    said = [f"about {terms.film_words(baseline.median)} all over: {', '.join(told[:-1])} or {told[-1]}; "
            f"{look}look at labels and feel for edges"]  # fmt: skip
    if model.shut_um:
        said.append(f"shut faces and under the lids read {terms.film_words(median(model.shut_um))}")
    return said


def _felt(model: FilmModel) -> bool:
    """Edges were felt for on most panels read, and what lies on them was taken off."""
    covers = [model.survey.covers.get(name) for name in model.groups]
    known = [one for one in covers if one is not None and (one.kind is CoverKind.NOTHING or one.thickness_um)]
    return (
        bool(covers)
        and len(known) > len(covers) / 2
        and not any(one is not None and one.kind is CoverKind.NOTHING for one in covers)
    )


def two_tone(car: CarPosterior) -> float:
    """How likely roof and pillars are thicker than the rest by design; 0 where none was read."""
    weights = car.variants.get(UPPER)
    return 0.0 if weights is None else float(1 - weights[0]) * (1 - car.resprayed)


def is_upper(panel: str) -> bool:
    """Roof and pillars."""
    return kind_of(panel) in ("roof", "pillar")


def under_neighbours(
    panel: str,
    films_um: Sequence[float],
    medians: Mapping[str, float],
    likely_own: Sequence[str],
    p: Asks,
    terms: Terms,
) -> str | None:
    """A panel whose film lies clearly under that of its untouched neighbours: hung new, or stripped and painted."""
    others = [medians[name] for name in likely_own if name != panel and name in medians]
    if len(films_um) < p.least_readings or len(others) < p.least_neighbours:
        return None
    low, middle, high = quantiles(others, n=4)
    margin = max(p.under_um, (high - low) * p.under_spreads)
    if median(films_um) > middle - margin or max(films_um) > middle - margin / 2:
        return None
    least, most = max(low - median(films_um), 1.0), max(high - median(films_um), 1.0)
    said = show(most, terms.film)
    if show(least, terms.film) != said:
        said = f"{show(least, terms.film, with_unit=False)} to {said}"
    return f"{said} under its neighbours: look at its bolts, glass and labels"
