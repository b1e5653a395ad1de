"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any

from pydantic import Field, model_validator

from hakutsu.vehicle.tables import Number, Row, Table


class CabinPart(Row):
    """`part` of cabin.toml."""

    name: str
    place: str
    usual_km: tuple[Number, ...] | None = None
    retrim: bool | None = None
    usual_years: tuple[Number, ...] | None = None


class CabinTable(Table):
    """cabin.toml."""

    part: dict[str, CabinPart]


class EngineLook(Row):
    """`look` of engine.toml."""

    name: str
    place: str
    room: str
    power: tuple[str, ...] | None = None
    thorough: bool | None = None


class EngineTable(Table):
    """engine.toml."""

    look: dict[str, EngineLook]


class EquipmentItem(Row):
    """`item` of equipment.toml."""

    name: str
    group: str
    place: str
    sided: bool | None = None
    optional: bool | None = None
    steps: bool | None = None
    since_doors: Number | None = None


class EquipmentTable(Table):
    """equipment.toml."""

    item: dict[str, EquipmentItem]


class FactorsTable(Table):
    """factors.toml."""

    factor: dict[str, str]


class FitmentSpan(Row):
    """When a thing was fitted, in years of first use; what has an end only is old.

    `bodies`: nearly all only of these body styles; `fits`: only with these mechanical facts.
    """

    bodies: tuple[str, ...] = ()
    fits: dict[str, tuple[str, ...]] = Field(default_factory=dict)
    none_before: int = 0
    usual_from: int = 9999
    usual_until: int = 9999
    none_after: int = 9999

    @property
    def old(self) -> bool:
        """True of what vehicles once had."""
        return self.none_after < 9999

    @model_validator(mode="before")
    @classmethod
    def _usual_at_first(cls, row: Any) -> Any:
        """What has an end and no beginning was usual from the first."""
        old = isinstance(row, dict) and "usual_until" in row and "usual_from" not in row
        return row | {"usual_from": 0} if old else row


class FollowsRow(Row):
    """A fact that follows from power, frame and the year of first use."""

    fact: str
    value: str
    power: tuple[str, ...] = ()
    separate_frame: bool | None = None
    first: Annotated[int, Field(alias="from")] = 0
    last: Annotated[int, Field(alias="until")] = 9999
    sure: bool = False

    @property
    def dated(self) -> bool:
        """True where it depends on the year."""
        return self.first > 0 or self.last < 9999


class FitmentTable(Table):
    """fitment.toml."""

    equipment: dict[str, FitmentSpan]
    part: dict[str, FitmentSpan]
    look: dict[str, FitmentSpan]
    pane: dict[str, FitmentSpan]
    follows: list[FollowsRow]


class InventoryThing(Row):
    """`thing` of inventory.toml."""

    name: str
    place: str
    missing: str
    optional: bool | None = None
    power: tuple[str, ...] | None = None


class InventoryTable(Table):
    """inventory.toml."""

    thing: dict[str, InventoryThing]


class PlacesPlace(Row):
    """`place` of places.toml."""

    name: str
    panels: tuple[str, ...]
    sided: bool | None = None


class PlacesTable(Table):
    """places.toml."""

    ring: tuple[str, ...]
    then: tuple[str, ...]
    place: dict[str, PlacesPlace]


class RulesSet(Row):
    """`set` of rules.toml."""

    name: str
    since: date
    side: str
    tread_mm: Number
    advice_mm: Number
    winter_mm: Number
    front_light: tuple[Number, ...]
    winter_c: Number
    belts_from: int
    dial_over_share: Number
    dial_over_kmh: Number
    dial_tyres: Number
    check_digit: bool
    refuses: tuple[str, ...]


class RulesTable(Table):
    """rules.toml."""

    set: dict[str, RulesSet]


class ShellsShell(Row):
    """`shell` of shells.toml."""

    style: str
    doors: Number
    middle: dict[str, tuple[str | Number, ...]]
    flank: dict[str, tuple[Number, ...]]


class ShellsTable(Table):
    """shells.toml."""

    shell: list[ShellsShell]


class ShotsShot(Row):
    """`shot` of shots.toml."""

    words: str
    place: str
    protocols: tuple[str, ...]
    styles: tuple[str, ...] | None = None


class ShotsTable(Table):
    """shots.toml."""

    shot: dict[str, ShotsShot]


class UnderZone(Row):
    """`zone` of under.toml."""

    short: str
    name: str
    place: str
    patch: tuple[Number, ...]
    carries: bool | None = None
    sided: bool | None = None
    frame: bool | None = None


class UnderTable(Table):
    """under.toml."""

    zone: dict[str, UnderZone]


class UnitsRow(Row):
    """A unit of units.toml."""

    label: str
    word: str
    factor: Number
    places: Number
    offset: Number | None = None


class UnitsTable(Table):
    """units.toml."""

    distance: dict[str, UnitsRow]
    depth: dict[str, UnitsRow]
    temperature: dict[str, UnitsRow]
    pressure: dict[str, UnitsRow]


class WordsTable(Table):
    """words.toml."""

    american: dict[str, str]


class BodyStylesStyle(Row):
    """`style` of body_styles.toml."""

    name: str
    doors: tuple[Number, ...]
    front: tuple[str, ...]
    flank: tuple[str, ...]
    rear: tuple[str, ...]
    anchor: tuple[str, ...]


class BodyStylesTable(Table):
    """body_styles.toml."""

    style: dict[str, BodyStylesStyle]


class PartsPart(Row):
    """`part` of parts.toml."""

    name: str
    group: str
    sided: bool | None = None
    place: str
    since: Number | None = None
    lacks: tuple[str, ...] | None = None
    only: tuple[str, ...] | None = None
    on: str | None = None


class PartsTable(Table):
    """parts.toml."""

    part: dict[str, PartsPart]


class MeasuresTable(Table):
    """measures.toml."""

    ending: dict[str, str]
    name: dict[str, str]


class HeatLimits(Row):
    """`heat` of heat.toml."""

    stop_c: Number
    rising_c: Number
    steepest_c_min: Number
    rise_c: Number
    alike_c: Number
    at_once_min: Number


class HeatTable(Table):
    """heat.toml."""

    heat: HeatLimits


class RoadSign(Row):
    """`signs` of a `subject` of road.toml."""

    name: str
    level: str
    asks: tuple[str, ...] = ()


class RoadSubject(Row):
    """`subject` of road.toml."""

    name: str
    level: str
    gearbox: tuple[str, ...] = ()
    signs: dict[str, RoadSign]


class RoadTable(Table):
    """road.toml."""

    subject: dict[str, RoadSubject]
