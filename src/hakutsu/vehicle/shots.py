"""The shot list of a body style and protocol."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.places import places
from hakutsu.vehicle.table_models import ShotsTable
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.vocabulary import Protocol


@dataclass(frozen=True, slots=True)
class Shot:
    """One picture to take: its tag, what is on it (sides in braces), and the place it is taken at."""

    tag: str
    words: str
    place: str
    protocols: tuple[str, ...]
    styles: tuple[str, ...]


@cache
def _shots() -> tuple[Shot, ...]:
    table = read_table("vehicle", "shots", ShotsTable)
    found = tuple(
        Shot(tag, row["words"], row["place"], tuple(row["protocols"]), tuple(row.get("styles", ())))
        for tag, row in table.shot.items()
    )
    unknown = [shot.tag for shot in found if shot.place not in places()]
    if unknown:
        raise ValueError(f"shots are taken at places that do not exist: {', '.join(unknown)}")
    return found


def shot_list(style: str, protocol: Protocol) -> list[Shot]:
    """The pictures a protocol wants of a body style, in order."""
    return [shot for shot in _shots() if protocol.value in shot.protocols and (not shot.styles or style in shot.styles)]
