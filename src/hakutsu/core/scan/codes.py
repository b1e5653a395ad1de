"""What a code says, what it does not say, and what on the vehicle would confirm it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from hakutsu.core.scan.codec.codes import system
from hakutsu.core.scan.tables import CodesTable, Family
from hakutsu.vehicle.tables import read_table

BARE = 5  # characters of a code without its failure type


@dataclass(frozen=True, slots=True)
class CodeTold:
    """A code in words; `known` where it is listed, else it is told by its system and circuit, or not at all."""

    code: str
    words: str
    family: str
    known: bool
    finding: str
    not_said: str
    confirm: str


@cache
def code_table() -> CodesTable:
    """Every code and family that is told.

    Raises
    ------
    ValueError
        If a code names a family that is not there.
    """
    table = read_table("core.scan", "codes", CodesTable)
    for key, (family, _) in (*table.ranges.items(), *table.code.items()):
        if family not in table.family:
            raise ValueError(f"{key} names the family {family}, which the file does not have")
    return table


def told(code: str) -> CodeTold:
    """Tell a code, with or without its failure type."""
    table, bare = code_table(), code[:BARE]
    if bare in table.code:
        key, words = table.code[bare]
        return _told(code, words, key, table.family[key], known=True)
    who = system(bare)
    if who == "standard" and bare[:3] in table.ranges:
        key, words = table.ranges[bare[:3]]
        return _told(code, f"not in our list; it is about {words}", key, table.family[key], known=False)
    if who == "maker":
        return _told(code, "a code of the maker's own", "maker", table.family["maker"], known=False)
    return _told(code, "not in our list", "other", table.family["other"], known=False)


def _told(code: str, words: str, key: str, family: Family, *, known: bool) -> CodeTold:
    return CodeTold(code, words, key, known, family.finding, family.not_said, family.confirm)
