"""Everything one control unit has to say: asked for piece by piece; what cannot be had is a problem, not a guess."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator
from typing import Any

from udsoncan import services as uds

from hakutsu.core.scan.codec import identity
from hakutsu.core.scan.codec.decode import decode
from hakutsu.core.scan.codec.parameters import FUEL_SYSTEM, MASK_STEP, known_parameters
from hakutsu.core.scan.codec.readiness import Readiness
from hakutsu.entries.scan import CodeRead, FreezeFrame, MonitorResult, SinceCleared, Stored, UnitRead
from hakutsu.instruments.diagnostic.addresses import Unit
from hakutsu.instruments.diagnostic.bus import NoLink
from hakutsu.instruments.diagnostic.conversation import Answer, Conversation

READINESS, FREEZE_CODE, TODAY = 0x01, 0x02, 0x41
MEMORIES = ((0x03, "stored"), (0x07, "pending"), (0x0A, "permanent"))
WARM_UPS, CLEARED_KM, CLEARED_MINUTES = 0x30, 0x31, 0x4E
MOST_FRAMES, SILENT_UNTIL_SEEN = 4, 6
FIRST = b"\x01\x00"
UNIT_SECONDS = 20.0
STATUS_WANTED = 0x0D  # failed now, pending, confirmed
NOT_COMPLETED = "not_completed_since_clear"
CONFIRMED, PENDING = "confirmed", "pending"
VIN_IDENTIFIER = 0xF190
BUSY_REPEAT, BUSY_SECONDS = 0x21, 0.2
BUSY = (BUSY_REPEAT, 0x22)  # busy, conditions not correct: it has it, and would not give it
Said = dict[str, Any]


class UnitReader:
    """Asks one unit for all it has; `problems` says what could not be had, `lost` how the link went away meanwhile."""

    def __init__(self, conversation: Conversation, unit: Unit, heard: Callable[[Unit, str], None]) -> None:
        self._talk, self._unit, self._heard = conversation, unit, heard
        self.problems: list[str] = []
        self.lost = ""
        self._heard_codes = self._by_status = False
        self._silent = 0
        self._alive: bytes | None = None
        self._alone = True
        self._until = time.monotonic() + UNIT_SECONDS
        self._given_up = False

    def _ask(self, payload: bytes, what: str, *, expected: bool = False) -> Said | None:
        """What an answer says; none where there is none. `expected`: the unit says it has it."""
        if self._given_up:
            return None
        if self._talk.stopped() or time.monotonic() > self._until:
            self._give_up(
                "the rest was left out: " + ("stopped by hand" if self._talk.stopped() else "it took too long")
            )
            return None
        answer = self._asked(payload)
        if answer.silent and expected:
            answer = self._asked(payload)
        if answer.silent and self._talk.stopped():
            return None
        if answer.silent:
            if expected:
                self.problems.append(f"{what}: it says it has it and did not answer")
            self._missed()
            return None
        self._silent, self._alive = 0, self._alive or payload
        return self._taken(answer, what)

    @property
    def _was_heard(self) -> bool:
        """Whether the last request was answered, if only by a refusal."""
        return not self._silent and not self._given_up

    def _asked(self, payload: bytes) -> Answer:
        """Ask it alone, or with all others where it answers only so; once more where it was busy."""
        answer = self._asked_once(payload)
        if answer.refused == BUSY_REPEAT:
            time.sleep(BUSY_SECONDS)
            answer = self._asked_once(payload)
        return answer

    def _asked_once(self, payload: bytes) -> Answer:
        if self._alone:
            return self._talk.ask(self._unit, payload)
        return self._talk.ask_all(payload, extended=self._unit.extended).get(self._unit, Answer())

    def _missed(self) -> None:
        """Silence is no answer to what it does not know; now and then see whether it is still there."""
        self._silent += 1
        if self._silent % SILENT_UNTIL_SEEN == 0 and (self._alive is None or self._asked(self._alive).silent):
            self._give_up("it stopped answering")

    def _give_up(self, why: str) -> None:
        self._given_up = True
        self.problems.append(why)

    def _taken(self, answer: Answer, what: str) -> Said | None:
        if answer.trouble:
            self.problems.append(f"{what}: {answer.trouble}")
            return None
        if answer.payload is None:
            if answer.refused in BUSY:
                self.problems.append(f"{what}: it has it, and would not give it now ({answer.refused:02X})")
            return None
        found = decode(answer.payload)
        if found.problem:
            self.problems.append(f"{what}: {found.problem}")
            return None
        return found.decoded

    def _supported(self, service: int, what: str, frame: bytes = b"") -> list[int] | None:
        """Identifiers a service supports, mask by mask; none where it does not say."""
        found: list[int] = []
        for first in range(0, 0x100, MASK_STEP):
            said = self._ask(bytes([service, first]) + frame, what, expected=first > 0)
            if said is None:
                return found if first else None
            listed = [int(one, 16) for one in said["supported"]]
            found += [one for one in listed if one % MASK_STEP]
            if first + MASK_STEP not in listed:
                break
        return found

    def read(self) -> UnitRead:
        """Everything, as far as it was given."""
        row: Said = {"address": str(self._unit), "codes": None, "calibration_ids": None, "cvns": None}
        self._alone = not self._talk.ask(self._unit, FIRST).silent
        for what, part in (
            ("parameters", self._parameters),
            ("codes", self._codes),
            ("freeze frame", self._frames),
            ("tests", self._tests),
            ("tests since cleared", self._untested),
            ("identity", self._identity),
        ):
            self._heard(self._unit, what)
            try:
                row |= part()
            except NoLink as error:
                self.lost = str(error)
                self.problems.append(f"{what}: the link was lost")
                break
        return UnitRead(**row, problems=tuple(dict.fromkeys(self.problems)))

    def _parameters(self) -> Said:
        pids = self._supported(0x01, "parameters")
        if pids is None:
            return {}
        found: Said = {}
        for pid, key in ((READINESS, "readiness"), (TODAY, "today")):
            if pid in pids and (said := self._ask(bytes([1, pid]), f"parameter {pid:02X}", expected=True)):
                found[key] = _monitors(said)
                found |= {"lamp": said["lamp"]} if pid == READINESS else {}
        values: dict[int, Any] = {}
        for pid in (*known_parameters(), FUEL_SYSTEM):
            if pid in pids and (said := self._ask(bytes([1, pid]), f"parameter {pid:02X}", expected=True)):
                values[pid] = said["value"]
        counted = {"warm_ups": WARM_UPS, "km": CLEARED_KM, "minutes": CLEARED_MINUTES}
        found["since_cleared"] = SinceCleared(**{name: values.get(pid) for name, pid in counted.items()})
        live = {_name(pid): said for pid, said in values.items() if pid not in counted.values()}
        return found | {"live": live}

    def _codes(self) -> Said:
        """Codes with their memories; none where no memory answered, empty where one did and holds nothing."""
        memory: dict[str, list[str]] = {}
        before, self._heard_codes = len(self.problems), False
        for service, name in MEMORIES:
            said = self._ask(bytes([service]), f"{name} codes")
            if said is None and not self._was_heard and service == MEMORIES[0][0]:
                said = self._ask(bytes([service]), f"{name} codes")  # nothing matters more, and frames get lost
            self._heard_codes |= self._was_heard
            for code in dict.fromkeys(said["codes"] if said else ()):
                memory.setdefault(code, []).append(name)
        broken = len(self.problems) > before
        status: dict[str, str] = {}
        for code, found, bits in self._listed():
            if code[:5] not in memory and code not in memory:
                memory[code] = found
            status[code if code in memory else code[:5]] = bits
        rows = tuple(
            CodeRead(code=code, memory=tuple(found), status=status.get(code)) for code, found in memory.items() if found
        )
        if not self._heard_codes:
            self.problems.append("fault codes could not be read")
        return {"codes": rows if rows or (self._heard_codes and not broken) else None}

    def _listed(self) -> Iterator[tuple[str, list[str], str]]:
        """Codes of ISO 14229 with their memories and status."""
        request = uds.ReadDTCInformation.make_request(
            subfunction=uds.ReadDTCInformation.Subfunction.reportDTCByStatusMask, status_mask=STATUS_WANTED
        )
        said = self._ask(request.get_payload(), "codes by status")
        self._heard_codes |= self._was_heard
        self._by_status = said is not None
        for row in said["codes"] if said else ():
            memory = [name for flag, name in ((CONFIRMED, "stored"), (PENDING, "pending")) if flag in row["flags"]]
            if memory or "failed_now" in row["flags"]:
                yield row["code"], memory or ["pending"], row["status"]

    def _frames(self) -> Said:
        frames: list[FreezeFrame] = []
        for number in range(MOST_FRAMES):
            at = bytes([number])
            said = self._ask(bytes([2, FREEZE_CODE]) + at, "freeze frame")
            if said is None or said["code"] is None:
                break
            values: dict[str, float | str | None] = {}
            for pid in self._supported(0x02, f"freeze frame {number}", at) or ():
                if pid in known_parameters() or pid == FUEL_SYSTEM:
                    one = self._ask(bytes([2, pid]) + at, f"freeze frame {number}, {pid:02X}", expected=True)
                    values |= {_name(pid): one["value"]} if one else {}
            frames.append(FreezeFrame(code=said["code"], frame=number, values=values))
        return {"freeze_frames": tuple(frames)}

    def _tests(self) -> Said:
        rows: list[MonitorResult] = []
        for mid in self._supported(0x06, "tests") or ():
            said = self._ask(bytes([6, mid]), f"tests of {mid:02X}", expected=True)
            for one in said["results"] if said else ():
                kept = {key: one[key] for key in ("mid", "tid", "value", "min", "max", "passed")}
                rows.append(MonitorResult(**kept))
        return {"monitors": tuple(rows)}

    def _untested(self) -> Said:
        """How many tests have not completed since the memory was cleared (bit 4), of all it reports."""
        if not self._by_status:
            return {}
        kind = uds.ReadDTCInformation.Subfunction.reportSupportedDTCs
        request = uds.ReadDTCInformation.make_request(subfunction=kind)
        said = self._ask(request.get_payload(), "supported codes")
        rows = said["codes"] if said else ()
        left = sum(NOT_COMPLETED in one["flags"] for one in rows)
        return {"untested": Stored(on=left, of=len(rows))} if rows else {}

    def _identity(self) -> Said:
        kinds = self._supported(0x09, "identity")
        heard = self._was_heard
        found: Said = {}
        for kind, key, field in (
            (identity.VIN, "vin", "text"),
            (identity.CALIBRATIONS, "calibration_ids", "calibrations"),
            (identity.CVNS, "cvns", "cvn"),
            (identity.SPARK_COUNTERS, "counters", "counters"),
            (identity.COMPRESSION_COUNTERS, "counters", "counters"),
            (identity.NAME, "name", "text"),
        ):
            if kinds is not None and kind not in kinds:
                continue
            if kinds is None and kind not in (identity.VIN, identity.CALIBRATIONS, identity.CVNS):
                continue
            before = len(self.problems)
            said = self._ask(bytes([9, kind]), _INFORMATION[kind], expected=kinds is not None)
            heard |= self._was_heard
            if said is not None:
                found[key] = said[field]
            elif len(self.problems) > before and key in ("calibration_ids", "cvns"):
                found[key] = None
        if heard and not self._given_up:
            found = {"calibration_ids": (), "cvns": ()} | found
        if "vin" not in found:
            request = uds.ReadDataByIdentifier.make_request([VIN_IDENTIFIER], {VIN_IDENTIFIER: "17s"}).get_payload()
            said = self._ask(request, "identification number by identifier")
            if said is not None and said["text"] and len(said["text"]) == identity.VIN_LENGTH:
                found["vin"] = said["text"]
        return found


_INFORMATION = {
    identity.VIN: "identification number",
    identity.CALIBRATIONS: "calibrations",
    identity.CVNS: "calibration check sums",
    identity.SPARK_COUNTERS: "counters in use",
    identity.COMPRESSION_COUNTERS: "counters in use",
    identity.NAME: "its name",
}


def _name(pid: int) -> str:
    return "fuel_system" if pid == FUEL_SYSTEM else known_parameters()[pid].name


def _monitors(said: Said) -> dict[str, str]:
    """Every monitor of the kind of engine, from what an answer lists."""
    compression, ready, incomplete = said["ignition"] == "compression", said["ready"], said["incomplete"]
    return Readiness(False, 0, compression, tuple(ready), tuple(incomplete)).every
