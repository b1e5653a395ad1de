"""What was measured on the road and after it: clutch, speedometer, distance, hubs, recorded vibrations."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from hakutsu.core.findings import Finding, found
from hakutsu.core.road.noticed import SEAT, per_cent
from hakutsu.core.road.tables import road_table
from hakutsu.entries.corners import Grade
from hakutsu.entries.road import (
    ClutchTried,
    DialRead,
    DistanceRead,
    DriveDone,
    HubRead,
    Linkage,
    Slip,
    VibrationRecorded,
)
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.road import Level
from hakutsu.vehicle.rules import RuleSet

SOURCES = {
    "tyre": "a wheel or tyre",
    "propshaft": "the propeller shaft",
    "engine": "the engine",
    "other": "no part that was stated",
}
NAMED, SAID = 0.5, 0.05
CLUTCH = "clutch"


def clutch_found(body: ClutchTried) -> list[Finding]:
    """What the clutch's play, bite and slip test say; a linkage that adjusts itself hides wear: the test decides."""
    table, told = road_table().clutch, []
    if body.slip is Slip.SLIPS:
        told.append(found("road.clutch_slips", CLUTCH, "clutch slips in a high gear under load", job=CLUTCH))
    usual = table.free_play_mm.get(body.linkage.value)
    if body.free_play_mm is not None and usual and not usual[0] <= body.free_play_mm <= usual[1]:
        least, most = usual
        words = (
            f"free play of the clutch {{depth {body.free_play_mm:g}}}, usual {{depth {least:g}}} to {{depth {most:g}}}"
        )
        told.append(found("road.clutch_play", CLUTCH, words))
    if body.bites is None or body.slip is Slip.SLIPS:
        return told
    share = f"clutch bites at {per_cent(body.bites)} of the pedal’s travel"
    if body.bites < table.low and body.clean is False:
        told.append(found("road.clutch_drag", CLUTCH, f"{share} and does not part cleanly: air or adjustment"))
    if body.bites >= table.high and body.slip is not Slip.HOLDS:
        self_adjusting = body.self_adjusting or body.linkage is Linkage.HYDRAULIC
        words = "worn" if self_adjusting else "worn, or over-adjusted"
        told.append(found("road.clutch_high", CLUTCH, f"{share}: {words}", job=CLUTCH))
    return told


def clutch_grade(body: ClutchTried) -> tuple[Grade, str] | None:
    """What the slip test and the bite make of the clutch; nothing where they say nothing."""
    table = road_table().clutch
    if body.slip is Slip.SLIPS:
        return Grade.FAILED, "slip test on the road: slips"
    if body.bites is not None and body.bites >= table.high:
        return (
            (Grade.WORN, "bites high, slip test on the road: holds")
            if body.slip is Slip.HOLDS
            else (Grade.FAILING, "bites high")
        )
    if body.slip is Slip.HOLDS:
        return Grade.SOUND, "slip test on the road: holds"
    adjusts = body.self_adjusting or body.linkage is Linkage.HYDRAULIC
    if body.bites is not None and body.bites < table.low and body.clean and not adjusts:
        return Grade.SOUND, "bites low and clean, on the road"
    return None


def dials_found(dials: Sequence[DialRead], rules: RuleSet, tyres: float | None) -> list[Finding]:
    """What the speedometer shows against the rule of the place.

    Parameters
    ----------
    dials : shown and true speeds [km/h]
    rules : with what a speedometer may show at most; never less than the truth (UN R39)
    tyres : rolling circumference fitted over that of the placard, none where one is not known
    """
    told, meter = [], float(road_table().dial.meter_kmh)
    worst = max(dials, key=lambda one: one.true_kmh - one.shown_kmh, default=None)
    if worst is not None and worst.shown_kmh < worst.true_kmh - meter:
        told.append(
            found("road.dial_under", SEAT, f"speedometer shows less than is driven: {_speeds(worst)}", _tyres(tyres))
        )
    over = [one for one in dials if one.shown_kmh > dial_most(one.true_kmh, rules) + meter]
    if over:
        told.append(
            found("road.dial_over", SEAT, f"speedometer shows more than it may: {_speeds(over[-1])}", _tyres(tyres))
        )
    if not dials and tyres is not None and tyres > 1 + rules.dial_tyres:
        told.append(
            found(
                "road.dial_tyres",
                SEAT,
                f"tyres fitted roll {100 * (tyres - 1):.1f} % further than the placard’s: the dial may show too little",
            )
        )
    return told


def dial_most(true_kmh: float, rules: RuleSet) -> float:
    """The most a speedometer may show at a true speed [km/h]."""
    return true_kmh * (1 + rules.dial_over_share) + rules.dial_over_kmh


def _speeds(one: DialRead) -> str:
    return f"{{distance {one.shown_kmh:.0f}}} an hour shown at {{distance {one.true_kmh:.0f}}} an hour"


def _tyres(tyres: float | None) -> tuple[str, ...]:
    if tyres is None or abs(tyres - 1) < 0.005:
        return ()
    return (f"the tyres fitted roll {100 * (tyres - 1):+.1f} % against the placard’s: so much of it is theirs",)


