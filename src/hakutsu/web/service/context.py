"""What the service papers show."""

from __future__ import annotations

import json
from typing import Any

from markupsafe import Markup

from hakutsu.core.life.components import scheduled_items
from hakutsu.core.service.told import item_name
from hakutsu.dossier.service import ServiceDossier
from hakutsu.entries import service as kinds
from hakutsu.figures.service import service_line
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.service import ServiceReckoned
from hakutsu.report.finding_wording import found_line
from hakutsu.report.service_section import advisory_line, item_line
from hakutsu.vehicle.inventory import belongings
from hakutsu.vehicle.service import ByWhom, ProofOf, advisory_topics
from hakutsu.web.rendering import fragment
from hakutsu.web.told import places_offered, told_rows

ROOMS = {"plan": "Service against plan", "tests": "Tests and advisories", "owners": "Owners, keys, cover"}
FOUND = {
    "plan": ("service.missing", "service.overdue", "service.critical", "service.said_only", "service.countdown"),
    "tests": ("service.advised_", "service.test_"),
    "owners": ("service.owners_", "service.no_key", "service.one_key", "service.key_", "service.cover_"),
}


def service_context(reckoning: Reckoning, room: str) -> dict[str, Any]:
    """One room."""
    terms = reckoning.terms
    found = [one for one in reckoning.findings_of("service") if one.code.startswith(FOUND[room])]
    context: dict[str, Any] = {
        "dossier": reckoning.dossier, "terms": terms, "stand_downs": reckoning.stand_downs, "rooms": ROOMS,
        "room": room, "kinds": kinds, "found": [found_line(one, terms) for one in found],
        "distance": terms.scale("distance"),
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection), "room": room}),
    }  # fmt: skip
    return context | MADE[room](reckoning, reckoning.station(ServiceReckoned))


def _plan(reckoning: Reckoning, service: ServiceReckoned) -> dict[str, Any]:
    state, terms = reckoning.dossier[ServiceDossier], reckoning.terms
    says = service.countdown
    countdown = ""
    if says is not None and says.km is not None:
        plan = f"; the plan says {{distance {says.plan_km:.0f}}}" if says.plan_km else ""
        countdown = terms.say(f"{{distance {says.km:.0f}}} from the last service to the next{plan}")
    elif says is not None and says.days is not None:
        plan = f"; the plan says {says.plan_days:.0f}" if says.plan_days else ""
        countdown = f"{says.days:.0f} days from the last service to the next{plan}"
    return {
        "drawing": Markup(service_line(service.items, service.life, item_name)) if service.works else "",
        "items": [item_line(one, terms) for one in service.items], "maker": service.plan.maker,
        "done": [(id, words, id in service.doubled) for id, words in told_rows(reckoning, state.done)],
        "plans": told_rows(reckoning, state.plans), "countdown": countdown,
        "counted": told_rows(reckoning, [state.countdown] if state.countdown else []),
        "by": list(ByWhom), "proofs": list(ProofOf),
        "choices": [(key, one.name) for key, one in scheduled_items().items()],
    }  # fmt: skip


def _tests(reckoning: Reckoning, service: ServiceReckoned) -> dict[str, Any]:
    state, terms = reckoning.dossier[ServiceDossier], reckoning.terms
    rows = [(one.entry, *advisory_line(one, terms)) for one in service.advisories]
    here = places_offered(reckoning)
    topics = [(key, row.name) for key, row in advisory_topics().items()]
    return {"tests": told_rows(reckoning, state.tests), "advisories": rows, "topics": topics, "places": here}


def _owners(reckoning: Reckoning, service: ServiceReckoned) -> dict[str, Any]:
    state = reckoning.dossier[ServiceDossier]
    inventory = reckoning.dossier.cabin.inventory
    things = [(row.name, str(inventory[key].body.there) if key in inventory else "not looked for")
              for key, row in belongings().items()]  # fmt: skip
    return {
        "owners": told_rows(reckoning, state.owners), "keys": told_rows(reckoning, [state.keys] if state.keys else []),
        "covers": told_rows(reckoning, state.covers), "things": things,
    }  # fmt: skip


MADE = {"plan": _plan, "tests": _tests, "owners": _owners}


def service_fragments(reckoning: Reckoning, room: str | None) -> dict[str, str]:
    """The moving parts of a room."""
    chosen = room if room in ROOMS else "plan"
    context = service_context(reckoning, chosen)
    return {
        f"service_{chosen}": fragment(f"service/_{chosen}.html", **context),
        "service_found": fragment("papers/_found.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }
