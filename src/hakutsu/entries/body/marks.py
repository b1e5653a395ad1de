"""Marks of every kind, and contacts that explain several."""

from __future__ import annotations

from typing import Annotated, Any, Self
from uuid import UUID

from pydantic import Field, model_validator

from hakutsu.entries.body.kinds import Millimetres, Note
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import parts
from hakutsu.vehicle.vocabulary import Keys

Unit = Annotated[float, Field(ge=0, le=1)]
Corner = tuple[Unit, Unit]


class BlemishKind(Keyed):
    """What a mark is."""

    CHIP = "chip"
    SCRATCH = "scratch"
    SCUFF = "scuff"
    DENT = "dent"
    DING = "ding"
    CREASE = "crease"
    HAIL = "hail", "hail field"
    CRACK = "crack"
    STRESS_CRACK = "stress_crack", "stress crack"
    KERB = "kerb", "kerb damage"
    PEEL = "peel"
    BUBBLE = "bubble"
    FADE = "fade"
    CHALKING = "chalking"
    PITTING = "pitting"
    TEAR = "tear"
    STAIN = "stain"
    BURN = "burn"
    WEAR = "wear"
    MISFIT = "misfit"
    MISSING = "missing", "missing part"
    MOISTURE = "moisture", "moisture inside"
    TOUCHED_WELL = "touched_well", "touched in before, well"
    TOUCHED_POORLY = "touched_poorly", "touched in before, poorly"
    GROWTH = "growth"
    SPOKES = "spokes", "loose or broken spokes"
    HUB_NUT = "hub_nut", "worn central nut or splines"
    LETTING_GO = "letting_go", "letting go (glue, stitching)"
    UNIDENTIFIED = "unidentified"


class Depth(Keyed):
    """How deep a mark goes, by nail and eye."""

    UNKNOWN = "unknown", "not done"
    ON_FILM = "on_film", "on the film"
    CLEAR = "clear", "in the clear"
    COLOUR = "colour", "to colour"
    PRIMER = "primer", "to primer"
    METAL = "metal", "to metal"
    THROUGH = "through"


class ShowsFrom(Keyed):
    """The farthest distance from which it shows."""

    UNKNOWN = "unknown", "not told"
    YARD = "yard", "across the yard"
    ARM = "arm", "arm’s length"
    CLOSE = "close", "close, with lamp"


class Trial(Keyed):
    """What a trial spot, wiped or polished by hand, did to it."""

    NONE = "none", "none made"
    WIPED_OFF = "wiped_off", "it came off"
    LESS = "less", "it came out partly"
    STAYED = "stayed", "it stayed"


class Supply(Keyed):
    """How parts for a repair are to be had."""

    VEHICLE = "vehicle", "as for the vehicle"
    STOCKED = "stocked"
    SLOW = "slow", "slow to come"
    USED_ONLY = "used_only", "used only"


def _shown(raw: dict[str, Any]) -> dict[str, Any]:
    """What older entries left out, they meant as it is put here."""
    return {"shows_from": "arm"} | raw


def _stocked(raw: dict[str, Any]) -> dict[str, Any]:
    """Older entries that said nothing meant parts in stock."""
    return {"supply": "stocked"} | raw


@entry_kind("body.blemish", at="somewhere", version=4, upgrades={1: to_keys, 2: _shown, 3: _stocked})
class Blemish(Body):
    """One mark on a panel, wheel or other part.

    Sizes in mm; `count` of a group of like marks. `path` are places (u, v) on the panel: one, two for a line, three or
    more for the outline of an area. `also_on` are further panels or parts the same mark runs over, `all_round`: along
    the whole vehicle; `fresh`: bright edges, no dirt or rust in it. `on_edge` is an edge or crease of the panel;
    `seized`: fixings are seized or corroded.
    """

    kind: BlemishKind
    length_mm: Millimetres | None = None
    width_mm: Millimetres | None = None
    count: Annotated[int, Field(ge=1, le=2000)] = 1
    depth: Depth = Depth.UNKNOWN
    shows_from: ShowsFrom = ShowsFrom.UNKNOWN
    also_on: Keys = ()
    all_round: bool = False
    path: Annotated[tuple[Corner, ...], Field(max_length=24)] = ()
    fresh: bool = False
    trial: Trial = Trial.NONE
    on_edge: bool = False
    supply: Supply = Supply.VEHICLE
    seized: bool = False
    note: Note = ""

    @model_validator(mode="after")
    def _says_what_was_tried(self) -> Self:
        for key in self.also_on:
            if key not in panels() and key not in parts():
                raise ValueError(f"“{key}” is no panel or part")
        if self.kind is BlemishKind.UNIDENTIFIED and not self.note:
            raise ValueError("of an unidentified mark say what was tried: wipe, nail, lamp")
        return self


@entry_kind("body.event")
class Event(Body):
    """One contact that explains several blemishes, named by their entries: one finding, one priced job."""

    blemishes: Annotated[tuple[UUID, ...], Field(min_length=2, max_length=40)]
    what: Note = ""


@entry_kind("body.event_dropped")
class EventDropped(Body):
    """Blemishes that a rule would join have nothing to do with each other."""

    blemishes: Annotated[tuple[UUID, ...], Field(min_length=2, max_length=40)]
