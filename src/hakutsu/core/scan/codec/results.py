"""Results of tests a unit runs on itself (service 06 on CAN).

References
----------
SAE J1979 / ISO 15031-5, service 06: records of nine bytes, monitor, test, scaling, value, least and most; values are
signed from scaling 80 on; three zeros mean that the test has not run.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from hakutsu.core.scan.codec.faults import Malformed

RECORD, SIGNED_FROM = 9, 0x80


@dataclass(frozen=True, slots=True)
class Result:
    """One test: raw counts of value, least and most; `passed` is none where it has not run."""

    mid: int
    tid: int
    scaling: int
    value: int
    least: int
    most: int

    @property
    def passed(self) -> bool | None:
        """Whether the value lies between least and most."""
        if self.value == self.least == self.most == 0:
            return None
        return self.least <= self.value <= self.most


def results(data: bytes) -> list[Result]:
    """Results from their records.

    Raises
    ------
    Malformed
        If there is none, or one is cut short.
    """
    if not data or len(data) % RECORD:
        raise Malformed(f"results take {RECORD} bytes each; there are {len(data)}")
    found = []
    for at in range(0, len(data), RECORD):
        mid, tid, scaling = data[at : at + 3]
        signed = scaling >= SIGNED_FROM
        value, least, most = (
            int.from_bytes(data[at + 3 + 2 * i : at + 5 + 2 * i], "big", signed=signed) for i in range(3)
        )
        found.append(Result(mid, tid, scaling, value, least, most))
    return found


def result_bytes(results: Sequence[Result]) -> bytes:
    """The records of results."""
    return b"".join(
        bytes([one.mid, one.tid, one.scaling])
        + b"".join(n.to_bytes(2, "big", signed=one.scaling >= SIGNED_FROM) for n in (one.value, one.least, one.most))
        for one in results
    )
