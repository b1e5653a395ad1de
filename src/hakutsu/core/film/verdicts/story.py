"""The story: which zones of the car were repaired, with what speaks for it and against it."""

from __future__ import annotations

from hakutsu.core.film.model.car import CarPosterior
from hakutsu.core.film.model.zones import Zone, zone_table
from hakutsu.core.film.parameters import IN_PLACES
from hakutsu.core.film.result import PanelFilm, ZoneStory
from hakutsu.core.film.survey import State
from hakutsu.core.film.verdicts.reasons import chance_words, evidence_words
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.terms import PLAIN, Terms

TOLD_BITS = 0.1
ALIKE = 0.12
WHOLE = "whole_car"


def film_story(car: CarPosterior, results: dict[str, PanelFilm], terms: Terms = PLAIN) -> tuple[ZoneStory, ...]:
    """Every zone that holds a metal panel of this car, likeliest first, and the whole car."""
    in_places = car.histories[IN_PLACES]
    told = [
        _zone(zone, car.zones[zone.key] * in_places, car.for_zone[zone.key], results, terms)
        for zone in zone_table()[0]
        if zone.key in car.zones
    ]
    told.append(_whole_car(car, results))
    return tuple(sorted(told, key=lambda one: -one.probability))


def _zone(
    zone: Zone, chance: float, weights: dict[str, float], results: dict[str, PanelFilm], terms: Terms
) -> ZoneStory:
    speaks_for: list[str] = []
    against: list[str] = []
    for key, bits in sorted(weights.items(), key=lambda one: -abs(one[1])):
        panel = results[key]
        if abs(bits) < TOLD_BITS or panel.state is None or panel.probabilities is None:
            continue
        said = f"{terms.panel(key)}: {panel.state} {chance_words(panel.probabilities[panel.state])}"
        if panel.state is State.BLENDED and panel.changes_towards:
            said += ", thicker on the side it should be" if panel.changes_towards[0] is zone.members[key].faces else ""
        (speaks_for if bits > 0 else against).append(f"{said} ({evidence_words(bits)})")
    altered = [key for key in weights if results[key].altered > 0.5]
    for key in altered:
        twin = results.get(panels()[key].mirror or "")
        if twin is not None and _alike(results[key], twin):
            name = terms.panel(key).split(",")[0].lower()
            both = f"{terms.side('left')} and {terms.side('right')}"
            against.append(f"{name} {both} read alike: rather a way of building than one repair")
    if not altered:
        against.append("no panel here reads as painted again")
    return ZoneStory(zone.key, terms.say(zone.name), chance, tuple(speaks_for), tuple(against))


def _alike(one: PanelFilm, other: PanelFilm) -> bool:
    if one.median_um is None or other.median_um is None or min(one.altered, other.altered) < 0.5:
        return False
    return abs(one.median_um - other.median_um) < ALIKE * max(one.median_um, other.median_um)


def _whole_car(car: CarPosterior, results: dict[str, PanelFilm]) -> ZoneStory:
    read = [panel for panel in results.values() if panel.probabilities and panel.readings]
    altered = [panel for panel in read if panel.altered > 0.5]
    untouched = [panel for panel in read if panel.altered < 0.2]
    speaks_for, against = [], []
    if read and len(altered) > len(read) / 2:
        speaks_for.append(f"{len(altered)} of {len(read)} panels read as painted again")
    if untouched:
        against.append(f"{len(untouched)} of {len(read)} panels read as this car’s own film")
    if car.histories["stripped"] > 0.1:
        speaks_for.append("levels differ as on cars stripped in part and built up again")
    return ZoneStory(WHOLE, "whole car", car.resprayed, tuple(speaks_for), tuple(against))
