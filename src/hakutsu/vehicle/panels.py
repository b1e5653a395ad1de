"""Panels, their short codes, sizes and sides; which of them a body style has, in walk order."""

from __future__ import annotations

import csv
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal, cast

from hakutsu.vehicle.table_models import BodyStylesTable
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.vocabulary import Substrate

Side = Literal["left", "right"]
Size = Literal["large", "small"]
Plane = Literal["top", "flank", "end"]

_DATA = files("hakutsu.vehicle") / "data"


@dataclass(frozen=True, slots=True)
class Panel:
    """One outer panel of a vehicle; `side` is the vehicle's own left or right, `opens` true of doors, lids, bonnets."""

    key: str
    code: str
    size: Size
    plane: Plane
    side: Side | None
    british: str
    american: str
    opens: bool

    @property
    def mirror(self) -> str | None:
        """Key of the same panel on the other side, if there is one."""
        if self.side is None:
            return None
        other = "right" if self.side == "left" else "left"
        return self.key.removesuffix(self.side) + other


@dataclass(frozen=True, slots=True)
class BodyStyle:
    """A body style: its name, the numbers of doors it comes with, and its panel groups."""

    key: str
    name: str
    doors: tuple[int, ...]
    anchor: tuple[str, ...]
    front: tuple[str, ...]
    flank: tuple[str, ...]
    rear: tuple[str, ...]


@cache
def panels() -> dict[str, Panel]:
    """All panels by key, in the order of the panel table (left before right)."""
    found: dict[str, Panel] = {}
    with (_DATA / "panels.csv").open(encoding="utf-8") as file:
        for row in csv.DictReader(file):
            sides: tuple[Side | None, ...] = ("left", "right") if row["sided"] == "yes" else (None,)
            for side in sides:
                key = f"{row['key']}_{side}" if side else row["key"]
                code = row["code"] + (side[0] if side else "")
                size, plane = cast(Size, row["size"]), cast(Plane, row["plane"])
                found[key] = Panel(key, code, size, plane, side, row["british"], row["american"], row["opens"] == "yes")
    return found


@cache
def panel_by_code() -> dict[str, Panel]:
    """Panels by the short code typed on the film station, such as `fdl`."""
    return {panel.code: panel for panel in panels().values()}


@cache
def body_styles() -> dict[str, BodyStyle]:
    """All body styles by key."""
    table = read_table("vehicle", "body_styles", BodyStylesTable)
    return {
        key: BodyStyle(
            key,
            row["name"],
            tuple(row["doors"]),
            *(tuple(row[group]) for group in ("anchor", "front", "flank", "rear")),
        )
        for key, row in table.style.items()
    }


def _sided(names: tuple[str, ...], side: Side) -> list[str]:
    return [f"{name}_{side}" for name in names]


def _end(names: tuple[str, ...]) -> list[str]:
    known = panels()
    return [key for name in names for key in ([name] if name in known else [f"{name}_left", f"{name}_right"])]


def walk_order(style: str, doors: int) -> list[str]:
    """Panel keys of a body style in walk order.

    The anchor comes first, then the front, the left flank front to rear, the rear, and the right flank back to
    the front.

    Raises
    ------
    KeyError
        If the style is unknown.
    """
    body = body_styles()[style]
    flank = tuple(
        name for name, _, least in (item.partition("@") for item in body.flank) if not least or doors >= int(least)
    )
    return [
        *_end(body.anchor),
        *_end(body.front),
        *_sided(flank, "left"),
        *_end(body.rear),
        *reversed(_sided(flank, "right")),
    ]


def default_substrate(key: str) -> Substrate:
    """Substrate usually met under a panel: bumpers are plastic, everything else steel."""
    return Substrate.PLASTIC if "bumper" in key else Substrate.STEEL
