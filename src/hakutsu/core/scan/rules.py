"""What a vehicle's memory is worth to a buyer: codes, memory cleared, units that do not belong, a dark lamp."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from statistics import median

from hakutsu.core.findings import Finding, found
from hakutsu.core.scan.cleared import HALF, Cleared, cleared
from hakutsu.core.scan.codes import code_table, told
from hakutsu.core.scan.units import unit_name
from hakutsu.entries.corners import Grade
from hakutsu.entries.scan import (
    CodeRead,
    EngineLamp,
    LampSeen,
    ModuleNoted,
    ScanNone,
    ScanRead,
    Stored,
    UnitRead,
)
from hakutsu.vehicle.vocabulary import Consequence

DISTANCE_SHARE, DISTANCE_KM = 0.02, 500.0  # units agree within one or the other
TRIM_WATCH, TRIM_FAULT, WARM_C = 10.0, 20.0, 70.0  # %, %, °C
CLOSED = "closed"
ODOMETER, COOLANT, FUEL_SYSTEM = "odometer_km", "coolant_c", "fuel_system"
CIRCUIT = "a code names a circuit, not a part"
WORST = list(Grade)
TALLY_LEAST, TALLY_SHARE = 3, 0.6
NEVER_LOWERED = ("airbag", "insulation", "brakes")
VOLTAGE_FAMILIES = ("voltage", "bus")


@dataclass(frozen=True, slots=True)
class Known:
    """What else is known: distance on the dial [km], the number on the plate, an innocent cause of a cleared memory, on
    how many vehicles of this kind a unit held codes.
    """

    dial_km: float | None = None
    plate: str = ""
    innocent: str = ""
    tally: Mapping[str, Stored] = field(default_factory=dict)


def code_findings(units: Sequence[UnitRead], known: Known) -> list[Finding]:
    """Every code that was read, once, with the units that hold it and the memories it stands in."""
    holders: dict[str, list[tuple[UnitRead, CodeRead]]] = {}
    for unit in units:
        for one in unit.codes or ():
            holders.setdefault(one.code, []).append((unit, one))
    return [_code(code, rows, known) for code, rows in holders.items()]


def _code(code: str, rows: Sequence[tuple[UnitRead, CodeRead]], known: Known) -> Finding:
    said = told(code)
    memories = {memory for _, one in rows for memory in one.memory}
    where = ", ".join(f"{unit_name(unit)} ({', '.join(one.memory)})" for unit, one in rows)
    reasons = [f"in {where}", *_status(rows), f"it does not say {said.not_said}"]
    often = _often(rows, known)
    if often:
        reasons.insert(1, often)
    if known.innocent and said.family in VOLTAGE_FAMILIES:
        reasons.insert(1, f"{known.innocent} may have left it behind")
    if memories == {"pending"}:
        words = f"{code}, met once and not confirmed: {said.words}"
        check = f"drive it, then read again; {said.confirm}"
        return found("scan.pending", code, words, reasons, why="it was met once", check=check)
    kept = memories == {"permanent"}
    words = f"{code}{' (permanent, the stored one is gone)' if kept else ''}: {said.words}"
    one = found(said.finding, code, words, reasons, why=CIRCUIT, check=said.confirm)
    if often and one.consequence is Consequence.SETTLE and said.family not in NEVER_LOWERED:
        return replace(one, consequence=Consequence.BUDGET)
    return one


def _often(rows: Sequence[tuple[UnitRead, CodeRead]], known: Known) -> str:
    """A unit that holds codes on most vehicles of this kind: it lowers concern, and hides nothing."""
    for unit, _ in rows:
        seen = known.tally.get(unit.address)
        if seen is None or seen.of < TALLY_LEAST or seen.on < TALLY_SHARE * seen.of:
            return ""
    seen = known.tally[rows[0][0].address]
    return f"this unit held codes on {seen.on} of the {seen.of} of this kind read before"


def _status(rows: Sequence[tuple[UnitRead, CodeRead]]) -> list[str]:
    """Stored and not current, where a unit says so (ISO 14229: bit 3 and not bit 0)."""
    bits = [int(one.status, 16) for _, one in rows if one.status is not None]
    if not bits:
        return []
    return ["it fails now"] if any(one & 1 for one in bits) else ["stored, not failing now"]


def code_grades(units: Sequence[UnitRead]) -> dict[str, tuple[Grade, str]]:
    """What stored codes make of parts with a life, by part; the worst of several."""
    graded: dict[str, tuple[Grade, str]] = {}
    for unit in units:
        for one in unit.codes or ():
            row = code_table().family[told(one.code).family]
            if not row.part or "stored" not in one.memory:
                continue
            grade = Grade(row.grade)
            if row.part not in graded or WORST.index(grade) > WORST.index(graded[row.part][0]):
                graded[row.part] = (grade, f"{one.code} stored: {told(one.code).words}")
    return graded


def by_hand_findings(modules: Sequence[ModuleNoted]) -> list[Finding]:
    """What somebody's reader said: codes as if they were read, else words or how many."""
    seen = []
    for one in modules:
        for code in one.codes:
            said = told(code)
            reasons = [f"noted by hand, {one.module}", f"it does not say {said.not_said}"]
            words = f"{code}: {said.words}"
            seen.append(found(said.finding, code, words, reasons, why=CIRCUIT, check=said.confirm))
        if not one.codes and (one.words or one.count):
            many = f"{one.count} stored code{'s' if one.count != 1 else ''}" if one.count else ""
            words = f"{one.module}: {', '.join(filter(None, (many, one.words)))}"
            seen.append(found("scan.noted", one.module, words, ["noted by hand, without the codes themselves"]))
    return seen


