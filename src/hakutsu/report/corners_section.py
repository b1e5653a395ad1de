"""What the report says of the corners."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.core.corners.brakes import thinnest_pad
from hakutsu.core.corners.tyres import age_years, new_depth, per_cent_left, ruling_depth
from hakutsu.core.life.measured import wear_table
from hakutsu.dossier.corners import EVERY
from hakutsu.entries.corners import Brake, Tyre
from hakutsu.figures.sections import brake_section, drum_section, tread_section
from hakutsu.reckoning import Reckoning
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.mechanics import BrakeKind
from hakutsu.vehicle.places import WHEELS


@dataclass(frozen=True, slots=True)
class CornerPart:
    """One wheel: its name, drawings, what was measured and found there."""

    name: str
    drawings: tuple[str, ...]
    measured: tuple[tuple[str, str], ...]
    found: tuple[FoundLine, ...]


@dataclass(frozen=True, slots=True)
class CornersSection:
    """Every corner that was looked at, and what is found between them."""

    corners: tuple[CornerPart, ...]
    between: tuple[FoundLine, ...]
    whole: tuple[tuple[str, str], ...]

    @property
    def empty(self) -> bool:
        """True when nobody looked."""
        return not (self.corners or self.between or self.whole)


def tread_drawing(reckoning: Reckoning, tyre: Tyre | None) -> str:
    """The tread of a tyre cut across."""
    legal, scale = reckoning.rules.tread_mm, reckoning.terms.scale("depth")
    depths: tuple[float, ...] = ()
    if tyre is not None:
        depth = ruling_depth(tyre, legal)
        depths = tyre.depth_mm or ((depth.mm,) if depth else ())
    return Markup(tread_section(depths, new_depth(tyre) if tyre else 8.0, legal, scale))


def brake_drawing(reckoning: Reckoning, wheel: str, brake: Brake | None) -> str:
    """The disc of a wheel between its pads, or the lining of its drum."""
    rear_drums = reckoning.dossier.mechanics.rear_brakes is BrakeKind.DRUM and "rear" in wheel
    if rear_drums or (brake is not None and brake.lining_mm is not None):
        return Markup(drum_section(brake.lining_mm if brake else None, reckoning.terms.scale("depth")))
    pads = wear_table().pad
    scale, new = reckoning.terms.scale("depth"), (pads.front if "front" in wheel else pads.rear)["new_mm"][0]
    if brake is None:
        return Markup(brake_section(None, None, None, None, scale, new_pad=new))
    measured = brake.pad_inner_mm is not None or brake.pad_outer_mm is not None
    inner = brake.pad_inner_mm if measured else thinnest_pad(brake)
    disc = min(brake.disc_mm, default=None)
    return Markup(brake_section(inner, brake.pad_outer_mm, disc, brake.disc_min_mm, scale, new_pad=new))


def depth_words(reckoning: Reckoning, tyre: Tyre) -> str:
    """The depth that rules, both per cents, and the age."""
    legal, terms, parts = reckoning.rules.tread_mm, reckoning.terms, list[str]()
    depth = ruling_depth(tyre, legal)
    if depth is not None:
        of_legal, of_new = per_cent_left(depth.mm, new_depth(tyre), legal)
        rules = terms.quantity("depth", depth.mm)
        parts.append(f"Lowest {rules}: {of_legal:.0f} % of legal tread left, {of_new:.0f} % of new")
    age = age_years(tyre, reckoning.corners.on)
    if age is not None:
        parts.append(f"{age:.1f} years old" if len(tyre.date_code) == 4 else f"{age:.0f} years old or more")
    return "; ".join(parts)


def corners_section(reckoning: Reckoning) -> CornersSection:
    """Gather the section from a reckoning."""
    terms, corners = reckoning.terms, reckoning.dossier.corners
    found = [part for wheel in EVERY if (part := _corner(reckoning, wheel)) is not None]
    reckoned = reckoning.corners
    between = tuple(found_line(one, terms, named=True) for one in (*reckoned.between, *reckoned.whole))
    whole = tuple(body_words(one.body, terms) for one in (corners.fluid, corners.pedal) if one is not None)
    return CornersSection(tuple(found), between, whole)


def _corner(reckoning: Reckoning, wheel: str) -> CornerPart | None:
    corners, terms = reckoning.dossier.corners, reckoning.terms
    seen = corners.seen_at(wheel)
    if not seen:
        return None
    drawings = []
    if (tyre := corners.tyres.get(wheel)) is not None:
        drawings.append(tread_drawing(reckoning, reckoning.corners.tyres_told[wheel]))
    if wheel in WHEELS and wheel in corners.brakes:
        drawings.append(brake_drawing(reckoning, wheel, reckoning.corners.brakes_told[wheel]))
    measured = [body_words(one.body, terms) for one in seen]
    if tyre is not None and (words := depth_words(reckoning, reckoning.corners.tyres_told[wheel])):
        measured.append((terms.say("Tread"), words))
    lines = tuple(found_line(one, terms) for one in reckoning.corners.lies_at(wheel))
    return CornerPart(terms.place(wheel), tuple(drawings), tuple(measured), lines)


@report_section("corners", 50, "_corners.html")
def _corners(making: Making) -> CornersSection:
    """Every corner that was looked at."""
    return corners_section(making.reckoning)
