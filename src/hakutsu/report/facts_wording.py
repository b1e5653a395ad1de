"""What entries about the vehicle itself say, in words."""

from __future__ import annotations

from hakutsu.core.life.components import components, scheduled_items
from hakutsu.entries.facts import Fact, Fitted, OriginSaid, Restored, Source
from hakutsu.report.wording import body_words, join
from hakutsu.vehicle.engine import engine_looks
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.facts import FACT_NAMES, fact_words
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


def fitting_name(key: str) -> str:
    """The name of a thing that may be fitted, its side in braces."""
    for table in (equipment(), components(), scheduled_items(), engine_looks()):
        if key in table:
            return str(table[key].name)
    return key


def _source(source: Source) -> str:
    return "" if source is Source.UNKNOWN else str(source)


@body_words.register
def _(body: Fact, terms: Terms = PLAIN) -> Said:
    value = "not known" if body.value == "" else fact_words(body.fact, getattr(body.applied(Mechanics()), body.fact))
    return FACT_NAMES[body.fact].capitalize(), join(terms.say(value), _source(body.source), body.note)


@body_words.register
def _(body: Fitted, terms: Terms = PLAIN) -> Said:
    there, absent = (", ".join(terms.say(fitting_name(key)) for key in keys) for keys in (body.there, body.absent))
    return "Fitted", join(f"there: {there}" if there else "", f"not there: {absent}" if absent else "", body.note)


@body_words.register
def _(body: OriginSaid, terms: Terms = PLAIN) -> Said:
    told = f"{body.part}: {body.origin} {body.when}".strip()
    return "Origin", join(told, body.proof, _source(body.source), body.note)


@body_words.register
def _(body: Restored, terms: Terms = PLAIN) -> Said:
    by = f"by {body.by_whom}" if body.by_whom else ""
    return "Restored", join("; ".join(body.what), body.when, by, body.proof, _source(body.source), body.note)
