"""Running gear: grades in words, new on one side only, ride height left and right."""

from __future__ import annotations

from collections.abc import Mapping

from hakutsu.core.corners.tyres import corner_table
from hakutsu.core.findings import AXLES, Finding, found
from hakutsu.core.life.components import components
from hakutsu.entries.corners import Gear, Grade

MEANS = {
    "damper": {Grade.SOUND: "dry", Grade.WORN: "misted", Grade.FAILING: "wet", Grade.FAILED: "wet, bounces on"},
    "spring": {Grade.FAILED: "broken end"},
    "bushes": {Grade.WORN: "perished", Grade.FAILING: "split", Grade.FAILED: "play"},
    "ball_joint": {Grade.WORN: "boot perished", Grade.FAILING: "boot split", Grade.FAILED: "play"},
    "shaft_boots": {Grade.WORN: "fine cracks", Grade.FAILING: "split", Grade.FAILED: "grease thrown"},
    "wheel_bearing": {Grade.WORN: "rough", Grade.FAILING: "noise", Grade.FAILED: "play"},
}


def grade_means(part: str, grade: Grade | None) -> str:
    """What a grade looks like on a part, where the trade has a word for it."""
    return MEANS.get(part, {}).get(grade, "") if grade else ""


def gear_found(piece: str, gear: Gear) -> list[Finding]:
    """A finding for a piece (part and corner) that is worn or worse."""
    one = components().get(gear.part)
    corner = piece.partition(":")[2]
    mends = ":".join(key for key in (one.part_of, corner) if key) if one and one.part_of else piece
    name = one.name if one else gear.part
    if gear.grade is None:
        words = f"{name}: something is wrong with it, how bad was not told"
        return [found("corners.gear_untold", piece, words, (gear.note,) if gear.note else (), job=mends)]
    words = f"{name} {gear.grade}"
    how: tuple[str, ...] = (f"tested {gear.tested}",) if gear.tested else ("not said how it was tested",)
    if gear.play_mm:
        how = (*how, f"{gear.play_mm:g} mm of play")
    if gear.on_tyre:
        how = (*how, "lies against the tyre")
    if gear.grade not in (Grade.WORN, Grade.FAILING, Grade.FAILED):
        return []
    return [found(f"corners.gear_{gear.grade.value}", piece, words, how, job=mends)]


def sides_found(gear: Mapping[str, Gear], heights: Mapping[str, float]) -> list[Finding]:
    """What is new on one side only, and a body that hangs to one side."""
    seen = []
    for subject, axle in AXLES.items():
        for part in components().values():
            left, right = (gear.get(f"{part.key}:{axle}_{side}") for side in ("left", "right"))
            if left and right and (left.grade is Grade.FRESH) != (right.grade is Grade.FRESH):
                side = "left" if left.grade is Grade.FRESH else "right"
                words = f"{part.name} new on the {{{side}}} only: why?"
                why = ("a knock, or a part that failed early",)
                seen.append(found("corners.gear_new_one_side", f"{part.key}:{axle}", words, why))
        both = [heights.get(f"wheel_{axle}_{side}") for side in ("left", "right")]
        if both[0] is not None and both[1] is not None:
            off = both[0] - both[1]
            if abs(off) >= corner_table()["height"]["differ_mm"]:
                side = "left" if off < 0 else "right"
                words = f"stands {abs(off):g} mm lower on the {{{side}}}: spring, or the body"
                seen.append(found("corners.stands_lower", subject, words))
    return seen
