"""Where numbers and dates stand on a vehicle and its papers, and the registers that know what nobody sees on it."""

from __future__ import annotations

from functools import cache

from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.tables import Row, Table, read_table


class NumberPlace(Keyed):
    """Where the identity number was read."""

    PLATE = "plate", "identity plate"
    STAMPED = "stamped", "stamped in the body"
    SCREEN = "screen", "behind the windscreen"
    STICKER = "sticker", "sticker at a pillar"
    GLASS = "glass", "etched in a pane"
    MODULE = "module", "control unit"
    PAPERS = "papers", "registration papers"
    OTHER = "other", "another place"


# What an identity rests on: where these differ, nobody knows which vehicle it is.
RESTS_ON = (NumberPlace.PLATE, NumberPlace.STAMPED, NumberPlace.PAPERS)


class Code(Keyed):
    """Kinds of code that dated marks carry."""

    PLAIN = "plain", "year, month or day"
    TYRE_WEEK = "tyre_week", "week and year"
    GLASS_DOT_MONTH = "glass_dot_month", "dots beside a year"
    CLOCK_MOULD = "clock_mould", "clock in a mould: year > month"
    LETTER_TABLE = "letter_table", "letters by a table"


class RecordSource(Keyed):
    """Where a reading of the distance comes from."""

    DELIVERY = "delivery", "delivery"
    STAMP = "stamp", "service stamp"
    TEST = "test", "roadworthiness test"
    INVOICE = "invoice", "invoice"
    MODULE = "module", "control unit"
    DIAL_NOW = "dial_now", "the dial now"


class RegisterRow(Row):
    """`ask` of registers.toml."""

    name: str
    tells: str
    where: str


class RegistersTable(Table):
    """registers.toml."""

    ask: dict[str, RegisterRow]


class MarkRow(Row):
    """`mark` of marks.toml."""

    name: str
    code: Code
    part: str = ""
    renewed: bool = False


class MarksTable(Table):
    """marks.toml."""

    mark: dict[str, MarkRow]


BUILD_PLATE = "build_plate"


@cache
def registers() -> dict[str, RegisterRow]:
    """Registers by key."""
    return read_table("vehicle", "registers", RegistersTable).ask


@cache
def dated_marks() -> dict[str, MarkRow]:
    """Kinds of dated marks by key."""
    return read_table("vehicle", "marks", MarksTable).mark
