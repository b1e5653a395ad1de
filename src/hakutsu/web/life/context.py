"""What the pages of life and money show."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping
from typing import Any

from markupsafe import Markup

from hakutsu.core.life.components import components, corner_name, scheduled_items
from hakutsu.entries.money import TREATS
from hakutsu.figures.spending import spending_figure
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.life import Lives
from hakutsu.report.condition_section import condition_section
from hakutsu.report.corner_wording import OTHER_PARTS, part_name
from hakutsu.report.life_section import (
    calendar_svgs,
    exact_money,
    life_rows,
    rough_money,
    sheet_table,
    spending_tables,
)
from hakutsu.report.preparation_section import preparation_list
from hakutsu.report.wording import body_words
from hakutsu.vehicle.places import WHEELS
from hakutsu.vehicle.use import use_factor_names
from hakutsu.web.rendering import fragment

ROOMS = {
    "calendar": "Life calendar",
    "money": "Money",
    "sheet": "Negotiation sheet",
    "preparation": "Preparation list",
    "condition": "Condition",
    "facts": "Proofs of age",
}
MOST_KM = 200_000


def what_if(reckoning: Reckoning, query: Mapping[str, str]) -> Lives:
    """Lives for the distance and use of a query; those of the brief where it says nothing that can be read."""
    said = query.get("km", "").strip()
    km = None
    if said:
        try:
            km = reckoning.terms.scale("distance").taken(said)
        except ValueError:
            km = None
    if km is not None and not 1 <= km <= MOST_KM:
        km = None
    future = None
    if "use" in query:
        future = tuple(key for key in query["use"].split(",") if key in use_factor_names())
    if km is None and future is None:
        return reckoning.lives
    return Lives(reckoning, km, future)


def life_context(reckoning: Reckoning, room: str, lives: Lives) -> dict[str, Any]:
    """One room."""
    terms, brief = reckoning.terms, reckoning.dossier.opening.brief
    context = {
        "dossier": reckoning.dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "rooms": ROOMS,
        "room": room,
        "lives": lives,
        "km_shown": terms.scale("distance").number(round(lives.km_per_year)),
        "distance": terms.scale("distance"),
        "factors": use_factor_names(),
        "unknown": [terms.say(one) for one in lives.unknown],
        "config": json.dumps(
            {
                "inspection": str(reckoning.dossier.inspection),
                "room": room,
                "brief": brief.model_dump(mode="json"),
                "factor": terms.scale("distance").factor,
            }
        ),
    }
    return context | _ROOMS[room](reckoning, lives)


def life_fragments(reckoning: Reckoning, room: str | None, lives: Lives) -> dict[str, str]:
    """The moving part of a room."""
    if room not in ROOMS:
        return {}
    context = life_context(reckoning, room, lives)
    return {f"life_{room}": fragment(f"life/_{room}.html", **context)}


def _calendar(reckoning: Reckoning, lives: Lives) -> dict[str, Any]:
    rows = life_rows(reckoning, lives)
    wide, narrow = calendar_svgs(reckoning, lives)
    return {
        "rows": rows,
        "now": [row for row in rows if row.settle],
        "calendar": wide,
        "calendar_narrow": narrow,
    }  # fmt: skip


def _money(reckoning: Reckoning, lives: Lives) -> dict[str, Any]:
    currency = reckoning.dossier.opening.brief.currency

    def money(amount: float) -> str:
        return rough_money(amount, currency)

    return {
        "tables": spending_tables(lives.spending, currency, reckoning.terms),
        "figure": Markup(spending_figure(lives.spending, money)),
        "settled": exact_money(lives.sheet.settled, currency),
        "left_out": len(lives.left_out),
        "rate": exact_money(reckoning.settings.labour_rate, currency),
    }


def _sheet(reckoning: Reckoning, lives: Lives) -> dict[str, Any]:
    money = reckoning.dossier.money
    return {
        "table": sheet_table(lives.sheet, reckoning.terms),
        "treats": TREATS,
        "claims": [
            (entry, claim, money.claims_priced.get(str(entry.id))) for entry, claim in reckoning.dossier.claims.said
        ],
        "currency": lives.sheet.currency,
    }  # fmt: skip


def _preparation(reckoning: Reckoning, lives: Lives) -> dict[str, Any]:
    return {"preparation": preparation_list(reckoning)}


def _condition(reckoning: Reckoning, lives: Lives) -> dict[str, Any]:
    return {"condition": condition_section(reckoning)}


def _facts(reckoning: Reckoning, lives: Lives) -> dict[str, Any]:
    terms = reckoning.terms
    parts = [("Measured", [(key, name) for key, name in OTHER_PARTS.items()])]
    parts.append(("Due by the calendar", [(key, one.name) for key, one in scheduled_items().items()]))
    parts.append(("Parts", [(key, one.name) for key, one in components().items() if not one.looked_only]))
    return {
        "parts": parts,
        "wheels": [(wheel, terms.say(corner_name(wheel.removeprefix("wheel_")))) for wheel in WHEELS],
        "proofs": [
            (seen, terms.say(part_name(seen.body.part)), body_words(seen.body, terms)[1], terms.place(seen.place))
            for seen in reckoning.dossier.money.proofs.values()
        ],
    }  # fmt: skip


_ROOMS: dict[str, Callable[[Reckoning, Lives], dict[str, Any]]] = {
    "calendar": _calendar, "money": _money, "sheet": _sheet, "preparation": _preparation,
    "condition": _condition, "facts": _facts,
}  # fmt: skip
