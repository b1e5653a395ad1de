"""The gauge link of an inspection: one reader, readings stored as entries where the probe is aimed, news for pages."""

from __future__ import annotations

import logging
from collections import deque
from threading import Event, RLock, Thread
from typing import Any
from uuid import UUID

from hakutsu.entries import Draft
from hakutsu.entries.film import GaugeInUse, Reading, Source
from hakutsu.instruments.addresses import NotAllowed
from hakutsu.instruments.gauge_line import FilmLine, HelloLine, Line, ProbeLine
from hakutsu.instruments.gauge_link import GaugeLink
from hakutsu.instruments.gauge_stand_in import painted_cars
from hakutsu.logbook import Refused
from hakutsu.report.wording import reading_words
from hakutsu.vehicle.vocabulary import Substrate
from hakutsu.web.desk import Desk
from hakutsu.web.film.aiming import Aim, next_aim
from hakutsu.web.owned import DidNotStart, OwnedStandIn, Sessions

KEPT_NEWS = 400
_log = logging.getLogger("hakutsu.gauge")
ANSWER_SECONDS = 6.0


class LinkTrouble(RuntimeError):
    """The link cannot do what was asked; the message says why."""


class GaugeSession:
    """One inspection's gauge: the link, where its probe is aimed, and the stand-in if the server started one."""

    def __init__(self, desk: Desk, inspection: UUID) -> None:
        self._desk, self._inspection = desk, inspection
        self._lock = RLock()
        self._link: GaugeLink | None = None
        self._process: OwnedStandIn | None = None
        self._walking: Thread | None = None
        self._stop_walk, self._answered = Event(), Event()
        self.news: deque[tuple[int, dict[str, Any]]] = deque(maxlen=KEPT_NEWS)
        self.last = 0
        self.connected = False
        self.stand_in = False
        self.follows = False
        self.url = ""
        self.ended = ""
        self.gauge = ""
        self.battery: int | None = None
        self.aim: Aim | None = None
        self.walked: tuple[int, int] | None = None

    def state(self) -> dict[str, Any]:
        """What a page shows of the link."""
        aim = self.aim
        return {
            "type": "state",
            "open": self._link is not None,
            "connected": self.connected,
            "standIn": self.stand_in,
            "url": self.url,
            "ended": self.ended,
            "gauge": self.gauge,
            "battery": self.battery,
            "follows": self.follows,
            "walked": self.walked,
            "aim": {"panel": aim.panel, "u": aim.u, "v": aim.v, "words": aim.words} if aim else None,
        }

    def tell(self, **said: Any) -> None:
        """Put news up for every page that listens."""
        with self._lock:
            self.last += 1
            self.news.append((self.last, said))

    def since(self, seen: int) -> list[tuple[int, dict[str, Any]]]:
        """News after a number."""
        with self._lock:
            return [one for one in self.news if one[0] > seen]

    def open(self, url: str, *, follows: bool) -> None:
        """Open the link to a port or socket; an open one is closed first.

        Raises
        ------
        LinkTrouble
            If no link may lead there.
        """
        self.close()
        hosts = self._desk.settings.link_hosts
        try:
            link = GaugeLink(url, self._on_line, self._on_garbled, self._on_state, self._on_end, hosts)
        except NotAllowed as error:
            raise LinkTrouble(str(error)) from error
        self.url, self.follows, self.ended = link.url, follows, ""
        self._link = link
        link.start()
        self.tell(**self.state())

    def open_stand_in(self) -> None:
        """Start a stand-in for this vehicle as a process of its own, and open the link to it."""
        self.close()
        vehicle = self._desk.reckoning(self._inspection).dossier.vehicle
        body = (vehicle.body_style, vehicle.doors)
        fitting = [name for name, car in painted_cars().items() if (car["style"], car["doors"]) == body]
        car = fitting[0] if fitting else str(self._inspection)
        try:
            started = OwnedStandIn(
                "gauge", "simulate", "--car", car, "--style", body[0], "--doors", str(body[1])
            )  # fmt: skip
        except DidNotStart as error:
            raise LinkTrouble(str(error)) from error
        self.open(started.url, follows=True)
        self._process, self.stand_in = started, True
        self.tell(**self.state())

    def close(self) -> None:
        """Stop the walk, close the link, end the stand-in."""
        self.stop_walk()
        with self._lock:
            link, self._link = self._link, None
            process, self._process = self._process, None
        if link is not None:
            link.stop()
        if process is not None:
            process.end()
        self.connected = self.stand_in = False
        self.gauge, self.battery, self.walked = "", None, None
        self.tell(**self.state())

    def take_aim(self, aim: Aim, *, probe: bool = False) -> None:
        """Aim the next reading; with `probe` the stand-in sets its probe down there at once.

        Raises
        ------
        LinkTrouble
            If the probe cannot be set down.
        """
        with self._lock:
            self.aim = aim
        self.tell(**self.state())
        if probe:
            self._set_down(aim)

    def _set_down(self, aim: Aim) -> None:
        place = ProbeLine(aim.panel, 0.5 if aim.u is None else aim.u, 0.5 if aim.v is None else aim.v)
        if self._link is None or not self.stand_in or not self._link.send(place):
            raise LinkTrouble("the stand-in is not connected")

    def _on_state(self, connected: bool) -> None:
        self.connected = connected
        self.tell(**self.state())

    def _on_end(self, why: str) -> None:
        """The link ended by itself: its page says why, and it can be opened again."""
        self.ended = why
        with self._lock:
            self._link, self.connected = None, False
            process, self._process = self._process, None
        if process is not None:
            process.end()
        self.tell(**self.state())

    def _on_garbled(self, raw: bytes, why: str) -> None:
        self.tell(type="garbled", line=raw.decode("ascii", "replace").strip()[:80], why=why)

    def _on_line(self, line: Line) -> None:
        if isinstance(line, HelloLine):
            self._on_hello(line)
        elif isinstance(line, FilmLine):
            self._on_film(line)

    def _on_hello(self, line: HelloLine) -> None:
        self.gauge, self.ended = line.name, ""
        said = GaugeInUse(name=line.name, unit=line.unit, step_um=line.step_um, limit_um=line.limit_um)
        if self._desk.reckoning(self._inspection).dossier.film.gauge != said:
            self._append("film.gauge", said)
        self.tell(**self.state())

    def _on_film(self, line: FilmLine) -> None:
        self.battery = line.battery
        reckoning = self._desk.reckoning(self._inspection)
        with self._lock:
            aim = self.aim or next_aim(reckoning, reckoning.dossier.vehicle.panel_keys()[0])
        if aim is None:
            aim = Aim(reckoning.dossier.vehicle.panel_keys()[0])
        gauge = reckoning.dossier.film.gauge
        body = Reading(
            value_um=line.value_um,
            status=line.status,
            u=aim.u,
            v=aim.v,
            unit=line.unit,
            step_um=gauge.step_um,
            limit_um=gauge.limit_um,
            substrate=None if line.substrate is Substrate.UNKNOWN else line.substrate,
            retest_of=aim.repeats,
            source=Source.GAUGE,
            simulated=self.stand_in,
        )
        stored = self._append("film.reading", body, place=aim.panel)
        self._aim_on(aim)
        name = reckoning.terms.panel(aim.panel)
        following = self.aim.panel if self.aim and self.follows else aim.panel
        words = f"{reading_words(body, reckoning.terms.readings)} on {name}"
        self.tell(type="reading", id=str(stored), panel=aim.panel, next=following, words=words)
        self.tell(**self.state())
        self._answered.set()

    def _aim_on(self, aim: Aim) -> None:
        """Aim at what comes next; without following, stay on the panel with no place in mind."""
        reckoning = self._desk.reckoning(self._inspection)
        following = next_aim(reckoning, aim.panel) if self.follows else None
        if following is None:
            repeat = next_aim(reckoning, aim.panel)
            again = repeat is not None and repeat.repeats is not None
            following = Aim(aim.panel, repeats=repeat.repeats if repeat and again else None)
        with self._lock:
            self.aim = following

    def _append(self, kind: str, body: Any, **envelope: Any) -> UUID:
        draft = Draft.write(kind, body, self._desk.now(), **envelope)
        (answer,) = self._desk.logbook.append(self._inspection, [draft], self._desk.author)
        if isinstance(answer, Refused):
            self.tell(type="trouble", words=f"not stored: {answer.message}")
        return draft.id

    def walk(self) -> None:
        """Let the stand-in walk the protocol, spot by spot, until it is done or stopped.

        Raises
        ------
        LinkTrouble
            If no stand-in is connected.
        """
        if not (self.stand_in and self.connected):
            raise LinkTrouble("only a connected stand-in can walk by itself")
        if self._walking and self._walking.is_alive():
            return
        self._stop_walk.clear()
        self._walking = Thread(target=self._walk, name="gauge walk", daemon=True)
        self._walking.start()

    def stop_walk(self) -> None:
        """Stop the walk after the reading under way."""
        self._stop_walk.set()
        if self._walking and self._walking.is_alive():
            self._walking.join(timeout=ANSWER_SECONDS + 2)

    def _walk(self) -> None:
        try:
            self._walk_on()
        except Exception as error:
            _log.exception("the walk of a stand-in ended")
            self.tell(type="trouble", words=f"the walk ended: {error}")
        self.walked = None
        self.tell(**self.state())

    def _walk_on(self) -> None:
        panel = self._desk.reckoning(self._inspection).dossier.vehicle.panel_keys()[0]
        while not self._stop_walk.is_set():
            reckoning = self._desk.reckoning(self._inspection)
            coverage = [c for c in reckoning.dossier.film_coverage() if c.expected]
            self.walked = (sum(min(c.taken, c.expected) for c in coverage), sum(c.expected for c in coverage))
            aim = next_aim(reckoning, panel)
            if aim is None:
                break
            panel = aim.panel
            self._answered.clear()
            try:
                self.take_aim(aim, probe=True)
            except LinkTrouble:
                self.tell(type="trouble", words="the stand-in went away; the walk stopped")
                break
            if not self._answered.wait(ANSWER_SECONDS):
                self.tell(type="trouble", words="the gauge did not answer; the walk stopped")
                break


class GaugeSessions(Sessions[GaugeSession]):
    """The gauge links of all inspections."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(lambda inspection: GaugeSession(desk, inspection))
