"""What periodic tests advise of, and who serviced a vehicle."""

from __future__ import annotations

from functools import cache

from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.tables import Row, Table, read_table


class ByWhom(Keyed):
    """Who did it."""

    UNKNOWN = "unknown", "not told"
    MAKER = "maker", "the maker’s workshop"
    INDEPENDENT = "independent", "an independent workshop"
    OWNER = "owner", "the owner"
    DELIVERY = "delivery", "check before delivery"


class ProofOf(Keyed):
    """What proves it."""

    STAMP = "stamp"
    INVOICE = "invoice"
    DIGITAL = "digital", "digital record"
    SAID = "said", "said, without proof"


class TopicRow(Row):
    """`topic` of advisories.toml."""

    name: str
    codes: tuple[str, ...]
    looks: tuple[str, ...]
    parts: tuple[str, ...] = ()


class AdvisoriesTable(Table):
    """advisories.toml."""

    topic: dict[str, TopicRow]


@cache
def advisory_topics() -> dict[str, TopicRow]:
    """Topics of advisories by key."""
    return read_table("vehicle", "advisories", AdvisoriesTable).topic
