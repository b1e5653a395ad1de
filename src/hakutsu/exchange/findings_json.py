"""Findings of an inspection as JSON: each with what it asks for, what it rests on, and where its money is."""

from __future__ import annotations

from typing import Any

from hakutsu.core.findings import Finding, named_place
from hakutsu.core.negotiation import Sheet
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.vocabulary import Consequence

REFLECTED = "wear the price reflects"


def findings_json(reckoning: Reckoning) -> list[dict[str, Any]]:
    """All findings, in the order they are told."""
    terms, sheet = reckoning.terms, reckoning.lives.sheet
    return [_finding(one, terms, sheet) for one in reckoning.findings]


def _finding(one: Finding, terms: Terms, sheet: Sheet) -> dict[str, Any]:
    words, place = terms.say(one.words), terms.place(named_place(one.subject) or None)
    on_sheet = sheet_place(one, sheet)
    return {
        "code": one.code,
        "subject": one.subject,
        "consequence": one.consequence.value,
        "sureness": round(one.sureness, 4),
        "reasons": [terms.say(reason) for reason in one.reasons],
        "evidence": [str(entry) for entry in one.evidence],
        "open": None if one.open is None else {"why": terms.say(one.open.why), "check": terms.say(one.open.check)},
        "job": one.job or None,
        "priced": isinstance(on_sheet, dict) and "amount" in on_sheet,
        "on_sheet": on_sheet,
        "words": words if not place or place.casefold() in words.casefold() else f"{place}: {words}",
    }


def sheet_place(one: Finding, sheet: Sheet) -> dict[str, Any] | str | None:
    """Where a finding stands on the negotiation sheet, by the one rule.

    What is settled has its amount or is not priced; what is budgeted for is excused, because the price reflects wear,
    unless the inspector settles it; what is lived with or fine is not on it; what we caused is excused with its code.
    """
    if one.excused:
        return {"excused": one.excused}
    line = sheet.line_of(one)
    if line is None:
        return None
    if line.treat is Consequence.SETTLE:
        if line.amount is None:
            return "not priced"
        if line.disclosed and not line.taken:
            return {"excused": "disclosed before the price"}
        return {"amount": float(line.amount), "currency": sheet.currency}
    return {"excused": REFLECTED if line.treat is Consequence.BUDGET else "the buyer lives with it"}
