"""Parameters of what is made of the model: questions, repeats, headroom, schools, own vehicles, hand and eye."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict


class Group(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Next(Group):
    least_gain_bits: float
    words_same: float


class Asks(Group):
    level_um: float
    under_um: float
    under_spreads: float
    least_readings: int
    least_neighbours: int


class Few(Group):
    one: float
    two: float


class Headroom(Group):
    clear_um: float
    clear_sd_um: float
    stays_um: float
    thinned_um: float
    unevenness: float
    usual_um: float
    never_below_um: float
    share_of_baseline: float


class Verifying(Group):
    check_sd_um: float
    check_sd_share: float
    offset_sd_um: float
    gain_sd: float
    drift_um: float
    drift_share: float
    beyond_share: float


class Schools(Group):
    fixed_band_um: tuple[float, float]
    restored_band_um: tuple[float, float]


class Reflection(Group):
    least_others: int
    same_share: float
    dull_share: float


class Mapped(Group):
    sd_log: float


class Known(Group):
    """A log-normal quantity of any factory, and how far vehicles of one make and colour lie apart."""

    median: float
    sd_log: float
    apart_sd_log: float
    worth: float


class OwnVehiclesKnown(Group):
    least: int
    least_panels: int
    least_readings: int
    least_sd: float
    sure: float
    trust: float
    level: Known
    spread: Known
    unevenness: Known


class Retest(Group):
    least_um: float
    share: float
    confirmed_within: float
    wanted: int
    same_place_mm: float
