"""Zones of repair: which panels one repair touches, and every combination of zones a car may have been repaired in."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache, lru_cache

import numpy as np

from hakutsu.core.film.model.graded import SIDES
from hakutsu.core.film.model.numeric import AnyFloats, Floats
from hakutsu.core.film.parameters import Blended, Side
from hakutsu.core.film.tables import ZonesTable
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.tables import read_table

MOST_ZONES = 3  # more of them is a car most of which was painted


@dataclass(frozen=True, slots=True)
class Member:
    """A panel in a zone: how likely it is painted or blended into if the zone was repaired, and the side it faces."""

    painted: float
    blended: float
    faces: Side


@dataclass(frozen=True, slots=True)
class Zone:
    """A zone of repair with its name (the side in braces), its prior, and its members by panel key."""

    key: str
    name: str
    prior: float
    members: dict[str, Member]


@dataclass(frozen=True, slots=True)
class Sporadic:
    """Chance that a panel was painted or blended for reasons of its own."""

    painted: float
    blended: float


@cache
def zone_table() -> tuple[tuple[Zone, ...], Sporadic]:
    """All zones of `data/zones.toml`, both sides written out, and the sporadic chances.

    Raises
    ------
    ValueError
        If a member is no panel, or its chances are none.
    """
    said = read_table("core.film", "zones", ZonesTable)
    found = []
    for key, row in said["zone"].items():
        for side in ("left", "right") if row["sided"] else (None,):
            members = dict(_members(row, side))
            name = row["name"].replace("{s}", f"{{{side}}}")
            found.append(Zone(f"{key}_{side}" if side else key, name, float(row["prior"]), members))
    return tuple(found), Sporadic(**dict(said.sporadic.items()))


def _members(row: dict[str, object], side: str | None) -> Sequence[tuple[str, Member]]:
    found: list[tuple[str, Member]] = []
    for name, said in row.items():
        if not isinstance(said, list):
            continue
        painted, blended, faces = said
        if not (0 <= painted <= 1 and 0 <= blended <= 1 - painted):
            raise ValueError(f"{name}: painted and blended must be chances that do not exceed 1 together")
        keys = [name] if name in panels() else [f"{name}_{s}" for s in ((side,) if side else ("left", "right"))]
        for key in keys:
            if key not in panels():
                raise ValueError(f"zones name the panel {key}, which does not exist")
            near = Side.FRONT if side != "right" else Side.REAR
            found.append((key, Member(painted, blended, near if faces == "near" else Side(faces))))
    return found


@dataclass(frozen=True)
class ZoneChoices:
    """Every combination of at most `MOST_ZONES` of the zones that hold at least one of the panels.

    `on` (combinations, zones) is 0 or 1, `log_prior` (combinations,). For each panel, `which` (combinations,) points
    into its own rows, one per combination of the zones it lies in; `untouched`, `painted` (rows,) and `blended`
    (rows, sides) are its chances there, `alone` (rows,) how much of `painted` is for reasons of the panel's own.
    `onehot` (rows, combinations) turns weights of combinations into weights of rows; `average` (rows,) is that of the
    prior, `having` and `lacking` (zones, rows) that of the prior given that a zone was repaired, and that it was not.
    """

    zones: tuple[Zone, ...]
    on: AnyFloats
    log_prior: Floats
    which: tuple[np.ndarray, ...]
    onehot: tuple[AnyFloats, ...]
    untouched: tuple[Floats, ...]
    painted: tuple[Floats, ...]
    alone: tuple[Floats, ...]
    blended: tuple[Floats, ...]
    average: tuple[Floats, ...]
    having: tuple[Floats, ...]
    lacking: tuple[Floats, ...]


@lru_cache(maxsize=32)
def zone_choices(names: tuple[str, ...], key: str) -> ZoneChoices:
    """The combinations for a set of panels; `key` is the blend parameters as JSON. Made once."""
    p = Blended.model_validate_json(key)
    table, sporadic = zone_table()
    zones = tuple(zone for zone in table if any(name in zone.members for name in names))
    count = len(zones)
    on = (np.arange(2**count)[:, None] >> np.arange(count)) & 1
    on = on[on.sum(axis=1) <= MOST_ZONES]
    prior = np.array([zone.prior for zone in zones])
    log_prior = (on * np.log(prior) + (1 - on) * np.log1p(-prior)).sum(axis=1)
    log_prior -= np.log(np.exp(log_prior).sum())
    weight = np.exp(log_prior)
    repaired = (on * weight[:, None]).T
    chance = repaired.sum(axis=1, keepdims=True)
    given = (repaired / chance, (weight - repaired) / (1 - chance))
    rows = [_panel_rows(name, zones, on, sporadic, p) for name in names]
    return ZoneChoices(
        zones,
        on.astype(np.float64),
        log_prior,
        tuple(row[0] for row in rows),
        tuple(row[1] for row in rows),
        tuple(row[2] for row in rows),
        tuple(row[3] for row in rows),
        tuple(np.clip(sporadic.painted / row[3], 0, 1) for row in rows),
        tuple(row[4] for row in rows),
        tuple(row[1] @ weight for row in rows),
        tuple(given[0] @ row[1].T for row in rows),
        tuple(given[1] @ row[1].T for row in rows),
    )


def _panel_rows(
    name: str, zones: Sequence[Zone], on: np.ndarray, sporadic: Sporadic, p: Blended
) -> tuple[np.ndarray, AnyFloats, Floats, Floats, Floats]:
    """One panel: its row for every combination, and per row the chances; repairs act independently (noisy or)."""
    mine = [i for i, zone in enumerate(zones) if name in zone.members]
    members = [zones[i].members[name] for i in mine]
    which = (on[:, mine] * (1 << np.arange(len(mine)))).sum(axis=1).astype(int)
    count = 2 ** len(mine)
    untouched, painted, blended = np.empty(count), np.empty(count), np.zeros((count, len(SIDES)))
    anywhere = np.array([p.other_sides[side] for side in SIDES])
    for row in range(count):
        active = [member for j, member in enumerate(members) if row >> j & 1]
        untouched[row] = (1 - sporadic.painted - sporadic.blended) * np.prod(
            [1 - m.painted - m.blended for m in active]
        )
        painted[row] = 1 - (1 - sporadic.painted) * np.prod([1 - m.painted for m in active])
        rest = max(0.0, 1 - untouched[row] - painted[row])
        sides = sporadic.blended * anywhere
        for member in active:
            facing = np.array([float(side is member.faces) for side in SIDES])
            sides = sides + member.blended * (p.side_sure * facing + (1 - p.side_sure) * anywhere)
        blended[row] = rest * sides / sides.sum()
    onehot = (which == np.arange(count)[:, None]).astype(np.float64)
    return which, onehot, untouched, painted, blended
