"""Fold of the vehicle's own facts: what drives, carries and stops it, what it is fitted with, where parts come from."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.facts import FACTS, Fact, Fitted, OriginSaid, Restored, Source
from hakutsu.entries.money import MechanicsSaid
from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.mechanics import UNKNOWN, Mechanics


@dataclass(frozen=True, slots=True)
class Mention:
    """One fact as one entry says it."""

    entry: Entry
    value: Any
    source: Source


@dataclass(slots=True)
class Facts:
    """Facts of the vehicle as they were said last, every mention of each, and what it is said to have and not."""

    mechanics: Mechanics = field(default_factory=Mechanics)
    entry: Entry | None = None
    mentions: dict[str, list[Mention]] = field(default_factory=dict)
    fitted: dict[str, bool] = field(default_factory=dict)
    origins: list[Seen[OriginSaid]] = field(default_factory=list)
    restored: list[Seen[Restored]] = field(default_factory=list)

    def changed(self, mechanics: Mechanics) -> None:
        """Take over facts, with what was said of fitted parts beside them."""
        there = {key for key, said in self.fitted.items() if said}
        also = tuple(dict.fromkeys((*mechanics.also_fitted, *there)))
        absent = tuple(dict.fromkeys((*mechanics.not_fitted, *(self.fitted.keys() - there))))
        self.mechanics = mechanics.model_copy(update={
            "also_fitted": tuple(key for key in also if self.fitted.get(key) is not False),
            "not_fitted": tuple(key for key in absent if self.fitted.get(key) is not True),
        })  # fmt: skip


@fold("inspection.mechanics")
def _mechanics(gathering: Gathering, entry: Entry, body: MechanicsSaid) -> None:
    """The whole form: it takes the place of what it said before; what it leaves open keeps what was said apart."""
    facts = gathering.station(Facts)
    facts.entry = entry
    mechanics = body.mechanics
    for name in FACTS:
        value = getattr(mechanics, name)
        apart = [one for one in facts.mentions.get(name, ()) if one.entry.kind != entry.kind]
        said = [Mention(entry, value, Source.UNKNOWN)] if _is_said(value) else []
        facts.mentions[name] = [*apart, *said]
        if apart and not said:
            mechanics = mechanics.model_copy(update={name: apart[-1].value})
    facts.changed(mechanics)


def _is_said(value: Any) -> bool:
    return value is not None and value is not False and value != "" and key_of(value) != UNKNOWN


@fold("vehicle.fact")
def _fact(gathering: Gathering, entry: Entry, body: Fact) -> None:
    facts = gathering.station(Facts)
    mechanics = body.applied(facts.mechanics)
    value = getattr(mechanics, body.fact)
    if body.corrects or body.value == "":
        facts.mentions.pop(body.fact, None)
    if body.value != "":
        facts.mentions.setdefault(body.fact, []).append(Mention(entry, value, body.source))
    facts.mechanics = mechanics


@fold("vehicle.fitted")
def _fitted(gathering: Gathering, entry: Entry, body: Fitted) -> None:
    facts = gathering.station(Facts)
    facts.fitted |= dict.fromkeys(body.there, True) | dict.fromkeys(body.absent, False)
    facts.changed(facts.mechanics)


@fold("vehicle.origin")
def _origin(gathering: Gathering, entry: Entry, body: OriginSaid) -> None:
    gathering.station(Facts).origins.append(Seen(entry, body))


@fold("vehicle.restored")
def _restored(gathering: Gathering, entry: Entry, body: Restored) -> None:
    gathering.station(Facts).restored.append(Seen(entry, body))
