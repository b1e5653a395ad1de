"""The film model's named parameters, loaded once from `parameters.toml`."""

from __future__ import annotations

import tomllib
from enum import StrEnum
from functools import cache
from importlib.resources import files
from typing import Any

from pydantic import BaseModel, ConfigDict

from hakutsu.core.film.survey import STATES
from hakutsu.vehicle.vocabulary import Finish


class _Group(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Gauge(_Group):
    offset_sd_um: float
    gain_sd: float
    default_step_um: float
    lowest_limit_um: float
    highest_limit_um: float
    misread_share: float
    misread_median_um: float
    misread_sd_log: float


class Baseline(_Group):
    factory_median_um: float
    factory_sd_log: float
    tricoat_share: float
    tricoat_more_um: float
    lowest_um: float
    highest_um: float
    respray_median_um: float
    respray_sd_log: float


class Between(_Group):
    panel_sd_log: float
    panel_tail_sd_log: float
    panel_tail_share: float
    other_substrate_sd_log: float
    respray_panel_sd_log: float
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
    begins: float
    side_weights: dict[Side, float]


class Blended(_Group):
    least_um: float
    most_um: float
    begins: tuple[float, ...]
    side_weights: dict[Side, float]


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
    excess_median_um: float
    excess_sd_log: float
    unevenness: float
    shape_readings: float
    radii: tuple[float, ...]
    radius_weights: tuple[float, ...]
    low_weight: float
    high_weight: float


class Schools(_Group):
    fixed_band_um: tuple[float, float]
    restored_band_um: tuple[float, float]


class Retest(_Group):
    least_um: float
    share: float
    confirmed_within: float
    wanted: int


class FilmParameters(_Group):
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
    regime: dict[str, dict[str, float]]
    finish: dict[Finish, dict[str, float]]
    schools: Schools
    retest: Retest

    def model_post_init(self, _context: Any) -> None:
        """Refuse priors that do not sum to one."""
        for name, priors in self.regime.items():
            if set(priors) != set(STATES) or abs(sum(priors.values()) - 1) > 1e-9:
                raise ValueError(f"state priors of regime {name} must name all six states and sum to 1")
        for finish, regimes in self.finish.items():
            if set(regimes) != set(self.regime) or abs(sum(regimes.values()) - 1) > 1e-9:
                raise ValueError(f"regime priors of finish {finish} must name all regimes and sum to 1")


@cache
def parameters() -> FilmParameters:
    """The parameters as shipped."""
    text = (files("hakutsu.core.film") / "parameters.toml").read_text(encoding="utf-8")
    return FilmParameters.model_validate(tomllib.loads(text))
