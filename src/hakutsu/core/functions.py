"""Functions: one status from every try, and which tries want another."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from hakutsu.entries.functions import Result, Tried

WANTED_TRIES = 3


class Status(StrEnum):
    """What all tries together say."""

    WORKS = "works"
    BUT = "works, but"
    PARTLY = "partly"
    FAILS = "fails"
    INTERMITTENT = "intermittent"
    ASK = "did not work for me: ask the seller"
    NOT_TESTED = "not tested"
    UNTESTED = "untested"


@dataclass(frozen=True, slots=True)
class FunctionStatus:
    """A status in words, and whether another try is wanted because the answer changed."""

    status: Status
    words: str
    retest: bool = False


def function_status(tries: Sequence[Tried]) -> FunctionStatus:
    """One status from every try: a fault seen once does not vanish because it worked later.

    A changed result asks for a third try. What did not work for the inspector is no fault yet.
    """
    told = [one for one in tries if one.result is not Result.NOT_TESTED]
    if not told:
        why = tries[-1].but if tries else ""
        return FunctionStatus(Status.NOT_TESTED if tries else Status.UNTESTED, why)
    worked = [one for one in told if one.result in (Result.WORKS, Result.BUT)]
    failed = [one for one in told if one.result in (Result.FAILS, Result.PARTLY)]
    if worked and failed:
        words = f"{len(worked)} of {len(told)} tries worked"
        return FunctionStatus(Status.INTERMITTENT, words, retest=len(told) < WANTED_TRIES)
    if failed:
        return _failed(failed)
    if not worked:
        return FunctionStatus(Status.ASK, "no fault yet: the procedure may be unknown")
    unlike = [one.but for one in worked if one.result is Result.BUT]
    if unlike:
        return FunctionStatus(Status.BUT, "; ".join(dict.fromkeys(unlike)))
    return FunctionStatus(Status.WORKS, "")


def _failed(failed: Sequence[Tried]) -> FunctionStatus:
    last = failed[-1]
    if all(one.result is Result.FAILS for one in failed):
        return FunctionStatus(Status.FAILS, last.but)
    share = f"{last.working} of {last.of}" if last.working is not None and last.of is not None else ""
    return FunctionStatus(Status.PARTLY, "; ".join(word for word in (share, last.but) if word))
