"""What the report says of stand-downs, and of questions that are still open."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from hakutsu.core.hazards import activities, causes
from hakutsu.core.limitations import Limitation
from hakutsu.dossier import Kept
from hakutsu.entries.claims import Claim
from hakutsu.entries.general import AskSeller, DidNotWork, DoNotKnow, ForDesk, Hint
from hakutsu.reckoning import Reckoning
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.places import places
from hakutsu.vehicle.terms import Terms


def hazard_lines(reckoning: Reckoning) -> list[str]:
    """Every stand-down with what became of it: open, cleared by whom, overridden by whom and why."""
    found = []
    for kept in reckoning.dossier.hazards.raised.values():
        cause = causes().get(kept.body.cause)
        name = reckoning.terms.say(cause.name) if cause else kept.body.cause
        said = [f"{name}{f' ({kept.body.note})' if kept.body.note else ''}"]
        for _, signed in kept.overrides:
            what = activities().get(signed.activity, "moving out of the way at walking pace")
            said.append(f"overridden for {what} by {signed.name}: {signed.reason}")
        if kept.cleared is not None:
            _, cleared = kept.cleared
            said.append(f"cleared by {cleared.name}, {cleared.trade}: {cleared.done}")
        else:
            said.append("open")
        found.append("; ".join(said))
    return found


@dataclass(frozen=True, slots=True)
class OpenQuestion:
    """A question that is still open: what kind, in words, where, and its entry."""

    entry: UUID
    kind: str
    words: str
    place: str
    place_key: str | None

    @property
    def at_place(self) -> bool:
        """True at a place of the round, false on a panel."""
        return self.place_key in places()


def open_questions(reckoning: Reckoning) -> list[tuple[str, list[OpenQuestion]]]:
    """Open hints, questions to the seller and for the desk, what did not work, and what is not known."""
    general = reckoning.dossier.general
    groups = (
        ("Hints", Hint), ("To ask the seller", AskSeller), ("Did not work for us", DidNotWork),
        ("For the desk", ForDesk), ("Not known", DoNotKnow),
    )  # fmt: skip
    found = [(name, [_question(kept, reckoning.terms) for kept in general.open(kind)]) for name, kind in groups]
    return [(name, kept) for name, kept in found if kept]


def _question(kept: Kept, terms: Terms) -> OpenQuestion:
    kind, words = body_words(kept.body, terms)
    return OpenQuestion(kept.entry.id, kind, words, terms.place(kept.entry.place), kept.entry.place)


@dataclass(frozen=True, slots=True)
class Answered:
    """A question with its answer, where that comes from, and the entry that can be struck to open it again."""

    question: OpenQuestion
    answer: str
    source: str
    hearsay: bool
    entry: UUID


def answered_questions(reckoning: Reckoning) -> list[Answered]:
    """Questions that were settled, in the order they were asked; an answer to a struck question is left out."""
    general = reckoning.dossier.general
    found = [(kept, general.answers[key]) for key, kept in general.questions.items() if key in general.answers]
    return [
        Answered(_question(kept, reckoning.terms), settled.answer, settled.source, settled.hearsay, entry.id)
        for kept, (entry, settled) in found
    ]


@report_section("claims", 160, "_claims.html")
def _claims(making: Making) -> list[Claim]:
    """What was claimed."""
    return [claim for _, claim in making.reckoning.dossier.claims.said]


@report_section("limitations", 6, "_limitations.html")
def _limitations(making: Making) -> list[Limitation]:
    """What the circumstances hid."""
    return making.reckoning.limitations


@report_section("hazards", 190, "_hazards.html")
def _hazards(making: Making) -> list[str]:
    """Stand-downs."""
    return hazard_lines(making.reckoning)


@report_section("questions", 200, "_questions_open.html")
def _questions(making: Making) -> list[tuple[str, list[OpenQuestion]]]:
    """What is still open."""
    return open_questions(making.reckoning)


@report_section("answered", 210, "_answered.html")
def _answered(making: Making) -> list[Answered]:
    """Questions that were settled."""
    return answered_questions(making.reckoning)
