"""What the engine station shows."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from markupsafe import Markup

from hakutsu.core.engine.air import air_table
from hakutsu.core.engine.fluids import fluid_table
from hakutsu.core.engine.warm_up import Warming
from hakutsu.core.life.components import components, fitted
from hakutsu.dossier.body import Seen
from hakutsu.entries import Entry, by_feel, fluids
from hakutsu.entries import engine as kinds
from hakutsu.entries.corners import Grade
from hakutsu.entries.registry import Body
from hakutsu.figures.svg import swatch
from hakutsu.figures.warm_up import warm_up_curve
from hakutsu.instruments.diagnostic.simulated_engine import engines
from hakutsu.reckoning import Reckoning
from hakutsu.report.engine_section import COLD, oil_words
from hakutsu.report.finding_wording import found_line
from hakutsu.report.wording import body_words
from hakutsu.vehicle.mechanics import Chemistry, Power
from hakutsu.web.rendering import fragment

ROOMS = {
    "fluids": "Fluids",
    "bay": "Under the bonnet",
    "run": "Engine run",
    "air": "Air and heat",
    "electric": "Battery and pack",
}
BAY_PARTS = (
    "battery", "coolant_hoses", "radiator", "water_pump", "thermostat", "auxiliary_belt", "alternator", "starter",
    "mounts", "turbo", "fuel_pump", "air_compressor", "brake_pipes",
)  # fmt: skip
AIR = ("air_conditioning", "heater")
WATCHES = (10, 20, 30)


def engine_context(reckoning: Reckoning, room: str) -> dict[str, Any]:
    """One room."""
    terms, started = reckoning.terms, reckoning.dossier.engine.start
    context = {
        "dossier": reckoning.dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "rooms": ROOMS,
        "room": room,
        "temperature": terms.scale("temperature"),
        "pressure": terms.scale("pressure"),
        "config": json.dumps(
            {
                "inspection": str(reckoning.dossier.inspection),
                "room": room,
                "started": started.entry.at.isoformat() if started else None,
            }
        ),
    }
    return context | _ROOMS[room](reckoning)


def _run(reckoning: Reckoning) -> dict[str, Any]:
    """The run: its course, what it says, what was noted, and choices of its forms."""
    terms, found = reckoning.terms, reckoning.engine
    return {
        "stood": _stood(reckoning),
        "electric": reckoning.dossier.mechanics.power is Power.ELECTRIC,
        "cold": COLD[found.cold],
        "curve": Markup(warm_up_curve(found.samples, found.warm_up, terms)),
        "verdict": found.verdict,
        "verdict_words": terms.say(found.verdict.words),
        "stops": found.verdict.warming is Warming.STOP or found.verdict.repeat,
        "settled": _settled(reckoning),
        "idle": found.idle,
        "oil": oil_words(found.oil, terms) if found.oil else "",
        "run_found": [found_line(one, terms) for one in (*found.run_found, *found.by_feel_found)],
        "after": [(terms.say(one.words), terms.say(one.before), one.done) for one in found.after_drive],
        "run": [(entry, body_words(body, terms)[1]) for entry, body in _noted(reckoning)],
        "effects": list(kinds.Effect),
        "whens": list(kinds.When),
        "smokes": list(kinds.Smoke),
        "fumes": list(kinds.Fumes),
        "clears": list(kinds.Clears),
        "endings": list(kinds.Ended),
        "sounds": list(by_feel.Sounds),
        "moments": list(by_feel.Moment),
        "needles": list(by_feel.NeedleOf),
        "steadiness": list(by_feel.Steadiness),
        "engines": list(engines()),
        "watches": WATCHES,
    }


def _air(reckoning: Reckoning) -> dict[str, Any]:
    """What was measured at the vents, and what it says."""
    seen, found = reckoning.dossier.engine.air, reckoning.engine
    return {
        "air": seen,
        "air_said": found.air,
        "heats": found.heats,
        "heater_c": air_table().heater.heats_c,
        "by_hand": reckoning.dossier.engine.air_by_hand,
        "by_hand_words": _said(reckoning.dossier.engine.air_by_hand, reckoning),
        "air_found": [found_line(one, reckoning.terms) for one in found.electric_found if one.subject in AIR],
        "cooled": list(by_feel.Cooled),
        "compressors": list(by_feel.Compressor),
        "heats_by_hand": list(by_feel.Heats),
        "air_words": body_words(seen.body, reckoning.terms)[1] if seen else "",
    }


def _said(seen: Seen[Any] | None, reckoning: Reckoning) -> str:
    return body_words(seen.body, reckoning.terms)[1] if seen else ""


def _electric(reckoning: Reckoning) -> dict[str, Any]:
    """Battery, charging and pack."""
    seen, found = reckoning.dossier.engine, reckoning.engine
    said, expected = found.pack
    return {
        "battery": seen.battery,
        "battery_said": found.battery,
        "pack": seen.pack,
        "pack_said": said,
        "pack_expected": expected,
        "chemistries": list(Chemistry),
    }


def _stood(reckoning: Reckoning) -> str:
    """How long it stood and what was done with it, as noted on arrival."""
    arrival = reckoning.dossier.day.arrival
    if arrival is None or arrival.stood_days is None:
        return "not known"
    where = f", {arrival.stood_where}" if arrival.stood_where else ""
    return f"{arrival.stood_days} days{where}, {arrival.moved}"


def _bay(reckoning: Reckoning) -> dict[str, Any]:
    """Parts under the bonnet that have a life, with their grades; signs."""
    terms, dossier, derived = reckoning.terms, reckoning.dossier, reckoning.condition.derived
    rows = []
    for key in BAY_PARTS:
        if fitted(components()[key], dossier.mechanics) is False:
            continue
        seen = dossier.corners.gear.get(key)
        grade, why = derived.get(key, (None, ""))
        rows.append((key, terms.say(components()[key].name), components()[key].tested, seen, grade, terms.say(why)))
    signs = dossier.engine.bay
    return {
        "bay_rows": rows,
        "grades": list(Grade),
        "bay_signs": list(kinds.BaySign),
        "bay": signs,
        "bay_words": body_words(signs.body, terms)[1] if signs else "",
        "bay_found": [found_line(one, terms) for one in reckoning.engine.bay_found],
    }


def _noted(reckoning: Reckoning) -> list[tuple[Entry, Body]]:
    """Everything noted of the run, in the order of the logbook."""
    engine = reckoning.dossier.engine
    found: list[tuple[Entry, Body]] = [(one.entry, one.body) for one in engine.samples]
    found += [(one.entry, one.body) for one in engine.looks]
    found += [(one.entry, one.body) for one in engine.idles]
    found += [(one.entry, one.body) for one in engine.ears] + [(one.entry, one.body) for one in engine.needles]
    found += [(run.start.entry, run.start.body) for run in engine.runs if run.start is not None]
    return sorted(found, key=lambda one: one[0].seq)


def _fluids(reckoning: Reckoning) -> dict[str, Any]:
    """What is looked at, with its swatches, and what it says."""
    terms, table, looks = reckoning.terms, fluid_table(), reckoning.dossier.engine.fluids
    every = reckoning.dossier.engine.fluid_looks
    rows = []
    for key in reckoning.engine.fluid_keys:
        row = table["fluid"][key]
        swatches = [
            (one, table["colour"][one]["words"], Markup(swatch(table["colour"][one]["fill"]))) for one in row["colours"]
        ]
        said = [(seen.entry.id, body_words(seen.body, terms)[1]) for seen in every.get(key, ())]
        rows.append((key, terms.say(row["name"]), row["caution"], swatches, looks.get(key), said))
    found = [
        (terms.say(one.finding.words), one.next, one.finding.settles, str(one.finding.consequence), len(one.fluids) > 1)
        for one in reckoning.engine.fluids
    ]
    return {
        "fluid_rows": rows,
        "fluids_found": found,
        "states": list(fluids.FluidState),
        "levels": list(fluids.FluidLevel),
        "smells": list(fluids.Smell),
        "debris": list(fluids.Debris),
        "tests": list(fluids.FluidTest),
    }


def _settled(reckoning: Reckoning) -> str:
    """Where it settled, with its interval."""
    fit = reckoning.engine.warm_up
    if fit is None or fit.settled is None:
        return ""
    scale = reckoning.terms.scale("temperature")
    low, high = (scale.number(one) for one in (fit.settled.low, fit.settled.high))
    return f"settled at {scale.words(fit.settled.median)} ({low} to {high})"


_ROOMS: dict[str, Callable[[Reckoning], dict[str, Any]]] = {
    "fluids": _fluids, "bay": _bay, "run": _run, "air": _air, "electric": _electric,
}  # fmt: skip


def engine_fragments(reckoning: Reckoning, room: str | None) -> dict[str, str]:
    """The moving part of a room."""
    if room not in ROOMS:
        return {}
    context = engine_context(reckoning, room)
    return {
        f"engine_{room}": fragment(f"engine/_{room}.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }
