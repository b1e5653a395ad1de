"""What the records of distance come to as a finding."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import date
from uuid import UUID

from hakutsu.core.findings import Finding, found
from hakutsu.core.papers.distance import Distance
from hakutsu.core.papers.records import History
from hakutsu.core.papers.telling import distance_words

RECORDS = "records"
DOUBT, QUESTION = 0.5, 0.2  # chance of another run from where it is settled, and from where it is asked about
OTHER_RUN = ("rolled_back", "replaced")
SLIPS = ("unit_slip", "digit_slip")


def other_run(told: Distance) -> float:
    """Chance that the dial does not stand for the distance: another figure, or another cluster."""
    return 1.0 if not told.fits else sum(told.probabilities[kind] for kind in OTHER_RUN)


def probable_km(told: Distance | None, shown_km: float | None) -> float | None:
    """The distance to reckon with [km]: the dial's, unless the records say that it does not stand for it."""
    if told is None:
        return shown_km
    another = other_run(told) >= DOUBT or told.probabilities["rolled_over"] >= DOUBT
    return told.km.p50 if another or shown_km is None else shown_km


def distance_found(
    told: Distance, history: History, entries: Sequence[UUID], day: Callable[[date], str]
) -> list[Finding]:
    """One finding at the most; none where the records fit one run."""
    words = distance_words(told, history, day)
    said = words[0].lower() + words[1:].rstrip(".")
    span = f"probably {{distance {told.km.p10:.0f}}} to {{distance {told.km.p90:.0f}}} were run"
    chance = other_run(told)
    slip = sum(told.probabilities[kind] for kind in SLIPS)
    if chance >= DOUBT:
        one = found("papers.distance_doubt", RECORDS, said, [span], sureness=max(chance * told_sure(told), DOUBT))
    elif told.probabilities["rolled_over"] >= DOUBT:
        one = found("papers.distance_over", RECORDS, said, [span])
    elif slip >= DOUBT:
        one = found("papers.distance_slip", RECORDS, said, [span], sureness=slip)
    elif chance >= QUESTION:
        one = found("papers.distance_question", RECORDS, said, [span], sureness=chance)
    else:
        return []
    return [one.seen_in(*entries)]


def told_sure(told: Distance) -> float:
    """How far one explanation goes: less where no single one explains the records."""
    return 1.0 if told.fits else max(told.probabilities.values())
