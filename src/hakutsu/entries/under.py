"""The underside by zones, and leaks."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Any, Self

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


class ZoneClear(Keyed):
    """What was looked for in a zone and not found."""

    RUST = "rust", "no rust"
    DAMAGE = "damage", "no damage"
    REPAIR = "repair", "no signs of work"
    LEAKS = "leaks", "dry"


class Exhaust(Keyed):
    """The exhaust where it runs through a zone."""

    UNKNOWN = "unknown", "not looked at"
    SOUND = "sound"
    PATCHED = "patched"
    LOOSE = "loose", "hangs loose"
    LEAKS = "leaks"


def _nothing_said(raw: dict[str, Any]) -> dict[str, Any]:
    """Older entries meant by silence that there was nothing, unless the zone could not be seen."""
    if raw.get("not_visible"):
        return raw
    silent = [one for one in ("rust", "damage", "repair") if not raw.get(one)]
    return raw | {"clear": silent}


@entry_kind("under.zone", version=3, upgrades={1: to_keys, 2: _nothing_said})
class UnderZone(Body):
    """One zone as it was seen: what is not spoken of was not looked at.

    `clear` is what was looked for and not found; `rust_untold`: rust, its grade not told; `aged_evenly`: untouched and
    aged alike all over. `partly` says how far it could be seen, `not_visible` why it could not be seen at all.
    """

    zone: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$")]
    rust: RustGrade | None = None
    rust_untold: bool = False
    clear: Several[ZoneClear] = ()
    aged_evenly: bool = False
    partly: Short = ""
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
        found = {"rust": self.rust is not None or self.rust_untold, "damage": self.damage, "repair": self.repair}
        both = [str(one) for one in self.clear if found.get(one.value)]
        if both:
            raise ValueError(f"{', '.join(both)}, and some found: which of them?")
        return self

    @property
    def looked(self) -> bool:
        """Whether the zone itself was looked at, not only what runs through it."""
        said = (self.rust, self.rust_untold, self.clear, self.aged_evenly, self.damage, self.repair, self.missing)
        return any(said) or self.coating is not Coating.UNKNOWN or bool(self.other_side or self.note or self.partly)

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
    """How far a leak has gone; none: this look showed nothing where one had shown something."""

    NONE = "none"
    STAIN = "stain"
    SEEP = "seep"
    WEEP = "weep"
    DRIP = "drip"
    RUN = "run"


@entry_kind("leak.seen", version=2, upgrades={1: to_keys})
class Leak(Body):
    """A leak at one look: what, where it comes from and shows, its stage; drops a minute, or `counted` in some minutes.

    `zone` of the underside it shows in, for the drawing; `minutes` since the engine stopped, where it ran.
    """

    fluid: LeakFluid
    origin: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
    shows: Short = ""
    zone: Annotated[str, StringConstraints(pattern=r"^[a-z_]{0,40}$")] = ""
    stage: Stage
    drops: Annotated[float, Field(ge=0, le=600)] | None = None
    counted: Annotated[int, Field(ge=0, le=10_000)] | None = None
    counted_min: Annotated[float, Field(gt=0, le=600)] | None = None
    minutes: Annotated[float, Field(ge=0, le=600)] | None = None
    note: Note = ""

    @model_validator(mode="after")
    def _known(self) -> Self:
        if (self.counted is None) != (self.counted_min is None):
            raise ValueError("counted drops take the minutes they were counted in")
        if self.zone and self.zone not in zones():
            raise ValueError(f"“{self.zone}” is no zone of the underside")
        return self

    @property
    def drops_a_minute(self) -> float | None:
        """Drops a minute, as told or as counted."""
        if self.counted is not None and self.counted_min is not None:
            return self.counted / self.counted_min
        return self.drops

    def causes(self) -> tuple[str, ...]:
        dry = self.stage in (Stage.NONE, Stage.STAIN)
        if self.fluid is LeakFluid.FUEL and not dry:
            return ("fuel_wet",)
        wet = self.fluid is LeakFluid.BRAKE and not dry
        return ("brake_fluid_wet",) if wet else ()
