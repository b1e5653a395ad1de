"""Where one stands to see what a key names."""

from __future__ import annotations

from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.equipment import OWN, equipment
from hakutsu.vehicle.parts import parts
from hakutsu.vehicle.places import place_of_panel, places
from hakutsu.vehicle.under import zones


def stood_at(key: str) -> str:
    """The place from which a panel, a part, a zone, a thing to try or a part of the cabin is seen.

    A place is seen from itself; nothing where the key names none of them. Some things to try are called as the panel or
    part they lie at ("roof", "tailgate"): the key alone names that; of a thing tried its own place is known.
    """
    if key in places():
        return key
    if key in place_of_panel():
        return place_of_panel()[key]
    for known in (parts(), zones(), equipment(), cabin_parts()):
        if key in known:
            place: str = known[key].place
            return place
    return ""


def tried_at(item: str) -> str:
    """The place from which a thing of the list is tried; nothing of one that the inspector named: nobody said where."""
    return "" if item == OWN else equipment()[item].place
