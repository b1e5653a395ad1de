"""The lowest transport function: an adapter on a CAN bus that lets through what reads, and nothing else."""

from __future__ import annotations

from collections.abc import Collection
from typing import Any, Self

import can

from hakutsu.instruments.addresses import NotAllowed, checked_address
from hakutsu.instruments.diagnostic.services import checked_frame

LISTEN_SECONDS, SETTLE_SECONDS, READ_SECONDS = 0.1, 0.05, 0.02
SOCKETCAN = "socketcan:"


class NoLink(RuntimeError):
    """No adapter or no control unit answers, or the adapter went away; the message says which."""


class Bus:
    """An open adapter; it listened before it could send anything."""

    def __init__(self, url: str, bitrate: int, hosts: Collection[str] = ()) -> None:
        """Listen, then open for asking.

        Parameters
        ----------
        url : `socketcan:NAME`, a port, or `socket://HOST:PORT` of an adapter with the serial-line CAN ASCII protocol
        bitrate : of the bus [bit/s]; a socketcan interface has its own
        hosts : those beside this machine that may be reached

        Raises
        ------
        NoLink
            If no link may lead there, or no adapter is there.
        """
        try:
            self.url = checked_address(url, hosts, can=True)
        except NotAllowed as error:
            raise NoLink(str(error)) from error
        self.bitrate = None if self.url.startswith(SOCKETCAN) else bitrate
        self.garbled = 0
        self._bus: Any = None
        self._listen(bitrate)
        self._bus = self._opened(bitrate, listen_only=False)

    def __enter__(self) -> Self:
        """Itself."""
        return self

    def __exit__(self, *_: object) -> None:
        """Let go of the adapter."""
        self.close()

    def _opened(self, bitrate: int, *, listen_only: bool) -> Any:
        try:
            if self.url.startswith(SOCKETCAN):
                return can.Bus(interface="socketcan", channel=self.url.removeprefix(SOCKETCAN))
            return can.Bus(interface="slcan", channel=self.url, bitrate=bitrate, listen_only=listen_only,
                           sleep_after_open=SETTLE_SECONDS, timeout=READ_SECONDS)  # fmt: skip
        except (can.CanError, OSError, ValueError) as error:
            raise NoLink(f"no adapter at {self.url}: {error}") from error

    def _listen(self, bitrate: int) -> None:
        self._bus = self._opened(bitrate, listen_only=True)
        try:
            self.heard(LISTEN_SECONDS)
        finally:
            self.close()

    def send(self, identifier: int, data: bytes, *, extended: bool) -> None:
        """Put a frame on the bus, if it asks for reading or lets an answer go on.

        Raises
        ------
        Refused
            If it would do more: nothing is sent then.
        NoLink
            If the adapter went away.
        """
        frame = checked_frame(data)
        if self._bus is None:
            raise NoLink("the link is closed")
        try:
            self._bus.send(can.Message(arbitration_id=identifier, data=frame, is_extended_id=extended))
        except (can.CanError, OSError) as error:
            raise NoLink("the adapter went away") from error

    def heard(self, seconds: float) -> can.Message | None:
        """The next frame within a time [s]; what the adapter says that is no frame is counted and left out.

        Raises
        ------
        NoLink
            If the adapter went away.
        """
        if self._bus is None:
            raise NoLink("the link is closed")
        try:
            said: can.Message | None = self._bus.recv(max(seconds, 0.0))
        except (ValueError, IndexError, KeyError):
            self.garbled += 1
            return None
        except (can.CanError, OSError) as error:
            raise NoLink("the adapter went away") from error
        return None if said is None or said.is_remote_frame or said.is_error_frame else said

    def close(self) -> None:
        """Let go of the adapter."""
        bus, self._bus = self._bus, None
        if bus is not None:
            try:
                bus.shutdown()
            except (can.CanError, OSError):
                return  # it went away by itself
