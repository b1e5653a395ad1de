"""The mechanism of folding: entries in order, struck ones left out, each handed to the folds of its kind."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import fields
from itertools import count
from typing import Any, TypeVar
from uuid import UUID

from hakutsu.entries.envelope import Entry, Unread
from hakutsu.entries.registry import EntryError, belongs

StationT = TypeVar("StationT")
Fold = Callable[["Gathering", Entry, Any], None]
_GIVEN = {"inspection", "by", "seq", "hash"}  # by the logbook, not by who wrote it down
_folds: dict[str, list[Fold]] = defaultdict(list)
_every: list[Fold] = []


def own_copy(state: Any) -> Any:
    """A copy of a state that can be folded into: what folds may change is copied, what is frozen is shared."""
    if isinstance(state, dict):
        return dict(state) if _all_shared(state.values()) else {key: own_copy(one) for key, one in state.items()}
    if isinstance(state, list):
        return list(state) if _all_shared(state) else [own_copy(one) for one in state]
    if isinstance(state, set):
        return set(state)
    if _shared(type(state)):
        return state
    copied = object.__new__(type(state))
    for one in fields(state):
        setattr(copied, one.name, own_copy(getattr(state, one.name)))
    return copied


def _all_shared(states: Collection[Any]) -> bool:
    return all(map(_shared, set(map(type, states))))


def _shared(kind: type[Any]) -> bool:
    """Whether a state of a type is never changed, so that its copies share it."""
    if issubclass(kind, dict | list | set):
        return False
    about = getattr(kind, "__dataclass_params__", None)
    return about is None or bool(about.frozen)


class Gathering:
    """What the folds write into: one mutable part per station, made when first asked for.

    One that goes on from another copies a part when it is first folded into: what was gathered before stays as it was.
    """

    def __init__(self, before: Gathering | None = None) -> None:
        self._parts: dict[type[Any], Any] = dict(before._parts) if before else {}
        self._shared = set(self._parts)

    def station(self, part: type[StationT]) -> StationT:
        """The part of a station, by its class, to be folded into."""
        if part not in self._parts:
            self._parts[part] = part()
        elif part in self._shared:
            self._parts[part] = own_copy(self._parts[part])
            self._shared.discard(part)
        kept: StationT = self._parts[part]
        return kept

    def part(self, part: type[StationT]) -> StationT:
        """The part of a station, to be read."""
        kept: StationT = self._parts.get(part) or self._parts.setdefault(part, part())
        return kept

    def parts(self) -> Mapping[type[Any], Any]:
        """Every part that was asked for."""
        return self._parts

    def settled(self, before: Gathering) -> None:
        """Take over from another the parts that say the same as there."""
        for part, state in self._parts.items():
            there = before._parts.get(part)
            if there is not None and there is not state and there == state:
                self._parts[part] = there

    def __eq__(self, other: object) -> bool:
        """Equal where every part that says anything is."""
        return isinstance(other, Gathering) and self._said() == other._said()

    __hash__ = None  # type: ignore[assignment]  # mutable

    def _said(self) -> dict[type[Any], Any]:
        return {part: state for part, state in self._parts.items() if state != part()}


UNTOUCHED = 0
_version = count(1)


def versions(
    states: Gathering, before: Gathering | None = None, old: Mapping[type[Any], int] | None = None
) -> dict[type[Any], int]:
    """A number for every state, one that was never given before where it is no longer the same object.

    `old` are those of the states before.
    """
    parts, known = (before.parts() if before else {}), old or {}
    return {
        part: known.get(part, UNTOUCHED) if state is parts.get(part) else next(_version)
        for part, state in states.parts().items()
    }


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


def gather(entries: Iterable[Entry], struck: set[UUID], before: Gathering | None = None) -> Gathering:
    """Fold all entries that stand, in the order of the logbook; not those that lie where their kind does not belong.

    With `before` they are those that came since, and strike nothing of what was gathered there.
    """
    gathering = Gathering(before)
    for entry in entries:
        if entry.id in struck or not belongs(entry.kind, entry.place):
            continue
        body = entry.parsed()
        for function in (*_folds[entry.kind], *_every):
            function(gathering, entry, body)
    return gathering
