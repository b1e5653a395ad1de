"""What the corner station shows."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from hakutsu.core.corners.brakes import thinnest_pad
from hakutsu.core.corners.gear import grade_means
from hakutsu.core.corners.tyres import ruling_depth
from hakutsu.core.findings import axle_of
from hakutsu.core.life.components import at_corner, components, fitted
from hakutsu.core.life.measured import remaining
from hakutsu.core.life.worn import Corners, pad_cases, tyre_case
from hakutsu.dossier.body import Seen
from hakutsu.dossier.corners import EVERY
from hakutsu.entries import corners as kinds
from hakutsu.entries.corners import Brake, Grade, Tyre
from hakutsu.reckoning import Reckoning
from hakutsu.report.corner_wording import km_words
from hakutsu.report.corners_section import brake_drawing, depth_words, tread_drawing
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.vehicle.fitment import as_built
from hakutsu.vehicle.mechanics import BrakeKind
from hakutsu.vehicle.places import WHEELS
from hakutsu.web.rendering import fragment

CHOICES: dict[str, Any] = {
    "methods": list(kinds.Method),
    "seasons": list(kinds.Season),
    "cracks": list(kinds.Cracks),
    "shapes": list(kinds.Shape),
    "damages": list(kinds.TyreDamage),
    "schools": list(kinds.PerCentOf),
    "spares": list(kinds.SpareKind),
    "liners": list(kinds.Liner),
    "scorings": list(kinds.Scoring),
    "disc_cracks": list(kinds.DiscCracks),
    "rusts": list(kinds.DiscRust),
    "hoses": list(kinds.Hose),
    "pipes": list(kinds.Pipe),
    "pairs": list(kinds.Pairs),
    "linings": list(kinds.Lining),
    "comparisons": list(kinds.Compared),
    "grades": list(Grade),
    "fluids": list(kinds.FluidKind),
    "firms": list(kinds.Firm),
    "parkings": list(kinds.Parking),
}
AXLE_NAMES = {"front": "Front axle", "rear": "Rear axle", "": "Brakes and driveline"}


@dataclass(frozen=True, slots=True)
class GradedRow:
    """A part of the running gear at a corner: its key, name, ways to test it, and how it was graded."""

    key: str
    name: str
    tested: tuple[str, ...]
    seen: Seen[kinds.Gear] | None
    means: str
    detail: bool = False


def corner_parts(reckoning: Reckoning, wheel: str) -> list[GradedRow]:
    """The parts of the running gear a corner has on this vehicle; what may be there is listed too."""
    corners = reckoning.dossier.corners
    mechanics, corner = reckoning.dossier.mechanics, wheel.removeprefix("wheel_")
    found = []
    for one in components().values():
        if one.corners in ("", "doors") or (one.optional and fitted(one, mechanics) is not True):
            continue
        if fitted(one, mechanics) is False or at_corner(one, mechanics, corner) is False:
            continue
        seen = corners.gear.get(f"{one.key}:{corner}")
        means = grade_means(one.key, seen.body.grade) if seen else ""
        found.append(GradedRow(one.key, one.name, one.tested, seen, means, bool(one.part_of)))
    return found


def whole_parts(reckoning: Reckoning) -> list[GradedRow]:
    """Parts with a life that sit at no corner: belts, hoses, mounts and the like; what may be there is left out."""
    corners, mechanics = reckoning.dossier.corners, reckoning.dossier.mechanics
    found = []
    for one in components().values():
        there = fitted(one, mechanics)
        if one.corners == "" and there is not False and not (one.optional and there is not True):
            seen = corners.gear.get(one.key)
            means = grade_means(one.key, seen.body.grade) if seen else ""
            found.append(GradedRow(one.key, one.name, one.tested, seen, means, bool(one.part_of)))
    return found


def said_at(reckoning: Reckoning, wheel: str) -> dict[str, Any]:
    """Drawings, numbers and findings of one corner."""
    corners, terms = reckoning.dossier.corners, reckoning.terms
    tyre, brake = corners.tyres.get(wheel), corners.brakes.get(wheel)
    return {
        "key": wheel,
        "name": terms.place(wheel),
        "spare": wheel not in WHEELS,
        "seen": {
            "tyre": tyre,
            "brake": brake,
            "wheel": corners.wheels.get(wheel),
            "height": corners.heights.get(wheel),
        },
        "tread": tread_drawing(reckoning, reckoning.corners.tyres_told[wheel] if tyre else None),
        "brake_drawing": brake_drawing(reckoning, wheel, reckoning.corners.brakes_told[wheel] if brake else None),
        "tyre_line": _tyre_line(reckoning, wheel, reckoning.corners.tyres_told[wheel]) if tyre else "",
        "brake_line": _brake_line(reckoning, wheel, reckoning.corners.brakes_told[wheel]) if brake else "",
        "found": [found_line(one, terms) for one in reckoning.corners.lies_at(wheel)],
        "parts": corner_parts(reckoning, wheel) if wheel in WHEELS else [],
    }


def _tyre_line(reckoning: Reckoning, wheel: str, tyre: Tyre) -> str:
    """Depth, both per cents, age and what is left, in one line."""
    words = depth_words(reckoning, tyre)
    if ruling_depth(tyre, reckoning.rules.tread_mm) is None or wheel not in WHEELS:
        return words
    found = remaining(tyre_case(wheel, tyre, reckoning.lives.given, _measured(reckoning)))
    return f"{words}; {km_words(found, reckoning.terms)}"


def _brake_line(reckoning: Reckoning, wheel: str, brake: Brake) -> str:
    if thinnest_pad(brake) is None:
        return ""
    alone = Corners({}, {wheel: brake}, reckoning.rules, reckoning.corners.on)
    cases = pad_cases(wheel.split("_")[1], reckoning.lives.given, alone)
    thin = min(cases, key=lambda one: one.now_mm or 0.0)
    return km_words(remaining(thin), reckoning.terms)


def _measured(reckoning: Reckoning) -> Corners:
    return Corners({}, {}, reckoning.rules, reckoning.corners.on)


def whole_said(reckoning: Reckoning) -> dict[str, Any]:
    """What is found on axles and on the whole."""
    terms = reckoning.terms
    corners, found = reckoning.dossier.corners, reckoning.corners
    rows: dict[str, list[FoundLine]] = {"front": [], "rear": [], "": []}
    for one in (*found.between, *found.whole):
        rows[axle_of(one.subject)].append(found_line(one, terms))
    return {
        "axles": [(AXLE_NAMES[axle], lines) for axle, lines in rows.items()],
        "fluid": corners.fluid,
        "pedal": corners.pedal,
        "mechanics": reckoning.dossier.mechanics,
    }  # fmt: skip


def corners_context(reckoning: Reckoning, at: str) -> dict[str, Any]:
    """The whole station; `at` is the corner shown where there is room for one."""
    terms, mechanics = reckoning.terms, reckoning.dossier.mechanics
    drums = {axle: as_built(mechanics, f"{axle}_brakes") == BrakeKind.DRUM.value for axle in ("front", "rear")}
    return {
        "dossier": reckoning.dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "corners": [said_at(reckoning, wheel) for wheel in EVERY],
        "at": at if at in (*EVERY, "whole") else EVERY[0],
        "depth": terms.scale("depth"),
        "pressure": terms.scale("pressure"),
        "temperature": terms.scale("temperature"),
        "distance": terms.scale("distance"),
        "others": [(key, terms.place(key)) for key in ("axle_front", "axle_rear", *WHEELS)],
        "drums": drums,
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection)}),
        **whole_said(reckoning),
        **CHOICES,
    }


def corners_fragments(reckoning: Reckoning) -> dict[str, str]:
    """What is said at every corner and on the whole; forms stay as they are typed."""
    shared = {"dossier": reckoning.dossier, "terms": reckoning.terms, "stand_downs": reckoning.stand_downs}
    found = {
        f"said_{wheel}": fragment("corners/_said.html", one=said_at(reckoning, wheel), **shared) for wheel in EVERY
    }  # fmt: skip
    found["said_whole"] = fragment("corners/_whole_said.html", **shared, **whole_said(reckoning))
    found["standing"] = fragment("round/_standing.html", **shared)
    return found
