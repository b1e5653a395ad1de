"""Entries in words, for logbook and report."""

from __future__ import annotations

from collections.abc import Callable
from functools import singledispatch

from hakutsu.core.film import cue_kinds, magnet_names
from hakutsu.core.hazards import activities, causes
from hakutsu.core.runsheet import steps
from hakutsu.dossier import Dossier
from hakutsu.entries import Entry
from hakutsu.entries.claims import Claim
from hakutsu.entries.day import Arrival, DayConditions, Walk
from hakutsu.entries.film import (
    CoverFelt,
    CueLookedFor,
    GaugeInUse,
    Imported,
    MagnetTried,
    MappedRepair,
    OwnVehicles,
    Reading,
    Reflection,
    Verification,
    WorkmanshipSeen,
)
from hakutsu.entries.follow_up import LookAgain, LookedAgain, ProposalDropped
from hakutsu.entries.general import (
    AskSeller,
    DidNotWork,
    DoNotKnow,
    ForDesk,
    Hint,
    Intervention,
    Limit,
    MoreAlike,
    NotFitted,
    NothingFound,
    Seen,
    Settled,
    Station,
    Strike,
)
from hakutsu.entries.hazards import HazardCleared, HazardOverridden, HazardRaised, StepBegun, StepDone
from hakutsu.entries.opening import Brief, StageReached, Vehicle
from hakutsu.entries.registry import Body
from hakutsu.entries.settings import Overrides
from hakutsu.entries.timers import TimerLooked, TimerStarted, TimerStopped
from hakutsu.report.subjects import LIMIT_OF
from hakutsu.vehicle.panels import body_styles
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.units import UNIT_LABEL, show
from hakutsu.vehicle.vocabulary import Direction, ReadingStatus, Unit


def join(*parts: str) -> str:
    """Parts that say anything, with commas."""
    return ", ".join(part for part in parts if part)


def walk_words(direction: Direction, terms: Terms) -> str:
    """Which side a walk takes first."""
    side = terms.side("left" if direction is Direction.LEFT_FIRST else "right")
    return f"{side} first" if side.endswith("side") else f"{side} side first"


def reading_words(body: Reading, unit: Unit | None = None) -> str:
    """A reading in a unit, by default the one it was taken in."""
    if body.status is ReadingStatus.NONE:
        said = "no reading"
    elif body.value_um is None:
        said = "over range"
    else:
        said = show(body.value_um, unit or body.unit)
        said = f"over range (≥ {said})" if body.status is ReadingStatus.OVER else said
    there = {"edge": body.edge, "repeat": body.retest_of is not None, "simulated": body.simulated}
    marks = [word for word, yes in there.items() if yes]
    return said + (f" ({', '.join(marks)})" if marks else "")


@singledispatch
def body_words(body: Body, terms: Terms = PLAIN) -> tuple[str, str]:
    """What kind of entry a body is, and what it says in the reader's terms; one wording per kind."""
    return type(body).__name__, ""