def distances_found(readings: Sequence[DistanceRead], drives: Sequence[DriveDone]) -> list[Finding]:
    """Whether the dial counts, and counts right."""
    table, told = road_table().dial, []
    for one in readings:
        if one.true_km < table.least_km or abs(one.shown_km / one.true_km - 1) <= table.share:
            continue
        code, words = ("road.distance_over", "more") if one.shown_km > one.true_km else ("road.distance_under", "less")
        counted = f"{{distance {one.shown_km:g}}} counted over {{distance {one.true_km:g}}}"
        told.append(found(code, SEAT, f"the dial counts {words} than is driven: {counted}"))
    for drive in drives:
        stood = drive.km_start is not None and drive.km_start == drive.km_end
        far = (drive.lasted or 0) >= table.minutes and drive.level.rank >= Level.LOW.rank
        if stood and far:
            told.append(
                found("road.dial_stands", SEAT, f"the dial stood still over a drive of {drive.lasted:.0f} minutes")
            )
    return told


class Pair(Keyed):
    """How the two hubs of an axle stand."""

    OPEN = "open"
    ONE_SIDE = "one_side", "the other side is missing"
    OTHER_SPOT = "other_spot", "not the same spot"
    LATE = "late", "too long between them"
    DIFFER = "differ"
    ALIKE = "alike"


@dataclass(frozen=True, slots=True)
class HubPair:
    """Both hubs of an axle: temperatures [°C], none where one is missing; seconds between them; how it stands."""

    axle: str
    left: float | None
    right: float | None
    apart_s: float | None
    state: Pair


def hub_pairs(hubs: Mapping[str, Sequence[tuple[datetime, HubRead]]], since: datetime | None) -> list[HubPair]:
    """The newest readings of each axle since the drive, as pairs of one spot within two minutes."""
    return [_pair(axle, hubs, since) for axle in ("front", "rear")]


def _pair(axle: str, hubs: Mapping[str, Sequence[tuple[datetime, HubRead]]], since: datetime | None) -> HubPair:
    table = road_table().hubs
    every = [hubs.get(f"wheel_{axle}_{side}", ()) for side in ("left", "right")]
    sides = [[one for one in side if since is None or one[0] >= since] for side in every]
    if not all(sides):
        newest = [side[-1][1].temp_c if side else None for side in sides]
        return HubPair(axle, newest[0], newest[1], None, Pair.ONE_SIDE if any(sides) else Pair.OPEN)
    alike = [
        (abs((one - two).total_seconds()), one_body, two_body)
        for one, one_body in sides[0] for two, two_body in sides[1] if one_body.spot is two_body.spot
    ]  # fmt: skip
    if not alike:
        return HubPair(axle, sides[0][-1][1].temp_c, sides[1][-1][1].temp_c, None, Pair.OTHER_SPOT)
    apart, left, right = min(alike, key=lambda one: one[0])
    late = apart > table.within_s
    hot = abs(left.temp_c - right.temp_c) > table.apart_k
    state = Pair.LATE if late else Pair.DIFFER if hot else Pair.ALIKE
    return HubPair(axle, left.temp_c, right.temp_c, apart, state)


def hubs_found(pairs: Sequence[HubPair]) -> list[Finding]:
    """A hub much hotter than its twin, and a pair too far apart in time to tell."""
    return list(_hubs(pairs))


def _hubs(pairs: Sequence[HubPair]) -> Iterator[Finding]:
    for one in pairs:
        if one.left is None or one.right is None:
            continue
        both = f"{{temperature {one.left:.0f}}} left, {{temperature {one.right:.0f}}} right"
        if one.state is Pair.DIFFER:
            hot = "left" if one.left > one.right else "right"
            yield found("road.hub_hot", f"wheel_{one.axle}_{hot}", f"much hotter after the drive than its twin: {both}")
        elif one.state in (Pair.LATE, Pair.OTHER_SPOT):
            words = f"hubs of the {one.axle} axle: {both}, {one.state}"
            yield found("road.hub_again", f"axle_{one.axle}", words, why=str(one.state))


def vibration_found(body: VibrationRecorded) -> list[Finding]:
    """The source of a recorded vibration, where one is likelier than not; none and doubt find nothing."""
    top = max(body.candidates, key=lambda one: one.probability, default=None)
    if top is None or top.probability < NAMED or body.none >= NAMED:
        return []
    part = top.source.partition("_")[0]
    if part not in SOURCES:
        return []
    order = top.source.partition("_")[2]
    named = f"{SOURCES[part]}, {order_words(part, order)}" if order else SOURCES[part]
    words = f"vibration recorded at {{distance {body.kmh:.0f}}} an hour: {top.hz:.1f} Hz, fits {named}"
    others = [
        f"{source_words(one.source)} {per_cent(one.probability)}"
        for one in body.candidates
        if 0.05 <= one.probability < 1
    ]
    one = found(
        f"road.vibration_{part}",
        SEAT,
        words,
        [f"shares: {', '.join(others)}"] if others else [],
        sureness=top.probability,
    )
    return [one]


def order_words(part: str, order: str) -> str:
    """An order in words."""
    named = {"0.5": "half", "1": "first", "2": "second", "3": "third"}.get(order, order)
    return f"{named} order"


def source_words(source: str) -> str:
    """A source by its key, in words."""
    part, _, order = source.partition("_")
    return f"{ {'tyre': 'tyre', 'propshaft': 'propeller shaft', 'engine': 'engine'}.get(part, 'none of them') }" + (
        f", {order_words(part, order)}" if order else ""
    )
