"""Facts of the vehicle that were told in two ways, and parts that are not its own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Any

from hakutsu.core.findings import Finding, found
from hakutsu.entries.facts import OriginSaid, PartOrigin
from hakutsu.vehicle.facts import FACT_NAMES
from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.tables import Row, Table, read_table


class _Visit(Row):
    driven_km: float


class _FactsTable(Table):
    visit: _Visit


VEHICLE = "vehicle"
WRITTEN = ("make", "model", "variant", "first_used", "front_size", "rear_size")
NOT_ITS_OWN = {
    PartOrigin.SWAPPED: "general.part_swapped", PartOrigin.REPRODUCTION: "general.part_reproduction",
    PartOrigin.RENEWED: "general.part_renewed", PartOrigin.RESTORED: "general.part_restored",
}  # fmt: skip


def differ(fact: str, values: Sequence[Any]) -> bool:
    """Whether mentions of one fact contradict each other, as they were told and in the order they were made.

    A distance meter may move on by what is driven during a visit; a name may be written more fully the second time, and
    a date told to the month where it was told to the year.
    """
    if len(values) < 2:
        return False
    if fact == "odometer_km":
        steps = [later - before for before, later in pairwise(values)]
        return any(step < 0 or step > read_table("core", "facts", _FactsTable).visit.driven_km for step in steps)
    if fact in WRITTEN:
        texts = [" ".join(str(one).casefold().split()) for one in values]
        longest = max(texts, key=len)
        return not all(one in longest for one in texts)
    return len({key_of(one) for one in values}) > 1


def fact_found(fact: str, words: Sequence[str]) -> Finding:
    """A fact that was told in two ways; `words`: each mention with where it comes from."""
    said = "; ".join(dict.fromkeys(words))
    return found("general.facts_differ", f"fact:{fact}", f"{FACT_NAMES[fact]} told in two ways: {said}")


def origin_found(body: OriginSaid, place: str) -> Finding | None:
    """A part that is not the one it was built with; none of an original one, or where that is not known."""
    if body.origin not in NOT_ITS_OWN:
        return None
    proof = (body.proof,) if body.proof else ("no proof shown",)
    subject = f"{'_'.join(body.part.casefold().split())}:{place or VEHICLE}"
    words = f"{body.part}: {body.origin} {body.when}".strip()
    return replace(found(NOT_ITS_OWN[body.origin], subject, words, proof), dated=body.when)