def memory_findings(judged: Cleared, known: Known) -> list[Finding]:
    """The memory was cleared recently, with what may have done so."""
    if judged.probability < HALF:
        return []
    if known.innocent:
        words = f"fault codes were cleared recently; {known.innocent} explains it"
        return [found("scan.cleared_innocent", "memory", words, judged.because, sureness=judged.probability)]
    why = "on purpose, after a repair, by a flat battery or an update: all leave the same"
    words = "fault codes were cleared recently: existing faults may be hidden"
    return [found("scan.memory_cleared", "memory", words, judged.because, sureness=judged.probability, why=why)]


def identity_findings(units: Sequence[UnitRead], known: Known) -> list[Finding]:
    """Units that name another vehicle than the plate, or, without a plate, than most units do."""
    named = [(unit, unit.vin) for unit in units if unit.vin]
    if not named:
        return []
    numbers = [vin for _, vin in named]
    usual = known.plate or max(sorted(set(numbers)), key=numbers.count)
    against = "the plate" if known.plate else "the other units"
    if not known.plate and len(set(numbers)) > 1 and numbers.count(usual) == 1:
        words = f"units name different vehicles: {', '.join(f'{unit_name(one)} {vin}' for one, vin in named)}"
        return [found("scan.identity_differs", "units", words, ["nothing says which of them belongs here"])]
    return [
        found("scan.identity_differs", unit_name(unit), f"{unit_name(unit)} names another vehicle: {vin}",
              [f"{against} say{'s' if known.plate else ''} {usual}", "from another vehicle, or written so"])
        for unit, vin in named
        if vin != usual
    ]  # fmt: skip


def distance_findings(units: Sequence[UnitRead], known: Known) -> list[Finding]:
    """Units whose distance differs from the dial's, or from the other units', by more than 2 % and more than 500 km."""
    counted = [(unit, float(km)) for unit in units if isinstance(km := unit.live.get(ODOMETER), int | float)]
    if not counted or (known.dial_km is None and len(counted) < 2):
        return []
    if known.dial_km is None and len(counted) == 2:
        (one, first), (other, second) = counted
        if not _apart(first, max(first, second)) and not _apart(second, max(first, second)):
            return []
        words = (
            f"units count different distances: {unit_name(one)} {{distance {first:.0f}}}, "
            f"{unit_name(other)} {{distance {second:.0f}}}"
        )
        return [found("scan.distance_differs", "units", words, ["nothing says which of them is right"])]
    usual = known.dial_km if known.dial_km is not None else median(km for _, km in counted)
    against = "the dial says" if known.dial_km is not None else "the middle of all units is"
    reasons = [
        f"{against} {{distance {usual:.0f}}}",
        "one of them was replaced or changed: which, the number does not say",
    ]
    return [
        found("scan.distance_differs", unit_name(unit), f"{unit_name(unit)} counts {{distance {km:.0f}}}", reasons)
        for unit, km in counted
        if _apart(km, usual)
    ]  # fmt: skip


