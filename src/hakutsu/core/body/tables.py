"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from pydantic import Field

from hakutsu.vehicle.tables import Number, Row, Table


class CuesBay(Row):
    """`bay` of cues.toml."""

    cue: str
    panels: tuple[str, ...]


class CuesTable(Table):
    """cues.toml."""

    blemish: dict[str, str]
    beside_bumper: dict[str, tuple[str, ...]]
    pane: dict[str, str]
    below: dict[str, tuple[str, ...]]
    bay: dict[str, CuesBay]


class FitGap(Row):
    """`gap` of fit.toml."""

    out_mm: Number
    taper_mm: Number
    step_mm: Number
    least_gaps: Number


class FitTable(Table):
    """fit.toml."""

    gap: FitGap


class HailLiftTo(Row):
    """`to` of hail_lift.toml."""

    small: Number
    middle: Number
    large: Number


class HailTable(Table):
    """hail.toml."""

    small_mm: Number
    large_mm: Number
    lift_to: HailLiftTo
    classes: tuple[tuple[str | Number, ...], ...]


class RemediesRow(Row):
    """`row` of remedies.toml."""

    on: tuple[str, ...] | None = None
    kinds: tuple[str, ...] | None = None
    first: str
    chance: Number | None = None
    else_: str | None = Field(None, alias="else")
    until_mm: Number | None = None
    depth: tuple[str, ...] | None = None


class RemediesJobs(Row):
    """`jobs` of remedies.toml."""

    name: str
    job: str
    per: str
    covers: tuple[str, ...] | None = None


class RemediesPolish(Row):
    """`polish` of remedies.toml."""

    takes_um: dict[str, Number]
    unread: Number
    partly: Number
    stayed: Number


class RemediesDentLift(Row):
    """`lift` of remedies_dent.toml."""

    on_edge: Number
    filled_above: Number


class RemediesBlend(Row):
    """`blend` of remedies.toml."""

    most: Number


class RemediesSupply(Row):
    """`supply` of remedies.toml."""

    unknown: tuple[Number, ...]
    stocked: tuple[Number, ...]
    slow: tuple[Number, ...]
    used_only: tuple[Number, ...]


class RemediesSeized(Row):
    """`seized` of remedies.toml."""

    hours: tuple[Number, ...]


class RemediesTable(Table):
    """remedies.toml."""

    row: list[RemediesRow]
    jobs: dict[str, RemediesJobs]
    polish: RemediesPolish
    dent_lift: RemediesDentLift
    blend: RemediesBlend
    supply: RemediesSupply
    seized: RemediesSeized


class TrapsTable(Table):
    """traps.toml."""

    trap: dict[str, tuple[str, ...]]


class TrimTable(Table):
    """trim.toml."""

    bright: dict[str, str]
    other: dict[str, str]
