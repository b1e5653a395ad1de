"""The underside by zones, and leaks."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.body import Coating, RustGrade
from hakutsu.entries.bounds import Several
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.under import zones

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]


class UnderDamage(Keyed):
    """Damage seen from below."""

    SCRAPE = "scrape"
    DENT = "dent"
    JACK = "jack", "jack damage"
    CREASE = "crease"
    CUT = "cut"


class RepairSign(Keyed):
    """Signs that somebody worked there."""

    WELD = "weld"
    PATCH = "patch"
    SEALER = "sealer", "fresh sealer"
    PULLED = "pulled"
    TOOL_MARKS = "tool_marks", "tool marks"
    HOLES = "holes", "factory holes no longer round"
    NEWER = "newer", "cleaner or newer than around it"


class Pipes(Keyed):
    """Fuel, brake and cooler pipes where they run through a zone."""

    UNKNOWN = "unknown", "not looked at"
    AS_MADE = "as_made", "as made"
    LOOSE = "loose", "unclipped or rubbing"
    RUSTED = "rusted"
    WET = "wet"


class Exhaust(Keyed):
    """The exhaust where it runs through a zone."""

    UNKNOWN = "unknown", "not looked at"
    SOUND = "sound"
    PATCHED = "patched"
    LOOSE = "loose", "hangs loose"
    LEAKS = "leaks"


@entry_kind("under.zone", version=2, upgrades={1: to_keys})
class UnderZone(Body):
    """One zone as it was seen: nothing said is nothing found; `not_visible` says why it could not be seen."""

    zone: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$")]
    rust: RustGrade | None = None
    size_mm: Annotated[float, Field(gt=0, le=3000)] | None = None
    coating: Coating = Coating.UNKNOWN
    damage: Several[UnderDamage] = ()
    repair: Several[RepairSign] = ()
    missing: Short = ""
    other_side: Short = ""
    not_visible: Short = ""
    pipes: Pipes = Pipes.UNKNOWN
    exhaust: Exhaust = Exhaust.UNKNOWN
    catalyst: bool | None = None
    note: Note = ""

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.zone not in zones():
            raise ValueError(f"“{self.zone}” is no zone of the underside")
        return self

    def causes(self) -> tuple[str, ...]:
        through = self.rust is RustGrade.PERFORATED and zones()[self.zone].carries
        return ("sill_perforated",) if through else ()


class LeakFluid(Keyed):
    """What leaks."""

    OIL = "oil", "engine oil"
    GEAR = "gear", "gear oil"
    TRANSMISSION = "transmission", "red transmission fluid"
    COOLANT = "coolant"
    FUEL = "fuel"
    BRAKE = "brake", "brake fluid"
    STEERING = "steering", "power steering fluid"
    WATER = "water", "water from the air-conditioning"
    UNKNOWN = "unknown", "not known"


class Stage(StrEnum):
    """How far a leak has gone."""

    STAIN = "stain"
    SEEP = "seep"
    WEEP = "weep"
    DRIP = "drip"
    RUN = "run"


@entry_kind("leak.seen", version=2, upgrades={1: to_keys})
class Leak(Body):
    """A leak at one look: what, where it comes from and shows, its stage; drops a minute.

    `zone` of the underside it shows in, for the drawing; `minutes` since the engine stopped, where it ran.
    """

    fluid: LeakFluid
    origin: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
    shows: Short = ""
    zone: Annotated[str, StringConstraints(pattern=r"^[a-z_]{0,40}$")] = ""
    stage: Stage
    drops: Annotated[float, Field(ge=0, le=600)] | None = None
    minutes: Annotated[float, Field(ge=0, le=600)] | None = None
    note: Note = ""

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.zone and self.zone not in zones():
            raise ValueError(f"“{self.zone}” is no zone of the underside")
        return self

    def causes(self) -> tuple[str, ...]:
        if self.fluid is LeakFluid.FUEL and self.stage is not Stage.STAIN:
            return ("fuel_wet",)
        wet = self.fluid is LeakFluid.BRAKE and self.stage is not Stage.STAIN
        return ("brake_fluid_wet",) if wet else ()
