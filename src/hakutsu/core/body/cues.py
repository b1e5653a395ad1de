"""What is seen outside and speaks of the film too: gaps, peeling paint, cracked bumpers, replaced glass."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files
from typing import Any
from uuid import UUID

from hakutsu.core.body.fit import fit_found
from hakutsu.core.body.glass import odd_marks
from hakutsu.dossier.body import BodyDossier
from hakutsu.entries.body import BlemishKind

GAP = "gap_out"
STRESS = "stress_cracks"
GLASS = "glass_replaced"


@cache
def _table() -> dict[str, Any]:
    return tomllib.loads((files("hakutsu.core.body") / "data" / "cues.toml").read_text(encoding="utf-8"))


def body_cues(body: BodyDossier) -> dict[str, dict[str, bool]]:
    """Cues of every panel, by cue whether it is there; only what was looked at says anything.

    A gap measured and in line is the absence of that cue; so is a pane marked like the others. A mark that is not there
    is no absence: nobody noted having looked for it.
    """
    found: dict[str, dict[str, bool]] = {}
    for panel, fit in fit_found(body.fits).items():
        if body.fits[panel].body.measured:
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
    return [(place, cue)] if cue else []


def cue_of_mark(body: BodyDossier, entry: UUID) -> list[tuple[str, str]]:
    """Panels and cues that one blemish speaks of."""
    mark = body.blemishes[entry]
    return _of_mark(mark.place, mark.body.kind)
