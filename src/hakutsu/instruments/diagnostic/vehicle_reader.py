"""Read a whole vehicle: find the link, sweep for units, read each; what was good is kept when the link is lost."""

from __future__ import annotations

import time
from collections.abc import Callable, Collection
from dataclasses import dataclass

from hakutsu.entries.scan import Link, ScanRead, UnitRead
from hakutsu.instruments.diagnostic.addresses import Unit, asked_one_by_one
from hakutsu.instruments.diagnostic.bus import SOCKETCAN, Bus, NoLink
from hakutsu.instruments.diagnostic.conversation import Answer, Conversation
from hakutsu.instruments.diagnostic.unit_reader import UnitReader

BITRATES = (500_000, 250_000)
SUPPORTED, PRESENT, PROTOCOL = b"\x01\x00", b"\x3e\x00", b"\x22\xf8\x10"
PROBE_SECONDS, WIDE_SECONDS = 0.15, 0.06
WHOLE_SECONDS = 35.0  # after the sweep no unit is begun later, so a read ends: within a minute, or two where asked wide


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a sweep is: what it does now, units found, and units read."""

    doing: str
    found: int = 0
    read: int = 0


ON_UDS = "this vehicle gives no legislated services 01 to 0A: its codes come by ISO 14229 alone"
Told = Callable[[Progress], None]
NOBODY = "the adapter is there, and no control unit answers: is the key on, and does this vehicle have a link?"


class VehicleReader:
    """Reads a vehicle over an adapter; told to stop, it gives what it has."""

    def __init__(
        self,
        url: str,
        hosts: Collection[str] = (),
        *,
        wide: bool = False,
        told: Told = lambda _: None,
        stopped: Callable[[], bool] = lambda: False,
    ) -> None:
        self._url, self._hosts, self._wide = url, hosts, wide
        self._told, self._stopped = told, stopped
        self._problems: list[str] = []
        self._read: list[UnitRead] = []

    def read(self) -> ScanRead:
        """Find units and read them.

        Raises
        ------
        NoLink
            If there is no adapter, or no unit answers at either rate.
        """
        rates = BITRATES[:1] if self._url.startswith(SOCKETCAN) else BITRATES
        for bitrate in rates:
            self._told(Progress(f"listening, then asking at {bitrate // 1000} kbit/s"))
            with Bus(self._url, bitrate, self._hosts) as bus:
                talk = Conversation(bus, self._stopped)
                units = self._everybody(talk)
                if units:
                    return self._whole(bus, talk, units)
            if self._stopped():
                break
        raise NoLink(NOBODY)

    def _everybody(self, talk: Conversation) -> list[Unit]:
        """Units that answer when all are asked."""
        found: dict[Unit, Answer] = {}
        for payload in (SUPPORTED, PROTOCOL):
            for extended in (False, True):
                found |= talk.ask_all(payload, extended=extended)
            if found:
                self._problems += [ON_UDS] if payload == PROTOCOL else []
                break
        return sorted(found)

    def _whole(self, bus: Bus, talk: Conversation, units: list[Unit]) -> ScanRead:
        try:
            units = self._swept(talk, units)
            began = time.monotonic()
            for number, unit in enumerate(units):
                if self._stopped():
                    self._problems.append(f"stopped by hand after {number} of {len(units)} units")
                    break
                if time.monotonic() - began > WHOLE_SECONDS:
                    self._problems.append(f"{len(units) - number} units were left unread: it took too long")
                    break
                self._one(talk, unit, len(units))
        except NoLink as error:
            self._problems.append(f"the link was lost: {error}")
        if bus.garbled:
            self._problems.append(f"the adapter sent {bus.garbled} lines that are no frames")
        read = {one.address for one in self._read}
        kept = [*self._read, *(UnitRead(address=str(one), problems=("not read",), codes=None, calibration_ids=None,
                                        cvns=None) for one in units if str(one) not in read)]  # fmt: skip
        link = Link(bitrate=bus.bitrate, identifiers=29 if all(one.extended for one in units) else 11)
        return ScanRead(link=link, modules=tuple(kept), problems=tuple(dict.fromkeys(self._problems)))

    def _swept(self, talk: Conversation, units: list[Unit]) -> list[Unit]:
        """The same with those that speak only when asked by themselves; asked alone, each answers or refuses."""
        found = set(units)
        for unit in asked_one_by_one(wide=self._wide):
            if unit in found or self._stopped():
                continue
            self._told(Progress(f"asking {unit.asked:X}", len(found)))
            window = WIDE_SECONDS if unit.extended else PROBE_SECONDS
            for payload in (PRESENT,) if unit.extended else (SUPPORTED, PRESENT):
                if not talk.ask(unit, payload, window=window).silent:
                    found.add(unit)
                    break
        return sorted(found)

    def _one(self, talk: Conversation, unit: Unit, count: int) -> None:
        done = len(self._read)
        reader = UnitReader(talk, unit, lambda one, what: self._told(Progress(f"{one}: {what}", count, done)))
        self._read.append(reader.read())
        if reader.lost:
            raise NoLink(reader.lost)
