"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from pydantic import Field

from hakutsu.vehicle.tables import Number, Row, Table


class FluidsFluid(Row):
    """`fluid` of fluids.toml."""

    name: str
    colours: tuple[str, ...]
    caution: str
    fits: tuple[str, ...] | None = None


class FluidsColour(Row):
    """`colour` of fluids.toml."""

    words: str
    fill: str


class FluidsRule(Row):
    """`rule` of fluids.toml."""

    key: str
    fluid: str
    when: dict[str, tuple[str, ...]]
    says: str
    next: str


class FluidsCombine(Row):
    """`combine` of fluids.toml."""

    key: str
    rules: tuple[str, ...]
    says: str
    next: str


class FluidsTable(Table):
    """fluids.toml."""

    fluid: dict[str, FluidsFluid]
    colour: dict[str, FluidsColour]
    rule: list[FluidsRule]
    combine: list[FluidsCombine]


class IdleScatter(Row):
    """`scatter` of idle.toml."""

    least: Number
    hertz: Number
    rough_rpm: Number
    carburettor_rpm: Number


class IdleHunting(Row):
    """`hunting` of idle.toml."""

    period_s: tuple[Number, ...]
    share: Number
    swing_rpm: Number


class IdleOil(Row):
    """`oil` of idle.toml."""

    hot_from_c: Number
    per_1000_rpm_bar: Number
    idle_to_rpm: Number
    read_sd_bar: Number
    apart_rpm: Number


class IdleTable(Table):
    """idle.toml."""

    scatter: IdleScatter
    hunting: IdleHunting
    oil: IdleOil


class StartStood(Row):
    """`stood` of start.toml."""

    is_: str = Field(alias="is")
    days: Number
    says: str


class StartStart(Row):
    """`start` of start.toml."""

    cranked_s: Number
    cranked: str
    jump: str
    idled: str
    no_effect: str


class StartNoise(Row):
    """`noise` of start.toml."""

    gone_s: Number
    gone: str
    stays: str


class StartSign(Row):
    """`sign` of start.toml."""

    is_: str = Field(alias="is")
    says: str
    sided: bool | None = None


class StartTable(Table):
    """start.toml."""

    stood: list[StartStood]
    start: StartStart
    noise: StartNoise
    fumes: dict[str, str]
    smoke: dict[str, str]
    stop: dict[str, str]
    sign: list[StartSign]


class WarmUpPrior(Row):
    """`prior` of warm_up.toml."""

    end_c: tuple[Number, ...]
    minutes: tuple[Number, ...]
    thermostat_c: tuple[Number, ...]
    start_sd_c: Number
    start_unknown_sd_c: Number


class WarmUpSample(Row):
    """`sample` of warm_up.toml."""

    sd_c: Number
    wrong_from_sd: Number
    least: Number


class WarmUpSettled(Row):
    """`settled` of warm_up.toml."""

    minutes: Number
    slope_c: Number
    least_near: Number


class WarmUpUsual(Row):
    """`usual` of warm_up.toml."""

    low_c: Number
    high_c: Number
    map_controlled_c: Number


class WarmUpColdDiesel(Row):
    """`cold_diesel` of warm_up.toml."""

    frost_c: Number
    minutes: Number
    outside_c: Number


class WarmUpTable(Table):
    """warm_up.toml."""

    prior: WarmUpPrior
    sample: WarmUpSample
    settled: WarmUpSettled
    usual: WarmUpUsual
    cold_diesel: WarmUpColdDiesel


class ElectricRest(Row):
    """`rest` of electric.toml."""

    hours: float
    full: tuple[tuple[float, float], ...]
    agm_offset_v: float
    good: float
    watch: float


class ElectricCrank(Row):
    """`crank` of electric.toml."""

    least_v: float
    warm_c: float
    step_c: float
    turn_c: float
    above_v: float
    below_v: float


class ElectricCharging(Row):
    """`charging` of electric.toml."""

    not_v: float
    low_v: float
    high_v: float
    over_v: float
    always_v: float


class ElectricConductance(Row):
    """`conductance` of electric.toml."""

    good: float
    weak: float


class ElectricCells(Row):
    """`cells` of electric.toml."""

    good_mv: float
    watch_mv: float
    charged: tuple[float, float]
    lfp_low: float
    lfp_high: float


class ElectricPack(Row):
    """`pack` of electric.toml."""

    per_root_year: float
    per_cycle: float
    km_per_cycle: dict[str, float]
    hybrid_per_root_year: float
    loss_gsd: float
    limit: float


class ElectricTable(Table):
    """electric.toml."""

    rest: ElectricRest
    crank: ElectricCrank
    charging: ElectricCharging
    conductance: ElectricConductance
    cells: ElectricCells
    pack: ElectricPack
