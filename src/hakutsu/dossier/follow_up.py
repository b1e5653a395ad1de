"""Fold of what may ask for a second look or cause a limit, and of what became of that."""

from __future__ import annotations

from dataclasses import dataclass, field
from uuid import UUID

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.follow_up import LookAgain, LookedAgain, ProposalDropped
from hakutsu.entries.general import Limit
from hakutsu.entries.registry import Body


@dataclass(slots=True)
class FollowUps:
    """Remarks in the order of the logbook, second looks asked for and taken (by the entry looked at again), limits
    that an entry caused, and proposals that were dropped.
    """

    remarks: list[tuple[Entry, Body]] = field(default_factory=list)
    asked: dict[UUID, tuple[Entry, LookAgain]] = field(default_factory=dict)
    looked: dict[UUID, list[tuple[Entry, LookedAgain]]] = field(default_factory=dict)
    caused: list[tuple[Entry, Limit]] = field(default_factory=list)
    dropped: set[tuple[UUID, str]] = field(default_factory=set)

    @property
    def taken(self) -> set[tuple[UUID, str]]:
        """Proposals that became limits: entry and rule."""
        return {(limit.caused_by, limit.rule) for _, limit in self.caused if limit.caused_by is not None}


@fold("general.seen")
@fold("general.hint")
@fold("general.did_not_work")
@fold("general.intervention")
def _remark(gathering: Gathering, entry: Entry, body: Body) -> None:
    gathering.station(FollowUps).remarks.append((entry, body))


@fold("general.look_again")
def _asked(gathering: Gathering, entry: Entry, body: LookAgain) -> None:
    gathering.station(FollowUps).asked[body.of] = (entry, body)


@fold("general.looked_again")
def _looked(gathering: Gathering, entry: Entry, body: LookedAgain) -> None:
    gathering.station(FollowUps).looked.setdefault(body.of, []).append((entry, body))


@fold("general.limit")
def _caused(gathering: Gathering, entry: Entry, body: Limit) -> None:
    if body.caused_by is not None:
        gathering.station(FollowUps).caused.append((entry, body))


@fold("general.proposal_dropped")
def _dropped(gathering: Gathering, entry: Entry, body: ProposalDropped) -> None:
    gathering.station(FollowUps).dropped.add((body.of, body.rule))
