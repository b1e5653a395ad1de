"""Models of this room's data files."""

from __future__ import annotations

from functools import cache

from hakutsu.vehicle.tables import Number, Row, Table, read_table


class RunningRow(Row):
    """`running` of distance.toml."""

    median: Number
    spread: Number
    wander: Number
    jumps: Number
    jump_spread: Number
    stops: Number
    stop_years: Number


class RecordRow(Row):
    """`record` of distance.toml."""

    error: Number
    loose: Number
    loose_times: Number
    loose_km: Number


class DeliveryRow(Row):
    """`delivery` of distance.toml."""

    median: Number
    spread: Number


class RolledBackRow(Row):
    """`rolled_back` of distance.toml."""

    share: tuple[Number, Number]
    age: tuple[Number, Number]


class ReplacedRow(Row):
    """`replaced` of distance.toml."""

    from_nothing: Number
    median: Number
    spread: Number


class SlipRow(Row):
    """`slip` of distance.toml."""

    sources: dict[str, Number]
    ways: dict[str, Number]


class ModuleRow(Row):
    """`module` of distance.toml."""

    says_the_dial: dict[str, Number]
    own_figure: Number


class PriorRow(Row):
    """`prior` of distance.toml."""

    six: dict[str, Number]
    five: dict[str, Number]


class WearRow(Row):
    """`wear` of distance.toml."""

    spread: Number
    least: Number
    new_share: Number
    end_times: Number
    disc_beyond: Number


class DoubtedRow(Row):
    """`doubted` of distance.toml."""

    likely: Number


class DistanceTable(Table):
    """distance.toml."""

    running: RunningRow
    record: RecordRow
    delivery: DeliveryRow
    rolled_back: RolledBackRow
    replaced: ReplacedRow
    slip: SlipRow
    module: ModuleRow
    prior: PriorRow
    wear: WearRow
    doubted: DoubtedRow


@cache
def distance_table() -> DistanceTable:
    """How vehicles run, and what happens to records."""
    return read_table("core.papers", "distance", DistanceTable)
