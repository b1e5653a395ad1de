"""The vehicle's own memory in words: entries, and what the report says of it."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.scan.cleared import HALF, Cleared, cleared_words
from hakutsu.core.scan.codec.readiness import monitor_words
from hakutsu.core.scan.compared import Change
from hakutsu.core.scan.units import unit_name
from hakutsu.dossier.scan import ScanDossier
from hakutsu.entries.scan import EngineLamp, PlateRead, ScanByHand, ScanNone, ScanRead, ScanTally, SellerWork
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.scan import ScanReckoned
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


@body_words.register
def _(body: ScanRead, terms: Terms = PLAIN) -> Said:
    codes = sum(len(one.codes or ()) for one in body.modules)
    said = [f"{len(body.modules)} unit{'s' if len(body.modules) != 1 else ''}, {codes} code{'s' if codes != 1 else ''}"]
    said += ["simulated"] if body.simulated else []
    return "Scan", "; ".join([*said, *body.problems])


@body_words.register
def _(body: ScanByHand, terms: Terms = PLAIN) -> Said:
    parts = []
    for one in body.modules:
        count = f"{one.count} stored" if one.count is not None else ""
        parts.append(f"{one.module}: {', '.join(filter(None, (*one.codes, one.words, count)))}")
    with_tool = f" with {body.tool}" if body.tool else ""
    told = f", told {body.told}" if body.told else ""
    return "Scan by hand", f"{'; '.join(parts)}{with_tool}{told}"


@body_words.register
def _(body: ScanNone, terms: Terms = PLAIN) -> Said:
    lit = "a warning lamp is lit" if body.lamp_lit else ""
    return "No scan", ", ".join(filter(None, (str(body.why), lit, body.note)))


@body_words.register
def _(body: EngineLamp, terms: Terms = PLAIN) -> Said:
    return "Engine lamp", f"key on: {body.key_on}, running: {body.running}"


@body_words.register
def _(body: ScanTally, terms: Terms = PLAIN) -> Said:
    units = "; ".join(f"{unit} on {seen.on} of {seen.of}" for unit, seen in body.units.items())
    return "Fault codes on similar vehicles", units or "none of this kind read before"


@body_words.register
def _(body: SellerWork, terms: Terms = PLAIN) -> Said:
    who = f"by {body.who}" if body.who else ""
    invoice = "with invoice" if body.invoice else "no invoice"
    return "Work during the visit", ", ".join(filter(None, (body.part, who, invoice)))


@body_words.register
def _(body: PlateRead, terms: Terms = PLAIN) -> Said:
    return "VIN on the vehicle", body.vin


@dataclass(frozen=True, slots=True)
class UnitLine:
    """One unit: its name, what it says of itself, monitors that have not run, what could not be read."""

    name: str
    says: str
    waiting: str
    problems: tuple[str, ...]
    codes: str


@dataclass(frozen=True, slots=True)
class ScanSection:
    """Units as they were read last, findings, whether memory was cleared, reads compared, notes by hand."""

    units: tuple[UnitLine, ...]
    found: tuple[FoundLine, ...]
    cleared: Cleared | None
    cleared_words: str
    changes: tuple[Change, ...]
    by_hand: tuple[str, ...]
    none: str
    problems: tuple[str, ...]
    simulated: bool
    without_electronics: bool
    work: tuple[str, ...] = ()

    @property
    def empty(self) -> bool:
        """True when nobody read, noted or tried."""
        return not (self.units or self.by_hand or self.none or self.found or self.work)


def unit_lines(read: ScanRead) -> tuple[UnitLine, ...]:
    """Every unit that was read, in a line."""
    return tuple(
        UnitLine(
            unit_name(one),
            ", ".join(filter(None, (one.vin or "", *(one.calibration_ids or ())))),
            ", ".join(monitor_words(name) for name, state in one.readiness.items() if state == "incomplete"),
            one.problems,
            "fault codes not read"
            if one.codes is None
            else ", ".join(code.code for code in one.codes) or "no fault codes",
        )
        for one in read.modules
    )


def scan_section(reckoning: Reckoning) -> ScanSection:
    """Gather the section from a reckoning."""
    terms, scan = reckoning.terms, reckoning.dossier[ScanDossier]
    rules = reckoning.station(ScanReckoned)
    last = scan.last.body if scan.last else None
    judged = rules.cleared
    return ScanSection(
        unit_lines(last) if last else (),
        tuple(found_line(one, terms, named=False) for one in rules.found),
        judged,
        cleared_words(judged.probability) if judged and judged.probability < HALF else "",
        tuple(one for one in rules.changes if not one.same),
        tuple(body_words(seen.body, terms)[1] for seen in scan.by_hand),
        body_words(scan.none.body, terms)[1] if scan.none else "",
        last.problems if last else (),
        bool(last and last.simulated),
        scan.without_electronics,
        tuple(body_words(seen.body, terms)[1] for seen in scan.seller_work),
    )


@report_section("scan", 85, "_scan.html")
def _scan(making: Making) -> ScanSection:
    """The vehicle's own memory."""
    return scan_section(making.reckoning)
