"""What follows from an entry: a second look at the right time, and limits it causes."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field, StringConstraints

from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed

Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


class Moment(Keyed):
    """When a second look is due."""

    NOW = "now"
    AFTER_RUNNING = "after_running", "after running"
    AFTER_DRIVE = "after_drive", "after the drive"
    AFTER_RAIN = "after_rain", "after rain or a drive through water"
    BEFORE_LEAVING = "before_leaving", "before leaving"


class Outcome(Keyed):
    """What a second look showed beside the first."""

    SAME = "same", "as before"
    GONE = "gone"
    WORSE = "worse"
    VARIES = "varies", "comes and goes"


@entry_kind("general.look_again", version=2, upgrades={1: to_keys})
class LookAgain(Body):
    """Look again at what the entry `of` says: at a moment of the day, or after some minutes."""

    of: UUID
    moment: Moment = Moment.NOW
    minutes: Annotated[float, Field(gt=0, le=1440)] | None = None


@entry_kind("general.looked_again", version=2, upgrades={1: to_keys})
class LookedAgain(Body):
    """The second look at what the entry `of` says; the first stays readable, both stand in the report."""

    of: UUID
    outcome: Outcome
    text: Text = ""


@entry_kind("general.proposal_dropped")
class ProposalDropped(Body):
    """A limit that a rule proposed because of the entry `of` does not hold here."""

    of: UUID
    rule: Annotated[str, StringConstraints(max_length=60)]
    because: Text = ""
