"""A simulated vehicle: control units that answer requests as published, in scenarios that ship."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import cache

from hakutsu.core.scan.codec import identity
from hakutsu.core.scan.codec.codes import code_bytes
from hakutsu.core.scan.codec.parameters import FUEL_SYSTEM, MASK_STEP, Pid, known_parameters, mask, written
from hakutsu.core.scan.codec.readiness import readiness_bytes
from hakutsu.core.scan.codec.results import Result, result_bytes
from hakutsu.instruments.diagnostic.addresses import Unit, unit_of
from hakutsu.instruments.diagnostic.simulated_engine import Engine
from hakutsu.instruments.table_models import VehiclesScenario, VehiclesTable, VehiclesUnit
from hakutsu.vehicle.tables import read_table

ENGINE_UNIT = "engine"
CLOSED_LOOP = b"\x02\x00"
READINESS, TODAY, FREEZE_CODE = 0x01, 0x41, 0x02
AVAILABLE = 0x7F
SUPPORTED = b"\x0a"
PROTOCOL = b"\xf8\x10"
VIN_IDENTIFIER = b"\xf1\x90"
NEGATIVE, WAIT, NOT_SUPPORTED, OUT_OF_RANGE = 0x7F, 0x78, 0x11, 0x31
TRIMS = (Pid.SHORT_TRIM, Pid.LONG_TRIM)


@cache
def _table() -> VehiclesTable:
    return read_table("instruments", "vehicles", VehiclesTable)


def scenarios() -> dict[str, VehiclesScenario]:
    """Scenarios that ship, by name."""
    return _table().scenario


class SimulatedUnit:
    """One control unit: answers requests in bytes; `engine` lends it live values."""

    def __init__(self, row: VehiclesUnit, engine: Engine | None = None) -> None:
        number = int(row.answers, 16)
        found = unit_of(number, extended=len(row.answers) > 3)
        if found is None:
            raise ValueError(f"no unit answers with {row.answers}")
        self.unit: Unit = found
        self.row, self._engine = row, engine
        self._services = {int(one, 16) for one in row.services}
        self._waits = {bytes.fromhex(key): count for key, count in row.faults.pending.items()}
        self._fixed = {int(pid, 16): value for pid, value in row.parameters.items()}
        self._answers: dict[int, Callable[[bytes], bytes | None]] = {
            0x01: self._current, 0x02: self._frozen, 0x03: lambda _: self._codes(row.stored),
            0x06: self._tests, 0x07: lambda _: self._codes(row.pending), 0x09: self._information,
            0x0A: lambda _: self._codes(row.permanent), 0x19: self._memory, 0x22: self._identifier,
            0x3E: lambda rest: rest[:1] or None,
        }  # fmt: skip

    def answered(self, payload: bytes, *, functional: bool) -> Iterator[bytes]:
        """What it says to a request, payload by payload: perhaps that it needs time, then its answer; or nothing.

        Asked with all others, it keeps silent about what it does not know; asked alone, it refuses.
        """
        service, rest = payload[0], payload[1:]
        if self.row.faults.quiet and payload != b"\x01\x00":
            return
        said = self._answers[service](rest) if service in self._services and service in self._answers else None
        if said is None:
            if not functional:
                code = OUT_OF_RANGE if service in self._services else NOT_SUPPORTED
                yield bytes([NEGATIVE, service, code])
            return
        for _ in range(self._waits.get(payload, 0)):
            yield bytes([NEGATIVE, service, WAIT])
        yield bytes([service + 0x40]) + said

    def _pids(self) -> set[int]:
        live = set(self._engine.pids) | {FUEL_SYSTEM} if self._engine else set()
        trims = set(TRIMS) if self.row.trims or self._engine else set()
        return {READINESS, TODAY, *live, *trims, *self._fixed}

    def _readiness(self, *, today: bool) -> bytes:
        row = self.row
        compression, count = row.kind == "compression", len(row.stored)
        lamp, codes = (False, 0) if today else (row.lamp, count)
        return readiness_bytes(row.ready, row.incomplete, compression=compression, lamp=lamp, count=codes)

    def _current(self, rest: bytes) -> bytes | None:
        if len(rest) != 1:
            return None
        pid, pids = rest[0], self._pids()
        if pid % MASK_STEP == 0:
            return rest + mask(pid, pids) if pid == 0 or any(one > pid for one in pids) else None
        if pid not in pids:
            return None
        if pid in (READINESS, TODAY):
            return rest + self._readiness(today=pid == TODAY)
        if pid == FUEL_SYSTEM:
            return rest + CLOSED_LOOP
        if pid in TRIMS and pid not in self._fixed:
            return rest + written(pid, (self.row.trims or (1.6, 2.3))[TRIMS.index(pid)])
        if pid in self._fixed:
            return rest + written(pid, self._fixed[pid])
        return rest + written(pid, self._engine.value(pid)) if self._engine else None

    def _frozen(self, rest: bytes) -> bytes | None:
        if len(rest) != 2 or rest[1]:
            return None
        pid, frozen = rest[0], {int(one, 16): value for one, value in self.row.frozen.items()}
        if pid == FREEZE_CODE:
            return rest + (code_bytes(self.row.stored[0]) if self.row.stored and frozen else bytes(2))
        if pid % MASK_STEP == 0:
            listed = {*frozen, FREEZE_CODE}
            return rest + mask(pid, listed) if pid == 0 or any(one > pid for one in listed) else None
        return rest + written(pid, frozen[pid]) if pid in frozen and pid in known_parameters() else None

    @staticmethod
    def _codes(codes: tuple[str, ...]) -> bytes:
        return bytes([len(codes)]) + b"".join(map(code_bytes, codes))

    def _tests(self, rest: bytes) -> bytes | None:
        found = [
            Result(int(mid, 16), int(tid, 16), int(scaling, 16), value, least, most)
            for mid, tid, scaling, value, least, most in self.row.tests
        ]
        mids = {one.mid for one in found}
        if len(rest) != 1 or not found:
            return None
        if rest[0] % MASK_STEP == 0:
            return rest + mask(rest[0], mids) if rest[0] == 0 or any(one > rest[0] for one in mids) else None
        mine = [one for one in found if one.mid == rest[0]]
        return result_bytes(mine) if mine else None

    def _information(self, rest: bytes) -> bytes | None:
        row = self.row
        told: dict[int, bytes] = {}
        if row.vin:
            told[identity.VIN] = identity.itemised([row.vin.encode("ascii")])
        if row.calibrations:
            texts = [one.encode("ascii").ljust(identity.CALIBRATION_LENGTH, b"\x00") for one in row.calibrations]
            told[identity.CALIBRATIONS] = identity.itemised(texts)
        if row.cvns:
            told[identity.CVNS] = identity.itemised([bytes.fromhex(one) for one in row.cvns])
        if row.counters:
            kind = identity.COMPRESSION_COUNTERS if row.kind == "compression" else identity.SPARK_COUNTERS
            told[kind] = identity.itemised([one.to_bytes(2, "big") for one in row.counters])
        if row.name:
            told[identity.NAME] = identity.itemised([row.name.encode("ascii").ljust(20, b"\x00")])
        if len(rest) != 1:
            return None
        if rest[0] == 0:
            return rest + mask(0, told)
        return rest + told[rest[0]] if rest[0] in told else None

    def _memory(self, rest: bytes) -> bytes | None:
        if rest == SUPPORTED:
            every = {**dict(self.row.by_status), **dict(self.row.supported)}
            rows = [code_bytes(code) + bytes.fromhex(status) for code, status in every.items()]
            return bytes([0x0A, AVAILABLE]) + b"".join(rows)
        if len(rest) != 2 or rest[0] != 0x02:
            return None
        rows = [
            code_bytes(code) + bytes.fromhex(status) for code, status in self.row.by_status if int(status, 16) & rest[1]
        ]
        return bytes([0x02, AVAILABLE]) + b"".join(rows)

    def _identifier(self, rest: bytes) -> bytes | None:
        if rest == PROTOCOL and 0x01 not in self._services:
            return rest + b"\x01"
        return rest + self.row.vin.encode("ascii") if rest == VIN_IDENTIFIER and self.row.vin else None


class SimulatedVehicle:
    """Control units on one bus."""

    def __init__(self, units: list[SimulatedUnit]) -> None:
        self.units = units

    @classmethod
    def of(cls, scenario: str, engine: str | None = None, fast: float = 1.0) -> SimulatedVehicle:
        """The vehicle of a scenario; `engine` in place of its own.

        Raises
        ------
        KeyError
            If no such scenario or engine ships.
        """
        row, units = scenarios()[scenario], _table().unit
        runs = Engine(engine or row.engine, fast)
        made = []
        for name in row.units:
            changed = units[name].model_dump() | row.changes.get(name, {})
            unit = VehiclesUnit.model_validate(changed)
            made.append(SimulatedUnit(unit, runs if name == ENGINE_UNIT else None))
        return cls(made)
