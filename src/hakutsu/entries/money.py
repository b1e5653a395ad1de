"""Entries of the negotiation: what drives a vehicle, what a claim that did not hold is worth, how a line is treated."""

from __future__ import annotations

import re
from decimal import Decimal
from typing import Annotated, Any, Self
from uuid import UUID

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.entries.under import LeakFluid
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.tables import Row, Table, read_table
from hakutsu.vehicle.vocabulary import Consequence

Amount = Annotated[Decimal, Field(ge=0, le=100_000_000, decimal_places=3)]
TREATS = (Consequence.SETTLE, Consequence.BUDGET, Consequence.LIVE_WITH)
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


@entry_kind("inspection.mechanics", version=2, upgrades={1: to_keys})
class MechanicsSaid(Body):
    """Mechanical facts of the vehicle; a later entry replaces an earlier one."""

    mechanics: Mechanics


class _Old(Row):
    begins: str
    code: str
    subject: str | None = None


class _OldLines(Table):
    row: list[_Old]


FIXINGS = re.compile(r"\d+ wheel fixings? (missing|loose)")
LEAKS = re.compile(r"(.+) from (.+) leaks?$")
JOBS, MARKS, BLENDS, CLAIMS = "job", "body.marks", "body.blends", "claims.not_as_claimed"
_TREATS = {"budget for": "budget", "live with": "live_with"}


def _by_code(raw: dict[str, Any]) -> dict[str, Any]:
    """A line of 0.7, named by words, by code and subject; one whose words nobody knows keeps them as its code."""
    code, subject = _named(str(raw["line"]))
    said = {key: value for key, value in raw.items() if key != "line"}
    return said | {"code": code, "subject": subject, "treat": _TREATS.get(raw["treat"], raw["treat"])}


def _named(line: str) -> tuple[str, str]:
    kind, _, rest = line.partition(":")
    if kind in ("job", "part", "claim"):
        return {"job": JOBS, "part": MARKS, "claim": CLAIMS}[kind], rest
    where, _, words = rest.partition(":")
    if fixings := FIXINGS.match(words):
        return f"corners.fixings_{fixings[1]}", where
    if leak := LEAKS.match(words):
        fluid = next((one.value for one in LeakFluid if one.words == leak[1]), leak[1])
        return "under.leak", f"{fluid}:{'_'.join(leak[2].casefold().split())}:{where}"
    for one in read_table("entries", "old_lines", _OldLines).row:
        if words.startswith(one.begins):
            return one.code, where if one.subject is None else one.subject
    return (BLENDS, "body") if line == "blends" else (line, "")


@entry_kind("money.line", version=2, upgrades={1: _by_code})
class Line(Body):
    """A line of the negotiation sheet as the inspector treats it, by code and subject of what was found, or of the job
    that mends it; `amount` replaces the reckoned one.

    `disclosed`: the seller told of it before naming the price, so that it is not taken off, unless `taken_off` says so.
    """

    code: Annotated[str, StringConstraints(min_length=1, max_length=80)]
    subject: Annotated[str, StringConstraints(max_length=120)] = ""
    treat: Consequence
    amount: Amount | None = None
    note: Note = ""
    disclosed: bool = False
    taken_off: bool = False

    @model_validator(mode="after")
    def _treated(self) -> Self:
        if self.treat not in TREATS:
            raise ValueError("a line is settled, budgeted for or lived with")
        return self


@entry_kind("money.claim")
class ClaimPriced(Body):
    """A claim, named by its entry, that does not hold: what that takes off the price, and why."""

    of: UUID
    amount: Amount
    because: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]
