"""Bright work, plastics, badges, and fittings the vehicle was not built with."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field, StringConstraints

from hakutsu.entries.body.kinds import Note
from hakutsu.entries.bounds import Several
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed


class Material(Keyed):
    """What a piece of trim is made of."""

    UNKNOWN = "unknown", "not told"
    PLATED = "plated"
    STAINLESS = "stainless"
    ALUMINIUM = "aluminium"
    PLASTIC = "plastic"
    LETTERS = "letters", "letters or stripes"


class TrimState(Keyed):
    """How a piece of bright work, plastic or a badge is."""

    GOOD = "good"
    HAZED = "hazed"
    FINE_PITS = "fine_pits", "fine pits"
    RUSTED_PITS = "rusted_pits", "pits with rust"
    LIFTING = "lifting"
    BARE = "bare"
    DULLER = "duller", "duller than its neighbours"
    DENTED = "dented", "dented or cracked"
    STANDS_OFF = "stands_off", "stands off"
    CHALKED = "chalked"
    DRIED = "dried"
    DRESSED = "dressed", "dressed to look fresh"
    WORN = "worn"
    MISSING = "missing"
    GHOST = "ghost", "ghost of a removed one"
    WRONG = "wrong", "wrong for what is under it"


class Origin(Keyed):
    """Where a piece comes from."""

    UNKNOWN = "unknown", "not known"
    ORIGINAL = "original"
    RENEWED = "renewed", "renewed or re-plated"
    REPRODUCTION = "reproduction"


def _plastic(raw: dict[str, Any]) -> dict[str, Any]:
    """What older entries left out, they meant as it is put here."""
    return {"material": "plastic"} | raw


@entry_kind("body.trim", version=3, upgrades={1: to_keys, 2: _plastic})
class Trim(Body):
    """A piece of bright work, plastic or a badge: material, origin and state, apart from each other."""

    state: TrimState
    material: Material = Material.UNKNOWN
    origin: Origin = Origin.UNKNOWN
    note: Note = ""


class Works(Keyed):
    """Whether something works."""

    UNKNOWN = "unknown", "not tried"
    YES = "works"
    NO = "no", "does not work"


@entry_kind("body.addition", version=2, upgrades={1: to_keys})
class Addition(Body):
    """A fitting the vehicle was not built with: what, by whom, whether it works and goes with it, how it was put in."""

    what: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    by_whom: Note = ""
    works: Works = Works.UNKNOWN
    in_sale: bool | None = None
    approval: Annotated[str, StringConstraints(max_length=60)] = ""
    original_present: bool | None = None
    holes: Annotated[int, Field(ge=0, le=500)] = 0
    poor: Several[Annotated[str, StringConstraints(max_length=40)]] = ()
    note: Note = ""
