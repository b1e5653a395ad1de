"""Entries in words, for logbook and report."""

from __future__ import annotations

from functools import singledispatch

from hakutsu.core.film import cue_kinds, magnet_names
from hakutsu.core.hazards import activities, causes
from hakutsu.core.runsheet import steps
from hakutsu.dossier import Dossier
from hakutsu.entries import Entry
from hakutsu.entries.claims import Claim
from hakutsu.entries.day import Arrival, DayConditions, Walk
from hakutsu.entries.film import CoverFelt, CueLookedFor, GaugeInUse, Imported, MagnetTried, Reading, Verification
from hakutsu.entries.general import (
    AskSeller,
    DidNotWork,
    DoNotKnow,
    ForDesk,
    Hint,
    Intervention,
    Limit,
    NotFitted,
    NothingFound,
    Seen,
    Settled,
    Strike,
)
from hakutsu.entries.hazards import HazardCleared, HazardOverridden, HazardRaised, StepBegun, StepDone
from hakutsu.entries.opening import Brief, StageReached, Vehicle
from hakutsu.entries.registry import Body
from hakutsu.entries.timers import TimerLooked, TimerStarted, TimerStopped
from hakutsu.vehicle.panels import body_styles, panels
from hakutsu.vehicle.places import places
from hakutsu.vehicle.units import UNIT_LABEL, show
from hakutsu.vehicle.vocabulary import ReadingStatus


def place_words(place: str | None) -> str:
    """A place as the trade names it."""
    if place is None:
        return ""
    if place in places():
        return places()[place].name
    return panels()[place].name() if place in panels() else place


def reading_words(body: Reading) -> str:
    """A reading in the unit it was taken in."""
    if body.status is ReadingStatus.NONE:
        said = "no reading"
    elif body.value_um is None:
        said = "over range"
    else:
        said = show(body.value_um, body.unit)
        said = f"over range (≥ {said})" if body.status is ReadingStatus.OVER else said
    marks = [word for word, there in (("edge", body.edge), ("repeat", body.retest_of is not None)) if there]
    return said + (f" ({', '.join(marks)})" if marks else "")


@singledispatch
def body_words(body: Body) -> tuple[str, str]:
    """What kind of entry a body is, and what it says; one wording per kind."""
    return type(body).__name__, ""


@body_words.register
def _(body: Reading) -> tuple[str, str]:
    return "Film reading", reading_words(body)


@body_words.register
def _(body: GaugeInUse) -> tuple[str, str]:
    step, limit = show(body.step_um, body.unit), show(body.limit_um, body.unit)
    return "Gauge in use", f"{body.name}: {UNIT_LABEL[body.unit]}, step {step}, range up to {limit}"


@body_words.register
def _(body: CueLookedFor) -> tuple[str, str]:
    name = cue_kinds()[body.cue].name if body.cue in cue_kinds() else body.cue
    said = [name if body.there else f"not there: {name}", f"in {body.light}" if body.light else "", body.note]
    return "Cue looked for", "; ".join(word for word in said if word)


@body_words.register
def _(body: MagnetTried) -> tuple[str, str]:
    return "Magnet", magnet_names()[body.grade]


@body_words.register
def _(body: CoverFelt) -> tuple[str, str]:
    return "Felt for a film edge", body.kind.value + (f", {body.thickness_um:.0f} µm" if body.thickness_um else "")


@body_words.register
def _(body: Verification) -> tuple[str, str]:
    checks = ", ".join(f"{one.reference_um:.0f} → {one.shown_um:.0f}" for one in body.checks)
    return "Gauge verified", f"{body.gauge or 'gauge'} at the {body.when}: {checks} µm"


@body_words.register
def _(body: Imported) -> tuple[str, str]:
    left = f", {body.left_out} left out" if body.left_out else ""
    return "Film survey imported", f"{body.file}: {body.rows} rows{left}"


@body_words.register
def _(body: Vehicle) -> tuple[str, str]:
    car = body.vehicle
    style = body_styles()[car.body_style].name
    return "Vehicle", f"{car.name}, {style}, {car.doors} doors, declared finish {car.finish}"


@body_words.register
def _(body: Brief) -> tuple[str, str]:
    buyer = f" for {body.buyer}" if body.buyer else ""
    return "Brief", f"{body.protocol} protocol{buyer}" + (f": {body.use}" if body.use else "")


