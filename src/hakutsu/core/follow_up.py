"""What follows from what was written down: second looks at the right time, and limits a finding causes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import lru_cache
from typing import Literal
from uuid import UUID

from hakutsu.core.findings import Finding
from hakutsu.core.phrases import TEXTS_AT_HAND, says
from hakutsu.dossier.follow_up import FollowUps
from hakutsu.dossier.general import General
from hakutsu.dossier.hazards import HazardsDossier
from hakutsu.entries.envelope import Entry
from hakutsu.entries.follow_up import LookedAgain, Moment
from hakutsu.entries.general import DidNotWork, Hint, Intervention, Seen
from hakutsu.entries.registry import Body
from hakutsu.vehicle.tables import Row, Table, read_table

OWN_DOING = "we caused it: it counts for nothing until it was looked at again"
EXPLAINED = "somebody explained how it is done: try it again"
RUNNING = ("cold_start", "start", "first_minute", "warm_up", "idle_watch")
DRIVING = ("road",)
LEAVING = ("pictures", "closing_talk")
_STEPS = {
    Moment.AFTER_RUNNING: RUNNING,
    Moment.AFTER_DRIVE: DRIVING,
    Moment.AFTER_RAIN: DRIVING,
    Moment.BEFORE_LEAVING: LEAVING,
}


@dataclass(frozen=True, slots=True)
class SecondLook:
    """A second look that is wanted: at which entry, when and why, whether that time has come, and looks taken."""

    entry: Entry
    body: Body
    moment: str
    because: str
    due: bool
    looked: tuple[tuple[Entry, LookedAgain], ...]

    @property
    def open(self) -> bool:
        """True until somebody looked again."""
        return not self.looked


@dataclass(frozen=True, slots=True)
class ProposedLimit:
    """A limit that a rule proposes because of an entry: what it hides, and what may be done instead."""

    entry: Entry
    body: Body
    rule: str
    hides: str
    instead: str


class _Hides(Row):
    hides: str
    instead: str


class _Again(Row):
    of: Literal["seen", "intervention"]
    moment: Moment
    because: str


class _ByCode(Row):
    code: str
    limit: str
    subject: str = ""


class _FollowUp(Table):
    limit: dict[str, _Hides]
    again: dict[str, _Again]
    by_code: list[_ByCode]


def _rules() -> _FollowUp:
    return read_table("core", "follow_up", _FollowUp)


OPENED = "opened"  # whatever an intervention was, it is put back


_TEXT = {Seen: "text", Hint: "seen", DidNotWork: "what", Intervention: "done"}


def _words(body: Body) -> str:
    return str(getattr(body, _TEXT[type(body)]))


def proposed_limits(follow: FollowUps) -> list[ProposedLimit]:
    """Limits that findings cause by the rules, less those taken or dropped; one a rule and entry."""
    settled = follow.taken | follow.dropped
    return [
        ProposedLimit(entry, body, key, _rules().limit[key].hides, _rules().limit[key].instead)
        for entry, body in follow.remarks
        if not isinstance(body, Intervention) and not entry.own_doing
        for key in says("limit", _words(body))
        if (entry.id, key) not in settled
    ]


def limits_of_findings(
    follow: FollowUps, findings: Iterable[Finding], entries: Mapping[UUID, Entry]
) -> list[ProposedLimit]:
    """Limits that findings of any station cause, such as a dead gauge; less those taken or dropped.

    Parameters
    ----------
    findings : those that may cause one
    entries : of the logbook, by id: a limit is proposed because of the first entry that a finding rests on
    """
    settled, told = follow.taken | follow.dropped, list[ProposedLimit]()
    for one in findings:
        cause = entries.get(one.evidence[0]) if one.evidence and not one.excused else None
        for row in _rules().by_code:
            if cause is None or row.code != one.code or row.subject not in ("", one.subject):
                continue
            if (cause.id, row.limit) not in settled:
                hides = _rules().limit[row.limit]
                told.append(ProposedLimit(cause, cause.parsed(), row.limit, hides.hides, hides.instead))
    return told


def second_looks(follow: FollowUps, general: General, hazards: HazardsDossier, now: datetime) -> list[SecondLook]:
    """Every second look that is or was wanted, in the order of the logbook; open ones are due when their time came.

    Asked for by the inspector, or wanted because of what we did ourselves, an intervention, a kind of finding, or an
    answer that explains what did not work. A step counts only when it was done after the first look.
    """
    found = []
    for entry, body in follow.remarks:
        wanted = _wanted(entry, body, follow, general)
        if wanted is None:
            continue
        moment, because, minutes = wanted
        if minutes is not None:
            due, said = now >= entry.at + timedelta(minutes=minutes), f"after {minutes:g} min"
        else:
            due, said = _due(moment, entry.at, hazards), str(moment)
        found.append(SecondLook(entry, body, said, because, due, tuple(follow.looked.get(entry.id, ()))))
    return found


def _wanted(entry: Entry, body: Body, follow: FollowUps, general: General) -> tuple[Moment, str, float | None] | None:
    if entry.id in follow.asked:
        asked = follow.asked[entry.id][1]
        return asked.moment, "asked for", asked.minutes
    if entry.own_doing:
        return Moment.BEFORE_LEAVING, OWN_DOING, None
    if isinstance(body, DidNotWork):
        return (Moment.NOW, EXPLAINED, None) if entry.id in general.answers else None
    if isinstance(body, Hint):
        return None
    rule = _again("seen" if isinstance(body, Seen) else "intervention", _words(body))
    return None if rule is None else (rule.moment, rule.because, None)


@lru_cache(TEXTS_AT_HAND)
def _again(kind: str, text: str) -> _Again | None:
    """The rule that asks for a second look at what a text says."""
    said = [*says("again", text), OPENED]
    return next((rule for key, rule in _rules().again.items() if rule.of == kind and key in said), None)


def _due(moment: Moment, since: datetime, hazards: HazardsDossier) -> bool:
    if moment is Moment.NOW:
        return True
    if moment is Moment.BEFORE_LEAVING and any(step in hazards.begun for step in LEAVING):
        return True
    return any(step in hazards.done and hazards.done[step].at >= since for step in _STEPS[moment])
