"""Brake, its fluid, its pedal."""

from __future__ import annotations

from typing import Annotated, Any, Self

from pydantic import Field, ValidationInfo, field_validator, model_validator

from hakutsu.entries.corners.kinds import Compared, Method, Note, Percents, Short, Thickness, check_compared, rising
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed

FRICTION_GONE_MM = 0.5
Distance = Annotated[float, Field(ge=0, le=300_000)]


class Lining(Keyed):
    """Linings that were seen and not measured."""

    UNKNOWN = "unknown", "not told"
    PLENTY = "plenty"
    HALF = "half", "about half"
    LITTLE = "little", "little left"
    RIVETS = "rivets", "down to the rivets or the backing"


class Scoring(Keyed):
    """Grooves in a disc or drum."""

    UNKNOWN = "unknown", "not looked at"
    NONE = "none"
    LIGHT = "light"
    DEEP = "deep"


class DiscCracks(Keyed):
    """Cracks in a disc."""

    UNKNOWN = "unknown", "not looked at"
    NONE = "none", "none seen"
    HEAT = "heat", "fine, from heat"
    THROUGH = "through"


class DiscRust(Keyed):
    """Rust on the rubbing face."""

    UNKNOWN = "unknown", "not looked at"
    NONE = "none", "none, or light surface rust"
    RING = "ring", "ring or patches the pad does not reach"
    DEEP = "deep", "deep, pitted"


class Hose(Keyed):
    """State of a brake hose."""

    UNKNOWN = "unknown", "not looked at"
    SOUND = "sound"
    HARD = "hard", "hardened, fine cracks"
    TO_CORD = "to_cord", "cracked to the cord"
    SWELLING = "swelling", "swelling or bulging"


class Pipe(Keyed):
    """State of the steel pipes."""

    UNKNOWN = "unknown", "not looked at"
    CLEAN = "clean"
    SURFACE = "surface", "surface rust"
    SCALE = "scaling"
    PITTED = "pitted"
    PERFORATED = "perforated"


def _looked(raw: dict[str, Any]) -> dict[str, Any]:
    """Where older entries said nothing of cracks and rust, they meant that none was seen."""
    return {"cracks": "none", "rust": "none"} | raw


@entry_kind("corner.brake", at="wheel", version=3, upgrades={1: to_keys, 2: _looked})
class Brake(Body):
    """A brake [mm]: friction thickness of pads inner and outer, or a range; disc at one or three points against the
    minimum cast on it and, where known, its thickness when new; or drum lining and diameter.

    Pads that nobody measured: `pad_percent` left, from and to; `pad_km_left` [km], from and to, as somebody reckons it;
    or `compared` with those of another corner or axle (`compared_to`).
    """

    pad_inner_mm: Thickness | None = None
    pad_outer_mm: Thickness | None = None
    pad_range_mm: tuple[Thickness, Thickness] | None = None
    pad_percent: Percents | None = None
    pad_km_left: tuple[Distance, Distance] | None = None
    compared: Compared = Compared.UNKNOWN
    compared_to: Short = ""
    pad_method: Method = Method.GAUGE
    taper_mm: Annotated[float, Field(ge=0, le=15)] | None = None
    disc_mm: Annotated[tuple[Thickness, ...], Field(max_length=3)] = ()
    disc_min_mm: Thickness | None = None
    disc_new_mm: Thickness | None = None
    disc_method: Method = Method.GAUGE
    lip_mm: Annotated[float, Field(ge=0, le=10)] | None = None
    scoring: Scoring = Scoring.UNKNOWN
    cracks: DiscCracks = DiscCracks.UNKNOWN
    heat_marks: bool = False
    run_out_mm: Annotated[float, Field(ge=0, le=5)] | None = None
    variation_mm: Annotated[float, Field(ge=0, le=2)] | None = None
    rust: DiscRust = DiscRust.UNKNOWN
    lining_mm: Thickness | None = None
    lining: Lining = Lining.UNKNOWN
    drum_mm: Annotated[float, Field(ge=50, le=500)] | None = None
    drum_max_mm: Annotated[float, Field(ge=50, le=500)] | None = None
    hose: Hose = Hose.UNKNOWN
    pipe: Pipe = Pipe.UNKNOWN
    wet: bool = False
    note: Note = ""

    @field_validator("pad_range_mm", "pad_percent", "pad_km_left")
    @classmethod
    def _rises(cls, said: tuple[float, float] | None) -> tuple[float, float] | None:
        return rising(said)

    @model_validator(mode="after")
    def _compared(self) -> Self:
        check_compared(self.compared, self.compared_to)
        return self

    @field_validator("disc_new_mm")
    @classmethod
    def _above_minimum(cls, said: float | None, info: ValidationInfo) -> float | None:
        least = info.data.get("disc_min_mm")
        if said is not None and least is not None and least >= said:
            raise ValueError("not above the minimum cast on it")
        return said

    def causes(self) -> tuple[str, ...]:
        friction = (self.pad_inner_mm, self.pad_outer_mm, self.lining_mm)
        seen = {
            "friction_gone": self.lining is Lining.RIVETS
            or any(one is not None and one <= FRICTION_GONE_MM for one in friction),
            "disc_cracked": self.cracks is DiscCracks.THROUGH,
            "brake_hose": self.hose in (Hose.TO_CORD, Hose.SWELLING),
            "brake_pipe": self.pipe is Pipe.PERFORATED,
            "brake_fluid_wet": self.wet,
        }
        return tuple(cause for cause, there in seen.items() if there)


class FluidKind(Keyed):
    """What the reservoir says is in it."""

    UNKNOWN = "unknown", "not told"
    DOT3 = "dot3", "DOT 3"
    DOT4 = "dot4", "DOT 4"
    DOT51 = "dot51", "DOT 5.1"
    CLASS6 = "class6", "class 6"
    SILICONE = "silicone"
    MINERAL = "mineral"


@entry_kind("corner.fluid", version=2, upgrades={1: to_keys})
class Fluid(Body):
    """Brake fluid: water [%] or boiling point [°C], colour, level."""

    kind: FluidKind = FluidKind.UNKNOWN
    water_percent: Annotated[float, Field(ge=0, le=20)] | None = None
    boils_c: Annotated[float, Field(ge=60, le=350)] | None = None
    dark: bool = False
    low: bool = False
    note: Note = ""


class Firm(Keyed):
    """How the pedal feels."""

    UNKNOWN = "unknown", "not tried"
    FIRM = "firm"
    SPONGY = "spongy"
    FLOOR = "floor", "spongy to the floor"


class Parking(Keyed):
    """Whether the parking brake holds."""

    UNKNOWN = "unknown", "not tried"
    HOLDS = "holds"
    WEAK = "weak", "holds weakly"
    NOT = "does_not_hold", "does not hold"


@entry_kind("corner.pedal", version=2, upgrades={1: to_keys})
class Pedal(Body):
    """Brake pedal at standstill, held 30 s under pressure, and the parking brake [clicks of travel]."""

    low: bool = False
    firm: Firm = Firm.UNKNOWN
    sinks: bool | None = None
    parking: Parking = Parking.UNKNOWN
    clicks: Annotated[int, Field(ge=0, le=30)] | None = None
    note: Note = ""

    def causes(self) -> tuple[str, ...]:
        sinks = ("pedal_sinks",) if self.sinks or self.firm is Firm.FLOOR else ()
        return sinks + (("no_parking_hold",) if self.parking is Parking.NOT else ())
