"""The film model's named parameters, loaded once from `data/parameters.toml`."""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum
from functools import cache, cached_property
from typing import Any, Self

from pydantic import BaseModel, ConfigDict

from hakutsu.core.film.survey import STATES
from hakutsu.vehicle.tables import Table, read_table
from hakutsu.vehicle.vocabulary import Finish

IN_PLACES = "in_places"
WHOLE = ("resprayed", "resprayed_evenly", "stripped")


class _Group(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Gauge(_Group):
    offset_sd_um: float
    gain_sd: float
    default_step_um: float
    lowest_limit_um: float
    highest_limit_um: float
    misread_share: float
    magnet_softness: float
    misread_median_um: float
    misread_sd_log: float


class Baseline(_Group):
    factory_median_um: float
    factory_sd_log: float
    tricoat_share: float
    tricoat_more_um: float
    lowest_um: float
    highest_um: float
    lowest_respray_um: float
    highest_respray_um: float
    respray_median_um: float
    respray_sd_log: float
    preserved_more_um: float
    preserved_share: float


class Between(_Group):
    panel_sd_log: float
    panel_tail_sd_log: float
    panel_tail_share: float
    other_substrate_sd_log: float
    horizontal_more: float
    respray_panel_sd_log: float
    respray_evenly_sd_log: float
    stone_guard_um: tuple[float, ...]
    stone_guard_share: float
    two_tone_roof_um: float
    two_tone_roof_share: float


class Unevenness(_Group):
    factory_median: float
    factory_gsd: float
    refinished_median: float
    refinished_gsd: float
    rebuilt_median: float
    rebuilt_gsd: float


class Side(StrEnum):
    """A side of a panel in its own coordinates: u runs front to rear or left to right, v along the other way."""

    FRONT = "front"
    REAR = "rear"
    LOW = "low"
    HIGH = "high"
    ALL = "all over"


class Thinned(_Group):
    least_um: float
    most_um: float
    begins: tuple[float, ...]
    soft: float
    side_weights: dict[Side, float]
    share: float


class Blended(_Group):
    least_um: float
    most_um: float
    begins: tuple[float, ...]
    soft: float
    side_sure: float
    other_sides: dict[Side, float]


class Refinished(_Group):
    over_median_um: float
    over_sd_log: float
    bare_median_um: float
    bare_sd_log: float
    bare_share: float


class Rebuilt(_Group):
    over_median_um: float
    over_sd_log: float


class Filled(_Group):
    counts_from_um: float
    excess_median_um: float
    excess_sd_log: float
    bare_share: float
    unevenness: float
    shape_readings: float
    half_axes: tuple[tuple[float, float], ...]
    size_weights: tuple[float, ...]
    low_weight: float
    high_weight: float


class Cover(_Group):
    share: float
    felt_share: float
    median_um: float
    sd_log: float
    thickness_sd_um: float


class Painted(_Group):
    refinished: float
    rebuilt: float
    filled: float


class Whole(_Group):
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


class Next(_Group):
    least_gain_bits: float
    words_same: float


class Headroom(_Group):
    usual_um: float
    never_below_um: float
    share_of_baseline: float


class Verifying(_Group):
    check_sd_um: float
    check_sd_share: float
    offset_sd_um: float
    gain_sd: float
    drift_um: float
    drift_share: float
    beyond_share: float


class Schools(_Group):
    fixed_band_um: tuple[float, float]
    restored_band_um: tuple[float, float]


class Retest(_Group):
    least_um: float
    share: float
    confirmed_within: float
    wanted: int


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
    resprayed: Whole
    resprayed_evenly: Whole
    stripped: Whole
    finish: dict[Finish, dict[str, float]]
    next: Next
    headroom: Headroom
    verifying: Verifying
    schools: Schools
    retest: Retest

    def model_post_init(self, _context: Any) -> None:
        """Refuse priors that do not sum to one."""
        sums = {"painted": sum(self.painted.model_dump().values())}
        sums |= {name: sum(getattr(self, name).states) for name in WHOLE}
        sums |= {f"finish {finish}": sum(histories.values()) for finish, histories in self.finish.items()}
        for name, total in sums.items():
            if abs(total - 1) > 1e-9:
                raise ValueError(f"the priors of {name} sum to {total:.4f}, not to 1")
        if any(set(histories) != {IN_PLACES, *WHOLE} for histories in self.finish.values()):
            raise ValueError(f"every finish needs the histories {IN_PLACES}, {', '.join(WHOLE)}")

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
