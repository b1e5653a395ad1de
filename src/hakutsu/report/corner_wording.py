"""Corners and lives in words; registered with the wording of all entries."""

from __future__ import annotations

from hakutsu.core.findings import named_place
from hakutsu.core.keys import MEASURED
from hakutsu.core.life import Life
from hakutsu.core.life.components import Component, Scheduled, components, scheduled_items
from hakutsu.entries.corners import Brake, Fluid, Gear, Height, PartProof, Pedal, SpareKind, Tyre, Wheel
from hakutsu.entries.facts import FACTS
from hakutsu.entries.money import ClaimPriced, Line, MechanicsSaid
from hakutsu.report.wording import body_words, join
from hakutsu.vehicle.facts import FACT_NAMES, fact_words, is_said
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]
OTHER_PARTS = dict(zip(MEASURED, ("tyres", "brake pads", "brake discs"), strict=True))


def rough(number: float) -> float:
    """To two figures: more would pretend."""
    if number <= 0:
        return 0.0
    step = 10 ** max(0, len(str(int(number))) - 2)
    return float(round(number / step) * step)


def km_words(life: Life, terms: Terms) -> str:
    """What is left as distance, with its interval."""
    if life.km is None:
        return "; ".join(life.basis)
    if life.km.p90 <= 0:
        return "nothing left, by age" if life.limited_by == "age" else "nothing left"
    km = terms.scale("distance")
    low, median, high = (km.number(km.stored(rough(km.shown(one)))) for one in (life.km.p10, life.km.p50, life.km.p90))
    age = ", by age" if life.limited_by == "age" else ""
    span = "" if low == high else f" ({low} to {high})"
    return f"about {median} {km.label} left{age}{span}"


def part_name(key: str) -> str:
    """A part of the life tables by its key."""
    rows: dict[str, Component | Scheduled] = {**components(), **scheduled_items()}
    return rows[key].name if key in rows else OTHER_PARTS.get(key, key.replace("_", " "))


def _fixings(count: int, words: str) -> str:
    return f"{count} fixing{'s' if count > 1 else ''} {words}" if count else ""


def _compared(body: Tyre | Brake, terms: Terms) -> str:
    if body.compared.value == "unknown":
        return ""
    return f"{body.compared} {terms.place(body.compared_to)}"


def _good_for(span: tuple[float, float] | None, terms: Terms) -> str:
    """How far pads are said to be good for."""
    low, high = (terms.quantity("distance", one) for one in span or (0.0, 0.0))
    return "" if span is None else f"pads good for {low}" if low == high else f"pads good for {low} to {high}"


def _from_to(span: tuple[float, float] | None, unit: str) -> str:
    if span is None:
        return ""
    return f"{span[0]:,.0f} {unit}" if span[0] == span[1] else f"{span[0]:,.0f} to {span[1]:,.0f} {unit}"


def _numbers(values: tuple[float, ...], terms: Terms) -> str:
    return terms.scale("depth").several(values) if values else ""


@body_words.register
def _(body: Tyre, terms: Terms = PLAIN) -> Said:
    span = f"{_numbers(body.range_mm, terms)}, a range" if body.range_mm else ""
    share = f"{body.per_cent:g} % {body.per_cent_of}" if body.per_cent is not None else ""
    share = f"{_from_to(body.per_cent_range, '%')} {body.per_cent_of}" if body.per_cent_range else share
    pair = "" if len(body.depth_mm) != 2 or body.grooves.value == "unknown" else str(body.grooves)
    second = f"second place {_numbers(body.second_mm, terms)}" if body.second_mm else ""
    how = f"by {body.method}" if body.depth_mm else ""
    said = (
        _numbers(body.depth_mm, terms), pair, second, span, share, _compared(body, terms), how,
        f"date code {body.date_code}" if body.date_code else "",
        body.size, body.make, "" if body.season.value == "unknown" else str(body.season),
        "" if body.cracks.value == "unknown" else f"cracks: {body.cracks}",
        {"unknown": "", "none": "no shape felt"}.get(body.shape.value, str(body.shape)), *map(str, body.damage),
        "" if body.pressure_bar is None else terms.quantity("pressure", body.pressure_bar),
        "" if body.at_c is None else f"at {terms.quantity('temperature', body.at_c)}", body.note,
    )  # fmt: skip
    return terms.say("Tyre"), join(*said) or "looked at"


@body_words.register
def _(body: Wheel, terms: Terms = PLAIN) -> Said:
    said = (
        body.design, "another than the rest" if body.odd else "", "cap missing" if body.cap_missing else "",
        "refinished" if body.refinished else "",
        _fixings(body.fixings_missing, "missing"),
        _fixings(body.fixings_loose, "loose"),
        "a fixing cracked" if body.fixings_cracked else "", "fixings not alike" if body.fixings_odd else "",
        {True: "lock-nut key there", False: "lock-nut key not found", None: ""}[body.lock_key],
        "" if body.liner.value == "unknown" else f"inner arch {body.liner}",
        "" if body.spare is SpareKind.NOT_SPARE else str(body.spare), body.note,
    )  # fmt: skip
    return "Wheel", join(*said) or "nothing out of order"


