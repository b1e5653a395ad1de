"""The tow bar in words, and its section of the report."""

from __future__ import annotations

from hakutsu.dossier.towing import TowingDossier
from hakutsu.entries.towing import TowingSocket
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import PLAIN, Terms


@body_words.register
def _(body: TowingSocket, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Tow bar socket", "; ".join(part for part in (str(body.result), body.note) if part)


@report_section("towing", 95, "_towing.html")
def _towing(making: Making) -> str:
    """What the test plug showed."""
    seen = making.reckoning.dossier[TowingDossier].socket
    return body_words(seen.body, making.reckoning.terms)[1] if seen else ""
