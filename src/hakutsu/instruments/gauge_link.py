"""A film gauge on a serial link: reads lines in a thread of its own, reconnects by itself, sends when asked."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable, Collection
from threading import Event, Lock, Thread

import serial

from hakutsu.instruments.addresses import NotAllowed, checked_address
from hakutsu.instruments.gauge_line import LONGEST_LINE, Garbled, Line, ProbeLine, WhoLine, read_line, write_line

BAUD = 9600
RETRY_SECONDS = (0.2, 0.5, 1.0, 2.0)
READ_SECONDS = 0.2
GIVES_UP_SECONDS = 600.0
_log = logging.getLogger("hakutsu.gauge")


class GaugeLink:
    """A link to what speaks the line protocol at a port of this machine, or at a `socket://HOST:PORT` that is allowed.

    `on_line` gets every good line, `on_garbled` every other with the reason, `on_state` true and false as the link
    comes and goes, `on_end` what ended it when nobody asked for that. All are called from the link's own thread.
    """

    def __init__(
        self,
        url: str,
        on_line: Callable[[Line], None],
        on_garbled: Callable[[bytes, str], None],
        on_state: Callable[[bool], None],
        on_end: Callable[[str], None],
        hosts: Collection[str] = (),
    ) -> None:
        self.url = checked_address(url, hosts)
        self._hosts = hosts
        self._on_line, self._on_garbled, self._on_state, self._on_end = on_line, on_garbled, on_state, on_end
        self._stop = Event()
        self._lock = Lock()
        self._port: serial.SerialBase | None = None
        self._thread = Thread(target=self._run_to_the_end, name=f"gauge {url}", daemon=True)

    def start(self) -> None:
        """Begin to read."""
        self._thread.start()

    def stop(self) -> None:
        """Close the link and wait for its thread to end."""
        self._stop.set()
        if self._thread.is_alive():
            self._thread.join(timeout=3)

    def send(self, line: ProbeLine | WhoLine) -> bool:
        """Send a line; false when the link is down."""
        with self._lock:
            if self._port is None:
                return False
            try:
                self._port.write(write_line(line))
            except (serial.SerialException, OSError):
                return False
            return True

    def _run_to_the_end(self) -> None:
        try:
            ended = self._run()
        except Exception as error:
            _log.exception("gauge link to %s ended", self.url)
            ended = f"the link broke off: {error}"
        with self._lock:
            port, self._port = self._port, None
        if port is not None:
            port.close()
        if not self._stop.is_set():
            self._on_end(ended)

    def _run(self) -> str:
        """Read until stopped; otherwise what ended it."""
        failures, failing_since = 0, time.monotonic()
        while not self._stop.is_set():
            try:
                address = checked_address(self.url, self._hosts)
                port = serial.serial_for_url(address, baudrate=BAUD, timeout=READ_SECONDS)
            except NotAllowed as error:
                return str(error)
            except (serial.SerialException, OSError, ValueError):
                if time.monotonic() - failing_since > GIVES_UP_SECONDS:
                    return f"no gauge answered at {self.url} for {GIVES_UP_SECONDS / 60:.0f} minutes: connect it again"
                self._stop.wait(RETRY_SECONDS[min(failures, len(RETRY_SECONDS) - 1)])
                failures += 1
                continue
            failures = 0
            with self._lock:
                self._port = port
            self._on_state(True)
            self.send(WhoLine())
            self._read_until_lost(port)
            with self._lock:
                self._port = None
            port.close()
            self._on_state(False)
            failing_since = time.monotonic()
        return ""

    def _read_until_lost(self, port: serial.SerialBase) -> None:
        waiting, told = b"", False
        while not self._stop.is_set():
            try:
                waiting += port.read(max(1, port.in_waiting))
            except (serial.SerialException, OSError):
                return
            *lines, waiting = waiting.split(b"\n")
            for raw in lines:
                # The end of a line already told as too long is no line of its own.
                if raw.strip() and not told:
                    self._take(raw)
                told = False
            if len(waiting) > LONGEST_LINE:
                if not told:
                    self._take(waiting)
                waiting, told = b"", True

    def _take(self, raw: bytes) -> None:
        try:
            line = read_line(raw)
        except Garbled as error:
            self._on_garbled(raw[:LONGEST_LINE], str(error))
            return
        self._on_line(line)