@body_words.register
def _(body: Brake, terms: Terms = PLAIN) -> Said:
    def mm(name: str, value: float | None) -> str:
        return "" if value is None else f"{name} {terms.quantity('depth', value)}"

    said = (
        mm("pad inner", body.pad_inner_mm), mm("pad outer", body.pad_outer_mm),
        f"pads {_numbers(body.pad_range_mm, terms)}, a range" if body.pad_range_mm else "",
        f"pads {_from_to(body.pad_percent, '% left')}" if body.pad_percent else "",
        _good_for(body.pad_km_left, terms), _compared(body, terms),
        f"by {body.pad_method}" if body.pad_method.value == "eye" else "", mm("taper", body.taper_mm),
        f"disc {_numbers(body.disc_mm, terms)}" if body.disc_mm else "", mm("minimum", body.disc_min_mm),
        mm("new", body.disc_new_mm), mm("lip", body.lip_mm),
        "" if body.scoring.value in ("unknown", "none") else f"scoring {body.scoring}",
        "" if body.cracks.value == "unknown" else f"cracks {body.cracks}", "heat marks" if body.heat_marks else "",
        "" if body.run_out_mm is None else f"run-out {body.run_out_mm:g} mm",
        "" if body.variation_mm is None else f"thickness varies {body.variation_mm:g} mm",
        "" if body.rust.value == "unknown" else f"rust on its face: {body.rust}", mm("lining", body.lining_mm),
        "" if body.lining.value == "unknown" else f"lining {body.lining}",
        "" if body.drum_mm is None else f"drum {body.drum_mm:g} mm",
        "" if body.hose.value == "unknown" else f"hose {body.hose}",
        "" if body.pipe.value == "unknown" else f"pipe {body.pipe}",
        "wet with fluid" if body.wet else "", body.note,
    )  # fmt: skip
    return "Brake", join(*said) or "looked at"


@body_words.register
def _(body: Gear, terms: Terms = PLAIN) -> Said:
    play = f"play {body.play_mm:g} mm" if body.play_mm else ""
    how = f"tested {body.tested}" if body.tested else ""
    lies = "against the tyre" if body.on_tyre else ""
    fixings = "fixings seized or corroded" if body.seized else ""
    grade = str(body.grade) if body.grade else "not right, how bad was not told"
    return "Graded", terms.say(join(f"{part_name(body.part)}: {grade}", lies, how, play, fixings)) + (
        f", {body.note}" if body.note else ""
    )


@body_words.register
def _(body: Height, terms: Terms = PLAIN) -> Said:
    return "Ride height", f"{body.height_mm:g} mm from hub to arch"


@body_words.register
def _(body: Fluid, terms: Terms = PLAIN) -> Said:
    said = (
        "" if body.kind.value == "unknown" else str(body.kind),
        "" if body.water_percent is None else f"{body.water_percent:g} % water",
        "" if body.boils_c is None else f"boils at {terms.quantity('temperature', body.boils_c)}",
        "dark" if body.dark else "", "low" if body.low else "", body.note,
    )  # fmt: skip
    return "Brake fluid", join(*said) or "looked at"


@body_words.register
def _(body: Pedal, terms: Terms = PLAIN) -> Said:
    said = (
        "low" if body.low else "", "" if body.firm.value == "unknown" else str(body.firm),
        {True: "sinks in 30 s", False: "does not sink in 30 s", None: ""}[body.sinks],
        "" if body.parking.value == "unknown" else f"parking brake {body.parking}",
        "" if body.clicks is None else f"{body.clicks} clicks", body.note,
    )  # fmt: skip
    return "Brake pedal", join(*said) or "tried"


@body_words.register
def _(body: PartProof, terms: Terms = PLAIN) -> Said:
    at = "" if body.at_km is None else f"at {terms.quantity('distance', body.at_km)}"
    by_eye = body.looks_new and not body.when and not at
    said = "looks new" if by_eye else f"new or done {body.when}".strip()
    return "Proof of age", join(f"{terms.say(part_name(body.part))}: {said}", at, body.proof)


@body_words.register
def _(body: MechanicsSaid, terms: Terms = PLAIN) -> Said:
    said = (
        f"{FACT_NAMES[name]} {terms.say(fact_words(name, value))}"
        for name in FACTS
        if is_said(value := getattr(body.mechanics, name))
    )  # fmt: skip
    return "What drives it", join(*said) or "nothing known"


@body_words.register
def _(body: Line, terms: Terms = PLAIN) -> Said:
    amount = "" if body.amount is None else f"{body.amount:,}"
    code, place = body.code.rpartition(".")[2], terms.place(named_place(body.subject) or None) or body.subject
    what = " ".join(one.replace("_", " ") for one in (code, place) if one)
    return "Line of the sheet", join(f"{what}: {body.treat}", amount, body.note)


@body_words.register
def _(body: ClaimPriced, terms: Terms = PLAIN) -> Said:
    return "Claim that does not hold", f"takes off {body.amount:,}: {body.because}"
