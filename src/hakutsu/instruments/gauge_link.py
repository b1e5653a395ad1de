"""A film gauge on a serial link: reads lines in a thread of its own, reconnects by itself, sends when asked."""

from __future__ import annotations

from collections.abc import Callable
from threading import Event, Lock, Thread

import serial

from hakutsu.instruments.gauge_line import LONGEST_LINE, Garbled, Line, ProbeLine, WhoLine, read_line, write_line

BAUD = 9600
RETRY_SECONDS = (0.2, 0.5, 1.0, 2.0)
READ_SECONDS = 0.2


class GaugeLink:
    """A link to whatever speaks the line protocol at a pyserial URL (a port's name, `socket://…`, `rfc2217://…`).

    `on_line` gets every good line, `on_garbled` every other with the reason, `on_state` true and false as the link
    comes and goes. All are called from the link's own thread.
    """

    def __init__(
        self,
        url: str,
        on_line: Callable[[Line], None],
        on_garbled: Callable[[bytes, str], None],
        on_state: Callable[[bool], None],
    ) -> None:
        self.url = url
        self._on_line, self._on_garbled, self._on_state = on_line, on_garbled, on_state
        self._stop = Event()
        self._lock = Lock()
        self._port: serial.SerialBase | None = None
        self._thread = Thread(target=self._run, name=f"gauge {url}", daemon=True)

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

    def _run(self) -> None:
        failures = 0
        while not self._stop.is_set():
            try:
                port = serial.serial_for_url(self.url, baudrate=BAUD, timeout=READ_SECONDS)
            except (serial.SerialException, OSError, ValueError):
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
