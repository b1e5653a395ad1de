"""How panels sit: each gap against the other side and against the car's own median."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from statistics import median

from hakutsu.core.body.tables import FitGap, FitTable
from hakutsu.dossier.body import Seen
from hakutsu.entries.body import Closing, Fit, GapGrade
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.tables import read_table

GAPS = ("front_mm", "rear_mm", "top_mm", "left_mm", "right_mm", "bottom_mm")
NAMES = {
    "front_mm": "front gap", "rear_mm": "rear gap", "top_mm": "top gap", "left_mm": "{left} gap",
    "right_mm": "{right} gap", "bottom_mm": "bottom gap",
}  # fmt: skip
BY_EYE = (GapGrade.UNEVEN, GapGrade.WIDE, GapGrade.TOUCHING)


@dataclass(frozen=True, slots=True)
class FitFound:
    """What the fit of one panel says: codes with words, and whether it is a cue that the panel was off or moved."""

    panel: str
    told: tuple[tuple[str, str], ...]
    cue: bool

    @property
    def words(self) -> tuple[str, ...]:
        """What it says, in words."""
        return tuple(words for _, words in self.told)


@cache
def _table() -> FitGap:
    return read_table("core.body", "fit", FitTable).gap


def own_gap_mm(fits: Mapping[str, Seen[Fit]]) -> float | None:
    """The car's own median gap [mm], or none with fewer than four measured."""
    gaps = [gap for one in fits.values() for name in GAPS if (gap := getattr(one.body, name)) is not None]
    return median(gaps) if len(gaps) >= _table()["least_gaps"] else None


def fit_found(fits: Mapping[str, Seen[Fit]]) -> dict[str, FitFound]:
    """What every panel's fit says.

    Notes
    -----
    A gap is out of line when it differs from the same gap on the other side by 1.5 mm or more; where the other side was
    not measured, from the car's own median. It tapers when it opens by more than 1 mm along its length.
    """
    own = own_gap_mm(fits)
    return {panel: _found(panel, one.body, fits, own) for panel, one in fits.items()}


def _found(panel: str, fit: Fit, fits: Mapping[str, Seen[Fit]], own: float | None) -> FitFound:
    table = _table()
    mirror = panels()[panel].mirror if panel in panels() else None
    twin = fits[mirror].body if mirror is not None and mirror in fits else None
    told, cue = [], False
    for name in GAPS:
        gap = getattr(fit, name)
        other = getattr(twin, name) if twin else None
        if gap is None:
            continue
        against = other if other is not None else own
        said = "on the other side" if other is not None else "usual on this car"
        # Of two sides that differ the one farther from the car's own was moved.
        moved = other is None or own is None or abs(gap - own) >= abs(other - own)
        if against is not None and abs(gap - against) >= table["out_mm"] - 1e-9 and moved:
            told.append(("fit_out", f"{NAMES[name]} {gap:g} mm, {against:g} mm {said}"))
            cue = True
    if (
        fit.left_mm is not None
        and fit.right_mm is not None
        and abs(fit.left_mm - fit.right_mm) >= table["out_mm"] - 1e-9
    ):
        told.append(("fit_out", f"{{left}} gap {fit.left_mm:g} mm, {{right}} gap {fit.right_mm:g} mm"))
        cue = True
    if fit.gaps in BY_EYE:
        told.append(("fit_uneven", f"gaps {fit.gaps}, by eye"))
    if fit.taper_mm is not None and fit.taper_mm > table["taper_mm"]:
        told.append(("fit_out", f"a gap opens by {fit.taper_mm:g} mm along its length"))
        cue = True
    if fit.step_mm is not None and abs(fit.step_mm) >= table["step_mm"]:
        told.append(("fit_step", f"stands {'proud' if fit.step_mm > 0 else 'back'} by {abs(fit.step_mm):g} mm"))
    seen = (("fit_drop", "drops when opened", fit.drop), ("fit_play", "lifts by hand: play", fit.play),
            ("fit_rubs", "paint rubbed through", fit.rubs),
            ("fit_stands_off", "stands off", fit.stands_off))  # fmt: skip
    told += [(code, said) for code, said, there in seen if there]
    if fit.closing in (Closing.FALLS, Closing.SLAM):
        told.append(("fit_closing", f"closing: {fit.closing}"))
    told += [("fit_fault", one) for one in fit.faults]
    return FitFound(panel, tuple(told), cue)
