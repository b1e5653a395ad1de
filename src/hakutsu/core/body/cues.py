"""What is seen outside, below and under the bonnet and speaks of the film too: gaps, peeling paint, cracked bumpers,
replaced glass, work on the structure.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from uuid import UUID

from hakutsu.core.body.fit import fit_found
from hakutsu.core.body.glass import odd_marks
from hakutsu.core.body.tables import CuesTable
from hakutsu.dossier.body import BodyDossier
from hakutsu.entries.body import BlemishKind
from hakutsu.entries.engine import Bay
from hakutsu.entries.under import RepairSign, UnderZone, ZoneClear
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.under import zones

GAP = "gap_out"
STRESS = "stress_cracks"
GLASS = "glass_replaced"
WORKED, PULLED = "below_worked", "below_pulled"
GRAVE_SIGNS = {RepairSign.WELD, RepairSign.PATCH, RepairSign.PULLED, RepairSign.HOLES}
SIDES = ("left", "right")


@cache
def _table() -> CuesTable:
    return read_table("core.body", "cues", CuesTable)


def body_cues(body: BodyDossier) -> dict[str, dict[str, bool]]:
    """Cues of every panel, by cue whether it is there; only what was looked at says anything.

    A gap measured and in line is the absence of that cue; so is a pane marked like the others. A mark that is not there
    is no absence: nobody noted having looked for it.
    """
    found: dict[str, dict[str, bool]] = {}
    for panel, fit in fit_found(body.fits).items():
        if panel in panels() and body.fits[panel].body.measured:
            found.setdefault(panel, {})[GAP] = fit.cue
    for mark in body.blemishes.values():
        for panel, cue in _of_mark(mark.place, mark.body.kind):
            found.setdefault(panel, {})[cue] = True
    odd = odd_marks(body.glass)
    if odd:
        for one in body.glass:
            panel = _table()["pane"].get(one.place)
            if panel and one.body.date_mark:
                found.setdefault(panel, {})[GLASS] = one.place in odd
    return found


def _of_mark(place: str, kind: BlemishKind) -> list[tuple[str, str]]:
    table = _table()
    if kind is BlemishKind.STRESS_CRACK:
        return [(panel, STRESS) for panel in table["beside_bumper"].get(place, ())]
    cue = table["blemish"].get(kind.value)
    return [(place, cue)] if cue and place in panels() else []  # a wheel, a lamp or a mirror has no film to speak of


def cue_of_mark(body: BodyDossier, entry: UUID) -> list[tuple[str, str]]:
    """Panels and cues that one blemish speaks of."""
    mark = body.blemishes[entry]
    return _of_mark(mark.place, mark.body.kind)


def below_cues(looks: Mapping[str, UnderZone], bay: Bay | None) -> dict[str, dict[str, bool]]:
    """Cues of every panel from the structure it hangs on, by cue whether it is there.

    A zone in which signs were looked for and not found is the absence of both cues on its panels, unless another zone
    of theirs has one; a zone seen in part or not at all, or of which nobody said so, says nothing.
    """
    found: dict[str, dict[str, bool]] = {}
    for key, look in looks.items():
        signs = set(look.repair)
        if look.not_visible or not (signs or (ZoneClear.REPAIR in look.clear and not look.partly)):
            continue
        there = {WORKED: bool(signs - GRAVE_SIGNS), PULLED: bool(signs & GRAVE_SIGNS)}
        for panel in _panels_over(key):
            for cue, seen in there.items():
                mine = found.setdefault(panel, {})
                mine[cue] = mine.get(cue, False) or seen
    for sign in bay.signs if bay is not None else ():
        row = _table()["bay"].get(sign.value)
        for side in (bay.side,) if bay is not None and bay.side else SIDES:
            for panel in row["panels"] if row else ():
                found.setdefault(panel.replace("{s}", side), {})[row["cue"]] = True
    return found


def _panels_over(zone: str) -> list[str]:
    side = zones()[zone].side
    plain = zone if side is None else zone.removesuffix(f"_{side}")
    return [panel.replace("{s}", side or "") for panel in _table()["below"].get(plain, ())]