@body_words.register
def _(body: StageReached) -> tuple[str, str]:
    return "Stage", body.stage.value


@body_words.register
def _(body: Limit) -> tuple[str, str]:
    return "Could not be checked", body.because


@body_words.register
def _(body: NothingFound) -> tuple[str, str]:
    return "Looked, nothing found", body.text


@body_words.register
def _(body: Intervention) -> tuple[str, str]:
    return "Intervention", body.done


@body_words.register
def _(body: Seen) -> tuple[str, str]:
    between = "" if body.low is None else f" ({body.low:g} to {body.high:g} {body.unit})".replace(" )", ")")
    return "Seen", body.text + between


@body_words.register
def _(body: NotFitted) -> tuple[str, str]:
    return "Not fitted", body.what


@body_words.register
def _(body: DidNotWork) -> tuple[str, str]:
    return "Did not work for us", body.what


@body_words.register
def _(body: DoNotKnow) -> tuple[str, str]:
    return "Not known", body.what


@body_words.register
def _(body: Hint) -> tuple[str, str]:
    may, settled = (
        body.may_mean and f"; may mean: {body.may_mean}",
        body.settled_by and f"; settled by: {body.settled_by}",
    )
    return "Hint", f"{body.seen}{may}{settled}"


@body_words.register
def _(body: AskSeller) -> tuple[str, str]:
    return "Ask the seller", body.question


@body_words.register
def _(body: ForDesk) -> tuple[str, str]:
    return "For the desk", body.question


@body_words.register
def _(body: Settled) -> tuple[str, str]:
    source = f", from {body.source}" if body.source else ""
    return "Hearsay" if body.hearsay else "Settled", f"{body.answer}{source}"


@body_words.register
def _(body: HazardRaised) -> tuple[str, str]:
    cause = causes()[body.cause].name if body.cause in causes() else body.cause
    return "Stand-down", cause + (f": {body.note}" if body.note else "")


@body_words.register
def _(body: HazardCleared) -> tuple[str, str]:
    return "Stand-down cleared", f"{body.name}, {body.trade}: {body.done}"


@body_words.register
def _(body: HazardOverridden) -> tuple[str, str]:
    return "Stand-down overridden", f"{activities().get(body.activity, body.activity)}, by {body.name}: {body.reason}"


@body_words.register
def _(body: StepBegun) -> tuple[str, str]:
    return "Step begun", steps()[body.step].name if body.step in steps() else body.step


@body_words.register
def _(body: StepDone) -> tuple[str, str]:
    return "Step done", steps()[body.step].name if body.step in steps() else body.step


@body_words.register
def _(body: TimerStarted) -> tuple[str, str]:
    return "Timer", f"{body.label}, {body.minutes:g} min"


@body_words.register
def _(body: TimerLooked) -> tuple[str, str]:
    return "Looked at the watch", body.seen


@body_words.register
def _(body: TimerStopped) -> tuple[str, str]:
    return "Timer stopped", ""


@body_words.register
def _(body: Claim) -> tuple[str, str]:
    when = f", {body.when}" if body.when else ""
    return "Claim", f"“{body.words}” ({body.kind}; {body.who}{when})"


@body_words.register
def _(body: Walk) -> tuple[str, str]:
    return "Walk", f"from {places()[body.start].name.lower()}, {body.direction}"


@body_words.register
def _(body: Arrival) -> tuple[str, str]:
    dirt = "; ".join(f"{places()[key].name.lower()} {how}" for key, how in body.dirt.items() if how != "clean")
    said = [f"{body.weather}, {body.light}, {body.stands}", f"engine {body.engine}", dirt]
    return "Arrival", "; ".join(word for word in said if word)


@body_words.register
def _(body: DayConditions) -> tuple[str, str]:
    return "Conditions of the day", f"{body.available} minutes from {body.begins:%H:%M} UTC"


@body_words.register
def _(body: Strike) -> tuple[str, str]:
    return "Strike", body.because or "taken back"


def noted(dossier: Dossier) -> list[tuple[Entry, str]]:
    """Remarks and interventions that stand, in words, in the order of the logbook."""
    said = [(entry, body.text) for entry, body in dossier.opening.remarks]
    done = [(entry, f"we did this: {body.done}") for entry, body in dossier.opening.interventions]
    return sorted([*said, *done], key=lambda one: one[0].seq)
