"""Claims proposed from an advert's text by plain rules; nothing is taken without being accepted."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from hakutsu.core.tables import ClaimsTable
from hakutsu.entries.claims import ClaimKind
from hakutsu.vehicle.tables import read_table

LONGEST_ADVERT = 20_000
LONGEST_CLAIM = 400
_SENTENCE = re.compile(r"[^.!?;\n•*]+(?:(?<=\d)[.,](?=\d)[^.!?;\n•*]+)*")


@dataclass(frozen=True, slots=True)
class Proposal:
    """A claim proposed: its words as they stand in the text, and its kind."""

    words: str
    kind: ClaimKind


@cache
def _patterns() -> dict[ClaimKind, tuple[re.Pattern[str], ...]]:
    table = read_table("core", "claims", ClaimsTable)["patterns"]
    return {ClaimKind(kind): tuple(re.compile(one, re.IGNORECASE) for one in found) for kind, found in table.items()}


def against(kind: ClaimKind) -> tuple[str, ...]:
    """Codes of findings that contradict a kind of claim (``*`` stands for whatever follows)."""
    return read_table("core", "claims", ClaimsTable).against.get(kind.value, ())


def propose(advert: str) -> list[Proposal]:
    """Obvious claims of an advert, in the order of its text; one sentence may make several, each kind once."""
    found: dict[tuple[str, ClaimKind], Proposal] = {}
    for match in _SENTENCE.finditer(advert[:LONGEST_ADVERT]):
        words = " ".join(match.group().split())[:LONGEST_CLAIM]
        for kind, patterns in _patterns().items():
            if any(pattern.search(words) for pattern in patterns):
                found.setdefault((words.lower(), kind), Proposal(words, kind))
    return list(found.values())
