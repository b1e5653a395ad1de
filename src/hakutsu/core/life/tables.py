"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from typing import Any

from hakutsu.vehicle.tables import Number, Row, Table


class ComponentsDefaults(Row):
    """`defaults` of components.toml."""

    engine: tuple[str, ...]
    scale: Number
    ln_sd: Number
    cases: int


class ComponentsPart(Row):
    """`part` of components.toml."""

    name: str
    years: Number | None = None
    beta: Number
    job: str
    km: Number | None = None
    labour: str | None = None
    fits: dict[str, Any] | None = None
    optional: bool | None = None
    stainless_years: Number | None = None
    corners: str | None = None
    axle_job: bool | None = None
    tested: tuple[str, ...] | None = None
    plural: str | None = None
    beam_rear: bool | None = None
    brakes: str | None = None


class ComponentsLook(Row):
    """`look` of components.toml."""

    name: str
    corners: str | None = None
    job: str
    tested: tuple[str, ...]
    optional: bool | None = None
    fits: dict[str, Any] | None = None
    brakes: str | None = None
    beam_rear: bool | None = None
    part_of: str | None = None
    plural: str | None = None


class ComponentsTable(Table):
    """components.toml."""

    defaults: ComponentsDefaults
    part: dict[str, ComponentsPart]
    look: dict[str, ComponentsLook]


class GradesSees(Row):
    """`sees` of grades.toml."""

    words: str
    hazard: Number


class GradesFailing(Row):
    """`failing` of grades.toml."""

    km: Number
    months: Number
    gsd: Number


class GradesUnknown(Row):
    """`unknown` of grades.toml."""

    km_per_year: Number
    years: tuple[Number, ...]
    buyer_km_per_year: Number


class GradesLooksNew(Row):
    """`looks_new` of grades.toml."""

    years: tuple[Number, ...]


class GradesTable(Table):
    """grades.toml."""

    hazard: dict[str, Number]
    sees: tuple[GradesSees, ...]
    failing: GradesFailing
    looks_new: GradesLooksNew
    unknown: GradesUnknown


class ScheduledItem(Row):
    """`item` of scheduled.toml."""

    name: str
    km: Number | None = None
    years: Number
    job: str
    labour: str | None = None
    fits: dict[str, Any]


class ScheduledTable(Table):
    """scheduled.toml."""

    item: dict[str, ScheduledItem]


class UseFactor(Row):
    """`factor` of use.toml."""

    hazard: dict[str, Number]
    wear: dict[str, Number]


class UseTable(Table):
    """use.toml."""

    factor: dict[str, UseFactor]


class WearTyre(Row):
    """`tyre` of wear.toml."""

    new_mm: tuple[Number, ...]
    given_new_sd_mm: Number
    limit_mm: Number
    sd_mm: dict[str, Number]
    years: Number
    km_per_mm: dict[str, tuple[Number, ...]]


class WearPad(Row):
    """`pad` of wear.toml."""

    given_new_sd_mm: Number
    limit_mm: Number
    sd_mm: dict[str, Number]
    regenerative: tuple[Number, ...]
    front: dict[str, tuple[Number, ...]]
    rear: dict[str, tuple[Number, ...]]


class WearDisc(Row):
    """`disc` of wear.toml."""

    given_new_sd_mm: Number
    sd_mm: dict[str, Number]
    front: dict[str, tuple[Number, ...]]
    rear: dict[str, tuple[Number, ...]]


class WearOwner(Row):
    """`owner` of wear.toml."""

    gsd: Number


class WearDoubt(Row):
    """`doubt` of wear.toml."""

    share: Number


class WearReach(Row):
    """`reach` of wear.toml."""

    km_a_year: Number


class WearTable(Table):
    """wear.toml."""

    tyre: WearTyre
    pad: WearPad
    disc: WearDisc
    doubt: WearDoubt
    owner: WearOwner
    reach: WearReach
