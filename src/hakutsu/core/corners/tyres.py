"""Tyres: depth and its two per cents, wear patterns, age, size against the placard, differences on an axle."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from functools import cache

from hakutsu.core.beyond import against_law
from hakutsu.core.corners.sizes import TyreSize, fastest_km_h, tyre_size
from hakutsu.core.corners.tables import CornersTable
from hakutsu.core.findings import AXLES, Finding, found
from hakutsu.core.life.measured import wear_table
from hakutsu.entries.corners import Cracks, Method, Pairs, PerCentOf, Season, Shape, Tyre, TyreDamage
from hakutsu.vehicle.mechanics import Drive, Mechanics
from hakutsu.vehicle.quantities import signed
from hakutsu.vehicle.rules import RuleSet
from hakutsu.vehicle.tables import read_table

GROOVES = ("inner", "middle", "outer")


@cache
def corner_table() -> CornersTable:
    """Thresholds of `data/corners.toml`."""
    return read_table("core.corners", "corners", CornersTable)


@dataclass(frozen=True, slots=True)
class Depth:
    """The depth that rules [mm], how it was taken, and from what."""

    mm: float
    method: Method
    words: str


def new_depth(tyre: Tyre) -> float:
    """Usual depth when new [mm], by size and season."""
    row = corner_table()["tyre"]
    size = tyre_size(tyre.size) if tyre.size else None
    if size is not None and size.light_truck:
        return float(row["light_truck_new_mm"])
    return float(row["winter_new_mm"] if tyre.season is Season.WINTER else wear_table().tyre.new_mm[0])


def ruling_depth(tyre: Tyre, legal_mm: float) -> Depth | None:
    """The depth that rules: the lowest measured; or by a range or per cent, which count as by eye."""
    if tyre.lowest_mm is not None:
        grooves = len(tyre.depth_mm) + len(tyre.second_mm)
        return Depth(tyre.lowest_mm, tyre.method, f"lowest of {grooves}" if grooves > 1 else "one groove")
    if tyre.range_mm is not None:
        low, high = tyre.range_mm
        return Depth((low + high) / 2, Method.EYE, f"somewhere from {{depth {low:g}}} to {{depth {high:g}}}")
    if tyre.per_cent is not None:
        new, share = new_depth(tyre), tyre.per_cent / 100
        mm = share * new if tyre.per_cent_of is PerCentOf.NEW else legal_mm + share * (new - legal_mm)
        return Depth(mm, Method.EYE, f"{tyre.per_cent:g} % {tyre.per_cent_of}")
    return None


def per_cent_left(mm: float, new: float, legal: float) -> tuple[float, float]:
    """Per cent left by both schools: (depth − legal)/(new − legal), and depth/new; neither below 0 nor above 100."""
    usable = (mm - legal) / (new - legal) if new > legal else 0.0
    return tuple(100 * min(max(one, 0.0), 1.0) for one in (usable, mm / new))  # type: ignore[return-value]


def made_on(code: str, now: date) -> date | None:
    """The Monday of the week a date code WWYY names; none for three digits (before 2000, decade ambiguous), a week that
    does not exist, or one still to come.
    """
    if len(code) != 4:
        return None
    try:
        monday = date.fromisocalendar(2000 + int(code[2:]), int(code[:2]), 1)
    except ValueError:
        return None
    return monday if monday <= now else None


def code_fault(code: str, now: date) -> str:
    """Why a date code tells no age; empty where it does."""
    if len(code) == 3:
        return "three digits: made before 2000, the decade is not told"
    if code and made_on(code, now) is None:
        return "no such week, or still to come: read it again"
    return ""


def age_years(tyre: Tyre, now: date) -> float | None:
    """Age by its date code [years]; a code of three digits says at least the years since 2000."""
    if len(tyre.date_code) == 3:
        return float(now.year - 2000)
    made = made_on(tyre.date_code, now) if tyre.date_code else None
    return None if made is None else (now - made).days / 365.25


def pattern(grooves: tuple[float, ...], pair: Pairs = Pairs.UNKNOWN) -> tuple[str, str] | None:
    """What three grooves (inner, middle, outer) say, or two of which `pair` says which: code and words; none where they
    do not differ by a millimetre, or nobody said which two.
    """
    least = corner_table()["tyre"]["pattern_mm"]
    if len(grooves) == 2 and pair is Pairs.INNER_OUTER:
        grooves = (grooves[0], max(grooves), grooves[1])
    if len(grooves) != 3:
        return None
    inner, middle, outer = grooves
    if min(inner, outer) - middle >= least:
        return "corners.tyre_centre_worn", "centre worn: run with too much pressure"
    if middle - max(inner, outer) >= least:
        return "corners.tyre_shoulders_worn", "both shoulders worn: run with too little pressure"
    if abs(inner - outer) >= least:
        side = "inner" if inner < outer else "outer"
        return "corners.tyre_one_shoulder_worn", f"{side} shoulder worn: camber or toe, have the geometry measured"
    return None


SHAPES = {
    Shape.SAW_TOOTH: "saw-tooth: toe",
    Shape.CUPS: "cups: damper or balance",
    Shape.FLAT: "flat spot: locked wheel, or long standing",
}


def tyre_found(wheel: str, tyre: Tyre, rules: RuleSet, mechanics: Mechanics, now: date) -> list[Finding]:
    """Findings at one tyre."""
    row = corner_table()["tyre"]
    seen = [*_depth_found(wheel, tyre, rules)]
    worn = pattern(tyre.depth_mm, tyre.grooves) or pattern(tyre.second_mm, tyre.grooves)
    if worn:
        seen.append(found(worn[0], wheel, worn[1], ("a pull or vibration on the road makes it stronger",)))
    if tyre.shape not in (Shape.NONE, Shape.UNKNOWN):
        seen.append(
            found(f"corners.tyre_{tyre.shape.value}", wheel, SHAPES[tyre.shape], ("seen or felt by hand",))
        )  # fmt: skip
    spread = max(tyre.depth_mm, default=0) - min(tyre.depth_mm, default=0)
    if spread > row["second_place_mm"] and not tyre.second_mm:
        seen.append(
            found("corners.tyre_measure_again", wheel, "grooves differ: measure at a second place round the tyre")
        )  # fmt: skip
    seen += _age_found(wheel, tyre, mechanics, now)
    for damage in tyre.damage:
        local = damage in (TyreDamage.CROWN_PLUG, TyreDamage.RIM_PROTECTOR, TyreDamage.CUT)
        words = f"{damage}{': a finding under the local rule' if local else ''}"
        seen.append(found(f"corners.tyre_{damage.value}", wheel, words))
    if tyre.cracks in (Cracks.FINE, Cracks.OPEN):
        seen.append(found(f"corners.tyre_cracks_{tyre.cracks.value}", wheel, f"{tyre.cracks} cracks in the rubber"))
    return seen + _size_found(wheel, tyre, mechanics)


def _worn(finding: Finding, law: float, depth: Depth) -> Finding:
    return against_law(finding, law - depth.mm, depth.method, wear_table().tyre.sd_mm, "with a tread gauge")


def _depth_found(wheel: str, tyre: Tyre, rules: RuleSet) -> list[Finding]:
    depth = ruling_depth(tyre, rules.tread_mm)
    if depth is None:
        return []
    advice = rules.advice_mm if tyre.season in (Season.SUMMER, Season.UNKNOWN) else max(4.0, rules.winter_mm)
    law = max(rules.tread_mm, rules.winter_mm if tyre.season is Season.WINTER else 0.0)
    reason = (f"{{depth {depth.mm:.2f}}}, {depth.words}",)
    if depth.mm < rules.tread_mm:
        words = f"below the legal {{depth {rules.tread_mm}}}, {rules.name}"
        return [_worn(found("corners.tyre_below_legal", wheel, words, reason), rules.tread_mm, depth)]
    if depth.mm < law:
        words = f"below what winter asks for, {{depth {law}}}, {rules.name}"
        return [_worn(found("corners.tyre_below_winter", wheel, words, reason), law, depth)]
    if depth.mm < advice:
        return [found("corners.tyre_below_advice", wheel, f"below the advised {{depth {advice}}}", reason)]
    return []


def _age_found(wheel: str, tyre: Tyre, mechanics: Mechanics, now: date) -> list[Finding]:
    row, age = corner_table()["tyre"], age_years(tyre, now)
    if fault := code_fault(tyre.date_code, now):
        seen = [found("corners.tyre_date_unread", wheel, f"date code {tyre.date_code}: {fault}")]
    else:
        seen = []
    if age is None:
        return seen
    reason = (f"date code {tyre.date_code}",)
    if age >= wear_table().tyre.years:
        seen.append(found("corners.tyre_too_old", wheel, f"{age:.0f} years old: replace, whatever its depth", reason))
    elif age >= row["look_years"]:
        seen.append(found("corners.tyre_ageing", wheel, f"{age:.0f} years old: look closely for cracks", reason))
    vehicle = mechanics.age_years(now)
    if vehicle is not None and (age - vehicle) * 12 > row["other_wheel_months"]:
        words = "older than the vehicle: a wheel of another one"
        seen.append(found("corners.tyre_older_than_vehicle", wheel, words, reason))
    return seen


def placard_size(mechanics: Mechanics, where: str) -> str:
    """The size the placard gives for a wheel or axle; one size alone is that of both axles."""
    return mechanics.front_size if "front" in where else mechanics.rear_size or mechanics.front_size


def _size_found(wheel: str, tyre: Tyre, mechanics: Mechanics) -> list[Finding]:
    size, wanted = tyre_size(tyre.size), tyre_size(placard_size(mechanics, wheel))
    seen = []
    if tyre.size and size is None:
        words = f"size “{tyre.size}” cannot be read: check the side wall"
        seen.append(found("corners.tyre_size_unread", wheel, words))
    if size and wanted and wheel != "wheel_spare":
        if size.plain != wanted.plain:
            off = (size.circumference_m / wanted.circumference_m - 1) * 100
            words = f"{size.text} where the placard says {wanted.text}: {signed(off)} % round"
            seen.append(found("corners.tyre_size_wrong", wheel, words))
        elif size.load and wanted.load and size.load < wanted.load:
            words = f"load index {size.load} below the placard’s {wanted.load}"
            seen.append(found("corners.tyre_load_low", wheel, words))
        seen += _speed_found(wheel, tyre, size, wanted)
    bar = mechanics.front_bar if "front" in wheel else mechanics.rear_bar or mechanics.front_bar
    row = corner_table()["tyre"]
    if tyre.pressure_bar is not None and bar is not None and wheel != "wheel_spare":
        cold = tyre.at_c if tyre.at_c is not None else row["placard_c"]
        want = bar + (cold - row["placard_c"]) / 10 * row["bar_each_10_c"]
        if want - tyre.pressure_bar > row["pressure_low_bar"]:
            words = (
                f"{{pressure {tyre.pressure_bar}}} where {{pressure {want:.2f}}} belong: a leak, or never looked after"
            )
            seen.append(found("corners.tyre_pressure_low", wheel, words))
    return seen


def _speed_found(wheel: str, tyre: Tyre, size: TyreSize, wanted: TyreSize) -> list[Finding]:
    """A speed symbol below the placard's; winter tyres may have a lower one, with a note in the driver's sight."""
    mine, asked = fastest_km_h(size.speed), fastest_km_h(wanted.speed)
    if mine is None or asked is None or mine >= asked:
        return []
    words = f"speed symbol {size.speed} ({mine} km/h) below the placard’s {wanted.speed} ({asked} km/h)"
    if tyre.season in (Season.WINTER, Season.ALL):
        why = ("allowed for winter tyres in many places, with a note in sight of the driver",)
        return [found("corners.tyre_speed_low_winter", wheel, words, why)]
    return [found("corners.tyre_speed_low", wheel, words)]


def axle_found(tyres: Mapping[str, Tyre], rules: RuleSet, mechanics: Mechanics) -> list[Finding]:
    """Differences between the tyres of an axle, and round a vehicle that drives all wheels."""
    seen = []
    for subject, axle in AXLES.items():
        left, right = (tyres.get(f"wheel_{axle}_{side}") for side in ("left", "right"))
        if left and right:
            seen += _pair_found(subject, left, right, rules)
    return seen + (_all_wheel_found(tyres, rules) if mechanics.drive is Drive.ALL else [])


def _pair_found(axle: str, left: Tyre, right: Tyre, rules: RuleSet) -> list[Finding]:
    seen = []
    sizes = [tyre_size(one.size) for one in (left, right)]
    if all(sizes) and sizes[0].plain != sizes[1].plain:  # type: ignore[union-attr]
        words = f"two sizes on one axle: {left.size} and {right.size}"
        seen.append(found("corners.tyre_two_sizes", axle, words))
    if left.make and right.make and left.make.casefold() != right.make.casefold():
        words = f"two makes or patterns on one axle: {left.make} and {right.make}"
        seen.append(found("corners.tyre_two_makes", axle, words, ("braking and grip differ left and right",)))
    if Season.UNKNOWN not in (left.season, right.season) and left.season is not right.season:
        seen.append(found("corners.tyre_two_seasons", axle, f"{left.season} and {right.season} on one axle"))
    depths = [ruling_depth(one, rules.tread_mm) for one in (left, right)]
    if depths[0] and depths[1]:
        off = abs(depths[0].mm - depths[1].mm)
        if off >= corner_table()["tyre"]["sides_mm"]:
            less = "left" if depths[0].mm < depths[1].mm else "right"
            words = f"{{{less}}} tyre {{depth {off:.2f}}} lower than its mate: one replaced alone, or that side drags"
            seen.append(found("corners.tyre_depths_differ", axle, words))
    return seen


def effective_diameters(tyres: Mapping[str, Tyre], rules: RuleSet) -> dict[str, float]:
    """Effective diameter [mm] of each tyre with a size and a depth: nominal − 2·(new − depth)."""
    found = {}
    for wheel, tyre in tyres.items():
        size, depth = tyre_size(tyre.size), ruling_depth(tyre, rules.tread_mm)
        if size and depth and wheel != "wheel_spare":
            found[wheel] = size.diameter_mm - 2 * (new_depth(tyre) - depth.mm)
    return found


def _all_wheel_found(tyres: Mapping[str, Tyre], rules: RuleSet) -> list[Finding]:
    diameters = effective_diameters(tyres, rules)
    if len(diameters) < 2:
        return []
    row, off = corner_table()["tyre"], (max(diameters.values()) / min(diameters.values()) - 1) * 100
    if off <= row["diameter_watch_percent"]:
        return []
    code = "rolling_sizes_apart" if off > row["diameter_settle_percent"] else "rolling_sizes_differ"
    words = f"rolling sizes differ by {off:.1f} % between wheels that are driven together: strains the driveline"
    reasons = tuple(f"{{place {wheel}}}: {mm:.0f} mm across" for wheel, mm in diameters.items())
    reasons = (*reasons, "all four alike is the cure; the maker’s limit rules")
    return [found(f"corners.{code}", "wheels", words, reasons)]
