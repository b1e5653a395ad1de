"""Units in which distance, depth, temperature and pressure are shown; inside they are km, mm, °C and bar."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from typing import Literal, get_args

from hakutsu.vehicle.table_models import UnitsTable
from hakutsu.vehicle.tables import read_table

Quantity = Literal["distance", "depth", "temperature", "pressure"]
MINUS = "−"
QUANTITIES: tuple[Quantity, ...] = get_args(Quantity)


def signed(number: float, places: int = 1) -> str:
    """A number with its sign, the minus a true one, to at most so many places: +0.7, −3."""
    return f"{round(number, places) + 0.0:+g}".replace("-", MINUS)


@dataclass(frozen=True, slots=True)
class Scale:
    """A unit of a quantity: stored = shown · factor + offset; `places` are the decimal places shown."""

    key: str
    label: str
    word: str
    factor: float
    offset: float
    places: int

    @property
    def name(self) -> str:
        """Label and word, where they differ."""
        plain = self.label == self.word or self.label.startswith("/")
        return self.word if plain else f"{self.label}: {self.word}"

    def stored(self, shown: float) -> float:
        """A number in this unit as it is stored."""
        return shown * self.factor + self.offset

    def shown(self, stored: float) -> float:
        """A stored number in this unit."""
        return (stored - self.offset) / self.factor

    def number(self, stored: float) -> str:
        """A stored number in figures of this unit, with a thousands separator and as many places as the unit shows."""
        rounded = round(self.shown(stored), self.places) + 0.0  # no "-0"
        return f"{rounded:,.{self.places}f}".removesuffix(".0")

    def difference(self, stored: float) -> str:
        """A stored difference with its unit: without the offset, so that 5 °C apart are 9 °F apart."""
        return f"{round(stored / self.factor, self.places):g} {self.label}"

    def taken(self, text: str, kept: float | None = None) -> float:
        """What somebody wrote in this unit, as it is stored; the number kept, where that is what it shows as.

        So that saving a form again does not move a stored value by the rounding of another unit.

        Raises
        ------
        ValueError
            If the text is no number.
        """
        plain = "".join(text.split()).replace(MINUS, "-")
        if kept is not None and plain.replace(",", "") == self.number(kept).replace(",", ""):
            return kept
        if self.places == 0 or plain.count(",") > 1 or "." in plain:
            plain = plain.replace(",", "")
        return self.stored(float(plain.replace(",", ".")))

    def words(self, stored: float) -> str:
        """A stored number with its unit and a true minus sign; a fraction of an inch stands close, as it is written."""
        number = self.number(stored).replace("-", MINUS)
        return f"{number}{'' if self.label.startswith('/') else ' '}{self.label}"

    def several(self, stored: Sequence[float]) -> str:
        """Stored numbers side by side, the unit once: "4.6 / 4.4 mm"; fractions of an inch each as it is written."""
        *others, last = stored
        if self.label.startswith("/"):
            part = self.label.split()[0]
            return "".join(f"{self.number(one)}{part}, " for one in others) + self.words(last)
        return "".join(f"{self.number(one)} / " for one in others) + self.words(last)


@cache
def scales(quantity: Quantity) -> dict[str, Scale]:
    """The units of a quantity by key, the one it is stored in first."""
    table = read_table("vehicle", "units", UnitsTable)
    return {
        key: Scale(key, row["label"], row["word"], row["factor"], row.get("offset", 0.0), row["places"])
        for key, row in table[quantity].items()
    }
