"""What the rules make of the underside and of leaks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import ClassVar
from uuid import UUID

from hakutsu.core.findings import Finding
from hakutsu.core.under.leaks import LeakFound, leak_found, leak_grade, leaking_piece, linked
from hakutsu.core.under.zones import uneven, zone_found
from hakutsu.dossier import UnderDossier
from hakutsu.dossier.body import Seen
from hakutsu.dossier.memo import kept
from hakutsu.entries.corners import Grade
from hakutsu.entries.under import Exhaust, Leak
from hakutsu.reckoning.station import StationRules
from hakutsu.vehicle.under import zones

BELOW = ("bay", "under_front", "under_middle", "under_rear")
EXHAUST = ("tunnel", "rear_end")
EXHAUSTED = {Exhaust.SOUND: Grade.SOUND, Exhaust.PATCHED: Grade.WORN, Exhaust.LOOSE: Grade.WORN,
             Exhaust.LEAKS: Grade.FAILING}  # fmt: skip


class UnderReckoned(StationRules):
    """Findings by zone, twins that did not age alike, and leaks over all their looks."""

    key: ClassVar[str] = "under"

    @property
    def _under(self) -> UnderDossier:
        return self._reckoning.dossier.under

    def findings(self) -> list[Finding]:
        """Of zones, twins and leaks."""
        leaks = [
            leak.finding.seen_in(*(seen.entry.id for seen in looks))
            for leak, looks in zip(self.leaks, self._under.leaks.values(), strict=True)
        ]
        return [*self.zones, *leaks]

    @kept
    def zones(self) -> list[Finding]:
        """Findings of every zone looked at, and between twins."""
        looks = {key: seen.body for key, seen in self._under.zones.items()}
        each = [one for look in looks.values() for one in zone_found(look)]
        both = uneven(looks)
        return [one.seen_in(*self._looks_at(one.subject)) for one in each] + [
            one.seen_in(*self._looks_at(one.subject, zones()[one.subject].twin or "")) for one in both
        ]

    def _looks_at(self, *keys: str) -> list[UUID]:
        """Ids of every look that told something of some zones."""
        return [seen.entry.id for key in keys for seen in self._under.looks.get(key, ())]

    @kept
    def leaks(self) -> list[LeakFound]:
        """Every leak over all its looks, with what it explains; what was done at its place in between weakens it."""
        engine, corners = self._reckoning.dossier.engine, self._reckoning.dossier.corners
        levels = {key: seen.body for key, seen in engine.fluids.items()}
        pedal_low = corners.pedal is not None and bool(corners.pedal.body.low or corners.pedal.body.sinks)
        found = []
        for looks in self._under.leaks.values():
            told = [(seen.entry.at, seen.body) for seen in looks]
            one = leak_found(told, self._touched(looks), [seen.entry.own_doing for seen in looks])
            piece = leaking_piece(one.fluid, one.origin, looks[-1].place)
            one = replace(one, place=looks[-1].place, part=piece)
            found.append(linked(one, levels, self._reckoning.corners.grades, pedal_low))
        return found

    def _touched(self, looks: Sequence[Seen[Leak]]) -> list[str]:
        """What was done at a leak between its first and its last look."""
        times, leak = [seen.entry.at for seen in looks], looks[-1].body
        here = {zones()[leak.zone].place} if leak.zone else {looks[-1].place} - {""} or set(BELOW)
        words = {word for word in f"{leak.origin} {leak.fluid} {leak.shows}".casefold().split() if len(word) > 3}
        return [
            body.done
            for entry, body in self._reckoning.dossier.remarks.interventions
            if min(times) <= entry.at <= max(times)
            and (entry.place in here or (not entry.place and words & set(body.done.casefold().split())))
        ]

    def part_grades(self) -> dict[str, tuple[Grade, str]]:
        """What zones and leaks make of parts with a life, with the reason; of several leaks the worst."""
        found: dict[str, tuple[Grade, str]] = {}
        for leak in self.leaks:
            grade = leak_grade(leak)
            if grade is not None and (leak.part not in found or found[leak.part][0] is Grade.WORN):
                found[leak.part] = (grade, f"{leak.fluid} from {leak.origin}: {leak.stage}")
        for key in EXHAUST:  # the silencer at the rear speaks last
            look = self._under.zones[key].body if key in self._under.zones else None
            if look is not None and look.exhaust in EXHAUSTED:
                found["exhaust_rear"] = (EXHAUSTED[look.exhaust], f"exhaust {look.exhaust}")
            if look is not None and look.catalyst is not None:
                found["catalytic_converter"] = (Grade.SOUND, "there") if look.catalyst else (Grade.FAILED, "not there")
        return found
