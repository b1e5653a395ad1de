"""Zones of the underside, and our schematic of them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.panels import Side
from hakutsu.vehicle.places import places
from hakutsu.vehicle.table_models import UnderTable
from hakutsu.vehicle.tables import read_table

Box = tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class Zone:
    """A zone: its name (the side in braces) and a short one, the place one stands at, its patch (x, y, width, height),
    whether it carries the vehicle, the same zone on the other side, and whether only separate frames have it.
    """

    key: str
    name: str
    place: str
    side: Side | None
    patch: Box
    carries: bool
    twin: str | None
    short: str
    frame: bool = False


@cache
def zones() -> dict[str, Zone]:
    """All zones by key, nose first.

    Raises
    ------
    ValueError
        If the data file names a place that does not exist.
    """
    found = {}
    for key, row in read_table("vehicle", "under", UnderTable)["zone"].items():
        if row["place"] not in places():
            raise ValueError(f"zone {key} lies at {row['place']}, which is no place")
        x, y, wide, high = row["patch"]
        sides: tuple[Side | None, ...] = ("left", "right") if row.get("sided") else (None,)
        for side in sides:
            # Seen from below with the nose to the left, the vehicle's own left lies above the middle line.
            patch = (x, -y - high if side == "left" else y, wide, high)
            full = f"{key}_{side}" if side else key
            twin = None if side is None else f"{key}_{'right' if side == 'left' else 'left'}"
            name = row["name"] if "{s}" in row["name"] or side is None else f"{row['name']}, {{s}}"
            found[full] = Zone(
                full,
                name.replace("{s}", f"{{{side}}}"),
                row["place"],
                side,
                patch,
                row.get("carries", False),
                twin,
                row["short"],
                row.get("frame", False),
            )
    return found


def fitted_zones(*, separate_frame: bool) -> dict[str, Zone]:
    """The zones a vehicle has: body mounts only where its frame is separate."""
    return {key: zone for key, zone in zones().items() if separate_frame or not zone.frame}
