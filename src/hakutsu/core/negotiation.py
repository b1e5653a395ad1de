"""The negotiation sheet: the asking price less items found, line by line. The app does not value vehicles."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

from babel.numbers import get_currency_precision

from hakutsu.core.findings import Finding, named_place
from hakutsu.entries.money import Line
from hakutsu.vehicle.vocabulary import Consequence

ON_SHEET = (Consequence.WALK_AWAY, Consequence.SETTLE, Consequence.BUDGET)


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
    """A line before the inspector treats it: code and subject it is kept by, words, why, usual cost (none where nobody
    priced it), what becomes of it, and the findings it stands for (code and subject).
    """

    code: str
    subject: str
    words: str
    amount: float | None
    because: str = ""
    treat: Consequence = Consequence.SETTLE
    of: tuple[tuple[str, str], ...] = ()

    @property
    def key(self) -> tuple[str, str]:
        """What prices, waivers and treatments are kept by."""
        return self.code, self.subject


@dataclass(frozen=True, slots=True)
class SheetLine:
    """A line as it stands: what it takes off when it is settled, whether the inspector changed it, and their note."""

    item: Item
    treat: Consequence
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

    @property
    def unpriced(self) -> int:
        """Lines to settle that nobody priced: they come on top of what is settled."""
        return sum(line.amount is None for line in self.treated(Consequence.SETTLE))

    def treated(self, treat: Consequence) -> list[SheetLine]:
        """Lines treated so."""
        return [line for line in self.lines if line.treat is treat]

    def line_of(self, finding: Finding) -> SheetLine | None:
        """The line a finding stands in; none where it is on no line."""
        return next((line for line in self.lines if finding.key in line.item.of), None)


@dataclass(frozen=True, slots=True)
class Priced:
    """What mends a finding: the line it belongs to, what that line is called, and its usual cost."""

    code: str
    subject: str
    words: str
    amount: float | None


def items(findings: Iterable[Finding], priced: Callable[[Finding], Priced | None]) -> list[Item]:
    """Lines of all findings that are on the sheet by the one rule: what is walked away from or settled, and what is
    budgeted for; not what is lived with or fine, and not what is excused. Findings that one job mends are one line.

    Parameters
    ----------
    findings : in the order they are told
    priced : what mends a finding, where that is known
    """
    lines: dict[tuple[str, str], tuple[Priced, list[Finding]]] = {}
    for one in findings:
        if one.excused or one.consequence not in ON_SHEET:
            continue
        code, subject = one.priced_as
        line = priced(one) or Priced(code, subject, named(one), None)
        lines.setdefault((line.code, line.subject), (line, []))[1].append(one)
    return [_item(line, stands_for) for line, stands_for in lines.values()]


def named(one: Finding) -> str:
    """A finding with where it lies, in words for `Terms.say`."""
    place = named_place(one.subject)
    return f"{{place {place}}}: {one.words}" if place else one.words


def _item(line: Priced, of: Sequence[Finding]) -> Item:
    settle = any(one.settles for one in of)
    told = [one.words for one in of if one.words not in line.words] + [r for one in of for r in one.reasons[:1]]
    because = "; ".join(dict.fromkeys(told))
    treat = Consequence.SETTLE if settle else Consequence.BUDGET
    return Item(line.code, line.subject, line.words, line.amount, because, treat, tuple(one.key for one in of))


def negotiation(
    items: Sequence[Item], said: Mapping[tuple[str, str], Line], asking: Decimal | None, currency: str
) -> Sheet:
    """The sheet: every item once, as the inspector treats it; amounts are rounded first and then added, so that what
    stands on paper adds up. A line said of a code without a subject (by an older version) holds for any subject of it.
    """
    lines = []
    for item in {one.key: one for one in items}.values():
        own = said.get(item.key) or said.get((item.code, ""))
        amount = own.amount if own is not None and own.amount is not None else item.amount
        lines.append(
            SheetLine(
                item, own.treat if own else item.treat, None if amount is None else rounded(amount, currency),
                own is not None, own.note if own else "",
            )
        )  # fmt: skip
    settle = Consequence.SETTLE
    settled = sum((one.amount for one in lines if one.treat is settle and one.amount is not None), Decimal(0))
    return Sheet(tuple(lines), settled, None if asking is None else rounded(asking, currency), currency)
