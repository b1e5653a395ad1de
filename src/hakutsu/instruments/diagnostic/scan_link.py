"""A scan link over CAN: asks every control unit at once, waits for what answers. It reads, and can do nothing else."""

from __future__ import annotations

import time
from collections.abc import Collection
from typing import Any

import can

from hakutsu.instruments.addresses import NotAllowed, checked_address
from hakutsu.instruments.diagnostic.frames import ANSWERS, FUNCTIONAL, packed, unpacked
from hakutsu.instruments.diagnostic.live import MASK_STEP, request, supported, value
from hakutsu.instruments.diagnostic.services import checked

BITRATES = (500_000, 250_000)
P2_SECONDS = 0.05
LATENCY_SECONDS = 0.15  # what a serial adapter and this machine add
LISTEN_SECONDS = 0.1
SETTLE_SECONDS = 0.05
NEGATIVE, PENDING = 0x7F, 0x78


class NoLink(RuntimeError):
    """No adapter or no control unit answers; the message says which."""


def _open_bus(url: str, bitrate: int, *, listen_only: bool) -> Any:
    """A python-can bus: `socketcan:NAME`, or a serial adapter at a pyserial URL that speaks its ASCII protocol."""
    try:
        if url.startswith("socketcan:"):
            return can.Bus(interface="socketcan", channel=url.removeprefix("socketcan:"))
        return can.Bus(interface="slcan", channel=url, bitrate=bitrate, listen_only=listen_only,
                       sleep_after_open=SETTLE_SECONDS, timeout=0.02)  # fmt: skip
    except (can.CanError, OSError, ValueError) as error:
        raise NoLink(f"no adapter at {url}: {error}") from error


class ScanLink:
    """An open link; `ecus` are the control units that answered, with the parameters each supports."""

    def __init__(self, url: str, hosts: Collection[str] = ()) -> None:
        """A link to an adapter; `hosts` are those beside this machine that may be reached.

        Raises
        ------
        NoLink
            If no link may lead there.
        """
        try:
            self.url = checked_address(url, hosts, can=True)
        except NotAllowed as error:
            raise NoLink(str(error)) from error
        self.ecus: dict[int, frozenset[int]] = {}
        self._bus: Any = None

    def open(self) -> None:
        """Listen first, then ask what is supported, at 500 and then 250 kbit/s.

        Raises
        ------
        NoLink
            If there is no adapter, or nothing on the bus answers.
        """
        for bitrate in BITRATES:
            self._listen(bitrate)
            self._bus = _open_bus(self.url, bitrate, listen_only=False)
            self.ecus = self._discover()
            if self.ecus:
                return
            self.close()
        raise NoLink("the adapter is there, and no control unit answers: key on? a link by hand instead")

    def _listen(self, bitrate: int) -> None:
        bus = _open_bus(self.url, bitrate, listen_only=True)
        try:
            bus.recv(LISTEN_SECONDS)
        finally:
            bus.shutdown()

    def close(self) -> None:
        """Let go of the adapter."""
        bus, self._bus = self._bus, None
        if bus is not None:
            bus.shutdown()

    def ask(self, payload: bytes) -> dict[int, bytes]:
        """Send one request to all control units; answers by identifier. Silence means not supported.

        Raises
        ------
        Refused
            If the request would do more than read: nothing is sent then.
        NoLink
            If the adapter went away.
        """
        data = packed(checked(payload))
        if self._bus is None:
            raise NoLink("the link is closed")
        try:
            while self._bus.recv(0) is not None:
                pass
            self._bus.send(can.Message(arbitration_id=FUNCTIONAL, data=data, is_extended_id=False))
            return self._answers(payload)
        except (can.CanError, OSError) as error:
            raise NoLink(f"the adapter went away: {error}") from error

    def _answers(self, payload: bytes) -> dict[int, bytes]:
        found: dict[int, bytes] = {}
        until = time.monotonic() + P2_SECONDS + LATENCY_SECONDS
        while (left := until - time.monotonic()) > 0 and (not self.ecus or len(found) < len(self.ecus)):
            message = self._bus.recv(left)
            said = unpacked(bytes(message.data)) if message and message.arbitration_id in ANSWERS else None
            if message is not None and said and said[0] == payload[0] + 0x40 and said[1:2] == payload[1:2]:
                found[message.arbitration_id] = said
        return found

    def _discover(self) -> dict[int, frozenset[int]]:
        found: dict[int, frozenset[int]] = {}
        for first in (0x00, 0x20, 0x40):
            for ecu, payload in self.ask(request(first)).items():
                found[ecu] = found.get(ecu, frozenset()) | (supported(first, payload) or frozenset())
            if not any(first + MASK_STEP in pids for pids in found.values()):
                break
        return found

    def read(self, pid: int) -> float | None:
        """A parameter by the first control unit that has it; none where none has, or it does not answer."""
        for ecu, payload in sorted(self.ask(request(pid)).items()):
            if pid in self.ecus.get(ecu, frozenset()) and (said := value(pid, payload)) is not None:
                return said
        return None
