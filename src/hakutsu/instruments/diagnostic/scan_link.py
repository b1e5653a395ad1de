"""Live data over a scan link: asks every control unit at once for one parameter after the other."""

from __future__ import annotations

from collections.abc import Collection

from hakutsu.core.scan.codec import parameters
from hakutsu.core.scan.codec.decode import decode
from hakutsu.instruments.addresses import NotAllowed, checked_address
from hakutsu.instruments.diagnostic.addresses import Unit
from hakutsu.instruments.diagnostic.bus import Bus, NoLink
from hakutsu.instruments.diagnostic.conversation import Conversation
from hakutsu.instruments.diagnostic.vehicle_reader import BITRATES, NOBODY

LIVE = 0x01


class ScanLink:
    """An open link; `units` are the control units that answered, with the parameters each supports."""

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
        self._hosts = hosts
        self.units: dict[Unit, frozenset[int]] = {}
        self._bus: Bus | None = None

    def open(self) -> None:
        """Listen first, then ask what is supported, at 500 and then 250 kbit/s, with identifiers of 11 and 29 bits.

        Raises
        ------
        NoLink
            If there is no adapter, or nothing on the bus answers.
        """
        for bitrate in BITRATES:
            self._bus = Bus(self.url, bitrate, self._hosts)
            for extended in (False, True):
                self.units = self._discover(extended=extended)
                if self.units:
                    return
            self.close()
        raise NoLink(NOBODY)

    def close(self) -> None:
        """Let go of the adapter."""
        bus, self._bus = self._bus, None
        if bus is not None:
            bus.close()

    def ask(self, payload: bytes, *, extended: bool | None = None, known: Collection[Unit] = ()) -> dict[Unit, bytes]:
        """Send one request to all control units; what they answer, done early where all `known` ones have.

        Silence means not supported.

        Raises
        ------
        Refused
            If the request would do more than read: nothing is sent then.
        NoLink
            If the adapter went away.
        """
        if self._bus is None:
            raise NoLink("the link is closed")
        long = any(one.extended for one in self.units) if extended is None else extended
        found = Conversation(self._bus).ask_all(payload, extended=long, known=known)
        return {unit: answer.payload for unit, answer in found.items() if answer.payload is not None}

    def _discover(self, *, extended: bool) -> dict[Unit, frozenset[int]]:
        found: dict[Unit, frozenset[int]] = {}
        for first in (0x00, 0x20, 0x40):
            for unit, payload in self.ask(bytes([LIVE, first]), extended=extended).items():
                listed = decode(payload).decoded.get("supported", ())
                found[unit] = found.get(unit, frozenset()) | {int(one, 16) for one in listed}
            if not any(first + parameters.MASK_STEP in pids for pids in found.values()):
                break
        return found

    def read(self, pid: int) -> float | None:
        """A parameter by the first control unit that has it; none where none has, or it does not answer."""
        known = [unit for unit, pids in self.units.items() if pid in pids]
        for unit, payload in sorted(self.ask(bytes([LIVE, pid]), known=known).items()) if known else ():
            said = decode(payload).decoded.get("value")
            if unit in known and isinstance(said, int | float):
                return float(said)
        return None
