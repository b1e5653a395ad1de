"""What the report says across stations: what explains what, and the condition against what is usual."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.core.condition import Standing, Stands
from hakutsu.core.stories import Finding
from hakutsu.figures.standing import standing_scale
from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import Terms

SHOWN = 60


def story_lines(reckoning: Reckoning) -> list[str]:
    """Findings that explain each other, both named."""
    terms = reckoning.terms
    entries = reckoning.entries

    def named(one: Finding) -> str:
        place = terms.place(one.place) or "somewhere"
        if one.entry is None:
            return f"{place}: {terms.say(one.words)}"
        label, words = body_words(entries[one.entry].parsed(), terms)
        if one.kind.startswith(("fluid.", "engine.")):
            return f"{label}: {words}"
        words = one.words.removesuffix(" out_of_line") if one.kind == "body.fit" else words
        return words if place.casefold() in words.casefold() else f"{place}: {words}"

    return [
        f"{terms.say(one.words)} ({'; '.join(map(named, one.ones))} – {'; '.join(map(named, one.others))})"
        for one in reckoning.stories
    ]


@dataclass(frozen=True, slots=True)
class StandsLine:
    """One thing against what is usual: in words, and drawn."""

    name: str
    standing: str
    seen: str
    usual: str
    why: str
    scale: str


@dataclass(frozen=True, slots=True)
class ConditionSection:
    """Stories; what stands better or worse than usual; how many stand as usual; what is beyond the buyer's taste."""

    stories: tuple[str, ...]
    lines: tuple[StandsLine, ...]
    usual: int
    beyond: tuple[str, ...]
    taste: str
    known: bool

    @property
    def empty(self) -> bool:
        """True when there is nothing to say."""
        return not (self.stories or self.lines or self.usual or self.beyond)


def condition_section(reckoning: Reckoning) -> ConditionSection:
    """Gather the section from a reckoning."""
    terms, every = reckoning.terms, reckoning.condition.against
    lines = [_line(one, terms) for one in every if one.standing is not Standing.USUAL]
    return ConditionSection(
        tuple(story_lines(reckoning)),
        tuple(lines[:SHOWN]),
        len(every) - len(lines),
        tuple(terms.say(one) for one in reckoning.condition.beyond_taste),
        str(reckoning.dossier.opening.brief.taste),
        bool(every),
    )


def _line(one: Stands, terms: Terms) -> StandsLine:
    words = f"seen {one.seen}, usual {one.usual}"
    scale = Markup(standing_scale(*one.steps, words))
    return StandsLine(terms.say(one.name), str(one.standing), one.seen, one.usual, terms.say(one.why), scale)
