"""Parts outside that are no panels: wheels, panes, lamps, trim; which a body has, and where one stands to see them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Literal, cast

from hakutsu.vehicle.fitment import usual
from hakutsu.vehicle.panels import Side
from hakutsu.vehicle.places import places
from hakutsu.vehicle.table_models import PartsTable
from hakutsu.vehicle.tables import read_table

Group = Literal["wheel", "pane", "lamp", "trim", "roof", "brake", "metal", "inside"]
On = Literal["panel", "plastic", "fitting", "wheel", "pane", "plastic_pane", "folding", "lamp", "trim"]
LIES_ON: dict[str, On] = {"wheel": "wheel", "pane": "pane", "roof": "pane", "lamp": "lamp", "metal": "panel"}


@dataclass(frozen=True, slots=True)
class Part:
    """A part: its name (the side in braces, for `Terms.say`), group, side, where it is seen from, what marks lie on."""

    key: str
    name: str
    group: Group
    side: Side | None
    place: str
    since_doors: int
    lacks: frozenset[str]
    only: frozenset[str]
    on: On

    @property
    def base(self) -> str:
        """Its key without the side."""
        return self.key.removesuffix(f"_{self.side}") if self.side else self.key

    @property
    def mirror(self) -> str | None:
        """Key of the same part on the other side, if there is one."""
        if self.side is None:
            return None
        return self.key.removesuffix(self.side) + ("right" if self.side == "left" else "left")


@cache
def parts() -> dict[str, Part]:
    """All parts by key.

    Raises
    ------
    ValueError
        If the data file names a place that does not exist.
    """
    table = read_table("vehicle", "parts", PartsTable)
    found: dict[str, Part] = {}
    for key, row in table.part.items():
        sides: tuple[Side | None, ...] = ("left", "right") if row.get("sided") else (None,)
        for side in sides:
            place = f"{row['place']}_{side}" if side and f"{row['place']}_{side}" in places() else row["place"]
            if place not in places():
                raise ValueError(f"part {key} lies at {place}, which is no place")
            full, name = (f"{key}_{side}" if side else key), row["name"].replace("{s}", f"{{{side}}}")
            found[full] = Part(
                full,
                name,
                row["group"],
                side,
                place,
                row.get("since", 0),
                frozenset(row.get("lacks", ())),
                frozenset(row.get("only", ())),
                cast(On, row.on or LIES_ON.get(row.group, "trim")),
            )
    return found


def fitted_parts(style: str, doors: int, group: Group | None = None, year: int | None = None) -> list[Part]:
    """The parts a body style usually has, all or of one group, in the order of the table; by the year of first use
    those that nearly all of its age have.
    """
    return [
        part
        for part in parts().values()
        if style not in part.lacks
        and (not part.only or style in part.only)
        and doors >= part.since_doors
        and group in (None, part.group)
        and usual("pane", part.base, year) is True
    ]
