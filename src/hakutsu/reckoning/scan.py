"""What the rules make of the vehicle's own memory."""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar

from hakutsu.core.findings import Finding
from hakutsu.core.scan.cleared import Cleared, cleared
from hakutsu.core.scan.compared import Change, compared
from hakutsu.core.scan.rules import Known, by_hand_findings, code_grades, lamp_findings, none_findings, read_findings
from hakutsu.dossier.memo import kept
from hakutsu.dossier.scan import ScanDossier
from hakutsu.entries.corners import Grade
from hakutsu.reckoning.station import StationRules

LAMPS = ("engine", "airbag", "antilock", "brake", "charging", "steering", "temperature", "oil", "red")
WAITING = (*(f"functions.{one}_warning" for one in LAMPS), "functions.fault_lamp")
JUMP_START = "a jump start"
SIMULATED = "simulated, for practice"


class ScanReckoned(StationRules):
    """Findings of the newest read and of what was noted by hand; whether the memory was cleared; two reads compared."""

    key: ClassVar[str] = "scan"

    @property
    def _scan(self) -> ScanDossier:
        return self._reckoning.dossier[ScanDossier]

    @kept
    def known(self) -> Known:
        """What other stations know that explains or contradicts the memory."""
        scan, dossier = self._scan, self._reckoning.dossier
        innocent = self._innocent
        tally = scan.tally.body.units if scan.tally else {}
        return Known(dossier.mechanics.odometer_km, scan.plate.body.vin if scan.plate else "", innocent, tally)

    @property
    def _innocent(self) -> str:
        """What may have cleared the memory, or set low voltage in it, with nobody meaning to."""
        last, runs = self._scan.last, self._reckoning.dossier.engine.runs
        if any(run.start is not None and run.start.body.jump_started for run in runs):
            return JUMP_START
        before = [one.body.part for one in self._scan.seller_work if last is None or one.entry.at <= last.entry.at]
        return f"work during the visit ({', '.join(before)})" if before else ""

    @kept
    def cleared(self) -> Cleared | None:
        """How likely the memory was cleared recently; none where none was read."""
        last = self._scan.last
        return cleared(last.body.modules) if last else None

    @kept
    def changes(self) -> list[Change]:
        """The last read against the first, line by line; empty with fewer than two."""
        reads = self._scan.reads
        return compared(reads[0].body, reads[-1].body) if len(reads) > 1 else []

    def findings(self) -> list[Finding]:
        """All that was read and noted, each with the entries it rests on."""
        scan, seen = self._scan, list[Finding]()
        lamp = scan.lamp.body if scan.lamp else None
        beside = [scan.lamp.entry.id] if scan.lamp else []
        if scan.last is not None:
            mine = [scan.last.entry.id]
            for one in read_findings(scan.last.body, lamp, self.known):
                if scan.last.body.simulated:
                    one = replace(one, reasons=(SIMULATED, *one.reasons))
                seen.append(one.seen_in(*mine, *(beside if one.code == "scan.lamp_dark" else [])))
        elif lamp is not None:
            seen += [one.seen_in(*beside) for one in lamp_findings((), lamp)]
        for noted in scan.by_hand:
            seen += [one.seen_in(noted.entry.id) for one in by_hand_findings(noted.body.modules)]
        if scan.none is not None:
            seen += [one.seen_in(scan.none.entry.id) for one in none_findings(scan.none.body)]
        told: dict[tuple[str, str], Finding] = {}
        for one in seen:
            told.setdefault((one.code, one.subject), one)
        return list(told.values())

    @property
    def waiting(self) -> list[Finding]:
        """Lit warning lamps whose code was not found: no story joins them with one that was read."""
        told = [story for story in self._reckoning.stories if any(one.station == self.key for one in story.others)]
        explained = {(one.code, one.subject) for story in told for one in story.ones}
        lit = [one for one in self._reckoning.findings if one.code in WAITING]
        return [one for one in lit if (one.code, one.subject) not in explained]

    def part_grades(self) -> dict[str, tuple[Grade, str]]:
        """What stored codes make of parts with a life; those of the stand-in say nothing of this vehicle."""
        last = self._scan.last
        return code_grades(last.body.modules) if last is not None and not last.body.simulated else {}

    def waits(self) -> list[str]:
        """A read of the stand-in is no read."""
        last = self._scan.last
        return ["the memory was read from the stand-in only"] if last is not None and last.body.simulated else []