@body_words.register
def _(body: Reading, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Film reading", reading_words(body, terms.readings)


@body_words.register
def _(body: GaugeInUse, terms: Terms = PLAIN) -> tuple[str, str]:
    step, limit = show(body.step_um, body.unit), show(body.limit_um, body.unit)
    return "Gauge in use", f"{body.name}: {UNIT_LABEL[body.unit]}, step {step}, range up to {limit}"


@body_words.register
def _(body: CueLookedFor, terms: Terms = PLAIN) -> tuple[str, str]:
    name = cue_kinds()[body.cue].name if body.cue in cue_kinds() else body.cue
    name = terms.say(name)
    said = [name if body.there else f"not there: {name}", f"in {body.light}" if body.light else "", body.note]
    return "Cue looked for", "; ".join(word for word in said if word)


@body_words.register
def _(body: MagnetTried, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Magnet", magnet_names()[body.grade]


@body_words.register
def _(body: CoverFelt, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Felt for a film edge", str(body.kind) + (
        f", {terms.film_words(body.thickness_um)}" if body.thickness_um else ""
    )


@body_words.register
def _(body: Verification, terms: Terms = PLAIN) -> tuple[str, str]:
    checks = ", ".join(
        f"{terms.film_words(one.reference_um, with_unit=False)} → {terms.film_words(one.shown_um)}"
        for one in body.checks
    )
    return "Gauge verified", f"{body.gauge or 'gauge'} at the {body.when}: {checks}"


@body_words.register
def _(body: Reflection, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Reflection", f"print can be read from {body.distance_cm:g} cm in the paint"


@body_words.register
def _(body: MappedRepair, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Repair mapped by hand", f"{body.length_cm:g} × {body.width_cm:g} cm"


@body_words.register
def _(body: WorkmanshipSeen, terms: Terms = PLAIN) -> tuple[str, str]:
    said = [f"{part} {grade}" for part, grade in body if grade is not None]
    return "Workmanship", ", ".join(said)


@body_words.register
def _(body: OwnVehicles, terms: Terms = PLAIN) -> tuple[str, str]:
    if body.left_out:
        return "Own vehicles", "left out for this one"
    levels = [terms.film_words(one.level_um) for one in body.vehicles]
    return "Own vehicles", f"{len(levels)} of the same make and colour: {', '.join(levels)}" if levels else "none alike"


@body_words.register
def _(body: Imported, terms: Terms = PLAIN) -> tuple[str, str]:
    left = f", {body.left_out} left out" if body.left_out else ""
    return "Film survey imported", f"{body.file}: {body.rows} rows{left}"


@body_words.register
def _(body: Vehicle, terms: Terms = PLAIN) -> tuple[str, str]:
    car = body.vehicle
    style = terms.say(body_styles()[car.body_style].name)
    return "Vehicle", f"{car.name}, {style}, {car.doors} doors, declared finish {car.finish}"


@body_words.register
def _(body: Brief, terms: Terms = PLAIN) -> tuple[str, str]:
    buyer = f" for {body.buyer}" if body.buyer else ""
    return "Brief", f"{body.protocol} protocol{buyer}" + (f": {body.use}" if body.use else "")


@body_words.register
def _(body: StageReached, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Stage", body.stage.value


@body_words.register
def _(body: Limit, terms: Terms = PLAIN) -> tuple[str, str]:
    said = [terms.say(body.because) if body.rule else body.because, "in part" if body.partly else "", body.hides]
    what = "" if body.station is Station.GENERAL else f": {LIMIT_OF[body.station].lower()}"
    return f"Could not be checked{what}", ", ".join(one for one in said if one)


@body_words.register
def _(body: MoreAlike, terms: Terms = PLAIN) -> tuple[str, str]:
    return "More like these", f"at least {body.at_least} more, not listed: {body.what}"


@body_words.register
def _(body: NothingFound, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Looked, nothing found", body.text


@body_words.register
def _(body: Intervention, terms: Terms = PLAIN) -> tuple[str, str]:
    leave = f", with leave of {body.with_leave_of}" if body.with_leave_of else ""
    return "Intervention", body.done + leave + ("" if body.put_back else "; not put back")


@body_words.register
def _(body: Seen, terms: Terms = PLAIN) -> tuple[str, str]:
    between = "" if body.low is None else f" ({body.low:g} to {body.high:g} {body.unit})".replace(" )", ")")
    return "Seen", body.text + between


@body_words.register
def _(body: NotFitted, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Not fitted", body.what


@body_words.register
def _(body: DidNotWork, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Did not work for us", body.what


@body_words.register
def _(body: DoNotKnow, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Not known", body.what


@body_words.register
def _(body: Hint, terms: Terms = PLAIN) -> tuple[str, str]:
    may, settled = (
        body.may_mean and f"; may mean: {body.may_mean}",
        body.settled_by and f"; settled by: {body.settled_by}",
    )
    return "Hint", f"{body.seen}{may}{settled}"


@body_words.register
def _(body: AskSeller, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Ask the seller", body.question


@body_words.register
def _(body: ForDesk, terms: Terms = PLAIN) -> tuple[str, str]:
    return "For the desk", body.question + (f" (picture {body.picture})" if body.picture else "")


@body_words.register
def _(body: LookAgain, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Look again", f"after {body.minutes:g} min" if body.minutes else str(body.moment)


@body_words.register
def _(body: LookedAgain, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Looked again", str(body.outcome) + (f": {body.text}" if body.text else "")


@body_words.register
def _(body: ProposalDropped, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Proposed limit dropped", body.because or body.rule.replace("_", " ")


@body_words.register
def _(body: Settled, terms: Terms = PLAIN) -> tuple[str, str]:
    source = f", from {body.source}" if body.source else ""
    return "Hearsay" if body.hearsay else "Settled", f"{body.answer}{source}"


@body_words.register
def _(body: HazardRaised, terms: Terms = PLAIN) -> tuple[str, str]:
    cause = causes()[body.cause].name if body.cause in causes() else body.cause
    return "Stand-down", terms.say(cause) + (f": {body.note}" if body.note else "")


@body_words.register
def _(body: HazardCleared, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Stand-down cleared", f"{body.name}, {body.trade}: {body.done}"


@body_words.register
def _(body: HazardOverridden, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Stand-down overridden", f"{activities().get(body.activity, body.activity)}, by {body.name}: {body.reason}"


@body_words.register
def _(body: StepBegun, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Step begun", terms.say(steps()[body.step].name) if body.step in steps() else body.step


@body_words.register
def _(body: StepDone, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Step done", terms.say(steps()[body.step].name) if body.step in steps() else body.step


@body_words.register
def _(body: TimerStarted, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Timer", f"{body.label}, {body.minutes:g} min"


@body_words.register
def _(body: TimerLooked, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Looked at the watch", body.seen


@body_words.register
def _(body: TimerStopped, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Timer stopped", ""


@body_words.register
def _(body: Claim, terms: Terms = PLAIN) -> tuple[str, str]:
    when = f", {body.when}" if body.when else ""
    return "Claim", f"“{body.words}” ({body.kind}; {body.who}{when})"


@body_words.register
def _(body: Walk, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Walk", f"from {terms.place(body.start).lower()}, {walk_words(body.direction, terms)}"


@body_words.register
def _(body: Arrival, terms: Terms = PLAIN) -> tuple[str, str]:
    dirt = "; ".join(f"{terms.place(key).lower()} {how}" for key, how in body.dirt.items() if how != "clean")
    met = ", ".join(str(one) for one in (body.weather, body.light, body.stands) if one.value != "unknown")
    inside = {True: "indoors", False: "outdoors", None: ""}[body.indoors]
    said = [met, inside, f"engine {body.engine}" if body.engine.value != "unknown" else "", dirt]
    return "Arrival", "; ".join(word for word in said if word) or "noted"


@body_words.register
def _(body: DayConditions, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Conditions of the day", f"{body.available} minutes from {terms.clock(body.begins)}"


@body_words.register
def _(body: Overrides, terms: Terms = PLAIN) -> tuple[str, str]:
    said = [f"{name.replace('_', ' ')} {value}" for name, value in body.model_dump(mode="json").items() if value]
    return "Settings of this inspection", ", ".join(said) if not body.costs else ", ".join([*said[:-1], "own costs"])


@body_words.register
def _(body: Strike, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Taken back", body.because or "taken back"


def noted(dossier: Dossier, at: Callable[[str | None], bool] = lambda _: True) -> list[tuple[Entry, str]]:
    """Remarks and interventions that stand at some places, in words, in the order of the logbook."""
    said = [(entry, body_words(body)[1]) for entry, body in dossier.remarks.seen if at(entry.place)]
    done = [(entry, body) for entry, body in dossier.remarks.interventions if at(entry.place)]
    ours = [(entry, f"we did something: {body_words(body)[1]}") for entry, body in done]
    return sorted([*said, *ours], key=lambda one: one[0].seq)
