"""What eye and hand measure of a panel: how far off print reads in its paint, a repair mapped by hand, workmanship."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from math import pi
from statistics import median

import numpy as np

from hakutsu.core.estimate import Z80
from hakutsu.core.film.model.numeric import Floats
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.result import FilledShare
from hakutsu.core.film.survey import CueLooked
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import Work

DULL, MAPPED = "dull_reflection", "mapped"


def reflection_cues(distances_cm: Mapping[str, float], p: FilmParameters) -> dict[str, CueLooked]:
    """How dull the paint of each panel reflects: it is compared with the middle of the others.

    Parameters
    ----------
    distances_cm : how far off [cm] the same print can just be read in the paint of each panel

    Panels that lie as it does are compared where there are enough of them, else all; with too few nothing is said.
    """
    q, found = p.reflection, {}
    for panel, far in distances_cm.items():
        others = [name for name in distances_cm if name != panel]
        alike = [name for name in others if (panels()[name].plane == "top") == (panels()[panel].plane == "top")]
        usual = alike if len(alike) >= q.least_others else others
        if len(usual) < q.least_others:
            continue
        middle = median(distances_cm[name] for name in usual)
        dull = min(max((q.same_share - far / middle) / (q.same_share - q.dull_share), 0.0), 1.0)
        words = f"print can be read from {far:.0f} cm in its paint"
        words += f", from {middle:.0f} cm in that of the others" if dull else ", as far as in that of the others"
        found[panel] = CueLooked(DULL, dull > 0, dull if dull > 0 else 1.0, words)
    return found


def mapped_cue(length_cm: float, width_cm: float) -> CueLooked:
    """A repair that a practised hand has mapped, as evidence that there is one."""
    return CueLooked(MAPPED, True, words=f"a repair of {length_cm:g} × {width_cm:g} cm mapped by hand")


def mapped_area(length_cm: float, width_cm: float) -> float:
    """Area [cm²] of a mapped repair: what is felt is round, so an ellipse of that length and width."""
    return pi / 4 * length_cm * width_cm


def by_hand_weights(shares: Floats, share: float, p: FilmParameters) -> Floats:
    """How well filled shares of a panel agree with the share mapped by hand, log-normal about it."""
    z = np.log(np.maximum(shares, 1e-4) / max(share, 1e-4)) / p.mapped.sd_log
    return np.asarray(np.exp(-0.5 * z**2))


def mapped_share(share: float, p: FilmParameters) -> FilledShare:
    """The filled share of a panel with its 80 % interval, from the share mapped by hand alone."""
    wide = float(np.exp(Z80 * p.mapped.sd_log))
    return FilledShare(share, share / wide, min(share * wide, 1.0))


class WorkPart(StrEnum):
    """What the grade of a repaint's workmanship goes by."""

    FLATNESS = "flatness"
    PREPARATION = "preparation"
    EDGES = "edges"
    TRIM = "trim"


@dataclass(frozen=True)
class Workmanship:
    """Grade of a repaint's workmanship, and what it goes by."""

    grade: Work
    parts: Mapping[WorkPart, Work]

    @property
    def why(self) -> str:
        """What falls short, the worst first; else what it is good by."""
        every = [(grade, part) for part, grade in self.parts.items()]
        short = [one for one in every if one[0] is not Work.GOOD]
        told = sorted(short, key=lambda one: one[0] is not Work.POOR) or every
        return ", ".join(WORK_WORDS[part, grade] for grade, part in told)


WORK_WORDS = {
    (WorkPart.FLATNESS, Work.GOOD): "flat",
    (WorkPart.FLATNESS, Work.FAIR): "not quite flat",
    (WorkPart.FLATNESS, Work.POOR): "wavy",
    (WorkPart.PREPARATION, Work.GOOD): "clean",
    (WorkPart.PREPARATION, Work.FAIR): "some dust or sanding marks",
    (WorkPart.PREPARATION, Work.POOR): "sanding marks, fisheyes or dust all over",
    (WorkPart.EDGES, Work.GOOD): "no edge to feel",
    (WorkPart.EDGES, Work.FAIR): "a soft edge to feel",
    (WorkPart.EDGES, Work.POOR): "hard masking edges",
    (WorkPart.TRIM, Work.GOOD): "trim taken off",
    (WorkPart.TRIM, Work.FAIR): "trim masked",
    (WorkPart.TRIM, Work.POOR): "paint on trim and rubbers",
}


def workmanship(parts: Mapping[WorkPart, Work]) -> Workmanship | None:
    """Grade a repaint: poor where any part is or where three fall short, good where none does; none without parts."""
    said = {part: parts[part] for part in WorkPart if part in parts}
    if not said:
        return None
    short = [grade for grade in said.values() if grade is not Work.GOOD]
    grade = Work.POOR if Work.POOR in short or len(short) >= 3 else Work.FAIR if short else Work.GOOD
    return Workmanship(grade, said)
