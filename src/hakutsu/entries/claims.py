"""Entries of claims: what advert and seller say."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import StringConstraints

from hakutsu.entries.registry import Body, entry_kind


class ClaimKind(StrEnum):
    """Kinds of claim an inspection can judge, and free ones."""

    ORIGINAL_FILM = "all original paint"
    NO_ACCIDENT = "no accident"
    DISTANCE = "distance"
    NEW_TYRES = "new tyres"
    SERVICED = "serviced"
    AIR_CONDITIONING = "air-conditioning cold"
    NO_LEAKS = "no leaks"
    NO_RUST = "no rust"
    NO_LAMPS = "no lamps or codes"
    OWNERS = "owners"
    KEYS = "keys"
    REPLACED = "part replaced"
    RUNS = "runs and drives"
    SMOKE_FREE = "smoke-free"
    FREE = "another claim"


class Claimant(StrEnum):
    """Who says it."""

    ADVERT = "advert"
    SELLER = "seller"
    PAPERS = "papers"


@entry_kind("claim.said")
class Claim(Body):
    """One claim: its words, who said it, when as far as known, and its kind."""

    words: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]
    who: Claimant = Claimant.ADVERT
    when: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""
    kind: ClaimKind = ClaimKind.FREE
