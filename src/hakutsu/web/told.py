"""What pages of several stations list: entries in words, and places to choose from."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any
from uuid import UUID

from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words
from hakutsu.vehicle.places import WHEELS, places


def told_rows(reckoning: Reckoning, seen: Iterable[Any], *, placed: bool = False) -> list[tuple[UUID, str]]:
    """Entries with their words, `placed` with where they lie before them."""
    told = []
    for one in seen:
        place = reckoning.terms.place(one.entry.place) if placed else ""
        words = body_words(one.body, reckoning.terms)[1]
        told.append((one.entry.id, f"{place}: {words}" if place else words))
    return told


def places_offered(reckoning: Reckoning) -> list[tuple[str, str]]:
    """Places on the vehicle with their names, wheels among them."""
    return [(key, reckoning.terms.place(key)) for key in (*places(), *WHEELS) if key != "desk"]
