"""Entries of the engine station in words; registered with the wording of all entries."""

from __future__ import annotations

from hakutsu.core.engine.fluids import colour_words, fluid_names
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
from hakutsu.report.wording import body_words
from hakutsu.vehicle.mechanics import Chemistry
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


def _join(*parts: str) -> str:
    return ", ".join(part for part in parts if part)


def _number(name: str, value: float | None, unit: str) -> str:
    return "" if value is None else f"{name} {value:g} {unit}".strip()


def _degrees(name: str, value: float | None, terms: Terms) -> str:
    return "" if value is None else f"{name} {terms.quantity('temperature', value)}".strip()


def _ticked(*said: tuple[bool, str]) -> str:
    return _join(*(words for there, words in said if there))


@body_words.register
def _(body: EngineStart, terms: Terms = PLAIN) -> Said:
    smoke = "" if body.smoke.value == "unknown" else f"smoke {body.smoke}"
    noise = _join(body.noise, _number("for", body.noise_s, "s") if body.noise else "")
    effect = "" if body.effect is Effect.UNKNOWN else str(body.effect)
    said = (body.procedure, effect, _number("cranked", body.cranking_s, "s"),
            _degrees("coolant", body.coolant_c, terms), "jump started" if body.jump_started else "", noise, smoke,
            body.note)  # fmt: skip
    return "First start", _join(*said) or "started"


@body_words.register
def _(body: EngineSample, terms: Terms = PLAIN) -> Said:
    oil = "" if body.oil_bar is None else f"oil {terms.quantity('pressure', body.oil_bar)}"
    said = (f"minute {body.minute:g}", _degrees("coolant", body.coolant_c, terms), _number("", body.rpm, "rpm").strip(),
            oil, _degrees("vent", body.vent_c, terms), _ticked((body.fan, "fan running"), (body.by_link, "by link")),
            body.note)  # fmt: skip
    return "Engine run", _join(*said)


@body_words.register
def _(body: EngineLook, terms: Terms = PLAIN) -> Said:
    fumes = "" if body.fumes.value == "unknown" else f"crankcase fumes: {body.fumes}"
    smoke = "" if body.smoke.value == "unknown" else f"smoke {body.smoke}"
    stops = _ticked((body.steam, "steam"), (body.red_zone, "red zone"), (body.oil_lamp, "oil pressure lamp"))
    noise = _join(body.noise, _number("for", body.noise_s, "s") if body.noise else "")
    when = "" if body.when is When.RUNNING else str(body.when)
    return "Look at the running engine", _join(when, fumes, smoke, noise, stops, body.note) or "looked"


@body_words.register
def _(body: EngineIdle, terms: Terms = PLAIN) -> Said:
    conditions = _ticked((body.warm, "warm"), (body.switched, "a load was switched"), (body.carburettor, "carburettor"),
                         (body.by_link, "by link"))  # fmt: skip
    mean = sum(body.rpm) / len(body.rpm)
    return "Idle", _join(
        f"{len(body.rpm)} speeds at {body.hertz:g} a second, mean {mean:.0f} rpm", conditions, body.note
    )


@body_words.register
def _(body: Bay, terms: Terms = PLAIN) -> Said:
    side = terms.say(f"{{{body.side}}}") if body.side else ""
    signs = [terms.say(str(one)) for one in body.signs]
    return terms.say("Under the bonnet"), _join(*signs, side, body.note) or "looked, nothing found"


@body_words.register
def _(body: Air, terms: Terms = PLAIN) -> Said:
    humidity = "" if body.humidity is None else f"{100 * body.humidity:.0f} % humidity"
    said = (_degrees("intake", body.intake_c, terms), _degrees("vent", body.vent_c, terms), humidity,
            _degrees("outside", body.outside_c, terms), "" if body.called else "compressor not called for",
            _degrees("heater", body.heater_c, terms), body.note)  # fmt: skip
    return "Air-conditioning", _join(*said)


@body_words.register
def _(body: Battery, terms: Terms = PLAIN) -> Said:
    rested = _number("rested", body.rested_h, "h")
    conditions = _ticked((body.surface_off, "surface charge off"), (body.asleep, "modules asleep"))
    rated = f"{body.measured:g} of {body.rated:g}" if body.measured is not None and body.rated is not None else ""
    said = (_number("rest", body.rest_v, "V"), rested, conditions, _number("cranking", body.crank_v, "V"),
            _number("charging", body.charging_v, "V"), rated, body.note)  # fmt: skip
    return "Starter battery", _join(*said) or "looked at"


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
    return "High-voltage pack", _join(*said, body.note) or "looked at"


@body_words.register
def _(body: Fluid, terms: Terms = PLAIN) -> Said:
    level = "" if body.level.value == "unknown" else f"level {body.level}"
    smell = "" if body.smell.value == "none" else f"smells {body.smell}"
    freezes = "" if body.freezes_c is None else f"freezes at {terms.quantity('temperature', body.freezes_c)}"
    name = terms.say(fluid_names().get(body.fluid, body.fluid))
    colour = colour_words(body.colour) if body.colour else ""
    said = (level, colour, smell, *map(str, body.debris), *map(str, body.test), freezes, body.note)
    return name[:1].upper() + name[1:], _join(*said) or "looked at"
