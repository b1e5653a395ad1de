"""The one shape of every conclusion: what was found, where, how sure, what it asks for, and what it rests on."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cache
from uuid import UUID

from hakutsu.core.consequence import SEEN, UNSURE, Looks, base
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import parts
from hakutsu.vehicle.places import SPARE, WHEELS, places
from hakutsu.vehicle.standing import stood_at
from hakutsu.vehicle.under import zones
from hakutsu.vehicle.vocabulary import Consequence

AXLES = {"axle_front": "front", "axle_rear": "rear"}
NEEDS_MONEY = (Consequence.WALK_AWAY, Consequence.SETTLE)


@dataclass(frozen=True, slots=True)
class Open:
    """Why a finding is not settled yet, and the check that would settle it."""

    why: str
    check: str


@dataclass(frozen=True, slots=True)
class Finding:
    """A conclusion.

    `code` is ``station.what`` and stays for ever; `subject` a place, part or piece ("damper:front_left"); `words`, like
    the reasons, are a template with its numbers in it, rendered in the reader's terms by `Terms.say`. `sureness` is a
    probability (0 to 1). `evidence` are ids of entries. `job` names a part with a life, or a row of the cost table.
    `condemns`: the tyre or brake it is found on is done with. `excused`: why it counts for nothing (a key). `dated`:
    the year or month of what it tells of, where that was told.
    """

    code: str
    subject: str
    words: str
    consequence: Consequence
    sureness: float
    reasons: tuple[str, ...] = ()
    evidence: tuple[UUID, ...] = ()
    open: Open | None = None
    job: str = ""
    condemns: bool = False
    excused: str = ""
    dated: str = ""

    @property
    def station(self) -> str:
        """The station whose rule found it."""
        return self.code.partition(".")[0]

    @property
    def settles(self) -> bool:
        """True of what is settled before paying, or walked away from."""
        return self.consequence in NEEDS_MONEY

    @property
    def key(self) -> tuple[str, str]:
        """Code and subject."""
        return self.code, self.subject

    @property
    def priced_as(self) -> tuple[str, str]:
        """What prices, waivers and treatments are kept by: code (or what several share) and subject."""
        return base(self.code).price_as or self.code, self.subject

    @property
    def at(self) -> str:
        """The place, panel or part it lies at."""
        return at(self.subject)

    def excuse(self, why: str) -> Finding:
        """The same, counting for nothing because of `why` (a key)."""
        return replace(self, excused=why)

    def asking(self, consequence: Consequence, why: str = "") -> Finding:
        """The same, asking for something else, and why."""
        reasons = (*self.reasons, why) if why else self.reasons
        return replace(self, consequence=consequence, reasons=reasons)

    @property
    def of_looks(self) -> bool:
        """True of what is looks alone."""
        return base(self.code).looks is not Looks.NONE

    def seen_in(self, *entries: UUID) -> Finding:
        """The same, resting on entries too."""
        return replace(self, evidence=tuple(dict.fromkeys((*self.evidence, *entries))))


def found(
    code: str,
    subject: str,
    words: str,
    reasons: Iterable[str] = (),
    *,
    why: str = "",
    check: str = "",
    job: str = "",
    sureness: float | None = None,
    consequence: Consequence | None = None,
) -> Finding:
    """A finding with what its code says of it.

    Parameters
    ----------
    code : one of `core/data/consequences.toml`
    subject : place, part or piece
    words, reasons : in words for `Terms.say`
    why, check : why it is not settled and what would settle it, where that is more than the table's
    job : where it depends on more than the code
    sureness : a probability; by default that of something plainly seen, or of something to be looked at closer
    consequence : where the rule reckons it, such as of a mark by its remedy

    Raises
    ------
    LookupError
        If the table has no such code.
    """
    row, given = base(code), tuple(reasons)
    check = check or row.check
    unsettled = Open(why or (given[0] if given else words), check) if check else None
    usual = row.sureness if row.sureness is not None else UNSURE if unsettled else SEEN
    return Finding(
        code, subject, words, consequence or row.consequence, usual if sureness is None else sureness, given, (),
        unsettled, job or row.job, row.condemns,
    )  # fmt: skip


@cache
def is_of(code: str, codes: tuple[str, ...]) -> bool:
    """Whether a code is one of some; one that ends in ``*`` stands for all that begin so."""
    return any(code == one or (one.endswith("*") and code.startswith(one[:-1])) for one in codes)


def at(subject: str) -> str:
    """The place, panel, part or zone a subject lies at: that of a piece, a leak or a wheel; itself where it is one."""
    head, _, tail = subject.partition(":")
    last = subject.rpartition(":")[2]
    if f"wheel_{tail}" in WHEELS:
        return f"wheel_{tail}"
    return last if any(last in known for known in (zones(), places(), panels(), parts())) else head


def named_place(subject: str) -> str:
    """The place a subject lies at where that has a name of its own that its words do not say; else nothing."""
    key = at(subject)
    known = (places(), panels(), parts(), zones(), cabin_parts(), AXLES)
    return key if any(key in one for one in known) else ""


def place_of(subject: str) -> str:
    """The place one stands at to see a subject."""
    key = at(subject)
    return stood_at(key) or AXLES.get(key) or key


def side_of(subject: str) -> str | None:
    """The side a subject lies on; none where it has none."""
    key = at(subject)
    for known in (panels(), parts(), places(), zones(), equipment()):
        if key in known:
            side: str | None = known[key].side
            return side
    return None


def axle_of(subject: str) -> str:
    """The axle of a wheel or axle: front, rear, or nothing."""
    key, tail = at(subject), subject.partition(":")[2]
    if tail in AXLES.values():
        return tail
    return AXLES.get(key) or (key.split("_")[1] if key in WHEELS and key != SPARE else "")


def merged(findings: Iterable[Finding]) -> list[Finding]:
    """Findings of one code and subject as one, in the order of the first: words and reasons together, all evidence."""
    kept: dict[tuple[str, str], list[Finding]] = {}
    for one in findings:
        kept.setdefault(one.key, []).append(one)
    return [_as_one(same) for same in kept.values()]


def _as_one(same: Sequence[Finding]) -> Finding:
    if len(same) == 1:
        return same[0]
    counting = [one for one in same if not one.excused] or same
    grave = min(counting, key=lambda one: list(Consequence).index(one.consequence))
    words = "; ".join(dict.fromkeys(one.words for one in counting))
    reasons = tuple(dict.fromkeys(reason for one in counting for reason in one.reasons))
    return replace(grave, words=words, reasons=reasons, evidence=()).seen_in(
        *(entry for one in counting for entry in one.evidence)
    )
