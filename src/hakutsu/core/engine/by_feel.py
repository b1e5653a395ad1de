"""What is told by feel, ear and needle; `data/by_feel.toml`. A needle without figures has no absolute limit."""

from __future__ import annotations

from collections.abc import Iterable

from hakutsu.core.findings import Finding, found
from hakutsu.entries.by_feel import AirByHand, ByEar, Compressor, Cooled, Heats, Moment, Needle, Steadiness
from hakutsu.vehicle.tables import Row, Table, read_table

BAY, AIR, HEATER = "bay", "air_conditioning", "heater"


class _Sureness(Row):
    by_ear: float
    by_hand: float
    needle: float


class _LockOut(Row):
    below_c: float


class ByFeelTable(Table):
    """by_feel.toml."""

    sureness: _Sureness
    lock_out: _LockOut
    sounds: dict[str, str]
    needle: dict[str, str]
    cooled: dict[str, str]
    compressor: dict[str, str]
    heats: dict[str, str]


def by_feel_table() -> ByFeelTable:
    """The table."""
    return read_table("core.engine", "by_feel", ByFeelTable)


def _told(code: str, subject: str, words: str, sureness: float, *reasons: str) -> Finding:
    """A finding by feel, with those reasons that say anything."""
    return found(f"engine.{code}", subject, words, [one for one in reasons if one], sureness=sureness)


def _when(moment: Moment) -> str:
    return "" if moment is Moment.UNKNOWN else str(moment)


def ear_found(ear: ByEar) -> list[Finding]:
    """What an engine says by ear; running smoothly and revving freely are nothing found."""
    table = by_feel_table()
    return [
        _told(f"ear_{one.value}", BAY, table.sounds[one.value], table.sureness.by_ear, _when(ear.when), ear.note)
        for one in ear.sounds
        if one.value in table.sounds
    ]


def needle_found(needle: Needle) -> list[Finding]:
    """How a needle moves; where it stands on its scale is kept and judged by nobody."""
    table, moves = by_feel_table(), needle.steady.value
    if moves not in table.needle:
        return []
    words, subject = f"{needle.of}: {table.needle[moves]}", f"needle:{needle.of.value}"
    return [_told(f"needle_{moves}", subject, words, table.sureness.needle, _when(needle.when), needle.note)]


def dead_needles(needles: Iterable[Needle]) -> set[str]:
    """What dead needles do not show."""
    return {one.of.value for one in needles if one.steady is Steadiness.DEAD}


def air_by_hand_found(air: AirByHand, outside_c: float | None = None) -> list[Finding]:
    """What air-conditioning and heater say by hand.

    Parameters
    ----------
    outside_c : air outside [°C]; in the cold many compressors lock out, and nothing is concluded from none
    """
    table = by_feel_table()
    cold_day = outside_c is not None and outside_c < table.lock_out.below_c
    locked_out = cold_day and air.cooled is Cooled.NOT_DIFFERENT
    tried = (
        (air.cooled is not Cooled.UNKNOWN and not locked_out, "air_hand", AIR, air.cooled, table.cooled),
        (air.compressor in (Compressor.CYCLES, Compressor.NEVER) and not cold_day, "compressor", AIR, air.compressor,
         table.compressor),
        (air.heats not in (Heats.UNKNOWN, Heats.COLD_ENGINE), "heater_hand", HEATER, air.heats, table.heats),
    )  # fmt: skip
    return [
        _told(f"{code}_{how.value}", subject, words[how.value], table.sureness.by_hand, air.note)
        for says, code, subject, how, words in tried
        if says
    ]
