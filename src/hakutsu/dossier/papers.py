"""Fold of numbers, dates and records."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.papers import (
    CodeRead,
    DatedMark,
    DistanceRecord,
    EngineNumber,
    LotNumber,
    NumberRead,
    RegisterAsked,
)


@dataclass(slots=True)
class PapersDossier:
    """What was read, in the order of the logbook; codes by what they are of, registers by key."""

    numbers: list[Seen[NumberRead]] = field(default_factory=list)
    engine: list[Seen[EngineNumber]] = field(default_factory=list)
    codes: dict[str, Seen[CodeRead]] = field(default_factory=dict)
    lot: Seen[LotNumber] | None = None
    marks: list[Seen[DatedMark]] = field(default_factory=list)
    records: list[Seen[DistanceRecord]] = field(default_factory=list)
    asked: dict[str, Seen[RegisterAsked]] = field(default_factory=dict)


@fold("papers.number")
def _number(gathering: Gathering, entry: Entry, body: NumberRead) -> None:
    gathering.station(PapersDossier).numbers.append(Seen(entry, body))


@fold("papers.engine_number")
def _engine(gathering: Gathering, entry: Entry, body: EngineNumber) -> None:
    gathering.station(PapersDossier).engine.append(Seen(entry, body))


@fold("papers.code")
def _code(gathering: Gathering, entry: Entry, body: CodeRead) -> None:
    gathering.station(PapersDossier).codes[body.of.value] = Seen(entry, body)


@fold("papers.lot")
def _lot(gathering: Gathering, entry: Entry, body: LotNumber) -> None:
    gathering.station(PapersDossier).lot = Seen(entry, body)


@fold("papers.mark")
def _mark(gathering: Gathering, entry: Entry, body: DatedMark) -> None:
    gathering.station(PapersDossier).marks.append(Seen(entry, body))


@fold("papers.distance")
def _distance(gathering: Gathering, entry: Entry, body: DistanceRecord) -> None:
    gathering.station(PapersDossier).records.append(Seen(entry, body))


@fold("papers.asked")
def _asked(gathering: Gathering, entry: Entry, body: RegisterAsked) -> None:
    gathering.station(PapersDossier).asked[body.register_key] = Seen(entry, body)
