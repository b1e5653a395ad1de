"""Coverage of the film survey: per panel, what the protocol expects and what was done."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.dossier.coverage import Covered
from hakutsu.dossier.film import FilmDossier
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import expected_readings
from hakutsu.vehicle.vocabulary import Protocol, ReadingStatus, Substrate


@dataclass(frozen=True, slots=True)
class PanelCoverage:
    """Readings taken against readings expected on one panel, and why there are none."""

    panel: str
    taken: int
    expected: int
    state: Covered
    because: str = ""


def _coverage(key: str, vehicle: VehicleDescription, film: FilmDossier, protocol: Protocol) -> PanelCoverage:
    readings = [r for r in film.on_panel(key) if not r.body.edge]
    taken = sum(r.body.status is not ReadingStatus.NONE for r in readings)
    metal = vehicle.substrate(key).is_metal or vehicle.substrate(key) is Substrate.UNKNOWN
    expected = expected_readings(panels()[key], protocol) if metal else 0
    if key in film.limits:
        return PanelCoverage(key, taken, expected, Covered.LIMITED, film.limits[key][1])
    if film.without_gauge and not readings:
        return PanelCoverage(key, 0, 0, Covered.NOTHING_TO_READ, film.without_gauge[1])
    if key in film.nothing:
        return PanelCoverage(key, taken, expected, Covered.NOTHING_TO_READ)
    if not metal and not readings:
        return PanelCoverage(key, 0, 0, Covered.NOTHING_TO_READ, f"{vehicle.substrate(key)}: no gauge reads it")
    nothing_on_metal = len(readings) > taken and len(readings) >= expected
    state = Covered.DONE if taken >= expected or nothing_on_metal else Covered.OPEN
    return PanelCoverage(key, taken, expected, state)


def film_coverage(vehicle: VehicleDescription, film: FilmDossier, protocol: Protocol) -> list[PanelCoverage]:
    """Coverage of every fitted panel in walk order; readings marked as edge do not count."""
    return [_coverage(key, vehicle, film, protocol) for key in vehicle.panel_keys()]
