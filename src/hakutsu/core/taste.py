"""What looks ask for: how far a mark shows, against the buyer's taste, `data/taste.toml`; and what law asks for."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.consequence import Looks, base
from hakutsu.core.findings import Finding
from hakutsu.entries.body import Blemish, Depth, ShowsFrom
from hakutsu.vehicle.rules import RuleSet
from hakutsu.vehicle.tables import Row, Table, read_table
from hakutsu.vehicle.vocabulary import Consequence, Taste


class _Rust(Row):
    depths: tuple[str, ...]
    kinds: tuple[str, ...]


class _Spreads(Row):
    kinds: tuple[str, ...]
    tastes: tuple[Taste, ...]


class _NoRefinish(Row):
    tastes: tuple[Taste, ...]


class TasteTable(Table):
    """taste.toml."""

    reach: dict[Taste, tuple[ShowsFrom, ...]]
    untold: dict[Taste, str]
    rust: _Rust
    spreads: _Spreads
    no_refinish: _NoRefinish
    reads: dict[Taste, tuple[ShowsFrom, ...]]


def taste_table() -> TasteTable:
    """The table."""
    return read_table("core", "taste", TasteTable)


@dataclass(frozen=True, slots=True)
class OfMark:
    """What decides of a mark beside the mark itself: whether metal that rusts lies under it, whether putting it right
    ends in a refinish, and whether there is anything to put right at all.
    """

    metal: bool
    refinish: bool
    nothing_to_do: bool = False


def lets_rust_in(mark: Blemish, of: OfMark) -> bool:
    """Whether metal lies bare under a mark, or rusts beneath it already."""
    rust = taste_table().rust
    return of.metal and (mark.depth.value in rust.depths or mark.kind.value in rust.kinds)


def of_mark(mark: Blemish, taste: Taste, of: OfMark) -> tuple[Consequence | None, str]:
    """What a mark that is one of looks asks for, and why; none where the table of codes has it.

    Parameters
    ----------
    mark : the mark
    taste : the buyer's
    of : what else decides
    """
    table = taste_table()
    if of.nothing_to_do:
        return Consequence.LIVE_WITH, ""
    why = "bare metal: it rusts from here" if lets_rust_in(mark, of) else ""
    if taste in table.spreads.tastes and not why:
        spreads = mark.kind.value in table.spreads.kinds or (of.metal and mark.depth is Depth.THROUGH)
        why = "fresh damage" if mark.fresh else "it spreads" if spreads else ""
    if why or mark.shows_from in table.reach[taste]:
        never = of.refinish and taste in table.no_refinish.tastes
        return (Consequence.BUDGET if never else Consequence.SETTLE), why
    if mark.shows_from is ShowsFrom.UNKNOWN:
        return (Consequence(asked) if (asked := table.untold[taste]) else None), ""
    return Consequence.LIVE_WITH, ""


def of_looks(finding: Finding, taste: Taste) -> Finding:
    """A finding of looks without a distance (trim, seats, stains) as the buyer's taste has it; others as they are."""
    asked = taste_table().untold[taste]
    if base(finding.code).looks is not Looks.OTHER or not asked:
        return finding
    return finding.asking(Consequence(asked))


def by_law(finding: Finding, rules: RuleSet) -> Finding:
    """A finding that the periodic test of the place refuses is settled, whatever it asks for elsewhere."""
    if finding.code not in rules.refuses or finding.settles:
        return finding
    return finding.asking(Consequence.SETTLE, f"the test refuses it: {rules.name}")
