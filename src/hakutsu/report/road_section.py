"""The road test in words: entries, and what the report says of it at the level that was reached."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from hakutsu.core.road.measured import source_words
from hakutsu.core.road.noticed import per_cent
from hakutsu.entries.road import (
    NEEDED,
    Before,
    ClutchTried,
    DialRead,
    DistanceRead,
    DriveDone,
    Drove,
    Ended,
    Fuel,
    Heard,
    HubRead,
    Noticed,
    RestFine,
    Settled,
    Slip,
    VibrationRecorded,
)
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.road import RoadReckoned, SubjectStands
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.mechanics import UNKNOWN
from hakutsu.vehicle.road import SHOWS, Level, road_signs, road_subjects
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]
BEFORE = {"permission": "permission", "plates": "plates and a valid test", "insurance": "insurance", "belts": "belts",
          "lamps": "lamps, horn and wipers that the law wants"}  # fmt: skip


HEARD = {Heard.UNKNOWN: "", Heard.TOLD: str(Heard.TOLD)}
COMPANY: dict[bool | None, str] = {True: "alone", False: "somebody came along"}


def _joined(parts: Iterable[str]) -> str:
    return ", ".join(one for one in parts if one)


def _hourly(kmh: float) -> str:
    return f"{{distance {kmh:g}}} an hour"


@body_words.register
def _(body: Before, terms: Terms = PLAIN) -> Said:
    there = [BEFORE[one] for one in NEEDED if getattr(body, one) is Settled.YES]
    missing = [BEFORE[one] for one in NEEDED if getattr(body, one) is Settled.NO]
    said = (f"in order: {', '.join(there)}" if there else "", f"missing: {', '.join(missing)}" if missing else "",
            "" if body.fuel is Fuel.UNKNOWN else f"fuel: {body.fuel}", body.note)  # fmt: skip
    return "Before the drive", "; ".join(one for one in said if one) or "nothing told"


def drive_words(body: DriveDone, terms: Terms) -> str:
    """A drive in words."""
    counted = (
        terms.say(f"dial {{distance {body.km_start:g}}} to {{distance {body.km_end:g}}}")
        if body.km_start is not None and body.km_end is not None else ""
    )  # fmt: skip
    return _joined((
        str(body.level), "" if body.drove is Drove.UNKNOWN else f"driven by {body.drove}",
        HEARD.get(body.heard, f"heard from {body.heard}"),
        f"{body.lasted:.0f} minutes" if body.lasted is not None else "", counted,
        terms.say(f"up to {_hourly(body.top_kmh)}") if body.top_kmh is not None else "",
        f"gears reached: {body.gears}" if body.gears else "",
        f"surface: {', '.join(map(str, body.surfaces))}" if body.surfaces else "",
        COMPANY.get(body.alone, ""), "warm before" if body.warm_before else "",
        f"ended because of {', '.join(str(one) for one in body.ended if one is not Ended.DONE)}"
        if any(one is not Ended.DONE for one in body.ended) else "everything was done" if body.ended else "", body.note,
    ))  # fmt: skip


@body_words.register
def _(body: DriveDone, terms: Terms = PLAIN) -> Said:
    return "Drive", drive_words(body, terms)


@body_words.register
def _(body: Noticed, terms: Terms = PLAIN) -> Said:
    name = road_signs()[body.sign].name if body.sign in road_signs() else body.sign
    felt = _told(body.felt)
    said = (
        name, _told(body.side), f"gear {body.gear}" if body.gear else "", _hourly_band(body),
        f"{body.seconds:g} s" if body.seconds is not None else "", f"felt {felt}" if felt else "", _told(body.ways),
        _told(body.since), "road too bad to tell" if body.doubtful else "", body.note,
    )  # fmt: skip
    return "Noticed on the road", terms.say(_joined(said))


def _told(one: Keyed) -> str:
    return "" if one.value == UNKNOWN else str(one)


def _hourly_band(body: Noticed) -> str:
    speed = f"at {{distance {body.kmh[0]:g}}} to {_hourly(body.kmh[1])}" if body.kmh else ""
    revs = f"at {body.rpm[0]:,.0f} to {body.rpm[1]:,.0f} rpm" if body.rpm else ""
    return _joined((speed, revs))


@body_words.register
def _(body: RestFine, terms: Terms = PLAIN) -> Said:
    name = road_subjects()[body.subject].name if body.subject in road_subjects() else body.subject
    return "Road test", _joined(
        (f"{name}: {'the road was too bad to tell' if body.doubtful else 'nothing else noticed'}", body.note)
    )


@body_words.register
def _(body: ClutchTried, terms: Terms = PLAIN) -> Said:
    play = f"free play {{depth {body.free_play_mm:g}}}" if body.free_play_mm is not None else ""
    bites = f"bites at {per_cent(body.bites)} of the travel" if body.bites is not None else ""
    clean = "" if body.clean is None else "parts cleanly" if body.clean else "does not part cleanly"
    slip = "" if body.slip is Slip.UNKNOWN else f"slip test: {body.slip}"
    return "Clutch", terms.say(_joined((play, bites, clean, slip, body.note)))


@body_words.register
def _(body: DialRead, terms: Terms = PLAIN) -> Said:
    return "Speedometer", terms.say(f"shows {_hourly(body.shown_kmh)} at {_hourly(body.true_kmh)} by satellite")


@body_words.register
def _(body: DistanceRead, terms: Terms = PLAIN) -> Said:
    return "Distance", terms.say(f"{{distance {body.shown_km:g}}} counted over {{distance {body.true_km:g}}}")


@body_words.register
def _(body: HubRead, terms: Terms = PLAIN) -> Said:
    return "After the drive", terms.say(f"{body.spot} {{temperature {body.temp_c:g}}}")


@body_words.register
def _(body: VibrationRecorded, terms: Terms = PLAIN) -> Said:
    top = max(body.candidates, key=lambda one: one.probability, default=None)
    fits = (
        "no tone"
        if top is None or body.none > top.probability
        else f"{top.hz:.1f} Hz, {source_words(top.source)} {per_cent(top.probability)}"
    )
    return "Vibration recorded", terms.say(f"at {_hourly(body.kmh)}: {fits}")


@dataclass(frozen=True, slots=True)
class RoadSection:
    """The drives, what their level shows and what not, findings, what was tried and fine, what was not reached or not
    said, and measurements.
    """

    drives: tuple[str, ...]
    shows: str
    cannot: str
    lines: tuple[FoundLine, ...]
    fine: tuple[str, ...]
    doubtful: tuple[str, ...]
    unsaid: tuple[str, ...]
    unreached: tuple[str, ...]
    measured: tuple[str, ...]

    @property
    def empty(self) -> bool:
        """True before any drive, where nothing of it was told."""
        return not (self.drives or self.lines or self.measured)


def road_section(reckoning: Reckoning) -> RoadSection:
    """Gather the section from a reckoning."""
    terms, road = reckoning.terms, reckoning.station(RoadReckoned)
    level = road.level
    drives = tuple(drive_words(one.body, terms) for one in road.drives)
    shows, cannot = SHOWS[level] if level else ("", "")
    stands = road.subjects if level and level is not Level.NONE else []
    unreached = tuple(one.subject.name for one in stands if not one.reached and not one.noticed)
    fine = tuple(_fine(stands, level))
    doubtful = tuple(one.subject.name for one in stands if one.doubtful)
    unsaid = tuple(one.subject.name for one in stands if one.reached and not one.rest and not one.noticed)
    lines = tuple(found_line(one, terms) for one in reckoning.findings_of("road"))
    return RoadSection(
        drives, shows, cannot, lines, fine, doubtful, unsaid, unreached, tuple(_measured(reckoning, road))
    )


def _fine(stands: Iterable[SubjectStands], level: Level | None) -> Iterable[str]:
    """Subjects of which nothing else was noticed; with the level that rests on, where a later drive got farther."""
    for one in stands:
        if one.fine and one.reached:
            lower = one.rest_level is not None and one.rest_level is not level
            yield f"{one.subject.name} ({one.rest_level})" if lower else one.subject.name


def _measured(reckoning: Reckoning, road: RoadReckoned) -> Iterable[str]:
    terms, told = reckoning.terms, road.measurements
    for body in told:
        title, words = body_words(body, terms)
        yield f"{title}: {words}"
    for pair in road.hubs:
        if pair.left is not None and pair.right is not None:
            both = f"{{temperature {pair.left:.0f}}} left, {{temperature {pair.right:.0f}}} right: {pair.state}"
            yield f"Hubs of the {pair.axle} axle: {terms.say(both)}"


@report_section("road", 105, "_road.html")
def _road(making: Making) -> RoadSection:
    """The road test."""
    return road_section(making.reckoning)
