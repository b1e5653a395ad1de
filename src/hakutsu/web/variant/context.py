"""What the variant shows."""

from __future__ import annotations

import json
from typing import Any

from hakutsu.core.road.noticed import per_cent
from hakutsu.core.variant.tally import FeatureStands, Window
from hakutsu.dossier.variant import VariantDossier
from hakutsu.entries.variant import Result, WeakResult
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.variant import VariantReckoned
from hakutsu.report.finding_wording import found_line
from hakutsu.vehicle.library import LibraryFile
from hakutsu.web.rendering import fragment


def variant_context(reckoning: Reckoning, known: LibraryFile | None = None) -> dict[str, Any]:
    """The one room."""
    terms, state = reckoning.terms, reckoning.dossier[VariantDossier]
    taken, told = state.taken, reckoning.station(VariantReckoned).tally
    seen = {key: one.body for key, one in state.weak.items()}
    return {
        "dossier": reckoning.dossier, "terms": terms, "stand_downs": reckoning.stand_downs,
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection)}),
        "film": [terms.film_words(one) for one in taken.body.film_um] if taken and taken.body.film_um else [],
        "taken": taken, "chance": per_cent(told.chance) if told else "",
        "features": [_feature(one, state) for one in told.features] if told else [],
        "best": told.best.row.name if told and told.best else "", "results": list(Result),
        "weak_results": list(WeakResult),
        "weak": [
            (row, terms.place(row.place) if row.place else "", seen.get(row.key),
             state.weak[row.key].entry.id if row.key in seen else None)
            for row in (taken.body.weak if taken else ())
        ],
        "variants": _offered(known, reckoning) if known else [],
        "found": [found_line(one, terms) for one in reckoning.findings_of("variant")],
    }  # fmt: skip


def _feature(one: FeatureStands, state: VariantDossier) -> dict[str, Any]:
    return {
        "row": one.row, "seen": one.seen, "open": one.open,
        "entry": state.features[one.row.key].entry.id if not one.open else None,
        "when": "" if one.window is Window.WITHIN else str(one.window),
        "silent": one.seen is not None and not one.counts,
    }  # fmt: skip


def _offered(known: LibraryFile, reckoning: Reckoning) -> list[tuple[str, str, bool]]:
    """Variants with their keys, those of this body and year first, and whether they fit both."""
    mechanics = reckoning.dossier.mechanics
    style, year = reckoning.dossier.vehicle.body_style, mechanics.first_used.year if mechanics.first_used else None
    rows = ((key, known.whole(key)) for key in known.variants)
    told = [(key, row.name, row.fits(style, year)) for key, row in rows]
    return sorted(told, key=lambda one: (not one[2], one[1]))


def variant_fragments(reckoning: Reckoning) -> dict[str, str]:
    """The moving parts."""
    context = variant_context(reckoning)
    return {
        "variant_tally": fragment("variant/_tally.html", **context),
        "variant_found": fragment("papers/_found.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }
