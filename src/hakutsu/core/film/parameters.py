"""The film model's named parameters, loaded once from `data/parameters.toml`."""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum
from functools import cache, cached_property
from typing import Any, Self

from hakutsu.core.film.judging import (
    Asks,
    Few,
    Group,
    Headroom,
    Mapped,
    Next,
    OwnVehiclesKnown,
    Reflection,
    Retest,
    Schools,
    Verifying,
)
from hakutsu.core.film.survey import STATES
from hakutsu.vehicle.tables import Table, read_table
from hakutsu.vehicle.vocabulary import Finish

IN_PLACES = "in_places"
MOST = "most"
WHOLE = ("resprayed", "stripped")


Values = tuple[float, ...]


class Gauge(Group):
    offset_sd_um: float
    gain_sd: float
    default_step_um: float
    lowest_limit_um: float
    highest_limit_um: float
    misread_share: float
    second_misread: float
    magnet_softness: float
    misread_median_um: float
    misread_sd_log: float


class Level(Group):
    """A log-normal level of film [µm] and its share among its like."""

    median_um: float
    sd_log: float
    share: float


class Baseline(Group):
    lowest_um: float
    highest_um: float
    lowest_respray_um: float
    highest_respray_um: float
    shut_of_skin: float
    shut_sd_log: float
    shut_reading_sd_log: float
    shut_painted_sd_log: float
    shut_painted_share: float
    shut_median_um: float
    shut_any_sd_log: float
    preserved_share: float
    preserved: Level
    factory: dict[str, Level]
    respray: dict[str, Level]


class Between(Group):
    panel_sd_log: Values
    panel_sd_weights: Values
    panel_tail_share: float
    horizontal_more: float
    other_metal_log: Values
    other_metal_weights: Values
    respray_sd_log: Values
    respray_sd_weights: Values
    stone_guard_um: Values
    stone_guard_weights: Values
    guard_shows: float
    two_tone_um: Values
    two_tone_weights: Values
    added_sd_log: float


class Unevenness(Group):
    factory: Values
    factory_weights: Values
    painter: Values
    painter_weights: Values
    booth: Values
    booth_weights: Values
    panel_sd_log: float


class Side(StrEnum):
    """A side of a panel in its own coordinates: u runs front to rear or left to right, v along the other way."""

    FRONT = "front"
    REAR = "rear"
    LOW = "low"
    HIGH = "high"
    ALL = "all over"


class Thinned(Group):
    least_um: float
    most_um: float
    begins: tuple[float, ...]
    soft: float
    side_weights: dict[Side, float]
    share: float


class Blended(Group):
    least_um: float
    most_um: float
    begins: tuple[float, ...]
    soft: float
    side_sure: float
    other_sides: dict[Side, float]


class Refinished(Group):
    lift_um: Values
    lift_weights: Values
    lift_sd_log: float
    bare_median_um: float
    bare_sd_log: float
    bare_share: float


class Rebuilt(Group):
    over_median_um: float
    over_sd_log: float
    ends_um: float
    ends_soft_um: float


class Filled(Group):
    counts_from_um: float
    peaks_um: Values
    peak_weights: Values
    large_median_um: float
    large_sd_log: float
    beside_unevenness: float
    unevenness: float
    shape_readings: float
    half_axes: tuple[tuple[float, float], ...]
    size_weights: Values
    small_half_axes: tuple[tuple[float, float], ...]
    small_size_weights: Values
    small_share: float
    small_hidden_least: float
    skim_share: float
    skim_median_um: float
    skim_sd_log: float
    seen_from_um: float
    unplaced_hidden: float
    low_weight: float
    high_weight: float
    bare_share: float
    blended_out_um: float
    blended_out_sd_log: float
    blended_out_bare: float


class Cover(Group):
    share: float
    felt_share: float
    median_um: float
    sd_log: float
    thickness_sd_um: float


class Painted(Group):
    rebuilt: float
    filled: float
    filled_alone: float
    filled_small: float
    seen_blended_out: float
    hidden_blended_out: float
    alone_seen_blended_out: float
    alone_hidden_blended_out: float


class Most(Group):
    panel: float
    upper: float
    sill: float
    rebuilt: float
    filled: float


class Whole(Group):
    """State priors of a car painted whole, and how many of its panels were bare metal before."""

    original: float
    thinned: float
    blended: float
    refinished: float
    rebuilt: float
    filled: float
    bare_share: float

    @property
    def states(self) -> tuple[float, ...]:
        """The priors in the order of the states."""
        return tuple(getattr(self, state) for state in STATES)


class FilmParameters(Table):
    """All parameters of the film model; units and reasons stand beside each value in the data file."""

    gauge: Gauge
    baseline: Baseline
    between: Between
    unevenness: Unevenness
    thinned: Thinned
    blended: Blended
    refinished: Refinished
    rebuilt: Rebuilt
    filled: Filled
    cover: Cover
    painted: Painted
    most: Most
    resprayed: Whole
    stripped: Whole
    finish: dict[Finish, dict[str, float]]
    next: Next
    asks: Asks
    few: Few
    headroom: Headroom
    verifying: Verifying
    schools: Schools
    own_vehicles: OwnVehiclesKnown
    reflection: Reflection
    mapped: Mapped
    retest: Retest

    def model_post_init(self, _context: Any) -> None:
        """Refuse priors that do not sum to one."""
        sums = {name: sum(getattr(self, name).states) for name in WHOLE}
        sums |= {f"finish {finish}": sum(histories.values()) for finish, histories in self.finish.items()}
        for key, kinds in (("factory", self.baseline.factory), ("respray", self.baseline.respray)):
            sums[f"levels {key}"] = sum(one.share for one in kinds.values())
        for part in (self.between, self.unevenness, self.refinished, self.filled):
            sums |= {name: sum(values) for name, values in part if name.endswith("weights")}
        for name, total in sums.items():
            if abs(total - 1) > 1e-9:
                raise ValueError(f"the priors of {name} sum to {total:.4f}, not to 1")
        if any(set(histories) != {IN_PLACES, MOST, *WHOLE} for histories in self.finish.values()):
            raise ValueError(f"every finish needs the histories {IN_PLACES}, {MOST}, {', '.join(WHOLE)}")

    @cached_property
    def key(self) -> str:
        """The parameters as text: whatever is computed once per parameter set is kept under it."""
        return self.model_dump_json()

    def model_copy(self, *, update: Mapping[str, Any] | None = None, deep: bool = False) -> Self:
        """A copy with other values, under a key of its own."""
        copy = super().model_copy(update=update, deep=deep)
        copy.__dict__.pop("key", None)
        return copy


@cache
def parameters() -> FilmParameters:
    """The parameters as shipped."""
    return read_table("core.film", "parameters", FilmParameters)
