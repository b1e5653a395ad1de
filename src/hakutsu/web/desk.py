"""What every request needs at hand: the logbook, and the reckoning of an inspection as it stands."""

from __future__ import annotations

import logging
from collections.abc import Callable, Hashable
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import cached_property, partial
from pathlib import Path
from typing import Annotated, TypeVar
from uuid import UUID

from fastapi import Depends, HTTPException, Request
from sqlalchemy.exc import DBAPIError

from hakutsu.dossier import Dossier, gather_dossier
from hakutsu.entries.settings import Settings
from hakutsu.logbook import Integrity, Logbook
from hakutsu.logbook.ends import End
from hakutsu.logbook.pictures import PictureFiles
from hakutsu.logbook.trouble import words
from hakutsu.reckoning import Reckoning
from hakutsu.web.background import Background
from hakutsu.web.held import Held, HeldReckonings
from hakutsu.web.summaries import Summaries
from hakutsu.web.summary import reckoned_summary
from hakutsu.web.turns import Turns

UNNAMED = "inspector"
OF_THE_INSTALLATION = (
    "logbook",
    "report",
    "pictures",
    "settings",
    "arrival",
)  # pages that tell of more than their inspection
INTEGRITY = "logbook check"
Done = TypeVar("Done")
_log = logging.getLogger("hakutsu.web")


@dataclass(frozen=True, slots=True)
class Unshown:
    """An inspection that cannot be shown, and why."""

    inspection: UUID
    why: str


class Desk:
    """The logbook, with the newest reckonings kept by the settings and the hash of the last entry they rest on."""

    def __init__(self, logbook: Logbook, uploads: Path, pictures: PictureFiles) -> None:
        self.logbook = logbook
        self.uploads = uploads
        self.pictures = pictures
        self.background = Background()
        self.turns = Turns()
        self.integrity = Integrity(logbook)
        self._held = HeldReckonings()
        self.summaries = Summaries(logbook)

    @cached_property
    def words_kept(self) -> dict[UUID, str]:
        """From what the words of each inspection were made for searching."""
        return self.logbook.derived.keys()

    def at_hand(self, inspection: UUID) -> Reckoning | None:
        """The reckoning of an inspection, if it is at hand as the logbook stands."""
        held, end = self._held.newest(inspection), self.logbook.end(inspection)
        return held.reckoning if held is not None and held.end == end and held.settings is self.settings else None

    @property
    def author(self) -> str:
        """Name that signs new entries."""
        return self.logbook.account or UNNAMED

    @property
    def settings(self) -> Settings:
        """Settings of the account."""
        return self.logbook.library.settings

    def now(self) -> datetime:
        """The server's clock."""
        return datetime.now(UTC)

    def reckoning(self, inspection: UUID) -> Reckoning:
        """Reckoning of an inspection as it stands; what its last entries do not touch is not reckoned again.

        Raises
        ------
        HTTPException
            404 if there is no such inspection.
        """
        end = self.logbook.end(inspection)
        if end is None:
            raise HTTPException(404, "There is no inspection at this address.")
        settings = self.settings
        held = self._held.newest(inspection)
        if held is None or held.end != end or held.settings is not settings:
            with self._held.alone(inspection):  # who waited finds what was made meanwhile
                held = self._held.newest(inspection)
                if held is None or held.settings is not settings or not _reaches(held.end, end):
                    held = self._going_on(inspection, end, held)
                    self._held.keep(inspection, held)
                    if held.reckoning.dossier.opening.vehicle is not None:
                        self.attempt(inspection, partial(self._sum_up, held))
        if held.reckoning.dossier.opening.vehicle is None:
            raise HTTPException(404, "This inspection has no vehicle yet.")
        return held.reckoning

    def _going_on(self, inspection: UUID, end: End, held: Held | None) -> Held:
        """The reckoning at an entry, from an earlier one where the logbook goes on from there."""
        settings = self.settings
        if held is not None and held.end.seq and held.end.seq <= end.seq:
            entries, unread = self.logbook.read(inspection, held.end.seq - 1)
            first = next((one.hash for one in entries if one.seq == held.end.seq), None)
            if first == held.end.hash:
                more = entries[1:]
                dossier = held.reckoning.dossier
                if more or unread:
                    dossier = dossier.with_more(more, unread)
                last = more[-1] if more else None
                reached = End(last.seq, last.hash) if last is not None and last.seq >= end.seq else end
                return Held(reached, settings, Reckoning(dossier, settings, held.reckoning))
        return Held(end, settings, self.reckoned(inspection))

    def reckoned(self, inspection: UUID) -> Reckoning:
        """The same made anew and not kept, for going through all inspections; it may have no vehicle yet."""
        return Reckoning(gather_dossier(inspection, *self.logbook.read(inspection)), self.settings)

    def attempt(self, inspection: UUID, work: Callable[[UUID], Done | None]) -> Done | Unshown | None:
        """Do something for one inspection of many: what is wrong with one stays with it.

        None where it was opened and its first entry never arrived.
        """
        try:
            return work(inspection)
        except HTTPException:
            return None
        except DBAPIError as error:
            return Unshown(inspection, f"the database {words(error)}")
        except Exception as error:
            _log.exception("inspection %s cannot be shown", inspection)
            return Unshown(inspection, f"{type(error).__name__} while it was read")

    def watched(self) -> list[Dossier]:
        """Inspections with a timer running."""
        try:
            found = [self.attempt(one, self._running) for one in self.summaries.watched()]
        except DBAPIError:
            return []  # a page that can be shown is shown without the timers of others
        return [one for one in found if isinstance(one, Dossier)]

    def _sum_up(self, held: Held, inspection: UUID) -> None:
        self.summaries.keep(reckoned_summary(held.reckoning, held.end, self.logbook.opened_at(inspection), self.now()))

    def _running(self, inspection: UUID) -> Dossier | None:
        dossier = self.reckoning(inspection).dossier
        return dossier if dossier.timers.running else None

    def shown(self, inspection: UUID, page: str) -> Hashable | None:
        """All that a page of an inspection may show, beside its address: equal where it is the same; none if not known.

        Its logbook and the inspections whose timers run, the account, the minute; for pages that tell of the
        installation all that is stored.
        """
        try:
            end = self.logbook.end(inspection)
            if end is None:
                return None
            stored = self.logbook.changes.stamp() if page.startswith(OF_THE_INSTALLATION) else 0
            watched = tuple((one.inspection, one.last_hash) for one in self.watched())
            minute = int(self.now().timestamp() // 60)
            background = tuple(self.background.ended.items())
            copies = (self.pictures.waiting, len(self.pictures.failed))
            settings, gauges = self.settings.key, self.logbook.library.kept_gauges
            known = self.logbook.library.known_key
        except DBAPIError:
            return None
        return end, stored, watched, minute, background, copies, settings, self.author, gauges, known


def _reaches(held: End, end: End) -> bool:
    """Whether one logbook's end is that of another, or lies behind it: another thread may have seen a later one."""
    return held == end or held.seq > end.seq


def _desk(request: Request) -> Desk:
    desk: Desk = request.app.state.desk
    return desk


def _reckoning(inspection: UUID, desk: Annotated[Desk, Depends(_desk)]) -> Reckoning:
    return desk.reckoning(inspection)


DeskHere = Annotated[Desk, Depends(_desk)]
ReckoningHere = Annotated[Reckoning, Depends(_reckoning)]
