"""Two reads of one vehicle, line by line: what came, what went, what stayed."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.scan.codec.readiness import monitor_words
from hakutsu.entries.scan import ScanRead


@dataclass(frozen=True, slots=True)
class Change:
    """One line: unit, what it is, and how it stood before and after; equal where it stayed."""

    unit: str
    what: str
    before: str
    after: str

    @property
    def same(self) -> bool:
        """Whether it stayed as it was."""
        return self.before == self.after


def _lines(read: ScanRead) -> dict[tuple[str, str], str]:
    found: dict[tuple[str, str], str] = {}
    for unit in read.modules:
        for code in unit.codes or ():
            found[unit.address, code.code] = ", ".join(code.memory)
        for name, state in unit.readiness.items():
            if state != "not supported":
                found[unit.address, monitor_words(name)] = state
        if unit.lamp is not None:
            found[unit.address, "engine lamp"] = "switched on" if unit.lamp else "not switched on"
        since = unit.since_cleared
        for name, value in (("km since cleared", since.km), ("warm-ups since cleared", since.warm_ups)):
            if value is not None:
                found[unit.address, name] = f"{value:,}"
    return found


def compared(before: ScanRead, after: ScanRead) -> list[Change]:
    """Every line of either, those that changed first; "–" where a line is not there."""
    old, new = _lines(before), _lines(after)
    keys = list(dict.fromkeys([*old, *new]))
    found = [Change(unit, what, old.get((unit, what), "–"), new.get((unit, what), "–")) for unit, what in keys]
    return sorted(found, key=lambda one: one.same)
