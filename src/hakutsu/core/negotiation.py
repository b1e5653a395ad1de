"""The negotiation sheet: the asking price less items found, line by line. The app does not value vehicles."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import ROUND_HALF_UP, Decimal

from babel.numbers import get_currency_precision

from hakutsu.core.consequence import base
from hakutsu.core.findings import Finding, is_of, named_place
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
    priced it), what becomes of it, and the findings it stands for (code and subject). `looks`: it is of looks alone.
    `besides`: codes (``*`` stands for whatever follows) whose lines it counts over and above, as a claim does.
    """

    code: str
    subject: str
    words: str
    amount: float | None
    because: str = ""
    treat: Consequence = Consequence.SETTLE
    of: tuple[tuple[str, str], ...] = ()
    looks: bool = False
    besides: tuple[str, ...] = ()

    @property
    def key(self) -> tuple[str, str]:
        """What prices, waivers and treatments are kept by."""
        return self.code, self.subject


@dataclass(frozen=True, slots=True)
class SheetLine:
    """A line as it stands: what it costs, whether the inspector changed it, and their note.

    `disclosed`: told of before the price was named; `taken`: what it takes off, nothing where it is not settled, is
    disclosed, or stands in lines of its own already.
    """

    item: Item
    treat: Consequence
    amount: Decimal | None
    own: bool
    note: str
    disclosed: bool = False
    taken: Decimal = Decimal(0)


@dataclass(frozen=True, slots=True)
class Sheet:
    """All lines, what is to settle together, and the asking price less that (none without one, or at an auction).

    `on_top`: at an auction, what comes on top of the hammer price besides; none where there is a price to bargain over.
    """

    lines: tuple[SheetLine, ...]
    settled: Decimal
    asking: Decimal | None
    currency: str
    on_top: tuple[tuple[str, Decimal], ...] | None = None

    @property
    def looks(self) -> Decimal:
        """How much of what is settled is for looks alone."""
        return sum((line.taken for line in self.lines if line.item.looks), Decimal(0))

    @property
    def above_hammer(self) -> Decimal:
        """At an auction, all that comes on top of the hammer price."""
        return self.settled + sum((amount for _, amount in self.on_top or ()), Decimal(0))

    @property
    def left(self) -> Decimal | None:
        """Asking price less items found; never below nothing."""
        return None if self.asking is None else max(Decimal(0), self.asking - self.settled)

    @property
    def unpriced(self) -> int:
        """Lines to settle that nobody priced: they come on top of what is settled."""
        return sum(line.amount is None for line in self.treated(Consequence.SETTLE) if not line.disclosed)

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
    besides: tuple[str, ...] = ()


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


def _named(one: Finding, line: Priced) -> tuple[str, ...]:
    """What a finding says, where its line does not say it already."""
    return () if one.words in line.words else (one.words,)


def _item(line: Priced, of: Sequence[Finding]) -> Item:
    settle = any(one.settles for one in of)
    told = [", ".join(part for part in (*_named(one, line), *one.reasons[:1]) if part) for one in of]
    because = "; ".join(dict.fromkeys(one for one in told if one))
    treat = Consequence.SETTLE if settle else Consequence.BUDGET
    looks = all(one.of_looks for one in of)
    return Item(
        line.code, line.subject, line.words, line.amount, because, treat, tuple(one.key for one in of), looks,
        line.besides,
    )  # fmt: skip


def negotiation(
    items: Sequence[Item],
    said: Mapping[tuple[str, str], Line],
    asking: Decimal | None,
    currency: str,
    on_top: Sequence[tuple[str, Decimal]] | None = None,
) -> Sheet:
    """The sheet: every item once, as the inspector treats it; amounts are rounded first and then added, so that what
    stands on paper adds up. A line said of a code without a subject (by an older version) holds for any subject of it.

    Parameters
    ----------
    items : in the order they are told
    said : how the inspector treats lines, by code and subject
    asking : price asked; of no account at an auction
    currency : of all amounts
    on_top : at an auction, what comes on top of the hammer price besides; none where there is a price to bargain over
    """
    lines = []
    for item in {one.key: one for one in items}.values():
        own = said.get(item.key) or said.get((item.code, "")) or _said_before(item, said)
        amount = own.amount if own is not None and own.amount is not None else item.amount
        disclosed, price = own is not None and own.disclosed, None if amount is None else rounded(amount, currency)
        treat = own.treat if own else item.treat
        counts = treat is Consequence.SETTLE and (not disclosed or (own is not None and own.taken_off))
        lines.append(
            SheetLine(
                item, treat, price, own is not None, own.note if own else "", disclosed,
                price if counts and price is not None else Decimal(0),
            )
        )  # fmt: skip
    lines = [_besides(line, lines) for line in lines]
    settled = sum((one.taken for one in lines), Decimal(0))
    price = None if asking is None or on_top is not None else rounded(asking, currency)
    extra = None if on_top is None else tuple((name, rounded(amount, currency)) for name, amount in on_top)
    return Sheet(tuple(lines), settled, price, currency, extra)


def _said_before(item: Item, said: Mapping[tuple[str, str], Line]) -> Line | None:
    """What was said of one of its findings while no job was known for it: a price outlives that."""
    keys = ((base(code).price_as or code, subject) for code, subject in item.of)
    return next((said[key] for key in keys if key in said), None)


def _besides(line: SheetLine, lines: Sequence[SheetLine]) -> SheetLine:
    """A claim counts as far as it is more than what contradicts it and is settled in lines of its own."""
    codes = line.item.besides
    if not codes or not line.taken:
        return line
    others = [one for one in lines if any(is_of(code, codes) for code, _ in one.item.of)]
    return replace(line, taken=max(Decimal(0), line.taken - sum((one.taken for one in others), Decimal(0))))
