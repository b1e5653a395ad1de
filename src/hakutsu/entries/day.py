"""Entries of the inspector's day: where the walk begins, and the conditions the run sheet is planned from."""

from __future__ import annotations

from typing import Annotated, Any, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import Moment
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.places import FIRST, outside, places
from hakutsu.vehicle.vocabulary import Direction


@entry_kind("day.walk", version=2, upgrades={1: to_keys})
class Walk(Body):
    """Where the walk round the vehicle begins, and which side it takes first."""

    start: Annotated[str, StringConstraints(max_length=60)] = FIRST
    direction: Direction = Direction.LEFT_FIRST

    @model_validator(mode="after")
    def _on_the_ring(self) -> Self:
        if self.start not in outside():
            raise ValueError(f"the walk can begin at {', '.join(outside())}")
        return self


def _as_ticked(raw: dict[str, Any]) -> dict[str, Any]:
    """What older entries left out, their form had shown as chosen."""
    return {"engine_cold": True, "lift": False, "helper": False, "may_drive": True} | raw


@entry_kind("day.conditions", version=2, upgrades={1: _as_ticked})
class DayConditions(Body):
    """From when, for how long [min], with whom and what; what nobody said is left out, and times that do not end."""

    begins: Moment
    available: Annotated[int, Field(ge=5, le=1440)] = 120
    engine_cold: bool | None = None
    lift: bool | None = None
    lift_by_driving: bool = False
    helper: bool | None = None
    may_drive: bool | None = None
    seller_until: Moment | None = None
    daylight_until: Moment | None = None
    dry_until: Moment | None = None


class Dirt(Keyed):
    """How a place was met."""

    CLEAN = "clean"
    DUSTY = "dusty"
    DIRTY = "dirty"
    WET = "wet"
    WASHED = "washed", "freshly washed"


class Weather(Keyed):
    """The weather on arrival."""

    UNKNOWN = "unknown", "not noted"
    DRY = "dry"
    DAMP = "damp"
    RAIN = "rain"
    SNOW = "snow"


class Light(Keyed):
    """The light on arrival."""

    UNKNOWN = "unknown", "not noted"
    DAYLIGHT = "daylight"
    SUN = "sun"
    SHADE = "shade"
    LAMP = "lamp"
    DARK = "dark"


class Stands(Keyed):
    """On what the vehicle stands."""

    UNKNOWN = "unknown", "not noted"
    LEVEL = "level", "level and hard"
    SLOPE = "slope", "on a slope"
    SOFT = "soft", "on soft ground"
    GRASS = "grass", "on dry grass"


class Moved(Keyed):
    """What the vehicle did while it stood."""

    DRIVEN = "driven", "driven now and then"
    IDLED = "idled", "only idled"
    NOT = "not_started", "not started"
    UNKNOWN = "unknown", "not known"


class Engine(Keyed):
    """What is known of the engine's temperature before anybody starts it."""

    COLD = "measured"
    SAID = "said", "said to be cold"
    WARM = "warm"
    UNKNOWN = "unknown", "not known"


class Indoors(Keyed):
    """What becomes of the exhaust where it stands indoors."""

    UNKNOWN = "unknown", "not told"
    LED_OUT = "led_out", "exhaust led out"
    DOOR_OPEN = "door_open", "outside door open, minutes counted"
    CLOSED = "closed", "closed: no running"


Celsius = Annotated[float, Field(ge=-60, le=150)]


def _as_shown(raw: dict[str, Any]) -> dict[str, Any]:
    """What older entries left out, their form had shown as chosen."""
    return {"weather": "dry", "light": "daylight", "stands": "level", "indoors": False} | raw


@entry_kind("day.arrival", version=3, upgrades={1: to_keys, 2: _as_shown})
class Arrival(Body):
    """The vehicle as it was met: weather, light, dirt by place, how long it stood and where, who is there, and whether
    the engine is cold, with the two temperatures [°C] that prove it.
    """

    weather: Weather = Weather.UNKNOWN
    light: Light = Light.UNKNOWN
    indoors: bool | None = None
    exhaust: Indoors = Indoors.UNKNOWN
    stands: Stands = Stands.UNKNOWN
    stood_days: Annotated[int, Field(ge=0, le=40_000)] | None = None
    stood_where: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    moved: Moved = Moved.UNKNOWN
    there: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    engine: Engine = Engine.UNKNOWN
    engine_c: Celsius | None = None
    surroundings_c: Celsius | None = None
    dirt: dict[str, Dirt] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _known_places(self) -> Self:
        for key in self.dirt:
            if key not in places():
                raise ValueError(f"“{key}” is no place")
        if self.exhaust is not Indoors.UNKNOWN and not self.indoors:
            raise ValueError("exhaust: only where it stands indoors")
        if self.engine is Engine.COLD and (self.engine_c is None or self.surroundings_c is None):
            raise ValueError("measured takes both temperatures: of the engine, and of what it stands in")
        return self

    def causes(self) -> tuple[str, ...]:
        return ("closed_building",) if self.exhaust is Indoors.CLOSED else ()
