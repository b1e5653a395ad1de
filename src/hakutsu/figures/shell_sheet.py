"""The shell sheet: the skin peeled flat, panels as plain patches joined at their true seams."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from hakutsu.core.film import FilledShare, FillerMap, NextSpot, Observation, State, film_um
from hakutsu.figures.blemishes import Mark, mark_words
from hakutsu.figures.contours import contour_path
from hakutsu.figures.sheet_layout import CODE_SHARE, TYPE_CM, UPRIGHT_TYPE_CM, Layout, lay_out
from hakutsu.figures.strata import strata_mark
from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.shell import Patch
from hakutsu.vehicle.units import show
from hakutsu.vehicle.vocabulary import ReadingStatus, Unit

MARGIN = 6.0
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
    marks: Sequence[Mark] = (),
    sides: tuple[str, str] = ("left", "right"),
    states: bool = True,
    upright: bool = False,
) -> str:
    """Draw the sheet as an SVG element; layers are groups with the attribute `data-layer`.

    Readings stand as numbers at their places (bold where they stand out from the baseline), suspected filler inside a
    contour (dashed where it is likely, solid where it is sure), the next spot as an open mark. Nothing covers a number:
    one that stands aside has a dot where it was read, those without room are counted. `marks` are blemishes; `sides`
    the names of the vehicle's own left and right; without `states` no glyph of film is drawn. `upright` has the nose
    above, for a narrow screen, in larger type.
    """
    patches = {key: turned(one) for key, one in patches.items()} if upright else patches
    shown = [panel for panel in panels if panel.key in patches]
    layout = lay_out(
        {panel.key: panel.observations for panel in shown}, {panel.key: panel.code for panel in shown}, patches, unit,
        marks=marks, spot=spot, states=states, size=UPRIGHT_TYPE_CM if upright else TYPE_CM, baseline_um=baseline_um,
    )  # fmt: skip
    corners = [corner for patch in patches.values() for corner in patch.corners]
    left, right = min(x for x, _ in corners) - MARGIN, max(x for x, _ in corners) + MARGIN
    below = MARGIN + (14 if len(shown) > 1 else 0)
    top, bottom = min(y for _, y in corners) - MARGIN, max(y for _, y in corners) + below
    label = f"Shell sheet of {len(panels)} panels; the table below holds the numbers"
    hatch = "sh-hatch-upright" if upright else "sh-hatch"
    return tag(
        "svg",
        tag("title", text(label)),
        _hatch(hatch),
        *(_patch(panel, patches[panel.key], layout, panel.key == current) for panel in shown),
        tag("g", *(_filler(panel, patches[panel.key]) for panel in shown), data_layer="filler"),
        tag("g", *(_state(panel, layout) for panel in shown), data_layer="states"),
        tag("g", *(_readings(panel, layout, baseline_um) for panel in shown), data_layer="readings"),
        tag("g", _next(spot, patches), data_layer="next"),
        tag("g", *_marks(layout), data_layer="blemishes"),
        tag("g", data_aim="", class_="sh-aim"),
        _sides(left, right, top, bottom, sides, upright=upright) if len(shown) > 1 else "",
        class_="shell-sheet sh-upright" if upright else "shell-sheet",
        viewBox=f"{left:.0f} {top:.0f} {right - left:.0f} {bottom - top:.0f}",
        role="group",
        aria_label=label,
        data_shell="",
    )


def turned(patch: Patch) -> Patch:
    """The patch with the nose above and the vehicle's own left on the left."""
    a, b, c, d = ((-y, x) for x, y in patch.corners)
    return Patch(patch.panel, (a, b, c, d), patch.joined)


def _hatch(key: str) -> str:
    line = tag("path", d="M-1 5 5 -1M1 7 7 1", class_="sh-hatch-line")
    return tag("defs", tag("pattern", line, id=key, width=6, height=6, patternUnits="userSpaceOnUse"))


def _patch(panel: SheetPanel, patch: Patch, layout: Layout, is_current: bool) -> str:
    outline = "M" + "L".join(f"{x:.0f} {y:.0f}" for x, y in patch.corners) + "Z"
    kind = "sh-patch" + (" sh-current" if is_current else "") + ("" if patch.joined else " sh-loose")
    said = f"{panel.name}: {panel.words}"
    shape = tag("path", d=outline, class_=kind)
    inside = [tag("title", text(said)), shape, _label(panel, layout)]
    quad = json.dumps([[round(x), round(y)] for x, y in patch.corners], separators=(",", ":"))
    if panel.href is None:
        return tag("g", *inside)
    return tag("a", *inside, href=panel.href, data_panel=panel.key, data_quad=quad, class_="sh-link",
               aria_label=f"{panel.code}, {said}")  # fmt: skip


