"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from pydantic import Field

from hakutsu.vehicle.tables import Number, Row, Table


class ClaimsTable(Table):
    """claims.toml."""

    patterns: dict[str, tuple[str, ...]]
    against: dict[str, tuple[str, ...]]


class ConditionUsed(Row):
    """`used` of condition.toml."""

    sound: Number
    worn: Number
    renewed: Number


class ConditionRust(Row):
    """`rust` of condition.toml."""

    years: tuple[Number, ...]
    salt: Number
    dry: Number


class ConditionTable(Table):
    """condition.toml."""

    used: ConditionUsed
    rust: ConditionRust


class CostsJob(Row):
    """`job` of costs.toml."""

    name: str
    hours: tuple[Number, ...]
    materials: tuple[Number, ...]


class CostsTable(Table):
    """costs.toml."""

    job: dict[str, CostsJob]


class HazardsCause(Row):
    """`cause` of hazards.toml."""

    name: str
    blocks: tuple[str, ...]
    caution: str


class HazardsTable(Table):
    """hazards.toml."""

    activity: dict[str, str]
    heading: dict[str, str]
    cause: dict[str, HazardsCause]


class LimitationsLimitation(Row):
    """`limitation` of limitations.toml."""

    field: str
    is_: tuple[str, ...] = Field(alias="is")
    because: str
    hides: str


class LimitationsDirt(Row):
    """`dirt` of limitations.toml."""

    film_sd_um: Number
    hides: str


class LimitationsCold(Row):
    """`cold` of limitations.toml."""

    within_c: Number


class LimitationsAtLeast(Row):
    """`least` of limitations_at.toml."""

    dirt: tuple[str, ...]


class LimitationsUnder(Row):
    """`under` of limitations.toml: parts with a life or grade, and the beginnings of zones, that a name stands for."""

    name: str
    parts: tuple[str, ...]
    zones: tuple[str, ...]


class LimitationsUnobserved(Row):
    """`unobserved` of limitations.toml."""

    ground: tuple[str, ...]
    under: tuple[LimitationsUnder, ...]


class LimitationsTable(Table):
    """limitations.toml."""

    limitation: list[LimitationsLimitation]
    dirt: dict[str, LimitationsDirt]
    cold: LimitationsCold
    at_least: LimitationsAtLeast
    unobserved: LimitationsUnobserved
