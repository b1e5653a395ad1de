"""The negotiation sheet: the asking price less items found, line by line. The app does not value vehicles."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

from babel.numbers import get_currency_precision

from hakutsu.entries.money import Line, Treat


def step_of(currency: str) -> Decimal:
    """The smallest amount of a currency: 0.01, 1 or 0.001 (ISO 4217)."""
    return Decimal(1).scaleb(-get_currency_precision(currency))


def rounded(amount: Decimal | float, currency: str) -> Decimal:
    """An amount in whole smallest amounts of its currency."""
    return Decimal(str(amount)).quantize(step_of(currency), ROUND_HALF_UP)


def shared_out(amounts: Sequence[float], currency: str, step: Decimal | None = None) -> tuple[list[Decimal], Decimal]:
    """Amounts rounded so that they add up to their total as it is rounded: the largest remainders are rounded up."""
    unit = step or step_of(currency)
    exact = [Decimal(str(one)) / unit for one in amounts]
    total = sum(exact, Decimal(0)).quantize(Decimal(1), ROUND_HALF_UP)
    whole = [one.to_integral_value("ROUND_FLOOR") for one in exact]
    short = int(total - sum(whole, Decimal(0)))
    order = sorted(range(len(exact)), key=lambda i: whole[i] - exact[i])
    for i in order[:short]:
        whole[i] += 1
    return [one * unit for one in whole], total * unit


@dataclass(frozen=True, slots=True)
class Item:
    """Something found, before the inspector treats it: key, words, why, usual cost (none where nobody priced it)."""

    key: str
    words: str
    amount: float | None
    because: str = ""
    treat: Treat = Treat.SETTLE


@dataclass(frozen=True, slots=True)
class SheetLine:
    """A line as it stands: what it takes off when it is settled, whether the inspector changed it, and their note."""

    item: Item
    treat: Treat
    amount: Decimal | None
    own: bool
    note: str


@dataclass(frozen=True, slots=True)
class Sheet:
    """All lines, what is to settle together, and the asking price less that (none without an asking price)."""

    lines: tuple[SheetLine, ...]
    settled: Decimal
    asking: Decimal | None
    currency: str

    @property
    def left(self) -> Decimal | None:
        """Asking price less items found; never below nothing."""
        return None if self.asking is None else max(Decimal(0), self.asking - self.settled)

    def treated(self, treat: Treat) -> list[SheetLine]:
        """Lines treated so."""
        return [line for line in self.lines if line.treat is treat]


def negotiation(items: Sequence[Item], said: Mapping[str, Line], asking: Decimal | None, currency: str) -> Sheet:
    """The sheet: every item once, as the inspector treats it; amounts are rounded first and then added, so that what
    stands on paper adds up.
    """
    lines = []
    for item in {one.key: one for one in items}.values():
        own = said.get(item.key)
        amount = own.amount if own is not None and own.amount is not None else item.amount
        lines.append(
            SheetLine(
                item, own.treat if own else item.treat, None if amount is None else rounded(amount, currency),
                own is not None, own.note if own else "",
            )
        )  # fmt: skip
    settled = sum((one.amount for one in lines if one.treat is Treat.SETTLE and one.amount is not None), Decimal(0))
    return Sheet(tuple(lines), settled, None if asking is None else rounded(asking, currency), currency)
