"""Tyre and wheel."""

from __future__ import annotations

from typing import Annotated, Any, Self

from pydantic import Field, StringConstraints, field_validator, model_validator

from hakutsu.entries.bounds import Several
from hakutsu.entries.corners.kinds import Compared, Method, Note, Percents, Short, check_compared, rising
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.rules import rule_sets

Tread = Annotated[float, Field(ge=0, le=25)]
Grooves = Annotated[tuple[Tread, ...], Field(max_length=3)]


class Pairs(Keyed):
    """Which two grooves were measured."""

    UNKNOWN = "unknown", "not told"
    INNER_OUTER = "inner_outer", "inner and outer"
    INNER_MIDDLE = "inner_middle", "inner and middle"
    MIDDLE_OUTER = "middle_outer", "middle and outer"


class Season(Keyed):
    """What a tyre is made for."""

    UNKNOWN = "unknown", "not told"
    SUMMER = "summer"
    WINTER = "winter"
    ALL = "all", "all-season"


class Cracks(Keyed):
    """Cracks of rubber."""

    UNKNOWN = "unknown", "not looked for"
    NONE = "none"
    FINE = "fine"
    OPEN = "open"


class Shape(Keyed):
    """A wear shape that is seen or felt, not measured."""

    UNKNOWN = "unknown", "not looked for"
    NONE = "none"
    SAW_TOOTH = "saw_tooth", "saw-tooth"
    CUPS = "cups"
    FLAT = "flat", "flat spot"


class TyreDamage(Keyed):
    """Damage of a tyre."""

    BULGE = "bulge"
    CORD = "cord", "cord or ply visible"
    CUT_TO_PLY = "cut_to_ply", "cut to the ply"
    CUT = "cut", "cut, not to the ply"
    PIECES = "pieces", "pieces missing"
    RIM_PROTECTOR = "rim_protector", "rim-protector rubber missing"
    STRING_PLUG = "string_plug", "string plug"
    SIDE_PLUG = "side_plug", "plug in shoulder or side wall"
    CROWN_PLUG = "crown_plug", "plug in the crown"


class PerCentOf(Keyed):
    """The two schools of per cent left."""

    LEGAL = "legal", "from new down to the legal limit"
    NEW = "new", "of new depth"


def _felt(raw: dict[str, Any]) -> dict[str, Any]:
    """Where older entries said nothing of a shape, they meant that none was felt."""
    return {"shape": "none"} | raw


@entry_kind("corner.tyre", at="corner", version=3, upgrades={1: to_keys, 2: _felt})
class Tyre(Body):
    """A tyre.

    `depth_mm`: one groove (middle), two (`grooves` says which) or three (inner, middle, outer) [mm]; `second_mm` the
    same at a second place round it. Where nobody measured: `range_mm`, `per_cent` or `per_cent_range` by one of two
    schools, or `compared` with another corner or axle. Pressure [bar] at `at_c` [°C].
    """

    depth_mm: Grooves = ()
    second_mm: Grooves = ()
    range_mm: tuple[Tread, Tread] | None = None
    per_cent: Annotated[float, Field(ge=0, le=100)] | None = None
    per_cent_range: Percents | None = None
    compared: Compared = Compared.UNKNOWN
    compared_to: Short = ""
    grooves: Pairs = Pairs.UNKNOWN
    per_cent_of: PerCentOf = PerCentOf.LEGAL
    method: Method = Method.GAUGE
    date_code: Annotated[str, StringConstraints(strip_whitespace=True, pattern=r"^(\d{3,4})?$")] = ""
    size: Short = ""
    make: Short = ""
    season: Season = Season.UNKNOWN
    cracks: Cracks = Cracks.UNKNOWN
    shape: Shape = Shape.UNKNOWN
    damage: Several[TyreDamage] = ()
    pressure_bar: Annotated[float, Field(ge=0, le=12)] | None = None
    at_c: Annotated[float, Field(ge=-40, le=90)] | None = None
    note: Note = ""

    @model_validator(mode="after")
    def _compared(self) -> Self:
        check_compared(self.compared, self.compared_to)
        return self

    @field_validator("range_mm", "per_cent_range")
    @classmethod
    def _rises(cls, said: tuple[float, float] | None) -> tuple[float, float] | None:
        return rising(said)

    @property
    def lowest_mm(self) -> float | None:
        """The lowest depth measured [mm]: it rules."""
        return min((*self.depth_mm, *self.second_mm), default=None)

    def causes(self) -> tuple[str, ...]:
        found = []
        if {TyreDamage.BULGE, TyreDamage.CORD, TyreDamage.CUT_TO_PLY} & set(self.damage):
            found.append("tyre_body")
        if {TyreDamage.STRING_PLUG, TyreDamage.SIDE_PLUG} & set(self.damage):
            found.append("tyre_plug")
        legal = min(rules.tread_mm for rules in rule_sets().values())
        if self.lowest_mm is not None and self.lowest_mm < legal:
            found.append("tread_below_limit")
        return tuple(found)


class SpareKind(Keyed):
    """What lies where the spare belongs."""

    NOT_SPARE = "not_spare", "this one is on the vehicle"
    FULL = "full", "full size"
    NARROW = "narrow", "narrow, speed-limited"
    KIT = "kit", "sealing kit only"
    MISSING = "missing"


class Liner(Keyed):
    """Inner arch and its liner."""

    UNKNOWN = "unknown", "not looked at"
    SOUND = "sound"
    TORN = "torn", "torn or loose"
    MISSING = "missing", "liner missing"
    RUSTY = "rusty", "rusty behind it"


@entry_kind("corner.wheel", at="corner", version=2, upgrades={1: to_keys})
class Wheel(Body):
    """A wheel and how it is held: design, fixings by count, inner arch."""

    design: Short = ""
    odd: bool = False
    cap_missing: bool = False
    refinished: bool = False
    fixings_missing: Annotated[int, Field(ge=0, le=10)] = 0
    fixings_loose: Annotated[int, Field(ge=0, le=10)] = 0
    fixings_cracked: bool = False
    fixings_odd: bool = False
    lock_key: Annotated[bool, Field()] | None = None
    liner: Liner = Liner.UNKNOWN
    spare: SpareKind = SpareKind.NOT_SPARE
    note: Note = ""

    def causes(self) -> tuple[str, ...]:
        return ("wheel_fixing",) if self.fixings_missing or self.fixings_loose or self.fixings_cracked else ()
