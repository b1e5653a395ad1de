"""Entries of what was seen outside, in words; registered with the wording of all entries."""

from __future__ import annotations

from hakutsu.entries.body import (
    Addition,
    Blemish,
    Closing,
    Coating,
    Depth,
    Event,
    EventDropped,
    Fit,
    GapGrade,
    Glass,
    GlassFault,
    Material,
    Origin,
    Rust,
    ShowsFrom,
    Tint,
    Trial,
    Trim,
    Works,
)
from hakutsu.report.wording import body_words, join
from hakutsu.vehicle.quantities import signed
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


def size_words(length_mm: float | None, width_mm: float | None = None) -> str:
    """A size as it is written, such as 120 × 15 mm."""
    sizes = [f"{one:g}" for one in (length_mm, width_mm) if one is not None]
    return f"{' × '.join(sizes)} mm" if sizes else ""


def blemish_words(body: Blemish) -> str:
    """A mark: how many, what, how large, how deep, from where it shows."""
    count = f"{body.count} × " if body.count > 1 else ""
    depth = "" if body.depth is Depth.UNKNOWN else str(body.depth)
    trial = "" if body.trial is Trial.NONE else f"a trial spot: {body.trial}"
    edge = "at an edge" if body.on_edge else ""
    fresh = "fresh" if body.fresh else ""
    shows = "" if body.shows_from is ShowsFrom.UNKNOWN else f"shows from {body.shows_from}"
    runs = "all round" if body.all_round else f"over {len(body.also_on) + 1} parts" if body.also_on else ""
    return join(
        f"{count}{body.kind}",
        size_words(body.length_mm, body.width_mm),
        depth,
        fresh,
        edge,
        runs,
        shows,
        trial,
        body.note,
    )


@body_words.register
def _(body: Blemish, terms: Terms = PLAIN) -> Said:
    return "Blemish", terms.say(blemish_words(body.model_copy(update={"note": ""}))) + (
        f", {body.note}" if body.note else ""
    )


@body_words.register
def _(body: Event, terms: Terms = PLAIN) -> Said:
    return "One contact", join(f"explains {len(body.blemishes)} blemishes", body.what)


@body_words.register
def _(body: EventDropped, terms: Terms = PLAIN) -> Said:
    return "No contact", f"{len(body.blemishes)} blemishes have nothing to do with each other"


@body_words.register
def _(body: Fit, terms: Terms = PLAIN) -> Said:
    gaps = (
        ("front gap", body.front_mm),
        ("rear gap", body.rear_mm),
        ("top gap", body.top_mm),
        (terms.say("{left} gap"), body.left_mm),
        (terms.say("{right} gap"), body.right_mm),
        ("bottom gap", body.bottom_mm),
        ("taper", body.taper_mm),
    )
    said = [f"{name} {gap:g} mm" for name, gap in gaps if gap is not None]
    said += [f"step {signed(body.step_mm, 2)} mm"] if body.step_mm is not None else []
    tried = (("drops", "does not drop", body.drop), ("play", "no play", body.play), ("rubs", "does not rub", body.rubs),
             ("stands off", "in line", body.stands_off))  # fmt: skip
    said += [yes if there else no for yes, no, there in tried if there is not None]
    said += [] if body.gaps is GapGrade.UNKNOWN else [f"gaps {body.gaps}"]
    closing = "" if body.closing is Closing.UNKNOWN else f"closing: {body.closing}"
    return "Fit", join(*said, closing, *body.faults, body.note) or "looked at"


@body_words.register
def _(body: Rust, terms: Terms = PLAIN) -> Said:
    structural = "structural" if body.structural else ""
    coating = "" if body.coating is Coating.UNKNOWN else f"coating: {body.coating}"
    side = f"from the other side: {body.other_side}" if body.other_side else ""
    return "Rust", join(
        f"{body.grade or 'grade not told'}: {body.where}",
        size_words(body.size_mm),
        structural,
        coating,
        side,
        body.note,
    )


@body_words.register
def _(body: Glass, terms: Terms = PLAIN) -> Said:
    sight = "in the driver’s sight" if body.in_sight else ""
    travel = "along its travel" if body.along_travel else ""
    mark = f"date mark {body.date_mark}" if body.date_mark else ""
    tint = "" if body.tint is Tint.UNKNOWN else f"tint {body.tint}"
    light = f"{body.light_percent:g} % of light" if body.light_percent is not None else ""
    fault = "" if body.fault is GlassFault.UNKNOWN else str(body.fault)
    return "Glass or lamp", join(
        fault, size_words(body.size_mm), sight, travel, mark, tint, light, body.note
    ) or "looked at"


@body_words.register
def _(body: Trim, terms: Terms = PLAIN) -> Said:
    origin = "" if body.origin is Origin.UNKNOWN else str(body.origin)
    made = f"{body.material}: " if body.material is not Material.UNKNOWN else ""
    return "Trim", join(terms.say(f"{made}{body.state}"), origin, body.note)


@body_words.register
def _(body: Addition, terms: Terms = PLAIN) -> Said:
    sale = {None: "", True: "goes with it", False: "does not go with it"}[body.in_sale]
    part = {None: "", True: "original part there", False: "original part gone"}[body.original_present]
    works = "" if body.works is Works.UNKNOWN else str(body.works)
    holes = f"{body.holes} holes" if body.holes else ""
    by = f"by {body.by_whom}" if body.by_whom else ""
    approval = f"approval: {body.approval}" if body.approval else ""
    return "Addition", join(body.what, by, works, sale, part, approval, holes, *body.poor, body.note)