def _marks(layout: Layout) -> list[str]:
    size = CODE_SHARE * layout.size
    signs = [sign.drawn(box, size) for sign, box in layout.marks]
    return signs + [mark_words(f"+{count}", box, size) for count, box in layout.more_marks.values()]


def _label(panel: SheetPanel, layout: Layout) -> str:
    x, y = layout.labels[panel.key].code.middle
    return _words(panel.code, x, y, CODE_SHARE * layout.size, "sh-code")


def _words(said: str, x: float, y: float, size: float, kind: str) -> str:
    at = {"x": f"{x:.1f}", "y": f"{y + 0.32 * size:.1f}"}
    return tag("text", text(said), **at, text_anchor="middle", class_=kind)


def _state(panel: SheetPanel, layout: Layout) -> str:
    glyph = layout.labels[panel.key].glyph
    return strata_mark(panel.state, glyph.left, glyph.top, glyph.right - glyph.left) if glyph else ""


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


def _readings(panel: SheetPanel, layout: Layout, baseline_um: float | None) -> str:
    parts = []
    for number in layout.numbers[panel.key]:
        o = number.observation
        stands_out = baseline_um is not None and film_um(o) - baseline_um > STANDS_OUT_UM
        kind = "sh-number sh-edge" if o.edge else "sh-number sh-more" if stands_out or o.censored else "sh-number"
        if panel.state is State.FILLED:
            kind += " sh-over"
        if number.dot:
            parts.append(tag("circle", cx=f"{number.dot[0]:.1f}", cy=f"{number.dot[1]:.1f}", r=0.9, class_="sh-dot"))
        parts.append(_words(number.said, *number.box.middle, layout.size, kind))
    if panel.key in layout.more:
        count, box = layout.more[panel.key]
        parts.append(_words(f"+{count}", *box.middle, CODE_SHARE * layout.size, "sh-code"))
    return "".join(parts)


def _next(spot: NextSpot | None, patches: Mapping[str, Patch]) -> str:
    if spot is None or spot.panel not in patches:
        return ""
    x, y = patches[spot.panel].at(spot.u, spot.v)
    cross = f"M{x - 11:.1f} {y:.1f}h6m10 0h6M{x:.1f} {y - 11:.1f}v6m0 10v6"
    return tag(
        "g",
        tag("title", "the most useful next reading"),
        tag("path", d=cross, class_="sh-next"),
    )


def lies(sides: tuple[str, str]) -> str:
    """Which way one panel lies that is drawn alone, in words beside it: it has no room for them."""
    own = "vehicle’s own " if sides == ("left", "right") else ""
    return f"Nose to the left, the {own}{sides[0]} below."


def _sides(left: float, right: float, top: float, bottom: float, sides: tuple[str, str], *, upright: bool) -> str:
    """Which way the sheet lies: nose to the left and the vehicle's own left below; upright the nose is above."""
    y, middle = bottom - 3, (left + right) / 2
    own = "vehicle’s own " if sides == ("left", "right") else ""
    if upright:
        every = (
            (f"← {own}{sides[0]}", left + MARGIN, "start"),
            (f"{sides[1]} →", right - MARGIN, "end"),
            ("↑ nose", middle, "middle"),
        )
    else:
        across = (f"{own}{sides[0]} below, {sides[1]} above", middle, "middle")
        every = (("← nose", left + MARGIN, "start"), ("tail →", right - MARGIN, "end"), across)
    return tag("g", *(tag("text", text(word), x=x, y=y, text_anchor=at, class_="sh-side") for word, x, at in every))


def positions(observations: Sequence[Observation], unit: Unit) -> str:
    """Readings with their places in words, for the table beside the drawing."""
    said = []
    for o in observations:
        number = "no reading" if o.status is ReadingStatus.NONE else show(film_um(o), unit, with_unit=False)
        number = f"≥ {number}" if o.censored else number
        said.append(number if o.u is None or o.v is None else f"{number} at {o.u:.2f}, {o.v:.2f}")
    return "; ".join(said) or "–"
