"""A sweep of one inspection's vehicle, in a thread of its own: other steps go on meanwhile; it can be stopped."""

from __future__ import annotations

import logging
from threading import Event, RLock, Thread
from typing import Any
from uuid import UUID

from hakutsu.entries import Draft
from hakutsu.entries.engine import EngineSample
from hakutsu.entries.scan import ScanRead, ScanTally, Stored
from hakutsu.instruments.diagnostic.bus import NoLink
from hakutsu.instruments.diagnostic.vehicle_reader import Progress, VehicleReader
from hakutsu.web.desk import Desk
from hakutsu.web.owned import DidNotStart, OwnedStandIn, Sessions

_log = logging.getLogger("hakutsu.scan")


def tally(desk: Desk, inspection: UUID) -> ScanTally:
    """On how many finished vehicles of the same name each unit held codes."""
    name = desk.reckoning(inspection).dossier.vehicle.name.casefold()
    seen: dict[str, list[bool]] = {}
    for one in desk.summaries.finished():
        if one.inspection != inspection and one.vehicle.casefold() == name:
            for unit, held in (one.units or {}).items():
                seen.setdefault(unit, []).append(held)
    return ScanTally(units={unit: Stored(on=sum(held), of=len(held)) for unit, held in seen.items()})


def sample(read: ScanRead) -> EngineSample | None:
    """What a sweep says of an engine that runs, as a sample of its run; none where it stands, or does not say."""
    for unit in read.modules:
        run, coolant, rpm = (unit.live.get(name) for name in ("run_s", "coolant_c", "rpm"))
        if all(isinstance(one, int | float) for one in (run, coolant, rpm)) and rpm:
            minute = round(float(run or 0) / 60, 2)
            return EngineSample(minute=minute, coolant_c=float(coolant or 0), rpm=float(rpm), by_link=True)
    return None


class Sweep:
    """At most one sweep at a time; what it reads becomes one entry."""

    def __init__(self, desk: Desk, inspection: UUID) -> None:
        self._desk, self._inspection = desk, inspection
        self._lock = RLock()
        self._stop = Event()
        self._thread: Thread | None = None
        self._progress = Progress("")
        self.said = ""

    @property
    def running(self) -> bool:
        """Whether a sweep is under way."""
        return self._thread is not None and self._thread.is_alive()

    def state(self) -> dict[str, Any]:
        """What a page shows of it."""
        now = self._progress
        entries = len(self._desk.reckoning(self._inspection).dossier.entries)
        return {"running": self.running, "doing": now.doing, "found": now.found, "read": now.read, "said": self.said,
                "entries": entries}  # fmt: skip

    def start(self, url: str, *, scenario: str = "", wide: bool = False) -> None:
        """Begin; `scenario` reads the stand-in instead of an adapter.

        Raises
        ------
        NoLink
            If one is under way already.
        """
        with self._lock:
            if self.running:
                raise NoLink("a sweep is under way; stop it first")
            self._stop.clear()
            self.said, self._progress = "", Progress("starting")
            self._thread = Thread(target=self._run, args=(url, scenario, wide), name="sweep", daemon=True)
            self._thread.start()

    def close(self) -> None:
        """Stop and wait; what was read is kept."""
        self._stop.set()
        if self._thread is not None and self._thread.is_alive():
            self._thread.join(timeout=15)

    def _run(self, url: str, scenario: str, wide: bool) -> None:
        owned: OwnedStandIn | None = None
        try:
            if scenario:
                owned = OwnedStandIn("vehicle", "simulate", "--scenario", scenario)
                url = owned.url
            hosts = self._desk.settings.link_hosts
            read = VehicleReader(url, hosts, wide=wide, told=self._tell, stopped=self._stop.is_set).read()
            self._keep(read.model_copy(update={"simulated": owned is not None}))
        except (NoLink, DidNotStart) as trouble:
            self.said = str(trouble)
        except Exception as error:
            _log.exception("a sweep ended")
            self.said = f"the sweep broke off: {error}"
        finally:
            if owned is not None:
                owned.end()

    def _tell(self, progress: Progress) -> None:
        self._progress = progress

    def _keep(self, read: ScanRead) -> None:
        now, drafts = self._desk.now(), list[Draft]()
        if not read.simulated and (body := tally(self._desk, self._inspection)).units:
            drafts.append(Draft.write("scan.tally", body, now))
        drafts.append(Draft.write("scan.read", read, now))
        dossier = self._desk.reckoning(self._inspection).dossier
        if not read.simulated and dossier.engine.start is not None and (one := sample(read)) is not None:
            drafts.append(Draft.write("engine.sample", one, now))
        self._desk.logbook.append(self._inspection, drafts, self._desk.author)


class Sweeps(Sessions[Sweep]):
    """The sweeps of all inspections."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(lambda inspection: Sweep(desk, inspection))
