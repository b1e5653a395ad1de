"""What was noticed on the road: a finding bound to the level reached, with what may be behind it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from hakutsu.core.findings import Finding, found, is_of
from hakutsu.core.life.components import components
from hakutsu.core.road.tables import Moved, road_table
from hakutsu.entries.corners import Grade
from hakutsu.entries.road import Felt, Noticed, Since, Way
from hakutsu.entries.road import Side as Turned
from hakutsu.vehicle.places import WHEELS
from hakutsu.vehicle.road import Level, road_signs

SEAT = "inside_front"
BAD = (Grade.WORN, Grade.FAILING, Grade.FAILED)
GOOD = (Grade.SOUND, Grade.FRESH)
LIKELIEST = 0.5
TOLD = 0.1
NEARLY = 0.005
BOTH_WAYS = "both_ways"
WORKED = 2.0  # recent work near a symptom is a candidate


@dataclass(frozen=True, slots=True)
class Elsewhere:
    """What was found elsewhere: findings, grades of parts by piece, and what somebody worked at of late, in words."""

    findings: Sequence[Finding] = ()
    grades: Mapping[str, Grade] = field(default_factory=dict)
    worked_at: Sequence[str] = ()


@dataclass(frozen=True, slots=True)
class Behind:
    """A candidate with its probability, the piece it would be (with its corner), its grade, and what moved it."""

    name: str
    probability: float
    piece: str
    grade: str
    because: tuple[str, ...] = ()


def behind(body: Noticed, place: str | None, elsewhere: Elsewhere) -> list[Behind]:
    """What may be behind something noticed, the likeliest first; empty where the table has no candidates.

    Parameters
    ----------
    body : what was noticed
    place : where it was told to come from, such as a wheel
    elsewhere : what else was found, which moves the shares
    """
    row = road_table().sign.get(body.sign)
    if row is None:
        return []
    weights = {one.name: float(one.share) for one in row.of}
    because: dict[str, list[str]] = {}
    for moved in row.moved:
        reason = _there(moved, elsewhere, place)
        if reason:
            weights[moved.name] *= moved.times
            because.setdefault(moved.name, []).append(reason)
    for one in row.of:
        worked = next((part for part in elsewhere.worked_at if _same_part(part, one.name)), "")
        if worked:
            weights[one.name] *= WORKED
            because.setdefault(one.name, []).append(f"somebody worked there of late: {worked}")
    total = sum(weights.values())
    told = [
        Behind(name, weights[name] / total, _located(one.piece, place), one.grade, tuple(because.get(name, ())))
        for one, name in ((one, one.name) for one in row.of)
    ]
    return sorted(told, key=lambda one: -one.probability)


def _there(moved: Moved, elsewhere: Elsewhere, place: str | None) -> str:
    """Why a row of the table applies, in words; nothing where it does not, or only at another wheel."""
    if moved.code:
        told = (one for one in elsewhere.findings if is_of(one.code, (moved.code,)) and not one.excused)
        return next((one.words for one in told if not _elsewhere(one.at, place)), "")
    wanted = GOOD if moved.sound else BAD
    for piece, grade in elsewhere.grades.items():
        part, _, corner = piece.partition(":")
        if part == moved.grade and grade in wanted and not _elsewhere(f"wheel_{corner}", place):
            return f"{piece.replace(':', ', ').replace('_', ' ')} is {grade}"
    return ""


def _elsewhere(wheel: str, place: str | None) -> bool:
    return place in WHEELS and wheel in WHEELS and wheel != place


def _same_part(worked: str, name: str) -> bool:
    """Whether work at a part, as somebody called it, is work at a candidate: they share a word of some length."""
    words = {one.strip(",.;").removesuffix("s") for one in name.casefold().split()}
    return any(len(one) > 3 and one in words for one in (w.strip(",.;").removesuffix("s") for w in worked.split()))


def _located(piece: str, place: str | None) -> str:
    """A part of a corner needs to know which; nothing where it does not."""
    if piece in components() and components()[piece].corners:
        return f"{piece}:{place.removeprefix('wheel_')}" if place in WHEELS else ""
    return piece


def noticed_found(body: Noticed, place: str | None, level: Level | None, elsewhere: Elsewhere) -> Finding:
    """The finding of something noticed.

    One direction only, a road too bad to tell, or a known leak of charge air leave it unsettled.
    """
    sign = road_signs()[body.sign]
    told = behind(body, place, elsewhere)
    reasons = [_likeliest(told)] if told else []
    reasons += [f"for {one.name} speaks: {because}" for one in told for because in one.because]
    reasons.append(f"level reached: {level}" if level else "no drive was noted")
    why = _unsettled(body, elsewhere)
    reasons += [why] if why else []
    words = f"on the road: {', '.join(one for one in (sign.name, *_details(body)) if one)}"
    job = told[0].piece if told and told[0].probability >= LIKELIEST else ""
    one = found(f"road.{body.sign}", place or SEAT, words, reasons, why=why, job=job)
    return replace(one, sureness=min(one.sureness, 0.5)) if why else one


def per_cent(share: float) -> str:
    """A probability as it is written: “57 %”; what is nearly sure is not said to be."""
    if 0 < share < NEARLY or 1 - NEARLY < share < 1:
        return "under 1 %" if share < NEARLY else "over 99 %"
    return f"{100 * share:.0f} %"


def _likeliest(told: Sequence[Behind]) -> str:
    return "may be: " + ", ".join(f"{one.name} {per_cent(one.probability)}" for one in told if one.probability >= TOLD)


def _unsettled(body: Noticed, elsewhere: Elsewhere) -> str:
    if body.doubtful:
        return "the road was too bad to tell"
    if BOTH_WAYS in road_signs()[body.sign].asks and body.ways is not Way.BOTH:
        return "tried in one direction only: the camber of the road may do it"
    row = road_table().sign.get(body.sign)
    if row is not None and row.unless and elsewhere.grades.get(row.unless) in BAD:
        return "the charge air is known to leak: not settled until that is mended"
    return ""


def _details(body: Noticed) -> Iterable[str]:
    if body.side is not Turned.UNKNOWN:
        yield f"turning {body.side}, which loads the {LOADED[body.side]}" if body.sign == TURNING else str(body.side)
    if body.gear:
        yield f"gear {body.gear}"
    if body.kmh:
        yield f"at {{distance {body.kmh[0]:g}}} to {{distance {body.kmh[1]:g}}} an hour"
    if body.rpm:
        yield f"at {body.rpm[0]:,.0f} to {body.rpm[1]:,.0f} rpm"
    if body.felt is not Felt.UNKNOWN:
        yield f"felt {body.felt}{FELT_MEANS.get(body.felt, '')}"
    if body.seconds is not None:
        yield f"{body.seconds:g} s"
    if body.since is not Since.UNKNOWN:
        yield str(body.since)
    if body.note:
        yield body.note


TURNING = "rumbles_turning"
LOADED = {Turned.LEFT: "right", Turned.RIGHT: "left"}
FELT_MEANS = {Felt.RIM: " (front)", Felt.SEAT: " (rear)", Felt.PEDAL: " (brakes)"}


def graded(body: Noticed, place: str | None, elsewhere: Elsewhere) -> tuple[str, Grade, str] | None:
    """What something noticed makes of a part with a life: piece, grade, why; nothing where no candidate is likely."""
    told = behind(body, place, elsewhere)
    if (
        not told
        or told[0].probability < LIKELIEST
        or not (told[0].piece and told[0].grade)
        or _unsettled(body, elsewhere)
    ):
        return None
    top = told[0]
    return (
        top.piece,
        Grade(top.grade),
        f"on the road: {road_signs()[body.sign].name}; {top.name} {per_cent(top.probability)}",
    )


def told_more(noticed: Sequence[tuple[Noticed, str | None]], at: int) -> bool:
    """Whether another says the same and more: a tap is swallowed by the form that was filled in after it."""
    body, place = noticed[at]
    if place or body != Noticed(sign=body.sign):
        return False
    return any(other.sign == body.sign and (other != body or where) for other, where in noticed)
