"""The identity number as it was read at several places, held against each other character by character."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import zip_longest
from uuid import UUID

from hakutsu.core.findings import Finding, found
from hakutsu.core.papers.identity import UNREAD, Identity, read_identity
from hakutsu.entries.papers import Agrees, CodeOf, CodeRead, EngineNumber, Fixed, Inside, Made
from hakutsu.vehicle.papers import RESTS_ON, NumberPlace

IDENTITY, ENGINE = "identity", "engine_number"
# Characters that are taken for each other on metal, glass and paper.
ALIKE = frozenset(
    frozenset(pair)
    for pair in ("0O", "0Q", "OQ", "0D", "1I", "1L", "IL", "17", "2Z", "5S", "6G", "8B", "UV", "VY", "38")
)
DISTURBED = (Fixed.DISTURBED, Fixed.PAINTED_OVER)
ALTERED = (Fixed.GROUND, Fixed.UNLIKE_FONTS)
SURE, LIKELY = 0.95, 0.75
UNLESS = "unless the authority that registered it, or the maker, settles which vehicle this is"
NAMES = {
    NumberPlace.PLATE: "plate", NumberPlace.STAMPED: "stamped number", NumberPlace.SCREEN: "screen",
    NumberPlace.STICKER: "sticker", NumberPlace.GLASS: "glass", NumberPlace.MODULE: "control unit",
    NumberPlace.PAPERS: "papers", NumberPlace.OTHER: "another place",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Reading:
    """A number as it was read at one place: what the place is called, how the mark is fixed, the entries behind it."""

    where: NumberPlace
    text: str
    name: str
    fixed: tuple[Fixed, ...] = ()
    entries: tuple[UUID, ...] = ()
    from_picture: bool = False

    @property
    def characters(self) -> str:
        """Upper case, without blanks and hyphens."""
        return read_identity(self.text).characters


@dataclass(frozen=True, slots=True)
class Row:
    """A row of the grid: a place, its characters, and the positions (from 0) where it differs from what most say."""

    reading: Reading
    characters: str
    differs: frozenset[int]


@dataclass(frozen=True, slots=True)
class Grid:
    """Readings under each other; `usual`: per position what most of those say that identity rests on."""

    rows: tuple[Row, ...]
    usual: str
    identity: Identity | None


def grid(readings: Sequence[Reading]) -> Grid:
    """Hold readings against each other, the places that identity rests on first."""
    order = list(NumberPlace)
    kept = sorted(readings, key=lambda one: (order.index(one.where), one.name, one.from_picture))
    size = max((len(one.characters) for one in kept), default=0)
    resting = [one.characters for one in kept if one.where in RESTS_ON] or [one.characters for one in kept]
    usual = "".join(_usual(resting, at) for at in range(size))
    rows = tuple(Row(one, one.characters, frozenset(_unlike(one.characters, usual))) for one in kept)
    return Grid(rows, usual, read_identity(usual) if usual else None)


def _usual(texts: Iterable[str], at: int) -> str:
    told = [one[at] for one in texts if at < len(one) and one[at] != UNREAD]
    return max(dict.fromkeys(told), key=told.count, default=UNREAD)


def _unlike(one: str, other: str) -> list[int]:
    """Positions at which two texts differ, unread characters and what one has more left out."""
    return [
        at for at, (a, b) in enumerate(zip(one, other, strict=False)) if a != b and UNREAD not in (a, b)
    ]  # fmt: skip


def same_number(one: str, other: str) -> bool:
    """Whether two readings may be of one number: of one length, and nowhere read differently."""
    return len(one) == len(other) and not _unlike(one, other)


def may_be_misread(one: str, other: str) -> bool:
    """Whether what differs is all characters that look alike, or two neighbours swapped."""
    if len(one) != len(other):
        return False
    unlike = _unlike(one, other)
    left = [at for at in unlike if frozenset((one[at], other[at])) not in ALIKE]
    if not left:
        return bool(unlike)
    swapped = len(left) == 2 and left[1] == left[0] + 1
    return swapped and one[left[0]] == other[left[1]] and one[left[1]] == other[left[0]]


def numbers_found(readings: Sequence[Reading], *, enforced: bool) -> list[Finding]:
    """What the readings say together and each by itself.

    Parameters
    ----------
    readings : every one that stands
    enforced : whether the check digit is asked for where the vehicle is registered
    """
    told = [*_against_each_other(readings), *_marks(readings)]
    held = grid(readings)
    if held.identity is not None:
        rows = [row for row in held.rows if row.reading.where in RESTS_ON] or list(held.rows)
        told += _by_itself(held.identity, rows, enforced=enforced)
    return told


def _merged(readings: Sequence[Reading]) -> tuple[list[Reading], list[Finding]]:
    """One reading a place; where two of one place differ, the character is not read, and both are to be read again."""
    one_each, told = list[Reading](), list[Finding]()
    for key in dict.fromkeys((one.where, one.name) for one in readings):
        here = [one for one in readings if (one.where, one.name) == key]
        first = here[0]
        for other in here[1:]:
            if not same_number(first.characters, other.characters):
                subject = f"{IDENTITY}:{first.where.value}"
                told.append(_differs("papers.number_misread", subject, [(first, other)], LIKELY))
            text = "".join(
                b if a == UNREAD else a if b in (UNREAD, a) else UNREAD
                for a, b in zip_longest(first.characters, other.characters, fillvalue=UNREAD)
            )
            first = replace(first, text=text, entries=(*first.entries, *other.entries))
        one_each.append(first)
    return one_each, told


def _against_each_other(every: Sequence[Reading]) -> list[Finding]:
    readings, told = _merged(every)
    rests = [one for one in readings if one.where in RESTS_ON]
    pairs = [(one, other) for at, one in enumerate(rests) for other in rests[at + 1 :]]
    unlike = [(one, other) for one, other in pairs if not same_number(one.characters, other.characters)]
    hard = [pair for pair in unlike if not may_be_misread(pair[0].characters, pair[1].characters)]
    if hard:
        told.append(_differs("papers.number_differs", IDENTITY, hard, SURE))
    elif unlike:
        told.append(_differs("papers.number_misread", IDENTITY, unlike, LIKELY))
    base = rests[0] if rests else None
    for one in readings:
        if base is None or one.where in RESTS_ON or same_number(one.characters, base.characters):
            continue
        code = "papers.number_module" if one.where is NumberPlace.MODULE else "papers.number_elsewhere"
        if may_be_misread(one.characters, base.characters):
            code = "papers.number_misread"
        told.append(_differs(code, f"{IDENTITY}:{one.where.value}", [(base, one)], LIKELY))
    return told


def _differs(code: str, subject: str, pairs: Sequence[tuple[Reading, Reading]], sureness: float) -> Finding:
    one, other = pairs[0]
    at = _unlike(one.characters, other.characters)
    if len(one.characters) != len(other.characters):
        how = f"{len(one.characters)} characters against {len(other.characters)}"
    else:
        places = ", ".join(str(each + 1) for each in at)
        how = f"at place{'s' if len(at) > 1 else ''} {places}: {_at(one, at)} against {_at(other, at)}"
    names = f"{one.name} and {other.name}" if one.name != other.name else f"{one.name}, read twice,"
    words = f"identity number: {names} differ {how}"
    if code == "papers.number_misread":
        words = f"identity number: {names} read differently {how}"
    entries = [each for pair in pairs for reading in pair for each in reading.entries]
    reasons = [UNLESS] if code == "papers.number_differs" else []
    return found(code, subject, words, reasons, sureness=sureness).seen_in(*entries)


def _at(reading: Reading, at: Sequence[int]) -> str:
    return "".join(reading.characters[one] for one in at)


def _marks(readings: Sequence[Reading]) -> list[Finding]:
    told = []
    for one in readings:
        subject = f"{IDENTITY}:{one.where.value}"
        for code, states in (("papers.mark_altered", ALTERED), ("papers.mark_disturbed", DISTURBED)):
            seen = [str(state) for state in one.fixed if state in states]
            if seen:
                reasons = [UNLESS] if code == "papers.mark_altered" else []
                told.append(found(code, subject, f"{one.name}: {', '.join(seen)}", reasons).seen_in(*one.entries))
                break
    return told


def _by_itself(identity: Identity, rows: Sequence[Row], *, enforced: bool) -> list[Finding]:
    entries = [each for row in rows for each in row.reading.entries]
    told = []
    for code, words in identity.problems:
        if code == "free_form" or (code == "check_digit" and not enforced):
            continue
        if code == "unread":
            blanks = [str(at + 1) for at, one in enumerate(identity.characters) if one == UNREAD]
            words = f"place{'s' if len(blanks) > 1 else ''} {', '.join(blanks)} could be read nowhere"
        reasons = [f"it may be {one}" for one in identity.suggestions[:3]]
        told.append(found(f"papers.number_{code}", IDENTITY, f"identity number: {words}", reasons).seen_in(*entries))
    return told


def engine_found(numbers: Sequence[tuple[EngineNumber, UUID]]) -> list[Finding]:
    """The engine's number against the papers, and whether its end marks are there."""
    told = []
    papers = [(body, entry) for body, entry in numbers if body.made is Made.PAPERS]
    there = [(body, entry) for body, entry in numbers if body.made is not Made.PAPERS]
    for body, entry in there:
        for paper, other in papers:
            if not _part_of(_plain(body.text), _plain(paper.text)):
                words = f"engine number: {body.made} {body.text}, the papers say {paper.text}"
                told.append(found("papers.engine_differs", ENGINE, words).seen_in(entry, other))
        if body.ends is False:
            words = f"engine number, {body.made}: the marks before and after it are missing"
            told.append(found("papers.engine_altered", ENGINE, words).seen_in(entry))
    return told


def _plain(text: str) -> str:
    return "".join(one for one in text.upper() if one.isalnum() or one == UNREAD)


def _part_of(seen: str, paper: str) -> bool:
    """Whether what was read, unread characters apart, may be the number or a part of it."""
    if len(seen) > len(paper):
        seen, paper = paper, seen
    return any(not _unlike(seen, paper[at : at + len(seen)]) for at in range(len(paper) - len(seen) + 1))


def codes_found(codes: Iterable[tuple[CodeRead, UUID]]) -> list[Finding]:
    """Colour and trim by their codes against what is seen."""
    told = []
    for body, entry in codes:
        if body.seen is not Agrees.DIFFERS:
            continue
        named = f"{body.of} code {body.text}".strip()
        if body.of is CodeOf.TRIM:
            told.append(found("papers.trim_differs", IDENTITY, f"{named}: another trim is fitted").seen_in(entry))
            continue
        explained = body.explained or ("the old colour shows inside the shuts" if body.inside is Inside.OLD else "")
        code = "papers.colour_changed" if explained else "papers.colour_differs"
        words = f"{named}: another colour is seen"
        told.append(found(code, IDENTITY, words, [explained] if explained else []).seen_in(entry))
    return told
