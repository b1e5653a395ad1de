"""The scan link of an inspection during the engine run: samples by the minute, idle speeds when asked for."""

from __future__ import annotations

import logging
from threading import Event, RLock, Thread
from time import monotonic
from typing import Any
from uuid import UUID

from hakutsu.core.scan.codec.parameters import Pid
from hakutsu.entries import Draft
from hakutsu.entries.engine import EngineIdle, EngineSample, heat_suspected
from hakutsu.entries.registry import Body
from hakutsu.instruments.diagnostic.bus import NoLink
from hakutsu.instruments.diagnostic.scan_link import ScanLink
from hakutsu.web.desk import Desk
from hakutsu.web.owned import DidNotStart, OwnedStandIn, Sessions

POLL_SECONDS = 0.5
EVERY_MINUTES = 1.0
IDLE_READINGS, IDLE_HERTZ = 120, 4.0
WARM_FROM_C = 75.0
LOST_AFTER = 5
_log = logging.getLogger("hakutsu.scan")


class ScanSession:
    """One inspection's link: at most one; its samples are entries like those noted by hand."""

    def __init__(self, desk: Desk, inspection: UUID) -> None:
        self._desk, self._inspection = desk, inspection
        self._lock = RLock()
        self._link: ScanLink | None = None
        self._owned: OwnedStandIn | None = None
        self._thread: Thread | None = None
        self._stop = Event()
        self._wanted: dict[str, bool] | None = None
        self._taken: list[float] = []
        self._began = 0.0
        self._last_minute: float | None = None
        self.said = ""
        self.now: dict[str, float | None] = {}

    @property
    def open_now(self) -> bool:
        """Whether the link is open."""
        return self._link is not None

    def state(self) -> dict[str, Any]:
        """What a page shows of it; numbers in stored units."""
        return {
            "open": self.open_now,
            "standIn": self._owned is not None,
            "said": self.said,
            "now": self.now,
            "idle": {"taken": len(self._taken), "wanted": IDLE_READINGS} if self._wanted is not None else None,
            "entries": len(self._desk.reckoning(self._inspection).dossier.entries),
        }

    def open(self, url: str) -> None:
        """Open the link; an open one is closed first.

        Raises
        ------
        NoLink
            If there is no adapter, or nothing answers.
        """
        self.close()
        link = ScanLink(url, self._desk.settings.link_hosts)
        link.open()
        self._link, self.said, self._last_minute = link, "", None
        self._stop.clear()
        self._thread = Thread(target=self._run, name=f"scan {url}", daemon=True)
        self._thread.start()

    def open_stand_in(self, engine: str, fast: float) -> None:
        """Start a stand-in and open the link to it.

        Raises
        ------
        NoLink
            If it does not start, or does not answer.
        """
        self.close()
        try:
            owned = OwnedStandIn(
                "vehicle", "simulate", "--scenario", "healthy", "--engine", engine, "--fast", f"{fast:g}"
            )
        except DidNotStart as error:
            raise NoLink(str(error)) from error
        try:
            self.open(owned.url)
        except NoLink:
            owned.end()
            raise
        self._owned = owned

    def close(self) -> None:
        """Close the link and end the stand-in; what was stored stays."""
        self._stop.set()
        if self._thread is not None and self._thread.is_alive():
            self._thread.join(timeout=5)
        with self._lock:
            link, self._link = self._link, None
            owned, self._owned = self._owned, None
            self._wanted, self._taken, self.now = None, [], {}
        if link is not None:
            link.close()
        if owned is not None:
            owned.end()

    def record_idle(self, *, switched: bool, carburettor: bool) -> None:
        """Take speeds at idle from now on until there are enough; they become one entry.

        Raises
        ------
        NoLink
            If the link is not open.
        """
        if not self.open_now:
            raise NoLink("the link is not open")
        with self._lock:
            self._taken, self._began = [], monotonic()
            self._wanted = {"switched": switched, "carburettor": carburettor}

    def _run(self) -> None:
        try:
            self._read()
        except Exception as error:
            _log.exception("scan link ended")
            self.said = f"the link broke off: {error}"
        if not self._stop.is_set():
            with self._lock:
                link, self._link = self._link, None
                self._wanted, self._taken = None, []
            if link is not None:
                link.close()

    def _read(self) -> None:
        missed = 0
        while not self._stop.is_set():
            began = monotonic()
            try:
                heard = self._poll()
            except NoLink as trouble:
                self.said = str(trouble)
                break
            missed = 0 if heard else missed + 1
            if missed >= LOST_AFTER:
                self.said = "no control unit answers any more"
                break
            pause = 1 / IDLE_HERTZ if self._wanted is not None else POLL_SECONDS
            self._stop.wait(max(0.0, pause - (monotonic() - began)))

    def _poll(self) -> bool:
        """Read once; true when anything answered."""
        link = self._link
        if link is None:
            return False
        if self._wanted is not None:
            rpm = link.read(Pid.RPM)
            if rpm is not None:
                self.now = {**self.now, "rpm": rpm}
                self._take_idle(rpm)
            return rpm is not None
        run, coolant, rpm = (link.read(pid) for pid in (Pid.RUN_TIME, Pid.COOLANT, Pid.RPM))
        minute = round(run / 60, 2) if run is not None else None
        self.now = {"minute": minute, "coolant_c": coolant, "rpm": rpm}
        if minute is not None and coolant is not None and rpm and self._due(minute, coolant):
            self._last_minute = minute
            self._append("engine.sample", EngineSample(minute=minute, coolant_c=coolant, rpm=rpm, by_link=True))
        return any(one is not None for one in (run, coolant, rpm))

    def _due(self, minute: float, coolant_c: float) -> bool:
        """A sample a minute; what looks too hot is read again at once."""
        last = self._last_minute
        if last is None or minute < last or minute - last >= EVERY_MINUTES:
            return True
        return heat_suspected((minute, coolant_c, False)) and minute > last

    def _take_idle(self, rpm: float) -> None:
        with self._lock:
            wanted = self._wanted
            if wanted is None:
                return
            self._taken.append(rpm)
            if len(self._taken) < IDLE_READINGS:
                return
            hertz = (len(self._taken) - 1) / max(monotonic() - self._began, 1e-6)
            taken, self._taken, self._wanted = self._taken, [], None
        coolant = self.now.get("coolant_c")
        warm = coolant is not None and coolant >= WARM_FROM_C
        body = EngineIdle(rpm=tuple(taken), hertz=round(hertz, 3), warm=warm, by_link=True, **wanted)
        self._append("engine.idle", body)

    def _append(self, kind: str, body: Body) -> None:
        draft = Draft.write(kind, body, self._desk.now())
        self._desk.logbook.append(self._inspection, [draft], self._desk.author)


class ScanSessions(Sessions[ScanSession]):
    """The scan links of all inspections."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(lambda inspection: ScanSession(desk, inspection))
