"""What the report says of remarks with their second looks, and of everything that could not be checked."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from hakutsu.core.follow_up import SecondLook
from hakutsu.core.limitations import at_least
from hakutsu.dossier.touched import Touched
from hakutsu.entries.general import Limit, NotFitted, NothingFound
from hakutsu.reckoning import Reckoning
from hakutsu.report.sections import Making, report_section
from hakutsu.report.subjects import LIMIT_OF
from hakutsu.report.wording import body_words, noted


def remark_lines(reckoning: Reckoning, now: datetime) -> list[tuple[str, str]]:
    """Place and words of every remark and intervention, with what a second look showed or that none was taken."""
    looks = {one.entry.id: one for one in reckoning.second_looks(now)}
    arrival = reckoning.dossier.day.arrival
    found = []
    for entry, words in noted(reckoning.dossier):
        dirty = at_least(arrival, entry.place)
        least = f"at least (it was {dirty}): " if dirty and entry.kind == "general.seen" else ""
        second = _second(looks[entry.id]) if entry.id in looks else ""
        found.append((reckoning.terms.place(entry.place), f"{least}{words}{second}"))
    return found


def _second(look: SecondLook) -> str:
    if look.open:
        if look.entry.own_doing:
            return "; our own doing, it counts for nothing: nobody looked again"
        return f"; a second look was wanted ({look.moment}) and was not taken"
    said = [f"{body.outcome}{f', {body.text}' if body.text else ''}" for _, body in look.looked]
    own = "; our own doing" if look.entry.own_doing else ""
    return f"{own}; looked again: {'; then '.join(said)}"


def limit_lines(reckoning: Reckoning) -> list[tuple[str, str]]:
    """What could not be checked and why: at places, because of findings, and for want of a lift."""
    terms, dossier = reckoning.terms, reckoning.dossier
    reasons: dict[str, list[str]] = {}
    for kept in dossier.general.every_limit:
        if not isinstance(kept.body, Limit):
            continue
        place, hides = kept.entry.place, f"; not seen: {kept.body.hides}" if kept.body.hides else ""
        partly = kept.body.partly or (
            place is not None and (dossier.general.looked_at(place) or place in dossier[Touched].places)
        )
        words = f"{'looked at in part' if partly else 'not looked at'}: {kept.body.because}{hides}"
        reasons.setdefault(words, []).append(terms.place(place) or LIMIT_OF[kept.body.station])
    found = [("; ".join(dict.fromkeys(named)), words) for words, named in reasons.items()]
    causes = {entry.id: body for entry, body in dossier.follow_ups.remarks}
    for _, limit in dossier.follow_ups.caused:
        cause = causes.get(limit.caused_by) if limit.caused_by else None
        why = f" (because: {body_words(cause, terms)[1]})" if cause else ""
        instead = f". Instead: {terms.say(limit.instead)}" if limit.instead else ""
        found.append(("", f"{terms.say(limit.because)}{why}{instead}"))
    for one in reckoning.unobserved:
        parts = ", ".join(one.parts)
        found.append(("Under", f"not observed, {one.because}: {parts}; what is said of their life rests on age alone"))
    return found


def nothing_lines(reckoning: Reckoning) -> list[tuple[str, str]]:
    """What was looked for and not found, of a whole station or at a part, as somebody said it."""
    terms = reckoning.terms
    return [
        (terms.place(kept.entry.place) or LIMIT_OF[kept.body.station], kept.body.text or "looked, nothing found")
        for kept in reckoning.dossier.general.stated
        if isinstance(kept.body, NothingFound)
    ]


def not_fitted_lines(reckoning: Reckoning) -> list[str]:
    """What this vehicle does not have: neither gap nor limit."""
    general = reckoning.dossier.general
    return [kept.body.what for at in general.at.values() for kept in at if isinstance(kept.body, NotFitted)]


@dataclass(frozen=True, slots=True)
class Limits:
    """What could not be checked, and what the vehicle does not have."""

    lines: list[tuple[str, str]]
    not_fitted: list[str]
    nothing: list[tuple[str, str]]

    @property
    def empty(self) -> bool:
        """True when everything was checked."""
        return not (self.lines or self.not_fitted or self.nothing)


@report_section("limits", 7, "_limits.html")
def _limits(making: Making) -> Limits:
    """What could not be checked, and why."""
    return Limits(limit_lines(making.reckoning), not_fitted_lines(making.reckoning), nothing_lines(making.reckoning))


@report_section("notes", 220, "_notes.html")
def _notes(making: Making) -> list[tuple[str, str]]:
    """Remarks and interventions with their second looks."""
    return remark_lines(making.reckoning, making.now)
