"""Air-conditioning: the vent temperature that can be expected of the air taken in.

References
----------
Magnus formula as in the WMO Guide (CIMO, 2008); enthalpy of moist air by the usual psychrometric relations.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import exp

from hakutsu.core.findings import Finding, found
from hakutsu.vehicle.tables import Row, Table, read_table

PRESSURE_PA = 101_325.0


class _Expected(Row):
    kept_enthalpy: float
    vent_humidity: float
    floor_c: float
    dry: float
    damp: float


class _Vent(Row):
    healthy_c: float
    weak_c: float
    compared_from_c: float
    tried_from_c: float
    works_below_c: float
    stays_within_c: float
    after_min: float


class _Heater(Row):
    heats_c: float


class AirTable(Table):
    """air.toml."""

    expected: _Expected
    vent: _Vent
    heater: _Heater


def air_table() -> AirTable:
    """Limits of `data/air.toml`."""
    return read_table("core.engine", "air", AirTable)


class Cooling(StrEnum):
    """What a vent temperature says."""

    HEALTHY = "cools as it should"
    WEAK = "cools weakly"
    NOT = "does not cool"
    WORKS = "works: more cannot be concluded at this temperature"
    INCONCLUSIVE = "inconclusive"


@dataclass(frozen=True, slots=True)
class AirVerdict:
    """What it says, the vent temperature expected [°C] (a range where the humidity is not known), and why."""

    cooling: Cooling
    expected_c: tuple[float, float] | None
    because: str


def vapour_pressure(air_c: float, humidity: float) -> float:
    """Partial pressure of water [Pa] at a temperature [°C] and relative humidity (0 to 1)."""
    return humidity * 611.2 * exp(17.62 * air_c / (243.12 + air_c))


def water(air_c: float, humidity: float) -> float:
    """Water per dry air [kg/kg]."""
    e = vapour_pressure(air_c, humidity)
    return 0.622 * e / (PRESSURE_PA - e)


def enthalpy(air_c: float, humidity: float) -> float:
    """Enthalpy of moist air [kJ/kg]: h = 1.006T + w(2501 + 1.86T)."""
    return 1.006 * air_c + water(air_c, humidity) * (2501 + 1.86 * air_c)


def expected_vent(air_c: float, humidity: float) -> float:
    """The vent temperature [°C] with 0.52 of the enthalpy at 95 % humidity, not below 3 °C; found by halving."""
    row = air_table().expected
    wanted = row.kept_enthalpy * enthalpy(air_c, humidity)
    low, high = -20.0, air_c
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if enthalpy(middle, row.vent_humidity) < wanted else (low, middle)
    return max(row.floor_c, (low + high) / 2)


def _against(vent_c: float, expected_c: float) -> Cooling:
    row = air_table().vent
    if vent_c <= expected_c + row.healthy_c:
        return Cooling.HEALTHY
    return Cooling.WEAK if vent_c <= expected_c + row.weak_c else Cooling.NOT


def cooling(
    intake_c: float,
    vent_c: float,
    humidity: float | None = None,
    *,
    outside_c: float | None = None,
    called: bool = True,
    minutes: float | None = None,
) -> AirVerdict:
    """What a vent temperature says after 5 to 10 min with the compressor called for.

    Parameters
    ----------
    intake_c, vent_c : air at the intake (cabin air on recirculation) and at the vent [°C]
    humidity : relative, 0 to 1; none where nobody measured it: then 30 and 80 % must agree
    outside_c : air outside [°C], the intake's where not known
    minutes : how long it had run; where not told, long enough
    """
    row, around = air_table().vent, intake_c if outside_c is None else outside_c
    if not called:
        return AirVerdict(Cooling.INCONCLUSIVE, None, "cooling was not called for")
    if around < row.tried_from_c:
        return AirVerdict(
            Cooling.INCONCLUSIVE, None, f"colder than {row.tried_from_c:g} °C outside: repeat on a warmer day"
        )
    if around < row.compared_from_c:
        return _against_intake(intake_c, vent_c, minutes)
    if humidity is not None:
        expected = expected_vent(intake_c, humidity)
        return AirVerdict(_against(vent_c, expected), (expected, expected), "repeat while driving before saying more")
    dry, damp = (expected_vent(intake_c, one) for one in (air_table().expected.dry, air_table().expected.damp))
    said = {_against(vent_c, dry), _against(vent_c, damp)}
    if len(said) > 1:
        return AirVerdict(Cooling.INCONCLUSIVE, (dry, damp), "humidity not known, and it decides")
    return AirVerdict(said.pop(), (dry, damp), "at any usual humidity")


def _against_intake(intake_c: float, vent_c: float, minutes: float | None) -> AirVerdict:
    """On a mild day only the intake can be held against the vent."""
    row = air_table().vent
    mild = f"{row.tried_from_c:g} to {row.compared_from_c:g} °C outside"
    if vent_c <= intake_c - row.works_below_c:
        return AirVerdict(Cooling.WORKS, None, mild)
    if vent_c < intake_c - row.stays_within_c:
        return AirVerdict(Cooling.INCONCLUSIVE, None, f"{mild}, and the vent only a little colder than the intake")
    if minutes is not None and minutes < row.after_min:
        return AirVerdict(Cooling.INCONCLUSIVE, None, f"{mild}: read again after {row.after_min:g} min")
    return AirVerdict(Cooling.NOT, None, "the vent stays at intake temperature with cooling called for")


def heater(vent_c: float, *, engine_warm: bool) -> bool | None:
    """Whether the heater heats: 45 °C at the vent on a warm engine; none on a cold one."""
    return vent_c >= air_table().heater.heats_c if engine_warm else None


COOLED = {Cooling.HEALTHY: "engine.air_good", Cooling.WEAK: "engine.air_weak", Cooling.NOT: "engine.air_not",
          Cooling.WORKS: "engine.air_works"}  # fmt: skip


def air_found(air: AirVerdict | None, heats: bool | None) -> list[Finding]:
    """What vent and heater say, as far as they say anything."""
    told = []
    if air is not None and air.cooling in COOLED:
        told.append(found(COOLED[air.cooling], "air_conditioning", f"air-conditioning {air.cooling}", (air.because,)))
    if heats is not None:
        words = "the heater heats" if heats else "the heater does not heat on a warm engine"
        told.append(found(f"engine.heater_{'good' if heats else 'cold'}", "heater", words))
    return told
