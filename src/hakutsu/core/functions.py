"""Functions: one status from every try, and which tries want another."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from hakutsu.core.findings import Finding, found
from hakutsu.core.phrases import says
from hakutsu.entries.functions import Lamp, LampKind, Result, Tried
from hakutsu.vehicle.equipment import Equipment

WANTED_TRIES = 3


class Status(StrEnum):
    """What all tries together say."""

    WORKS = "works"
    BUT = "works, but"
    PARTLY = "partly"
    FAILS = "fails"
    INTERMITTENT = "intermittent"
    ASK = "could not operate: ask the seller"
    NOT_TESTED = "not tested"
    UNTESTED = "untested"


@dataclass(frozen=True, slots=True)
class FunctionStatus:
    """A status in words, and whether another try is wanted because the answer changed."""

    status: Status
    words: str
    retest: bool = False

    @property
    def said(self) -> str:
        """Status and words as one says them: “works, but slow”, “partly, 1 of 2”."""
        between = " " if self.status is Status.BUT else ", "
        return between.join(part for part in (str(self.status), self.words) if part)


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


FAULTY = {Status.FAILS: "dead", Status.PARTLY: "partly", Status.INTERMITTENT: "partly", Status.BUT: "partly"}
PIECES = {"window": "window_regulator", "lock": "door_lock"}  # things tried that are parts with a life


def piece_of(item: Equipment) -> str:
    """The piece with a life that a thing to try is, such as a window's regulator; nothing where it is none."""
    corner, _, rest = item.key.partition("_")
    kind, _, side = rest.partition("_")
    return f"{PIECES[kind]}:{corner}_{side}" if side and kind in PIECES else ""


def function_found(item: Equipment, status: FunctionStatus) -> Finding | None:
    """What does not work as it should, or did not for the inspector; none where it works or was not tried."""
    said = status.said
    if status.status is Status.ASK:
        return found("functions.did_not_work", item.key, f"{item.name}: {said}", why="the procedure may be unknown")
    if status.status not in FAULTY:
        return None
    check = "try it a third time" if status.retest else ""
    return found(f"functions.{item.base}_{FAULTY[status.status]}", item.key, f"{item.name}: {said}", job=piece_of(item),
                 check=check, why="the answer changed" if check else "")  # fmt: skip


def lamp_found(lamp: Lamp) -> Finding:
    """What a lamp that stays on says: by its kind, and a fault by its name, as far as that tells which it is."""
    words = f"{'red ' if lamp.red else ''}lamp stays on: {lamp.name}"
    if lamp.kind is not LampKind.FAULT:
        code = "reminder_lamp" if lamp.kind is LampKind.REMINDER else "our_doing"
        return found(f"functions.{code}", _named(lamp.name), words)
    known = says("lamp", lamp.name)
    code = f"{known[0]}_warning" if known else "red_warning" if lamp.red else "fault_lamp"
    return found(f"functions.{code}", _named(lamp.name), words, why="its stored cause is not read")


def _named(name: str) -> str:
    return "lamp:" + "_".join("".join(one if one.isalnum() else " " for one in name.casefold()).split())
