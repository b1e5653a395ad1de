"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from hakutsu.vehicle.tables import Number, Row, Table


class CornersTyre(Row):
    """`tyre` of corners.toml."""

    second_place_mm: Number
    pattern_mm: Number
    sides_mm: Number
    look_years: Number
    other_wheel_months: Number
    diameter_watch_percent: Number
    diameter_settle_percent: Number
    bar_each_10_c: Number
    placard_c: Number
    pressure_low_bar: Number
    light_truck_new_mm: Number
    winter_new_mm: Number


class CornersPad(Row):
    """`pad` of corners.toml."""

    unsafe_mm: Number
    differ_mm: Number


class CornersDisc(Row):
    """`disc` of corners.toml."""

    run_out_mm: Number
    variation_mm: Number


class CornersDrum(Row):
    """`drum` of corners.toml."""

    lining_mm: Number
    looks_mm: dict[str, Number]


class CornersCompared(Row):
    """`compared` of corners.toml."""

    mm: dict[str, tuple[Number, Number]]


class CornersHeight(Row):
    """`height` of corners.toml."""

    differ_mm: Number


class CornersFluid(Row):
    """`fluid` of corners.toml."""

    water_plan_percent: Number
    water_change_percent: Number
    change_above_wet_c: Number
    plan_above_wet_c: Number
    boils: dict[str, tuple[Number, ...]]


class CornersTable(Table):
    """corners.toml."""

    tyre: CornersTyre
    pad: CornersPad
    disc: CornersDisc
    drum: CornersDrum
    compared: CornersCompared
    height: CornersHeight
    fluid: CornersFluid
