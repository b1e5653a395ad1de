"""The table of steps."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from hakutsu.core.runsheet.tables import StepsTable
from hakutsu.vehicle.places import places
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.vocabulary import Protocol

NEEDS = frozenset(
    (
        "cold",
        "not_cold",
        "warm",
        "lift",
        "no_lift",
        "lift_by_driving",
        "helper",
        "no_helper",
        "seller",
        "dry",
        "daylight",
    )
) | {"road"}


@dataclass(frozen=True, slots=True)
class Step:
    """One step: minutes and wait [min] by protocol, the points of knowledge it brings, what it needs, the steps it
    comes after, the activity a stand-down can block, the caution that goes with it, and whether it is among the last
    to be left out, little as it may tell; `away`: below, at a wheel or out of reach of the key, so never
    while the engine runs; `only_with`: a step without which it tells nothing.
    """

    key: str
    name: str
    place: str
    minutes: tuple[int, int, int]
    value: float
    needs: frozenset[str]
    after: tuple[str, ...]
    wait: tuple[int, int, int]
    activity: str | None
    caution: str = ""
    must: bool = False
    away: bool = False
    only_with: str = ""

    def takes(self, protocol: Protocol) -> int:
        """Duration [min] in a protocol; 0 when it is no part of it."""
        return self.minutes[list(Protocol).index(protocol)]

    def waits(self, protocol: Protocol) -> int:
        """Minutes that run beside other steps before what comes after may begin [min]."""
        return self.wait[list(Protocol).index(protocol)]


@cache
def steps() -> dict[str, Step]:
    """All steps by key, in the usual order.

    Raises
    ------
    ValueError
        If a step names an unknown place, need or step.
    """
    table = read_table("core.runsheet", "steps", StepsTable).step
    found = {}
    for key, row in table.items():
        needs, after = frozenset(row.get("needs", ())), tuple(row.get("after", ()))
        unknown = [*(needs - NEEDS), *(one for one in after if one not in table)]
        if unknown or row["place"] not in places():
            raise ValueError(f"step {key} names what does not exist: {', '.join(unknown) or row['place']}")
        found[key] = Step(
            key, row["name"], row["place"], tuple(row["minutes"]), row["value"], needs, after,
            tuple(row.get("wait", (0, 0, 0))), row.get("activity"), row.get("caution", ""), row.get("must", False),
            row.get("away", False), row.get("only_with", ""),
        )  # fmt: skip
    return found
