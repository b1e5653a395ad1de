"""What free words say: whole phrases of the trade, and what denies them; `data/phrases.toml`.

A phrase is words in order: alternatives joined by ``|``, a word that may go on by ``*``, and ``...`` where up to `GAP`
other words may stand between. A phrase must lie within one clause. It is denied where the clause says no before it
("no oil leak"), within it where the phrase itself does not ("door not stuck"), or right after it ("knock: none").
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache, lru_cache

from pydantic import ConfigDict

from hakutsu.vehicle.tables import Table, read_table

GAP, AFTER = 6, 3
TEXTS_AT_HAND = 16_384
NO = frozenset({"no", "not", "never", "without", "none", "nothing", "neither", "nor", "free", "cannot"})
WELL = frozenset({"dry", "sound", "fine", "good", "ok", "okay", "clean", "normal", "firm", "steady", "smooth"})
LINKED = re.compile(r"n['’]t\b")
_CLAUSE = re.compile(r"[.;,!?]|\b(?:but|though|although|however|yet)\b")
_WORD = re.compile(r"[^\W_]+(?:['’][^\W_]+)?")


class Phrases(Table):
    """Groups of meanings, each with the phrases that say it."""

    model_config = ConfigDict(extra="allow")
    __pydantic_extra__: dict[str, dict[str, list[str]]]


@dataclass(frozen=True, slots=True)
class _Step:
    """One word of a phrase, as alternatives, and whether other words may stand before it."""

    words: frozenset[str]
    stems: tuple[str, ...]
    far: bool

    def fits(self, word: str) -> bool:
        return word in self.words or any(word.startswith(stem) for stem in self.stems)


@cache
def _steps(phrase: str) -> tuple[_Step, ...]:
    found, far = [], False
    for part in phrase.split():
        if part == "...":
            far = True
            continue
        alternatives = part.split("|")
        stems = tuple(one[:-1] for one in alternatives if one.endswith("*"))
        found.append(_Step(frozenset(one for one in alternatives if not one.endswith("*")), stems, far))
        far = False
    return tuple(found)


@cache
def _group(group: str) -> dict[str, tuple[tuple[_Step, ...], ...]]:
    rows = read_table("core", "phrases", Phrases).__pydantic_extra__[group]
    return {key: tuple(_steps(phrase) for phrase in phrases) for key, phrases in rows.items()}


def says(group: str, text: str) -> list[str]:
    """Keys of a group that a text says, in the order of the table; what it denies it does not say.

    Raises
    ------
    LookupError
        If there is no such group.
    """
    return list(_meant(group, text))


@lru_cache(TEXTS_AT_HAND)
def _meant(group: str, text: str) -> tuple[str, ...]:
    clauses = _clauses(text)
    rows = _group(group).items()
    return tuple(key for key, phrases in rows if any(_said(phrase, one) for phrase in phrases for one in clauses))


def denies(text: str) -> bool:
    """Whether every clause of a text says no to something, or that all is well: then nothing was found."""
    clauses = _clauses(text)
    return bool(clauses) and all(NO & set(words) or WELL & set(words) for words in clauses)


def _clauses(text: str) -> list[list[str]]:
    plain = LINKED.sub(" not", text.casefold().replace("won’t", "will not").replace("won't", "will not"))
    return [words for part in _CLAUSE.split(plain) if (words := _WORD.findall(part))]


def _said(phrase: Sequence[_Step], words: Sequence[str]) -> bool:
    return any(_follows(phrase, words, start) for start in range(len(words)) if phrase[0].fits(words[start]))


def _follows(phrase: Sequence[_Step], words: Sequence[str], start: int) -> bool:
    """Whether a phrase that begins at a word is there as a whole and not denied."""
    if NO & set(words[:start]) and not phrase[0].words & NO:
        return False
    where = start
    for step in phrase[1:]:
        reach = range(where + 1, min(len(words), where + 2 + (GAP if step.far else 0)))
        to = next((i for i in reach if step.fits(words[i])), None)
        if to is None or (NO & set(words[where + 1 : to])):
            return False
        where = to
    after = words[where + 1 : where + 1 + AFTER]
    return not (after and after[0] in NO) and "absent" not in after
