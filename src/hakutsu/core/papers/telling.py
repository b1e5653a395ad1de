"""What the records of distance say together, in words that accuse nobody."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date

from hakutsu.core.papers.distance import Distance
from hakutsu.core.papers.records import KINDS, History, Record

SURE = 0.9  # from where nothing else is said beside what is likeliest
MENTIONED = 0.1
KIND_WORDS = {
    "consistent": "one continuous run",
    "rolled_back": "a dial that went on from a lower figure, which nobody wrote down",
    "replaced": "another instrument cluster, which nobody wrote down", "unit_slip": "one record in the other unit",
    "digit_slip": "one record with a mistyped digit", "rolled_over": "a dial that began again at nothing",
}  # fmt: skip


def day_words(on: date) -> str:
    """A day as it is written in files."""
    return on.isoformat()


def spoken_day(on: date) -> str:
    """A day as it is said."""
    return f"{on.day} {on:%B} {on.year}"


def distance_words(told: Distance, history: History, day: Callable[[date], str] = day_words) -> str:
    """One or two sentences: whether the records fit one continuous run, and if not, what is likeliest."""
    if not told.fits:
        which = _which([row for row, _ in told.doubted], history, day)
        return f"The records do not fit one continuous run, and no single thing explains them{which}."
    kind, run = told.likeliest, told.probabilities["consistent"]
    if len(history.records) == 1 and kind == "consistent":
        return "One record alone shows no run."
    if kind == "rolled_over":
        return "The records fit one continuous run of a dial that begins again at nothing."
    if kind == "consistent":
        other = max((one for one in KINDS if one != "consistent"), key=lambda one: told.probabilities[one])
        if run >= SURE or told.probabilities[other] < MENTIONED:
            return "The records fit one continuous run."
        return f"The records fit one continuous run, not for certain: they would fit {KIND_WORDS[other]} too."
    which = _which([row for row, _ in told.doubted], history, day, onwards=kind in ("rolled_back", "replaced"))
    sure = "" if told.probabilities[kind] >= SURE else ", not for certain"
    return f"The records do not fit one continuous run; likeliest{sure}: {KIND_WORDS[kind]}{which}."


def _which(rows: list[int | str], history: History, day: Callable[[date], str], *, onwards: bool = False) -> str:
    doubted = sorted((one for one in history.records if one.row in rows), key=lambda one: one.on)
    if not doubted:
        return ""
    if onwards:
        before = _last_before(doubted[0], history)
        return f" (between {day(before.on)} and {day(doubted[0].on)})" if before else f" (before {day(doubted[0].on)})"
    return f" ({', '.join(dict.fromkeys(day(one.on) for one in doubted))})"


def _last_before(first: Record, history: History) -> Record | None:
    return max((one for one in history.records if one.on < first.on), key=lambda one: one.on, default=None)
