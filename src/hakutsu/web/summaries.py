"""Every inspection summed up, at hand: what is shown of many never folds them all.

Summaries are kept beside the logbooks and read when the server starts. One whose logbook went on since is made anew
when it is wanted, at a glance; in the background all are made, those first that nobody has seen yet.
"""

from __future__ import annotations

import logging
from collections.abc import Iterable, Mapping
from datetime import datetime
from threading import Event, RLock
from uuid import UUID

from sqlalchemy.exc import DBAPIError

from hakutsu.logbook import Logbook
from hakutsu.logbook.ends import End
from hakutsu.web.summary import Show, Summary, glanced_summary, gone_on
from hakutsu.web.turns import Turns

AT_ONCE, A_SPELL = 100, 5
PAUSE = 0.5  # [s]
_log = logging.getLogger("hakutsu.summaries")


class Summaries:
    """The newest summary of every inspection that has entries."""

    def __init__(self, logbook: Logbook) -> None:
        self._logbook = logbook
        self._lock = RLock()
        self._made: dict[UUID, Summary] = {}
        self._unseen: dict[UUID, None] = {}  # not summed up yet
        self._stale: set[UUID] = set()  # whose logbook went on since
        self._running: set[UUID] = set()
        self._unkept: set[UUID] = set()
        self._order: list[UUID] | None = None
        self._verified: dict[str, datetime] | None = None
        self._version = -1

    def keep(self, summary: Summary) -> None:
        """Keep one that was made of a reckoning."""
        with self._lock:
            self._put(summary)

    def page(self, start: int, count: int, show: Show = Show.LISTED, words: str = "") -> tuple[list[Summary], int]:
        """Some of all, unfinished ones first and of each what was worked on last; and how many there are.

        Parameters
        ----------
        start, count : of those to be shown
        show : which of them by their state
        words : that have to stand in vehicle, registration, colour or buyer, whatever their case
        """
        with self._lock:
            self._follow()
            self._fresh(self._recent())  # whether they are finished is what they are ordered by
            if self._order is None:
                order = sorted(self._made, key=lambda one: self._made[one].worked_on, reverse=True)
                self._order = sorted(order, key=lambda one: self._made[one].finished)
            wanted = words.casefold().split()
            order = [one for one in self._order if self._made[one].is_shown(show, wanted)]
            return self._fresh(order[start : start + count]), len(order)

    def watched(self) -> list[UUID]:
        """Inspections with a timer that runs."""
        with self._lock:
            self._follow()
            self._fresh(self._recent())  # their last entries may have begun one
            return list(self._running)

    def of(self, inspection: UUID) -> Summary | None:
        """The newest summary of one inspection."""
        with self._lock:
            return self._made.get(inspection)

    def finished(self) -> list[Summary]:
        """Summaries of finished inspections."""
        with self._lock:
            self._follow()
            self._fresh(self._recent())
            return [one for one in self._made.values() if one.finished]

    def verified(self) -> Mapping[str, datetime]:
        """When each gauge was verified last, in any inspection."""
        with self._lock:
            try:
                self._follow()
                self._fresh(self._recent())
            except DBAPIError:
                return {}
            if self._verified is None:
                self._verified = {}
                for one in self._made.values():
                    for gauge, at in one.verified.items():
                        when = datetime.fromisoformat(at)
                        self._verified[gauge] = max(when, self._verified.get(gauge, when))
            return self._verified

    def _recent(self) -> list[UUID]:
        """Those to be looked at for every page: that went on since; of few inspections also those never looked at."""
        unseen = list(self._unseen) if len(self._unseen) <= AT_ONCE else []
        return unseen + (list(self._stale) if len(self._stale) <= AT_ONCE else [])

    def _follow(self) -> None:
        """Know of every inspection there is, and which summaries are older than their logbook."""
        if self._version < 0:
            kept = [one for row in self._logbook.derived.summaries() if (one := Summary.read(row)) is not None]
            self._made = {one.inspection: one for one in kept}
            self._running = {one.inspection for one in kept if one.timers}
        version, changed = self._logbook.ends_since(self._version)
        if version == self._version:
            return
        ends = self._logbook.ends()
        if changed is None:
            changed = ends.keys() | self._made.keys()
        new = [one for one in changed if one in ends and one not in self._made]
        opened = self._logbook.all_opened_at() if len(new) > 1 else {one: self._logbook.opened_at(one) for one in new}
        for inspection in sorted(new, key=lambda one: opened.get(one, ""), reverse=True):
            self._made[inspection] = Summary(inspection, End(0, ""), opened.get(inspection, ""))
            self._unseen[inspection] = None
            self._order = None
        for inspection in changed:
            if inspection not in ends:
                self._forget(inspection)
            elif inspection not in self._unseen and self._made[inspection].end != ends[inspection]:
                self._stale.add(inspection)
        self._version = version

    def _forget(self, inspection: UUID) -> None:
        """One whose entries are gone, as of an import that was given up."""
        self._made.pop(inspection, None)
        self._unseen.pop(inspection, None)
        self._stale.discard(inspection)
        self._running.discard(inspection)
        self._order = self._verified = None

    def _fresh(self, wanted: Iterable[UUID]) -> list[Summary]:
        """Summaries as they stand, made at a glance where they are older than their logbook."""
        return [
            self._glanced(one) if one in self._stale or one in self._unseen else self._made[one] for one in wanted
        ]  # fmt: skip

    def _glanced(self, inspection: UUID) -> Summary:
        end, before = self._logbook.ends()[inspection], self._made[inspection]
        try:
            summary = self._gone_on(before, end)
            if summary is None:
                drafts = [row.draft for row in self._logbook.rows(inspection)]
                summary = glanced_summary(inspection, end, before.opened_at, drafts)
        except DBAPIError as error:
            return Summary(inspection, end, before.opened_at, fault=f"the database {error.orig}")
        self._put(summary)
        return summary

    def _gone_on(self, before: Summary, end: End) -> Summary | None:
        """From the one before, where the logbook goes on from there."""
        if not 0 < before.end.seq <= end.seq:
            return None
        rows = self._logbook.rows(before.inspection, before.end.seq - 1, end.seq)
        if not rows or (rows[0].seq, rows[0].hash) != before.end:
            return None
        return gone_on(before, end, [row.draft for row in rows[1:]])

    def _put(self, summary: Summary) -> None:
        inspection, before = summary.inspection, self._made.get(summary.inspection)
        self._made[inspection] = summary
        self._unkept.add(inspection)
        self._stale.discard(inspection)
        self._unseen.pop(inspection, None)
        (self._running.add if summary.timers else self._running.discard)(inspection)
        if before is None or (before.finished, before.worked_on) != (summary.finished, summary.worked_on):
            self._order = None
        if before is None or before.verified != summary.verified:
            self._verified = None

    def store(self) -> None:
        """Keep beside the logbooks what was made since."""
        with self._lock:
            rows = [self._made[one].row for one in self._unkept if one in self._made]
            self._unkept.clear()
        self._logbook.derived.keep_summaries(rows)

    def work(self, stopped: Event, turns: Turns) -> None:
        """Make every summary that is missing, at a glance, and keep what was made; goes on until it is stopped."""
        turns.after_the_first(stopped)
        while not stopped.wait(PAUSE):
            self._make(stopped, turns)
            self.store()
        self.store()

    def _make(self, stopped: Event, turns: Turns) -> None:
        with self._lock:
            self._follow()
            wanted = [*self._stale, *self._unseen]
        pieces = [wanted[at : at + A_SPELL] for at in range(0, len(wanted), A_SPELL)]
        for number, some in enumerate(pieces, 1):
            with turns.behind(stopped), self._lock:
                self._fresh(one for one in some if one in self._made)
            if stopped.is_set():
                return
            if number % (AT_ONCE // A_SPELL) == 0:
                self.store()
