"""Fold of the scan: what was read, noted by hand, or could not be read; the lamp; the plate."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.scan import (
    EngineLamp,
    NotScanned,
    PlateRead,
    ScanByHand,
    ScanNone,
    ScanRead,
    ScanTally,
    SellerWork,
)
from hakutsu.vehicle.fitment import usual
from hakutsu.vehicle.scan import MEMORY
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier

PORT = "inside_front"


@dataclass(slots=True)
class ScanDossier:
    """Every read and every result noted by hand, oldest first; the newest of the rest."""

    reads: list[Seen[ScanRead]] = field(default_factory=list)
    by_hand: list[Seen[ScanByHand]] = field(default_factory=list)
    none: Seen[ScanNone] | None = None
    lamp: Seen[EngineLamp] | None = None
    plate: Seen[PlateRead] | None = None
    tally: Seen[ScanTally] | None = None
    seller_work: list[Seen[SellerWork]] = field(default_factory=list)

    @property
    def last(self) -> Seen[ScanRead] | None:
        """What was read last."""
        return self.reads[-1] if self.reads else None

    @property
    def without_electronics(self) -> bool:
        """Whether there is nothing to read: not fitted, not a gap."""
        return self.none is not None and self.none.body.why is NotScanned.NO_ELECTRONICS


@fold("scan.read")
def _read(gathering: Gathering, entry: Entry, body: ScanRead) -> None:
    scan = gathering.station(ScanDossier)
    scan.reads.append(Seen(entry, body))
    scan.none = None  # what was read contradicts that nothing could be


@fold("scan.by_hand")
def _by_hand(gathering: Gathering, entry: Entry, body: ScanByHand) -> None:
    scan = gathering.station(ScanDossier)
    scan.by_hand.append(Seen(entry, body))
    scan.none = None


@fold("scan.none")
def _none(gathering: Gathering, entry: Entry, body: ScanNone) -> None:
    gathering.station(ScanDossier).none = Seen(entry, body)


@fold("scan.lamp")
def _lamp(gathering: Gathering, entry: Entry, body: EngineLamp) -> None:
    gathering.station(ScanDossier).lamp = Seen(entry, body)


@fold("scan.seller_work")
def _seller_work(gathering: Gathering, entry: Entry, body: SellerWork) -> None:
    gathering.station(ScanDossier).seller_work.append(Seen(entry, body))


@fold("scan.tally")
def _tally(gathering: Gathering, entry: Entry, body: ScanTally) -> None:
    gathering.station(ScanDossier).tally = Seen(entry, body)


@fold("scan.plate")
def _plate(gathering: Gathering, entry: Entry, body: PlateRead) -> None:
    gathering.station(ScanDossier).plate = Seen(entry, body)


@expects("scan", "Scan")
def _memory(dossier: Dossier) -> Iterator[Wanted]:
    """The memory, read or said to be unreadable; not on a quick look, nor on a vehicle without electronics or of a time
    before them.
    """
    scan = dossier[ScanDossier]
    tried = scan.reads or scan.by_hand or scan.none is not None
    if not tried and usual("look", "scan", dossier.mechanics.year) is not True:
        return
    if dossier.opening.brief.protocol is Protocol.QUICK or scan.without_electronics:
        return
    yield Wanted(PORT, MEMORY, bool(scan.reads or scan.by_hand), hidden=scan.none is not None)
