"""How sure an observation was said, as a likelihood of what it found."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from hakutsu.core.findings import Finding, Open
from hakutsu.entries.envelope import SaidAs
from hakutsu.vehicle.tables import Row, Table, read_table


class _Said(Row):
    holds: float
    why: str = ""
    check: str = ""


class SaidAsTable(Table):
    """said_as.toml."""

    sure: _Said
    likely: _Said
    guess: _Said


def weighed(finding: Finding, said: Iterable[SaidAs | None]) -> Finding:
    """A finding by how sure the entries it rests on were said.

    Parameters
    ----------
    finding : as the rules found it
    said : of each entry; nothing said counts as said plainly. The surest of them speaks: two looks of which one is sure
        are no guess.

    Returns
    -------
    The same where one was said plainly; otherwise less sure, and a guess open until somebody looks again.
    """
    every = list(said)
    if not every or None in every or SaidAs.SURE in every:
        return finding
    least = SaidAs.LIKELY if SaidAs.LIKELY in every else SaidAs.GUESS
    row: _Said = getattr(read_table("core", "said_as", SaidAsTable), least.value)
    unsettled = finding.open or (Open(row.why, row.check) if row.check else None)
    return replace(finding, sureness=finding.sureness * row.holds, open=unsettled)