def _apart(km: float, usual: float) -> bool:
    """Whether two distances differ by more than units of one vehicle do."""
    return abs(km - usual) > max(DISTANCE_SHARE * usual, DISTANCE_KM)


def lamp_findings(units: Sequence[UnitRead], lamp: EngineLamp | None) -> list[Finding]:
    """The engine lamp is commanded and stays dark; or it never lit, so that dark says nothing."""
    commanded = [unit for unit in units if unit.lamp]
    if lamp is None:
        return []
    dark = [name for name, seen in (("key on", lamp.key_on), ("running", lamp.running)) if seen is LampSeen.DARK]
    if commanded and dark:
        reasons = [
            f"{unit_name(commanded[0])} switches it on",
            "bulb or lamp taken out, or its part of the dashboard is dead",
        ]
        return [
            found(
                "scan.lamp_dark",
                "engine_lamp",
                f"the engine lamp is switched on by its unit and stays dark, {' and '.join(dark)}",
                reasons,
            )
        ]
    if lamp.key_on is LampSeen.DARK:
        reasons = ["it must light with the key on; dark while running then proves nothing"]
        return [found("scan.lamp_dark", "engine_lamp", "the engine lamp does not light with the key on", reasons)]
    return []


def none_findings(none: ScanNone | None) -> list[Finding]:
    """A lit lamp, and no memory read: the stored cause is not known."""
    if none is None or not none.lamp_lit:
        return []
    return [
        found("scan.not_read", "memory", "a warning lamp is lit and the stored cause was not read", [str(none.why)])
    ]


def trouble_findings(units: Sequence[UnitRead]) -> list[Finding]:
    """Units whose codes could not be read."""
    return [
        found("scan.unit_silent", unit_name(unit), f"{unit_name(unit)} could not be read", unit.problems[:2])
        for unit in units
        if unit.codes is None
    ]


def measured_findings(units: Sequence[UnitRead]) -> list[Finding]:
    """Tests the units failed on themselves; trims far off, in closed loop and warm."""
    seen = []
    for unit in units:
        failed = [one for one in unit.monitors if one.passed is False]
        if failed:
            named = ", ".join(f"{one.mid} {one.tid}: {one.value} (at most {one.max})" for one in failed[:4])
            words = f"{unit_name(unit)} failed {len(failed)} of its self-tests"
            seen.append(found("scan.test_failed", unit_name(unit), words, [named]))
        warm = unit.live.get(COOLANT)
        if unit.live.get(FUEL_SYSTEM) != CLOSED or not isinstance(warm, int | float) or warm < WARM_C:
            continue
        for bank in ("1", "2"):
            parts = [unit.live.get(f"{kind}_trim_{bank}_percent") for kind in ("short", "long")]
            if any(not isinstance(one, int | float) for one in parts):
                continue
            total = sum(float(one) for one in parts if isinstance(one, int | float))
            if abs(total) >= TRIM_WATCH:
                far = "far " if abs(total) >= TRIM_FAULT else ""
                words = f"fuel trim of bank {bank} {far}off: {total:+.0f} %"
                seen.append(found("scan.trims_lean" if total > 0 else "scan.trims_rich", f"bank_{bank}", words,
                                  ["short and long trim together, warm, in closed loop"]))  # fmt: skip
    return seen


def read_findings(read: ScanRead, lamp: EngineLamp | None, known: Known) -> list[Finding]:
    """All that one read says."""
    units = read.modules
    return [
        *code_findings(units, known),
        *memory_findings(cleared(units), known),
        *identity_findings(units, known),
        *distance_findings(units, known),
        *lamp_findings(units, lamp),
        *measured_findings(units),
        *trouble_findings(units),
    ]
