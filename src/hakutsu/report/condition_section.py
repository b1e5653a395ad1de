"""What the report says across stations: what explains what, and the condition against what is usual."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.core.condition import Standing, Stands
from hakutsu.core.findings import Finding
from hakutsu.figures.standing import standing_scale
from hakutsu.reckoning import Reckoning
from hakutsu.report.finding_wording import named_words
from hakutsu.report.sections import Making, report_section
from hakutsu.vehicle.terms import Terms

SHOWN = 60


def story_lines(reckoning: Reckoning, station: str = "") -> list[str]:
    """Findings that explain each other, both named; of one station where it is given."""
    terms = reckoning.terms

    def named(findings: Sequence[Finding]) -> str:
        return "; ".join(named_words(one, terms) for one in findings)

    told = [one for one in reckoning.stories if not station or station in {f.station for f in (*one.ones, *one.others)}]
    return [f"{terms.say(one.words)} ({named(one.ones)} – {named(one.others)})" for one in told]


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


@report_section("condition", 100, "_condition.html")
def _condition(making: Making) -> ConditionSection:
    """Condition against what is usual."""
    return condition_section(making.reckoning)
