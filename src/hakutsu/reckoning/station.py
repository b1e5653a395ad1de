"""What every station brings to a reckoning, and how the stations are found."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from functools import cache
from importlib import import_module
from pkgutil import iter_modules
from typing import TYPE_CHECKING, Any, ClassVar, TypeVar
from uuid import UUID

from hakutsu.core.findings import Finding
from hakutsu.dossier.body import Seen
from hakutsu.dossier.memo import Memo, note, unnoted
from hakutsu.entries.corners import Grade

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning

# The order in which findings, sheet and report tell of stations; one that is not named here comes last.
ORDER = ("claims", "general", "hazards", "film", "body", "corners", "under", "engine", "functions", "cabin", "scan",
         "road", "papers", "service", "variant", "runsheet")  # fmt: skip


class StationRules:
    """The rules of one station over one dossier. A station is a class with a `key`, in a module of this package."""

    key: ClassVar[str] = ""

    def __init__(self, reckoning: Reckoning) -> None:
        self._reckoning = reckoning

    @property
    def memo(self) -> Memo:
        """What the reckoning has computed."""
        return self._reckoning.memo

    @property
    def found(self) -> list[Finding]:
        """Its findings, kept by what they rest on."""
        return self._valued("found", self.findings)

    @property
    def graded(self) -> Mapping[str, tuple[Grade, str]]:
        """Its grades of parts, kept by what they rest on."""
        return self._valued("graded", self.part_grades)

    def _valued(self, name: str, compute: Callable[[], T]) -> T:
        with unnoted():
            value = self.memo.get((self.key, name), compute)
        note((self.key, name), value)
        return value

    def findings(self) -> list[Finding]:
        """Everything its rules found, each with the entries it rests on."""
        return []

    def part_grades(self) -> Mapping[str, tuple[Grade, str]]:
        """What it makes of parts with a life: by piece, the grade with its reason."""
        return {}

    @property
    def limiting(self) -> list[Finding]:
        """Its findings that may cause a limit of the inspection: asked for on every page, so none that is dear."""
        return []

    def waits(self) -> list[str]:
        """What of it waits for somebody, in words."""
        return []

    def __init_subclass__(cls, **more: Any) -> None:
        super().__init_subclass__(**more)
        if cls.key:
            _known[cls.key] = cls


_known: dict[str, type[StationRules]] = {}
StationT = TypeVar("StationT", bound=StationRules)
T = TypeVar("T")


@cache
def _walked() -> None:
    package = import_module("hakutsu.reckoning")
    for module in iter_modules(package.__path__):
        import_module(f"hakutsu.reckoning.{module.name}")


def station_rules() -> list[type[StationRules]]:
    """Every station's rules, in their order."""
    _walked()
    last = len(ORDER)
    return sorted(_known.values(), key=lambda one: ORDER.index(one.key) if one.key in ORDER else last)


def resting_on(
    findings: Iterable[Finding], kept: Mapping[str, Seen[Any]], where: Callable[[str], Iterable[str]]
) -> list[Finding]:
    """Findings with the entries they rest on.

    Parameters
    ----------
    findings : of a table
    kept : the table's entries by key
    where : the keys that a subject rests on; where it names none, all of them
    """
    every = [one.entry.id for one in kept.values()]

    def entries(subject: str) -> list[UUID]:
        mine = [kept[key].entry.id for key in where(subject) if key in kept]
        return mine or every

    return [one.seen_in(*entries(one.subject)) for one in findings]
