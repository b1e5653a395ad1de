"""The remedy ladder: what to try on a mark, how likely it is to do, and what else; from kind, size, depth and film."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Any

from hakutsu.core.body.tables import RemediesTable
from hakutsu.entries.body import Blemish, BlemishKind, Trial
from hakutsu.vehicle.parts import On
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.terms import PLAIN, Terms

SURE = 1.0
PAINTED: tuple[On, ...] = ("panel", "plastic", "fitting")


@dataclass(frozen=True, slots=True)
class Film:
    """What readings say where a mark is: headroom for polishing [µm], none where it was not read, the chance that it is
    there, and the chance that the panel is filled.
    """

    headroom_um: float | None = None
    filled: float = 0.0
    chance: float = SURE


@dataclass(frozen=True, slots=True)
class Remedy:
    """What to try first, the chance that it does, what else (none where the first is sure), and why."""

    first: str
    chance: float
    otherwise: str | None
    because: tuple[str, ...] = ()

    @property
    def steps(self) -> tuple[str, ...]:
        """Remedies in the order they are tried."""
        return (self.first,) if self.otherwise is None else (self.first, self.otherwise)


@cache
def remedy_table() -> RemediesTable:
    """The table of `data/remedies.toml`.

    Raises
    ------
    ValueError
        If a row names a remedy or kind that does not exist.
    """
    table = read_table("core.body", "remedies", RemediesTable)
    kinds = {kind.value for kind in BlemishKind}
    for row in table["row"]:
        named = {row["first"], row.get("else", row["first"])}
        unknown = (named - set(table["jobs"])) | (set(row.get("kinds", ())) - kinds)
        if unknown or not 0 <= row.get("chance", SURE) <= 1:
            raise ValueError(f"remedies name what does not exist: {', '.join(sorted(unknown))}")
    return table


def remedy_name(key: str) -> str:
    """A remedy as the trade names it."""
    return str(remedy_table()["jobs"][key]["name"])


def largest_mm(mark: Blemish) -> float:
    """The largest size of a mark [mm]; 0 where none was taken, which fits every row."""
    return max(mark.length_mm or 0.0, mark.width_mm or 0.0)


def remedy(mark: Blemish, on: On = "panel", film: Film | None = None, terms: Terms = PLAIN) -> Remedy:
    """What to do about a mark.

    Parameters
    ----------
    mark : the mark
    on : what carries it
    film : what the film says there; ignored on wheels, panes, lamps and trim
    terms : words and units in which reasons are told

    Notes
    -----
    Polishing needs headroom: less than it takes excludes it, none known lowers its chance and says so; where it was
    read, the chance that it is there counts, never less than that of film nobody read. A trial spot
    weighs more than the table. A dent is lifted only where the film is whole, not on an edge, and not where filler is
    likely.
    """
    row = next(row for row in remedy_table()["row"] if _fits(row, mark, on))
    first, chance, other = row["first"], float(row.get("chance", SURE)), row.get("else")
    because: list[str] = []
    if mark.trial is Trial.WIPED_OFF and first in ("clean", "polish"):
        return Remedy("clean", SURE, None, ("a trial spot came off",))
    if first == "clean" and mark.trial is Trial.STAYED:
        first, chance, other = other or "none", 0.7, "local" if on in PAINTED else None
        because.append("it does not wipe off")
    if on in PAINTED and film is not None:
        first, chance, other = _by_film(first, chance, other, mark, film, because, terms)
    if first == "polish" and "it does not wipe off" not in because:
        chance = _by_trial(chance, mark, because)
    certain = other is None or chance >= SURE
    return Remedy(first, SURE if certain else round(chance, 4), None if certain else other, tuple(because))


def _fits(row: dict[str, Any], mark: Blemish, on: On) -> bool:
    carries = on in row["on"] if "on" in row else on in PAINTED
    kind = mark.kind.value in row["kinds"] if "kinds" in row else True
    deep = mark.depth.value in row["depth"] if "depth" in row else True
    return carries and kind and deep and largest_mm(mark) <= row.get("until_mm", 1e9)


def _by_film(
    first: str,
    chance: float,
    other: str | None,
    mark: Blemish,
    film: Film,
    because: list[str],
    terms: Terms,
) -> tuple[str, float, str | None]:
    polish, lift = remedy_table()["polish"], remedy_table()["dent_lift"]
    if first == "polish":
        takes = float(polish["takes_um"].get(mark.depth.value, 3.0))
        if film.headroom_um is None:
            because.append("read the film here first")
            return first, chance * polish["unread"], other
        if film.headroom_um < takes:
            room = terms.film_words(film.headroom_um)
            because.append(f"the film leaves {room} to polish, it takes about {terms.film_words(takes)}")
            return other or "none", SURE, None
        because.append(f"the film leaves {terms.film_words(film.headroom_um)} to polish")
        # A reading of sound film never makes polishing less likely than none.
        return first, chance * max(film.chance, polish["unread"]), other
    if first in ("dent_lift", "hail"):
        if film.filled > lift["filled_above"]:
            because.append("filler is likely there: it cannot be lifted")
            return other or "panel", SURE, None
        if mark.on_edge:
            because.append("at an edge: it cannot be lifted")
            return other or "panel", SURE, None
    return first, chance, other


def _by_trial(chance: float, mark: Blemish, because: list[str]) -> float:
    polish = remedy_table()["polish"]
    if mark.trial is Trial.LESS:
        because.append("a trial spot came out partly")
        return min(chance * float(polish["partly"]), 0.95)
    if mark.trial is Trial.STAYED:
        because.append("a trial spot stayed")
        return chance * float(polish["stayed"])
    return chance
