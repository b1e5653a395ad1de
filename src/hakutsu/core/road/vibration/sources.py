"""What turns, and how often: tyres, propeller shaft and engine, and how uncertain their frequencies are."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import hypot

SPEED_SD = 0.02  # of a stated speed
ROLLING_SD = 0.015  # of a stated rolling circumference
RPM_SD = 0.01
WHEEL_SD = hypot(SPEED_SD, ROLLING_SD)


class Family(StrEnum):
    """What turns together: its frequencies err by one common share."""

    WHEELS = "wheels"
    ENGINE = "engine"


WANDER_SD = 0.006  # the mean of a record that wanders is not what was stated
SD = {Family.WHEELS: hypot(WHEEL_SD, WANDER_SD), Family.ENGINE: hypot(RPM_SD, WANDER_SD)}


@dataclass(frozen=True, slots=True)
class Source:
    """A source by its key, with the frequency expected of it [Hz]; `order` counts turns of its own part."""

    key: str
    part: str
    order: float
    hz: float
    family: Family


@dataclass(frozen=True, slots=True)
class Stated:
    """What was stated: speed [km/h], rolling circumference [m], final drive ratio, engine speed [1/min].

    Raises
    ------
    ValueError
        If one cannot be.
    """

    speed_kmh: float
    rolling_m: float
    final_drive: float | None = None
    rpm: float | None = None

    def __post_init__(self) -> None:
        faults = [words for value, low, high, words in self._bounds() if value is not None and not low <= value <= high]
        if faults:
            raise ValueError("; ".join(faults))

    def _bounds(self) -> list[tuple[float | None, float, float, str]]:
        return [
            (self.speed_kmh, 1.0, 300.0, "speed: between 1 and 300 km/h"),
            (self.rolling_m, 0.5, 5.0, "rolling circumference: between 0.5 and 5 m"),
            (self.final_drive, 1.0, 12.0, "final drive: between 1 and 12"),
            (self.rpm, 100.0, 20_000.0, "engine speed: between 100 and 20,000 rpm"),
        ]

    @property
    def wheel_hz(self) -> float:
        """Turns of a wheel a second: v / rolling circumference."""
        return self.speed_kmh / 3.6 / self.rolling_m


def sources(stated: Stated) -> list[Source]:
    """Everything that may be the source, as far as was stated."""
    wheel = stated.wheel_hz
    found = [Source(f"tyre_{k}", "tyre", k, k * wheel, Family.WHEELS) for k in (1, 2, 3)]
    if stated.final_drive is not None:
        shaft = wheel * stated.final_drive
        found += [Source(f"propshaft_{k}", "propshaft", k, k * shaft, Family.WHEELS) for k in (1, 2)]
    if stated.rpm is not None:
        turns = stated.rpm / 60
        found += [Source(f"engine_{k:g}", "engine", k, k * turns, Family.ENGINE) for k in (0.5, 1.0, 2.0)]
    return found
