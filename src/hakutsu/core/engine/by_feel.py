"""What is told by feel, ear and needle; `data/by_feel.toml`. A needle without figures has no absolute limit."""

from __future__ import annotations

from collections.abc import Iterable

from hakutsu.core.findings import Finding, found
from hakutsu.entries.by_feel import AirByHand, ByEar, Compressor, Cooled, Heats, Needle, Steadiness
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


def ear_found(ear: ByEar) -> list[Finding]:
    """What an engine says by ear; running smoothly and revving freely are nothing found."""
    table = by_feel_table()
    when = (str(ear.when),) if ear.when.value != "unknown" else ()
    return [
        found(
            f"engine.ear_{one.value}",
            BAY,
            table.sounds[one.value],
            (*when, *note(ear.note)),
            sureness=table.sureness.by_ear,
        )
        for one in ear.sounds
        if one.value in table.sounds
    ]


def note(text: str) -> tuple[str, ...]:
    """A note as a reason, where there is one."""
    return (text,) if text else ()


def needle_found(needle: Needle) -> list[Finding]:
    """How a needle moves; where it stands on its scale is kept and judged by nobody."""
    table = by_feel_table()
    if needle.steady.value not in table.needle:
        return []
    words = f"{needle.of}: {table.needle[needle.steady.value]}"
    when = (str(needle.when),) if needle.when.value != "unknown" else ()
    return [found(f"engine.needle_{needle.steady.value}", f"needle:{needle.of.value}", words,
                  (*when, *note(needle.note)),
                  sureness=table.sureness.needle)]  # fmt: skip


def dead_needles(needles: Iterable[Needle]) -> set[str]:
    """What dead needles do not show."""
    return {one.of.value for one in needles if one.steady is Steadiness.DEAD}


def air_by_hand_found(air: AirByHand, outside_c: float | None = None) -> list[Finding]:
    """What air-conditioning and heater say by hand.

    Parameters
    ----------
    outside_c : air outside [°C]; in the cold many compressors lock out, and nothing is concluded from none
    """
    table, told = by_feel_table(), list[Finding]()
    sure = table.sureness.by_hand
    cold_day = outside_c is not None and outside_c < table.lock_out.below_c
    if air.cooled is not Cooled.UNKNOWN and not (cold_day and air.cooled is Cooled.NOT_DIFFERENT):
        told.append(
            found(
                f"engine.air_hand_{air.cooled.value}",
                AIR,
                table.cooled[air.cooled.value],
                note(air.note),
                sureness=sure,
            )
        )
    if air.compressor in (Compressor.CYCLES, Compressor.NEVER) and not cold_day:
        told.append(found(f"engine.compressor_{air.compressor.value}", AIR, table.compressor[air.compressor.value],
                          note(air.note), sureness=sure))  # fmt: skip
    if air.heats not in (Heats.UNKNOWN, Heats.COLD_ENGINE):
        told.append(
            found(
                f"engine.heater_hand_{air.heats.value}",
                HEATER,
                table.heats[air.heats.value],
                note(air.note),
                sureness=sure,
            )
        )
    return told
