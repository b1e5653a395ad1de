"""What the protocol expects to be looked at: each station says it of its own parts."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


class Covered(StrEnum):
    """State of one thing that is to be looked at or read."""

    OPEN = "open"
    DONE = "done"
    LIMITED = "limited"
    NOTHING_TO_READ = "nothing to read"


@dataclass(frozen=True, slots=True)
class Check:
    """A kind of look that is expected: its key and its name."""

    key: str
    name: str


@dataclass(frozen=True, slots=True)
class PartCoverage:
    """A look at one panel or part that a station expects."""

    check: Check
    part: str
    state: Covered


@dataclass(frozen=True, slots=True)
class Wanted:
    """A look that is expected: the place one stands at, the part (as limits name it), whether it was looked at, and
    whether it could not be seen.
    """

    place: str
    part: str
    looked: bool
    hidden: bool = False


Expecting = Callable[["Dossier"], Iterator[Wanted]]
# The order in which kinds of looks are listed; one that is not named here comes last.
ORDER = ("fit", "glass", "tyres", "brakes", "engine", "functions", "under", "cabin", "scan", "road")
_expecting: dict[Check, Expecting] = {}


def expects(key: str, name: str) -> Callable[[Expecting], Expecting]:
    """Register the decorated function: it gives what a station expects to be looked at on this vehicle."""

    def register(function: Expecting) -> Expecting:
        _expecting[Check(key, name)] = function
        return function

    return register


def checks() -> list[Check]:
    """All kinds of looks, in their order."""
    return sorted(_expecting, key=lambda one: ORDER.index(one.key) if one.key in ORDER else len(ORDER))


def parts_covered(dossier: Dossier) -> list[tuple[str, PartCoverage]]:
    """Every look that is expected with the place one stands at, and how far it is."""
    general = dossier.general
    found = []
    for check in checks():
        for one in _expecting[check](dossier):
            done = one.looked or one.part in general.nothing
            limited = one.hidden or (not done and one.part in general.limits)
            state = Covered.LIMITED if limited else Covered.DONE if done else Covered.OPEN
            found.append((one.place, PartCoverage(check, one.part, state)))
    return found
