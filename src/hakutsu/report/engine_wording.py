"""Entries of the engine station in words; registered with the wording of all entries."""

from __future__ import annotations

from hakutsu.core.engine.fluids import colour_words, fluid_names
from hakutsu.entries.by_feel import AirByHand, ByEar, Needle
from hakutsu.entries.engine import (
    Air,
    Battery,
    Bay,
    Effect,
    EngineIdle,
    EngineLook,
    EngineSample,
    EngineStart,
    Pack,
    When,
)
from hakutsu.entries.fluids import Fluid
from hakutsu.report.wording import body_words, join
from hakutsu.vehicle.mechanics import Chemistry
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


def _number(name: str, value: float | None, unit: str) -> str:
    return "" if value is None else f"{name} {value:g} {unit}".strip()


def _degrees(name: str, value: float | None, terms: Terms) -> str:
    return "" if value is None else f"{name} {terms.quantity('temperature', value)}".strip()


def _ticked(*said: tuple[bool, str]) -> str:
    return join(*(words for there, words in said if there))


def _smoke(body: EngineStart | EngineLook) -> str:
    if body.smoke.value == "unknown":
        return ""
    return join(f"smoke {body.smoke}", "" if body.smoke_is.value == "unknown" else str(body.smoke_is))


def _noise(body: EngineStart | EngineLook) -> str:
    if not body.noise:
        return ""
    return join(
        body.noise, _number("for", body.noise_s, "s"), "" if body.noise_is.value == "unknown" else str(body.noise_is)
    )


@body_words.register
def _(body: EngineStart, terms: Terms = PLAIN) -> Said:
    smoke, noise = _smoke(body), _noise(body)
    effect = "" if body.effect is Effect.UNKNOWN else str(body.effect)
    said = (body.procedure, effect, _number("cranked", body.cranking_s, "s"),
            _degrees("coolant", body.coolant_c, terms), "jump started" if body.jump_started else "", noise, smoke,
            body.note)  # fmt: skip
    return "First start", join(*said) or "started"


@body_words.register
def _(body: EngineSample, terms: Terms = PLAIN) -> Said:
    oil = "" if body.oil_bar is None else f"oil {terms.quantity('pressure', body.oil_bar)}"
    minute = "" if body.minute is None else f"minute {body.minute:g}"
    said = (minute, _degrees("coolant", body.coolant_c, terms), _number("", body.rpm, "rpm").strip(),
            oil, _degrees("vent", body.vent_c, terms), _ticked((body.fan, "fan running"), (body.by_link, "by link")),
            body.note)  # fmt: skip
    return "Engine run", join(*said)


@body_words.register
def _(body: EngineLook, terms: Terms = PLAIN) -> Said:
    fumes = "" if body.fumes.value == "unknown" else f"crankcase fumes: {body.fumes}"
    stops = _ticked((body.steam, "steam"), (body.red_zone, "red zone"), (body.oil_lamp, "oil pressure lamp"))
    smoke, noise = _smoke(body), _noise(body)
    when = "" if body.when is When.RUNNING else str(body.when)
    return "Look at the running engine", join(when, fumes, smoke, noise, stops, body.note) or "looked"


@body_words.register
def _(body: EngineIdle, terms: Terms = PLAIN) -> Said:
    conditions = _ticked((body.warm, "warm"), (body.switched, "a load was switched"), (body.carburettor, "carburettor"),
                         (body.by_link, "by link"))  # fmt: skip
    mean = sum(body.rpm) / len(body.rpm)
    return "Idle", join(
        f"{len(body.rpm)} speeds at {body.hertz:g} a second, mean {mean:.0f} rpm", conditions, body.note
    )


@body_words.register
def _(body: Bay, terms: Terms = PLAIN) -> Said:
    side = terms.say(f"{{{body.side}}}") if body.side else ""
    signs = [terms.say(str(one)) for one in body.signs]
    return terms.say("Under the bonnet"), join(*signs, side, body.note) or "looked, nothing found"


@body_words.register
def _(body: Air, terms: Terms = PLAIN) -> Said:
    humidity = "" if body.humidity is None else f"{100 * body.humidity:.0f} % humidity"
    said = (_degrees("intake", body.intake_c, terms), _degrees("vent", body.vent_c, terms), humidity,
            _degrees("outside", body.outside_c, terms), _number("after", body.minutes, "min"),
            "" if body.called else "compressor not called for",
            _degrees("heater", body.heater_c, terms), body.note)  # fmt: skip
    return "Air-conditioning", join(*said)


@body_words.register
def _(body: Battery, terms: Terms = PLAIN) -> Said:
    rested = _number("rested", body.rested_h, "h")
    conditions = _ticked((body.surface_off, "surface charge off"), (body.asleep, "modules asleep"))
    rated = f"{body.measured:g} of {body.rated:g}" if body.measured is not None and body.rated is not None else ""
    said = (_number("rest", body.rest_v, "V"), rested, conditions, _number("cranking", body.crank_v, "V"),
            _number("charging", body.charging_v, "V"), rated, body.note)  # fmt: skip
    return "Starter battery", join(*said) or "looked at"


@body_words.register
def _(body: Pack, terms: Terms = PLAIN) -> Said:
    health = "" if body.health is None else f"health {100 * body.health:.0f} %"
    charged = "" if body.charged is None else f"at {100 * body.charged:.0f} % charge"
    kind = "" if body.chemistry is Chemistry.UNKNOWN else str(body.chemistry)
    said = (
        health,
        kind,
        _number("cells", body.spread_mv, "mV apart"),
        charged,
        _number("", body.cycles, "cycles").strip(),
    )
    return "High-voltage pack", join(*said, body.note) or "looked at"


@body_words.register
def _(body: Fluid, terms: Terms = PLAIN) -> Said:
    level = "" if body.level.value == "unknown" else f"level {body.level}"
    smell = {"unknown": "", "none": "smells of nothing particular"}.get(body.smell.value, f"smells of {body.smell}")
    state = "" if body.state.value == "unknown" else str(body.state)
    freezes = "" if body.freezes_c is None else f"freezes at {terms.quantity('temperature', body.freezes_c)}"
    name = terms.say(fluid_names().get(body.fluid, body.fluid))
    colour = colour_words(body.colour) if body.colour else ""
    said = (state, level, colour, smell, *map(str, body.debris), *map(str, body.test), freezes, body.note)
    return name[:1].upper() + name[1:], join(*said) or "looked at"


@body_words.register
def _(body: Needle, terms: Terms = PLAIN) -> Said:
    at = ""
    if body.share is not None:
        low, high = (round(100 * one) for one in body.share)
        at = f"at {low} % of its scale" if low == high else f"at {low} to {high} % of its scale"
    when = "" if body.when.value == "unknown" else str(body.when)
    steady = "" if body.steady.value == "unknown" else str(body.steady)
    return f"Needle, {body.of}", join(when, at, steady, body.note)


@body_words.register
def _(body: ByEar, terms: Terms = PLAIN) -> Said:
    when = "" if body.when.value == "unknown" else str(body.when)
    return "Engine by ear", join(*map(str, body.sounds), when, body.note)


@body_words.register
def _(body: AirByHand, terms: Terms = PLAIN) -> Said:
    told = (("vent", body.cooled), ("compressor", body.compressor), ("heater", body.heats))
    return "Air-conditioning by hand", join(
        *(f"{name} {one}" for name, one in told if one.value != "unknown"), body.note
    )
