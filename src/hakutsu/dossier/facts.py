"""Fold of the vehicle's own facts: what drives, carries and stops it, what it is fitted with, where parts come from."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.facts import FACTS, Fact, Fitted, OriginSaid, Restored, Source
from hakutsu.entries.money import MechanicsSaid
from hakutsu.vehicle.facts import fact_words, is_said
from hakutsu.vehicle.mechanics import Mechanics

FACT_KIND = "vehicle.fact"


@dataclass(frozen=True, slots=True)
class Mention:
    """One fact as one entry says it."""

    fact: str
    entry: Entry
    value: Any
    source: Source

    @property
    def told(self) -> Any:
        """As it was told: a first use of which only the year or the month was said stays that."""
        alone = self.fact == "first_used" and self.entry.kind == FACT_KIND
        said = self.entry.body["value"] if alone else self.value
        return f"{said:.0f}" if alone and isinstance(said, float) else said

    @property
    def words(self) -> str:
        """In words for `Terms.say`, with where it comes from."""
        said = fact_words(self.fact, self.told)
        return said if self.source is Source.UNKNOWN else f"{said} ({self.source})"


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
        said = dict.fromkeys(mechanics.also_fitted, True) | dict.fromkeys(mechanics.not_fitted, False) | self.fitted
        self.mechanics = mechanics.model_copy(update={
            "also_fitted": tuple(key for key, there in said.items() if there),
            "not_fitted": tuple(key for key, there in said.items() if not there),
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
        said = [Mention(name, entry, value, Source.UNKNOWN)] if is_said(value) else []
        facts.mentions[name] = [*apart, *said]
        if apart and not said:
            mechanics = mechanics.model_copy(update={name: apart[-1].value})
    facts.changed(mechanics)


@fold(FACT_KIND)
def _fact(gathering: Gathering, entry: Entry, body: Fact) -> None:
    facts = gathering.station(Facts)
    mechanics = body.applied(facts.mechanics)
    value = getattr(mechanics, body.fact)
    if body.corrects or body.value == "":
        facts.mentions.pop(body.fact, None)
    if body.value != "":
        facts.mentions.setdefault(body.fact, []).append(Mention(body.fact, entry, value, body.source))
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
