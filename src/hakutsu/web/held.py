"""Reckonings at hand: the newest of each inspection, those used last, bounded by what they weigh."""

from __future__ import annotations

from collections import OrderedDict, defaultdict
from dataclasses import dataclass
from threading import Lock
from uuid import UUID

from hakutsu.entries.settings import Settings
from hakutsu.logbook.ends import End
from hakutsu.reckoning import Reckoning

MOST_BYTES = 120_000_000
# Weighed with the demo's fullest inspection: entries with their bodies and states, and everything computed of them.
OF_AN_ENTRY, OF_A_RECKONING = 9_000, 900_000


@dataclass(frozen=True, slots=True)
class Held:
    """A reckoning, the entry it reaches to, and the account's settings it was made with."""

    end: End
    settings: Settings
    reckoning: Reckoning

    @property
    def weight(self) -> int:
        """About what it takes [bytes]."""
        return OF_A_RECKONING + OF_AN_ENTRY * self.end.seq


class HeldReckonings:
    """The newest reckoning of every inspection that was asked for lately."""

    def __init__(self, most: int = MOST_BYTES) -> None:
        self._most = most
        self._held: OrderedDict[UUID, Held] = OrderedDict()
        self._weight = 0
        self._lock = Lock()
        self._alone: defaultdict[UUID, Lock] = defaultdict(Lock)

    def alone(self, inspection: UUID) -> Lock:
        """Held by whoever reckons an inspection: one at a time."""
        with self._lock:
            return self._alone[inspection]

    def newest(self, inspection: UUID) -> Held | None:
        """The newest of an inspection, if it is at hand."""
        with self._lock:
            held = self._held.get(inspection)
            if held is not None:
                self._held.move_to_end(inspection)
            return held

    def keep(self, inspection: UUID, held: Held) -> None:
        """Put one in the place of the older; those not asked for longest make room."""
        with self._lock:
            old = self._held.pop(inspection, None)
            self._weight += held.weight - (old.weight if old else 0)
            self._held[inspection] = held
            while self._weight > self._most and len(self._held) > 1:
                gone, least = self._held.popitem(last=False)
                self._alone.pop(gone, None)
                self._weight -= least.weight
