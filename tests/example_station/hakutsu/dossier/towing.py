"""Fold of the tow bar's socket."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.towing import TowingSocket

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


@dataclass(slots=True)
class TowingDossier:
    """The last try of the socket."""

    socket: Seen[TowingSocket] | None = None


@fold("towing.socket")
def _socket(gathering: Gathering, entry: Entry, body: TowingSocket) -> None:
    gathering.station(TowingDossier).socket = Seen(entry, body)


@expects("towing", "Towing")
def _to_try(dossier: Dossier) -> Iterator[Wanted]:
    yield Wanted("rear", "towing_socket", dossier[TowingDossier].socket is not None)
