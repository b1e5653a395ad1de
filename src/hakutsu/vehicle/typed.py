"""Amounts and whole numbers as people write them: "9 900", "1,250.50", "12.500" asked about where it is not clear."""

from __future__ import annotations

import re
from datetime import date
from decimal import Decimal

_BLANKS = re.compile(r"[\s’'_]")
_PLAIN = re.compile(r"\d+([.,]\d{1,2})?")
_GROUPED = re.compile(r"\d{1,3}([.,])\d{3}((?:\1\d{3})*)(?:(?!\1)[.,]\d{1,3})?")
_DAY = re.compile(r"(\d{1,2})[./ ](\d{1,2})[./ ](\d{4})")


class Unclear(ValueError):
    """What was typed may mean two things, or nothing; says which, for the field."""


def amount(text: str) -> Decimal:
    """An amount of money.

    Raises
    ------
    Unclear
        If it is no number, or one mark before three digits may part thousands or cents.
    """
    plain = _BLANKS.sub("", text)
    if _PLAIN.fullmatch(plain):
        return Decimal(plain.replace(",", "."))
    found = _GROUPED.fullmatch(plain)
    if found is None:
        raise Unclear(f"“{text.strip()}” is no amount: write it in figures, such as 8500 or 8500.50.")
    whole, mark = re.split(r"(?!" + re.escape(found[1]) + r")[.,]", plain, maxsplit=1), found[1]
    if len(whole) == 1 and not found[2]:
        digits = plain.replace(mark, "")
        raise Unclear(
            f"“{text.strip()}” may be {digits} or {plain.replace(',', '.')}: write {digits}, or only two decimals."
        )
    cents = f".{whole[1]}" if len(whole) > 1 else ""
    return Decimal(whole[0].replace(mark, "") + cents)


def whole(text: str) -> int:
    """A whole number, such as a distance: what parts its digits in threes is left out.

    Raises
    ------
    Unclear
        If it is no whole number.
    """
    plain = _BLANKS.sub("", text)
    if plain.isdigit():
        return int(plain)
    if re.fullmatch(r"\d{1,3}([.,]\d{3})+", plain):
        return int(re.sub(r"[.,]", "", plain))
    raise Unclear(f"“{text.strip()}” is no whole number: write it in figures, such as 12000.")


def day(text: str) -> date:
    """A day as it is written with figures: 2026-12-24, 24.12.2026, 24/12/2026.

    Raises
    ------
    Unclear
        If it is no day, or may be two.
    """
    said = text.strip()
    try:
        return date.fromisoformat(said)
    except ValueError:
        found = _DAY.fullmatch(said)
    if found is None:
        raise Unclear("Write a day, such as 2026-12-24.")
    first, second, year = (int(one) for one in found.groups())
    if first <= 12 and second <= 12 and first != second and "." not in said:
        raise Unclear(
            f"“{said}” may be two days: write {year}-{second:02}-{first:02} or {year}-{first:02}-{second:02}."
        )
    month, of = (second, first) if second <= 12 else (first, second)
    try:
        return date(year, month, of)
    except ValueError as error:
        raise Unclear("There is no such day: write it as 2026-12-24.") from error
