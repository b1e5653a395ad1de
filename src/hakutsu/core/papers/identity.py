"""The identity number as it stands: characters, check digit, model year, region, and likely misreadings.

Source: ISO 3779 (characters, length, region), 49 CFR 565 (check digit and model year, enforced in some markets only).
"""

from __future__ import annotations

from dataclasses import dataclass

LENGTH, CHECK_AT, YEAR_AT = 17, 8, 9
LONGEST_FREE = 13  # up to here it may be the number of an earlier vehicle, in a form of its own
UNREAD = "?"
LETTERS = "ABCDEFGHJKLMNPRSTUVWXYZ"
DIGITS = "0123456789"
ALLOWED = frozenset(LETTERS + DIGITS + UNREAD)
MISREAD = {"I": "1", "O": "0", "Q": "0"}
VALUES = dict(zip(LETTERS, map(int, "12345678123457923456789"), strict=True))
VALUES |= {one: int(one) for one in DIGITS}
WEIGHTS = (8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2)
YEARS = "ABCDEFGHJKLMNPRSTVWXY123456789"  # from 1980 on, again after thirty years
FIRST_YEAR, CYCLE = 1980, 30
REGIONS = (
    ("ABC", "Africa"), ("HJKLMNPR", "Asia"), ("STUVWXYZ", "Europe"), ("12345", "North America"), ("67", "Oceania"),
    ("89", "South America"),
)  # fmt: skip
# Letters of other alphabets that look like Latin ones: Greek, then Cyrillic.
LOOK_ALIKES = dict(zip("ΑΒΕΖΗΙΚΜΝΟΡΤΥΧ", "ABEZHIKMNOPTYX", strict=True)) | dict(
    zip("АВЕКМНОРСТУХЅІЈԚԜ", "ABEKMHOPCTYXSIJQW", strict=True)
)


@dataclass(frozen=True, slots=True)
class CheckDigit:
    """The check digit that follows from the rest, and the one that stands there; none: not known."""

    expected: str | None = None
    found: str | None = None

    @property
    def agrees(self) -> bool | None:
        """Whether the two are one."""
        return None if self.expected is None or self.found is None else self.expected == self.found


@dataclass(frozen=True, slots=True)
class Identity:
    """What a number says of itself; `problems` as code and words."""

    text: str
    characters: str
    valid_characters: bool
    check_digit: CheckDigit
    model_years: tuple[int, ...]
    region: str | None
    problems: tuple[tuple[str, str], ...]
    suggestions: tuple[str, ...]


def read_identity(text: str) -> Identity:
    """Read a number as it was typed.

    Parameters
    ----------
    text : with blanks and hyphens, an unread character as ``?``

    Returns
    -------
    Identity : always; a doubtful number is a result
    """
    characters = "".join(one for one in text.upper() if not one.isspace() and one not in "-‐‑")
    valid = all(one in ALLOWED for one in characters)
    whole = len(characters) == LENGTH
    check = _check_digit(characters) if whole else CheckDigit()
    years = _years(characters[YEAR_AT]) if whole else ()
    region = next((name for firsts, name in REGIONS if characters[0] in firsts), None) if whole else None
    problems = tuple(_problems(characters, check))
    return Identity(text, characters, valid, check, years, region, problems, tuple(_suggestions(characters, check)))


def expected_digit(characters: str) -> str | None:
    """The check digit of seventeen characters: weighted sum modulo 11, ten as X; none where one cannot count."""
    if any(one not in VALUES for at, one in enumerate(characters) if at != CHECK_AT):
        return None
    total = sum(VALUES[one] * weight for one, weight in zip(characters, WEIGHTS, strict=True) if weight)
    return "X" if total % 11 == 10 else str(total % 11)


def _check_digit(characters: str) -> CheckDigit:
    found = characters[CHECK_AT]
    return CheckDigit(expected_digit(characters), None if found == UNREAD else found)


def _years(one: str) -> tuple[int, ...]:
    if one not in YEARS:
        return ()
    first = FIRST_YEAR + YEARS.index(one)
    return first, first + CYCLE


def _problems(characters: str, check: CheckDigit) -> list[tuple[str, str]]:
    if 1 <= len(characters) <= LONGEST_FREE:
        return [("free_form", "an earlier vehicle’s number, in a form of its own: compared, not judged")]
    found = []
    alike = [one for one in characters if one in LOOK_ALIKES]
    wrong = sorted({one for one in characters if one not in ALLOWED and one not in LOOK_ALIKES})
    if wrong:
        found.append(("characters", f"not used in such a number: {' '.join(wrong)}"))
    if alike:
        found.append(("look_alike", f"of another alphabet, though they look alike: {' '.join(dict.fromkeys(alike))}"))
    if len(characters) != LENGTH:
        found.append(("length", f"{len(characters)} characters, not {LENGTH}"))
    if UNREAD in characters:
        found.append(("unread", f"{characters.count(UNREAD)} not read"))
    if check.agrees is False:
        found.append(
            (
                "check_digit",
                f"place 9 is {check.found}, the rest asks for {check.expected}; enforced in some markets only",
            )
        )
    return found


def _suggestions(characters: str, check: CheckDigit) -> list[str]:
    if len(characters) <= LONGEST_FREE:
        return []
    mended = "".join(LOOK_ALIKES.get(one, one) for one in characters)
    mended = "".join(MISREAD.get(one, one) for one in mended)
    if mended != characters:
        return [mended]
    if check.agrees is not False or any(one not in VALUES for one in characters):
        return []
    swaps = []
    for at in range(LENGTH - 1):
        left, right = characters[at], characters[at + 1]
        swapped = characters[:at] + right + left + characters[at + 2 :]
        if left != right and expected_digit(swapped) == swapped[CHECK_AT]:
            swaps.append(swapped)
    return swaps
