"""The shell sheet: the skin peeled flat, panels as plain patches joined at their true seams."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from hakutsu.core.film import FilledShare, FillerMap, NextSpot, Observation, State, film_um
from hakutsu.figures.contours import contour_path
from hakutsu.figures.strata import strata_mark
from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.shell import Patch
from hakutsu.vehicle.units import from_um, show
from hakutsu.vehicle.vocabulary import ReadingStatus, Unit

MARGIN = 6.0
GLYPH_CM = 13.0
SMALL_GLYPH_CM = 10.0
FLAT_CM = 26.0
PILLAR_LABEL_CM = 19.0
LAYERS = {"readings": "Readings", "states": "States", "filler": "Filler", "next": "Next spot", "blemishes": "Blemishes"}
LIKELY, SURE = 0.5, 0.9
STANDS_OUT_UM = 35.0


@dataclass(frozen=True, slots=True)
class SheetPanel:
    """One panel of the sheet: names, state, readings, and how far filler reaches."""

    key: str
    code: str
    name: str
    state: State | None
    words: str
    observations: Sequence[Observation]
    filled_share: FilledShare | None = None
    filler_map: FillerMap | None = None
    href: str | None = None


def shell_sheet(
    panels: Sequence[SheetPanel],
    patches: Mapping[str, Patch],
    unit: Unit,
    *,
    baseline_um: float | None = None,
    current: str | None = None,
    spot: NextSpot | None = None,
    marks: str = "",
    sides: tuple[str, str] = ("left", "right"),
    states: bool = True,
) -> str:
    """Draw the sheet as an SVG element; layers are groups with the attribute `data-layer`.

    Readings stand as numbers at their places (bold where they stand out from the baseline), suspected filler inside a
    contour (dashed where it is likely, solid where it is sure), the next spot as an open mark. `marks` are blemishes,
    drawn already; `sides` the names of the vehicle's own left and right; without `states` no glyph of film is drawn.
    """
    corners = [corner for patch in patches.values() for corner in patch.corners]
    left, right = min(x for x, _ in corners) - MARGIN, max(x for x, _ in corners) + MARGIN
    top, bottom = min(y for _, y in corners) - MARGIN, max(y for _, y in corners) + MARGIN + 14
    label = f"Shell sheet of {len(panels)} panels; the table below holds the numbers"
    shown = [panel for panel in panels if panel.key in patches]
    return tag(
        "svg",
        tag("title", text(label)),
        _hatch(),
        *(_patch(panel, patches[panel.key], panel.key == current) for panel in shown),
        tag("g", *(_filler(panel, patches[panel.key]) for panel in shown), data_layer="filler"),
        tag("g", *(_state(panel, patches[panel.key]) for panel in shown if states), data_layer="states"),
        tag("g", *(_readings(panel, patches[panel.key], unit, baseline_um) for panel in shown), data_layer="readings"),
        tag("g", _next(spot, patches), data_layer="next"),
        tag("g", marks, data_layer="blemishes"),
        tag("g", data_aim="", class_="sh-aim"),
        _sides(left, right, top, bottom, sides),
        class_="shell-sheet",
        viewBox=f"{left:.0f} {top:.0f} {right - left:.0f} {bottom - top:.0f}",
        role="group",
        aria_label=label,
        data_shell="",
    )


def _hatch() -> str:
    line = tag("path", d="M-1 5 5 -1M1 7 7 1", class_="sh-hatch-line")
    return tag("defs", tag("pattern", line, id="sh-hatch", width=6, height=6, patternUnits="userSpaceOnUse"))


def _patch(panel: SheetPanel, patch: Patch, is_current: bool) -> str:
    outline = "M" + "L".join(f"{x:.0f} {y:.0f}" for x, y in patch.corners) + "Z"
    kind = "sh-patch" + (" sh-current" if is_current else "") + ("" if patch.joined else " sh-loose")
    said = f"{panel.name}: {panel.words}"
    shape = tag("path", d=outline, class_=kind)
    inside = [tag("title", text(said)), shape, _code(panel, patch)]
    quad = json.dumps([[round(x), round(y)] for x, y in patch.corners], separators=(",", ":"))
    if panel.href is None:
        return tag("g", *inside)
    return tag("a", *inside, href=panel.href, data_panel=panel.key, data_quad=quad, class_="sh-link",
               aria_label=f"{panel.code}, {said}")  # fmt: skip


def _code(panel: SheetPanel, patch: Patch) -> str:
    x, y, *_ = _label(patch)
    return tag("text", text(panel.code), x=x, y=y, class_="sh-code")


def _label(patch: Patch) -> tuple[float, float, float, float, float]:
    """Where a patch's code and its glyph stand, and how large the glyph: inside at its corner, beside each other in a
    flat one, and in the glass beside a pillar, where the numbers need all the room.
    """
    xs, ys = [x for x, _ in patch.corners], [y for _, y in patch.corners]
    top, wide, high = min(ys), max(xs) - min(xs), max(ys) - min(ys)
    left = sorted(xs)[1] if patch.joined else min(xs)
    if high < FLAT_CM:
        return left + 4, top + high / 2 + 3.5, left + 21, top + high / 2 - SMALL_GLYPH_CM / 2, SMALL_GLYPH_CM
    if "pillar" in patch.panel and patch.joined:
        behind = patch.panel.startswith("c_")  # the glass lies before it, before the others behind
        x, y = patch.at(0.0 if behind else 1.0, 0.5)
        x += -PILLAR_LABEL_CM if behind else 2
        return x, y - 2, x, y, GLYPH_CM
    if wide < FLAT_CM:
        return left + 3, top + 10, left + wide / 2 - GLYPH_CM / 2, top + 14, GLYPH_CM
    return left + 5, top + 11, left + 5, top + 14, GLYPH_CM


def _state(panel: SheetPanel, patch: Patch) -> str:
    *_, x, y, size = _label(patch)
    return strata_mark(panel.state, x, y, size)


def _filler(panel: SheetPanel, patch: Patch) -> str:
    if panel.filler_map is None or panel.state is not State.FILLED:
        return ""
    likely = contour_path(panel.filler_map.chance, LIKELY, patch)
    sure = contour_path(panel.filler_map.chance, SURE, patch)
    if not likely:
        return ""
    share = panel.filled_share
    said = "suspected filler"
    if share is not None:
        area = patch.area_cm2
        said += f", {share.low * area:,.0f} to {share.high * area:,.0f} cm²"
    parts = [tag("title", text(f"{panel.name}: {said}")), tag("path", d=likely, class_="sh-filler")]
    return tag("g", *parts, tag("path", d=sure, class_="sh-filler-sure") if sure else "")


def _readings(panel: SheetPanel, patch: Patch, unit: Unit, baseline_um: float | None) -> str:
    parts = []
    for o in panel.observations:
        if o.u is None or o.v is None or o.status is ReadingStatus.NONE:
            continue
        x, y = patch.at(o.u, o.v)
        film = from_um(film_um(o), unit)
        number = f"{film:.1f}" if unit is Unit.MIL else f"{film:.0f}"
        stands_out = baseline_um is not None and film_um(o) - baseline_um > STANDS_OUT_UM
        kind = "sh-number sh-edge" if o.edge else "sh-number sh-more" if stands_out or o.censored else "sh-number"
        said = f"≥{number}" if o.censored else number
        parts.append(tag("text", text(said), x=x, y=y + 3, text_anchor="middle", class_=kind))
    return "".join(parts)


def _next(spot: NextSpot | None, patches: Mapping[str, Patch]) -> str:
    if spot is None or spot.panel not in patches:
        return ""
    x, y = patches[spot.panel].at(spot.u, spot.v)
    cross = f"M{x - 11:.1f} {y:.1f}h6m10 0h6M{x:.1f} {y - 11:.1f}v6m0 10v6"
    return tag(
        "g",
        tag("title", f"read here next: {spot.gain_bits:.2f} bit to be gained"),
        tag("path", d=cross, class_="sh-next"),
    )


def _sides(left: float, right: float, top: float, bottom: float, sides: tuple[str, str]) -> str:
    """Which way the sheet lies: nose to the left, the vehicle's own left below."""
    y = bottom - 3
    words = (("← nose", left + MARGIN, "start"), ("tail →", right - MARGIN, "end"))
    said = [tag("text", text(word), x=x, y=y, text_anchor=anchor, class_="sh-side") for word, x, anchor in words]
    middle = (left + right) / 2
    own = "vehicle’s own " if sides == ("left", "right") else ""
    said_sides = f"{own}{sides[0]} below, {sides[1]} above"
    said.append(tag("text", text(said_sides), x=middle, y=y, text_anchor="middle", class_="sh-side"))
    return tag("g", *said)


def positions(observations: Sequence[Observation], unit: Unit) -> str:
    """Readings with their places in words, for the table beside the drawing."""
    said = []
    for o in observations:
        number = "no reading" if o.status is ReadingStatus.NONE else show(film_um(o), unit, with_unit=False)
        number = f"≥ {number}" if o.censored else number
        said.append(number if o.u is None or o.v is None else f"{number} at {o.u:.2f}, {o.v:.2f}")
    return "; ".join(said) or "–"
