"""Panes and lamps."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field, StringConstraints

from hakutsu.entries.body.kinds import Millimetres, Note
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed


class GlassFault(Keyed):
    """What is wrong with a pane or a lamp."""

    UNKNOWN = "unknown", "not told"
    NONE = "none", "nothing wrong"
    CHIP = "chip"
    CRACK = "crack"
    SCRATCH = "scratch"
    DELAMINATION = "delamination"
    WIPER_ARC = "wiper_arc", "wiper arc"
    CRAZING = "crazing"
    HAZE = "haze"
    MOISTURE = "moisture", "moisture inside"
    BROKEN_MOUNT = "broken_mount", "broken mount"
    MISSING = "missing"
    SLOW = "slow", "moves slowly or binds"
    HEATER = "heater", "heated lines dead"
    SEAL = "seal", "seal perished"
    CLOUDED = "clouded", "clouded or creased"
    DRAIN = "drain", "drain blocked"
    TORN = "torn"
    FRAME = "frame", "frame worn"
    PATTERN = "pattern", "wrong pattern"


class Tint(Keyed):
    """How a pane is darkened."""

    UNKNOWN = "unknown", "not looked at"
    NONE = "clear"
    MADE_IN = "made_in", "made in"
    FILM = "film"
    BUBBLED = "bubbled", "film with bubbles"


def _clear(raw: dict[str, Any]) -> dict[str, Any]:
    """What older entries left out, they meant as it is put here."""
    return {"fault": "none", "tint": "clear"} | raw


@entry_kind("body.glass", version=3, upgrades={1: to_keys, 2: _clear})
class Glass(Body):
    """A pane or a lamp: what is wrong with it, its size [mm], its date mark, and for panes tint and light [%].

    `in_sight` is the zone in which the driver looks through it; `along_travel` a scratch in the way a pane moves.
    """

    fault: GlassFault = GlassFault.UNKNOWN
    size_mm: Millimetres | None = None
    in_sight: bool = False
    along_travel: bool = False
    date_mark: Annotated[str, StringConstraints(strip_whitespace=True, max_length=20)] = ""
    tint: Tint = Tint.UNKNOWN
    light_percent: Annotated[float, Field(ge=0, le=100)] | None = None
    original: bool | None = None
    note: Note = ""

    @property
    def says(self) -> bool:
        """Whether anything was told of it: an untouched form is no look."""
        told = self.fault is not GlassFault.UNKNOWN or self.tint is not Tint.UNKNOWN or self.light_percent is not None
        return told or bool(self.date_mark or self.note)
