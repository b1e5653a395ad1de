"""The mechanism of folding: entries in order, struck ones left out, each handed to the folds of its kind."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterable, Sequence
from typing import Any, TypeVar
from uuid import UUID

from hakutsu.entries.envelope import Entry, Unread
from hakutsu.entries.registry import EntryError, belongs

StationT = TypeVar("StationT")
Fold = Callable[["Gathering", Entry, Any], None]
_GIVEN = {"inspection", "by", "seq", "hash"}  # by the logbook, not by who wrote it down
_folds: dict[str, list[Fold]] = defaultdict(list)
_every: list[Fold] = []


class Gathering:
    """What the folds write into: one mutable part per station, made when first asked for."""

    def __init__(self) -> None:
        self._parts: dict[type[Any], Any] = {}

    def station(self, part: type[StationT]) -> StationT:
        """The part of a station, by its class."""
        if part not in self._parts:
            self._parts[part] = part()
        kept: StationT = self._parts[part]
        return kept

    def __eq__(self, other: object) -> bool:
        """Equal where every part that says anything is."""
        return isinstance(other, Gathering) and self._said() == other._said()

    __hash__ = None  # type: ignore[assignment]  # mutable

    def _said(self) -> dict[type[Any], Any]:
        return {part: state for part, state in self._parts.items() if state != part()}


def fold(kind: str) -> Callable[[Fold], Fold]:
    """Register the decorated function for entries of a kind; several stations may fold one kind."""

    def register(function: Fold) -> Fold:
        _folds[kind].append(function)
        return function

    return register


def folded_kinds() -> set[str]:
    """Kinds that a station folds."""
    return set(_folds)


def fold_every(function: Fold) -> Fold:
    """Register the decorated function for every entry, after the folds of its kind."""
    _every.append(function)
    return function


def struck_ids(entries: Sequence[Entry]) -> set[UUID]:
    """Ids of entries taken back by an entry that itself stands; striking a strike brings the first one back."""
    struck: set[UUID] = set()
    for entry in reversed(entries):
        if entry.strikes is not None and entry.id not in struck:
            struck.add(entry.strikes)
    return struck


def parted(entries: Iterable[Entry]) -> tuple[list[Entry], list[Unread]]:
    """Entries whose bodies this version can read, and the others with why not."""
    found: list[Entry] = []
    unread: list[Unread] = []
    for entry in entries:
        try:
            entry.parsed()
        except EntryError as error:
            unread.append(
                Unread(entry.seq, entry.by, f"{error.field}: {error.message}", entry.model_dump_json(exclude=_GIVEN))
            )
        else:
            found.append(entry)
    return found, unread


def gather(entries: Iterable[Entry], struck: set[UUID]) -> Gathering:
    """Fold all entries that stand, in the order of the logbook; not those that lie where their kind does not belong."""
    gathering = Gathering()
    for entry in entries:
        if entry.id in struck or not belongs(entry.kind, entry.place):
            continue
        body = entry.parsed()
        for function in (*_folds[entry.kind], *_every):
            function(gathering, entry, body)
    return gathering
