"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from hakutsu.vehicle.tables import Number, Row, Table


class EmphasisRow(Row):
    """`taste` of emphasis.toml."""

    why: str
    steps: dict[str, Number]


class EmphasisTable(Table):
    """emphasis.toml."""

    taste: dict[str, EmphasisRow]
    use: dict[str, EmphasisRow]
    past: dict[str, EmphasisRow]


class StepsStep(Row):
    """`step` of steps.toml."""

    name: str
    place: str
    minutes: tuple[Number, ...]
    value: Number
    needs: tuple[str, ...] | None = None
    must: bool | None = None
    caution: str | None = None
    after: tuple[str, ...] | None = None
    activity: str | None = None
    wait: tuple[Number, ...] | None = None
    away: bool | None = None
    only_with: str | None = None


class TickedRow(Row):
    """`tick` of ticked.toml."""

    looks: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    here: bool = False
    film: bool = False


class TickedTable(Table):
    """ticked.toml."""

    tick: dict[str, TickedRow]


class StepsTable(Table):
    """steps.toml."""

    step: dict[str, StepsStep]
