"""What every request needs at hand: the logbook, and the reckoning of an inspection as it stands."""

from __future__ import annotations

import logging
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from threading import Lock
from typing import Annotated, Literal, TypeVar
from uuid import UUID

from fastapi import Depends, HTTPException, Request
from sqlalchemy.exc import DBAPIError

from hakutsu.dossier import Dossier, gather_dossier
from hakutsu.entries.settings import Settings
from hakutsu.logbook import Integrity, Logbook
from hakutsu.logbook.pictures import PictureFiles
from hakutsu.logbook.trouble import words
from hakutsu.reckoning import Reckoning
from hakutsu.web.background import Background

KEPT = 32
UNNAMED = "inspector"
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
        self.integrity = Integrity(logbook)
        self._kept: OrderedDict[tuple[UUID, str], Reckoning] = OrderedDict()
        self._unwatched: dict[UUID, int] = {}  # inspections without a running timer, at their last entry
        self._lock = Lock()

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
        """Reckoning of an inspection; an unchanged logbook is not reckoned twice.

        Raises
        ------
        HTTPException
            404 if there is no such inspection.
        """
        if not self.logbook.holds(inspection):
            raise HTTPException(404, "There is no inspection at this address.")
        settings = self.settings
        key = (inspection, f"{self.logbook.tip(inspection)} {settings.key}")
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        reckoning = self.reckoned(inspection)
        if reckoning.dossier.opening.vehicle is None:
            raise HTTPException(404, "This inspection has no vehicle yet.")
        with self._lock:
            self._kept[key] = reckoning
            while len(self._kept) > KEPT:
                self._kept.popitem(last=False)
        return reckoning

    def reckoned(self, inspection: UUID) -> Reckoning:
        """The same made anew and not kept, for going through all inspections; it may have no vehicle yet."""
        return Reckoning(gather_dossier(inspection, *self.logbook.read(inspection)), self.settings)

    def attempt(self, inspection: UUID, work: Callable[[UUID], Done]) -> Done | Unshown | None:
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

    def _watched(self, inspection: UUID) -> Dossier | Literal[False]:
        dossier = self.reckoning(inspection).dossier
        return dossier if dossier.timers.running else False

    def watched(self) -> list[Dossier]:
        """Inspections with a timer running; one whose logbook has not changed is not looked into twice."""
        found = []
        try:
            lengths = self.logbook.lengths()
        except DBAPIError:
            return []  # a page that can be shown is shown without the timers of others
        for inspection, last in lengths.items():
            if self._unwatched.get(inspection) == last:
                continue
            dossier = self.attempt(inspection, self._watched)
            if isinstance(dossier, Dossier):
                found.append(dossier)
            elif dossier is False:
                self._unwatched[inspection] = last
        return found


def _desk(request: Request) -> Desk:
    desk: Desk = request.app.state.desk
    return desk


def _reckoning(inspection: UUID, desk: Annotated[Desk, Depends(_desk)]) -> Reckoning:
    return desk.reckoning(inspection)


DeskHere = Annotated[Desk, Depends(_desk)]
ReckoningHere = Annotated[Reckoning, Depends(_reckoning)]
