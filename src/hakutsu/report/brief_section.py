"""What the report says of the brief: what the vehicle is wanted for, and what it costs."""

from __future__ import annotations

from babel.numbers import format_currency

from hakutsu.entries.opening import Brief
from hakutsu.report.sections import Making, report_section
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.use import use_factor_names


def purpose_lines(brief: Brief, terms: Terms) -> list[tuple[str, str]]:
    """Name and words of everything the brief says; the budget is the buyer's own and stays out of the report."""
    distance = terms.quantity("distance", brief.km_per_year) if brief.km_per_year else ""
    offered = f"at an auction, sold as seen{f', lot {brief.lot}' if brief.lot else ''}" if brief.auction else ""
    collect = f"{brief.collect_by:%-d %B %Y}" if brief.auction and brief.collect_by else ""
    price = (
        ""
        if brief.auction or brief.asking_price is None
        else format_currency(brief.asking_price, brief.currency, locale="en")
    )
    lines = (
        ("Wanted for", brief.use),
        ("Condition wanted", str(brief.taste)),
        ("Distance in a year", distance),
        ("Use to come", _circumstances(brief.use_factors)),
        ("Use so far", _circumstances(brief.past_factors)),
        ("Asking price", price),
        ("Offered", offered),
        ("To be collected by", collect),
    )
    return [(name, words) for name, words in lines if words]


def _circumstances(keys: tuple[str, ...]) -> str:
    return ", ".join(use_factor_names()[key] for key in keys)


@report_section("wanted", 10, "_wanted.html")
def _wanted(making: Making) -> list[tuple[str, str]]:
    """What the vehicle is wanted for."""
    return purpose_lines(making.reckoning.dossier.opening.brief, making.reckoning.terms)
