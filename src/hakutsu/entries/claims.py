"""Entries of claims: what advert and seller say."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import StringConstraints

from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed


class ClaimKind(Keyed):
    """Kinds of claim an inspection can judge, and free ones."""

    ORIGINAL_FILM = "original_film", "all original paint"
    NO_ACCIDENT = "no_accident", "no accident"
    DISTANCE = "distance"
    NEW_TYRES = "new_tyres", "new tyres"
    SERVICED = "serviced"
    AIR_CONDITIONING = "air_conditioning", "air-conditioning cold"
    NO_LEAKS = "no_leaks", "no leaks"
    NO_RUST = "no_rust", "no rust"
    NO_LAMPS = "no_lamps", "no warning lights or fault codes"
    OWNERS = "owners"
    KEYS = "keys"
    REPLACED = "replaced", "part replaced"
    RUNS = "runs", "runs and drives"
    SMOKE_FREE = "smoke_free", "smoke-free"
    FREE = "free", "another claim"


class Claimant(StrEnum):
    """Who says it."""

    ADVERT = "advert"
    SELLER = "seller"
    PAPERS = "papers"


@entry_kind("claim.said", version=2, upgrades={1: to_keys})
class Claim(Body):
    """One claim: its words, who said it, when as far as known, and its kind."""

    words: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]
    who: Claimant = Claimant.ADVERT
    when: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""
    kind: ClaimKind = ClaimKind.FREE
