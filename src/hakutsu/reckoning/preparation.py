"""The preparation list of one vehicle, from all that was seen outside and inside."""

from __future__ import annotations

from typing import TYPE_CHECKING

from hakutsu.core.body.costing import Wanted
from hakutsu.core.body.preparation import Ordered, Piece, pieces, preparation
from hakutsu.core.costs import cost_table
from hakutsu.core.findings import is_of
from hakutsu.entries.body import ShowsFrom

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning

OUTSIDE = ("screen_chip", "windscreen", "pane", "lamp", "lamp_polish", "adjust_fit", "trim_piece", "rust_patch")
DIRTY = ("cabin.sign_stains", "cabin.smells_*")


def prepared(reckoning: Reckoning) -> list[Ordered]:
    """What anyone would do to make it right: marks that show, or that are asked for; glass, lamps, fit, trim, rust."""
    outside, settings = reckoning.outside, reckoning.settings
    asked_for = {mark.entry.id for mark in outside.asked_for}
    wanted: dict[str, list[Wanted]] = {}
    for key, mark in reckoning.dossier.body.blemishes.items():
        if mark.body.shows_from is ShowsFrom.CLOSE and key not in asked_for:
            continue
        for place, one in outside.wanted(mark):
            wanted.setdefault(place, []).append(one)
    found = pieces(wanted, outside.painted_neighbours)
    findings = [one for one in reckoning.findings if not one.excused]
    found += [Piece(one.job, one.at) for one in findings if one.station == "body" and one.job in OUTSIDE]
    dirty = any(is_of(one.code, DIRTY) for one in findings)
    return preparation(found, cost_table(settings.costs), settings.labour_rate, dirty=dirty)
