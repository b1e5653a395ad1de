"""A complete payload, as a unit answers it, in words and numbers: what it says, or what is wrong with it.

References
----------
SAE J1979 / ISO 15031-5 (services 01 to 0A), ISO 14229-1 (19, 22, 3E, and the negative response 7F).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from hakutsu.core.scan.codec import identity, parameters
from hakutsu.core.scan.codec.codes import code_list, code_text, flags
from hakutsu.core.scan.codec.faults import Malformed
from hakutsu.core.scan.codec.readiness import readiness
from hakutsu.core.scan.codec.results import results

ANSWER, NEGATIVE, PENDING = 0x40, 0x7F, 0x78
READINESS, FREEZE_CODE, TODAY = 0x01, 0x02, 0x41
RECORD = 4  # a code of three bytes and its status
NO_CODE = bytes(2)
Said = dict[str, Any]


@dataclass(frozen=True)
class Decoded:
    """What a payload says: the service that was asked, and the fields of its answer; `problem` where it says less."""

    service: str | None
    decoded: Said = field(default_factory=dict)
    problem: str = ""

    @property
    def row(self) -> Said:
        """As it is written in JSON."""
        row: Said = {"service": self.service, "decoded": self.decoded}
        return row | ({"problem": self.problem} if self.problem else {})


def decode(payload: bytes) -> Decoded:
    """Decode a payload; no bytes make it fail."""
    if not payload:
        return Decoded(None, problem="an empty payload says nothing")
    if payload[0] == NEGATIVE:
        return _negative(payload)
    service = payload[0] - ANSWER
    read = _READERS.get(service)
    if read is None:
        known = f"{service:02X}" if 0 <= service < NEGATIVE - ANSWER or payload[0] > NEGATIVE else None
        return Decoded(known, problem=f"{payload[0]:02X} answers no service that is read here")
    try:
        return Decoded(f"{service:02X}", read(payload[1:]))
    except Malformed as error:
        return Decoded(f"{service:02X}", problem=str(error))


def decode_text(line: str) -> Decoded:
    """Decode a line of hexadecimal digits, apart by blanks or not."""
    try:
        payload = bytes.fromhex("".join(line.split()))
    except ValueError:
        return Decoded(None, problem="not pairs of hexadecimal digits")
    return decode(payload)


def _negative(payload: bytes) -> Decoded:
    if len(payload) != 3:
        service = f"{payload[1]:02X}" if len(payload) > 1 else None
        return Decoded(service, problem=f"a negative response takes three bytes, not {len(payload)}")
    return Decoded(f"{payload[1]:02X}", {"negative": f"{payload[2]:02X}", "pending": payload[2] == PENDING})


def _need(data: bytes, count: int, what: str) -> None:
    if len(data) < count:
        raise Malformed(f"cut short: no {what}")


def _quantity(pid: int, data: bytes) -> Said:
    if pid == parameters.FUEL_SYSTEM:
        return {"value": parameters.fuel_system(data)}
    found: Said = {"value": parameters.value(pid, data), "unit": parameters.known_parameters()[pid].unit}
    least = parameters.at_least(pid, data)
    return found if least is None else found | {"at_least": least}


def _supported(first: int, data: bytes) -> Said:
    return {"supported": [f"{one:02X}" for one in parameters.supported(first, data)]}


def _current(data: bytes) -> Said:
    _need(data, 1, "parameter")
    pid, rest = data[0], data[1:]
    said: Said = {"pid": f"{pid:02X}"}
    if pid % parameters.MASK_STEP == 0:
        return said | _supported(pid, rest)
    if pid not in (READINESS, TODAY):
        return said | _quantity(pid, rest)
    found = readiness(rest)
    said |= {
        "ignition": "compression" if found.compression else "spark",
        "ready": list(found.ready),
        "incomplete": list(found.incomplete),
    }
    return said | ({"lamp": found.lamp, "count": found.count} if pid == READINESS else {})


def _frozen(data: bytes) -> Said:
    _need(data, 2, "parameter and frame")
    pid, frame, rest = data[0], data[1], data[2:]
    said: Said = {"pid": f"{pid:02X}", "frame": frame}
    if pid % parameters.MASK_STEP == 0:
        return said | _supported(pid, rest)
    if pid == FREEZE_CODE:
        if len(rest) != 2:
            raise Malformed(f"the code of a freeze frame takes two bytes, not {len(rest)}")
        return said | {"code": None if rest == NO_CODE else code_text(rest)}
    return said | _quantity(pid, rest)


def _codes(data: bytes) -> Said:
    return {"codes": code_list(data)}


def _tests(data: bytes) -> Said:
    _need(data, 1, "monitor")
    if data[0] % parameters.MASK_STEP == 0 and len(data) == 1 + parameters.MASK_BYTES:
        return {"mid": f"{data[0]:02X}", **_supported(data[0], data[1:]), "results": []}
    rows = [
        {
            "mid": f"{one.mid:02X}", "tid": f"{one.tid:02X}", "scaling": f"{one.scaling:02X}",
            "value": one.value, "min": one.least, "max": one.most, "passed": one.passed,
        }
        for one in results(data)
    ]  # fmt: skip
    return {"results": rows}


def _information(data: bytes) -> Said:
    _need(data, 1, "kind of information")
    kind, rest = data[0], data[1:]
    said: Said = {"infotype": f"{kind:02X}"}
    if kind % parameters.MASK_STEP == 0:
        return said | _supported(kind, rest)
    if kind == identity.VIN:
        return said | {"text": identity.identification(rest)}
    if kind == identity.CALIBRATIONS:
        return said | {"calibrations": identity.calibrations(rest)}
    if kind == identity.CVNS:
        return said | {"cvn": identity.check_sums(rest)}
    if kind in (identity.SPARK_COUNTERS, identity.COMPRESSION_COUNTERS):
        return said | {"counters": identity.counters(rest)}
    if kind == identity.NAME:
        return said | {"text": identity.printable(rest[1:])}
    raise Malformed(f"information {kind:02X} is not known")


def _memory(data: bytes) -> Said:
    _need(data, 2, "availability")
    sub, available, rest = data[0], data[1], data[2:]
    said: Said = {"sub": f"{sub:02X}", "availability": f"{available:02X}"}
    if sub == 0x01:
        if len(rest) != 3:
            raise Malformed(f"format and number of codes take three bytes, not {len(rest)}")
        return said | {"format": f"{rest[0]:02X}", "count": int.from_bytes(rest[1:], "big")}
    if sub not in (0x02, 0x0A):
        raise Malformed(f"report {sub:02X} is not known")
    if len(rest) % RECORD:
        raise Malformed(f"codes take {RECORD} bytes each; there are {len(rest)}")
    rows = []
    for at in range(0, len(rest), RECORD):
        status = rest[at + 3] & available
        rows.append({"code": code_text(rest[at : at + 3]), "status": f"{status:02X}", "flags": flags(status)})
    return said | {"codes": rows}


def _identifier(data: bytes) -> Said:
    _need(data, 2, "identifier")
    _need(data, 3, "data")
    return {"did": data[:2].hex().upper(), "text": identity.printable(data[2:]), "data": data[2:].hex().upper()}


def _present(data: bytes) -> Said:
    if data != b"\x00":
        raise Malformed("tester present is answered with one byte, 00")
    return {"sub": "00"}


_READERS: dict[int, Callable[[bytes], Said]] = {
    0x01: _current,
    0x02: _frozen,
    0x03: _codes,
    0x06: _tests,
    0x07: _codes,
    0x09: _information,
    0x0A: _codes,
    0x19: _memory,
    0x22: _identifier,
    0x3E: _present,
}
