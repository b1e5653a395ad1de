"""The film profile: the car unrolled along the walk, one narrow column per reading, height on a log scale."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import inf, log
from statistics import median

from hakutsu.core.film import Baseline, Observation, State, film_um, parameters
from hakutsu.figures.strata import strata_mark
from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.units import from_um, show
from hakutsu.vehicle.vocabulary import ReadingStatus, Unit

COLUMN = 8.0
STEP = 10.0
NARROWEST = 40.0
SEAM = 6.0
LEFT = 46.0
TOP = 14.0
PLOT = 176.0
FOOT = 64.0
LOWEST_UM = 30.0
COLUMNS_AT_HAND = 4096
TICKS = {Unit.UM: (50, 100, 200, 500, 1000, 2000, 5000), Unit.MIL: (2, 4, 8, 16, 40, 80, 200)}


@dataclass(frozen=True, slots=True)
class ProfilePanel:
    """One panel of the profile: names, state, readings, and why it has none."""

    key: str
    code: str
    name: str
    state: State | None
    words: str
    observations: Sequence[Observation]
    why_empty: str = ""
    href: str | None = None


@dataclass(frozen=True, slots=True)
class _Scale:
    highest_um: float
    unit: Unit

    def y(self, film: float) -> float:
        film = min(max(film, LOWEST_UM), self.highest_um)
        return TOP + PLOT * (1 - log(film / LOWEST_UM) / log(self.highest_um / LOWEST_UM))

    @property
    def floor(self) -> float:
        return TOP + PLOT


def film_profile(
    panels: Sequence[ProfilePanel], baseline: Baseline | None, unit: Unit, *, current: str | None = None
) -> str:
    """Draw the profile of a survey as an SVG element.

    The part of a column up to the car's baseline is pale, what lies above is dark, a gap below it is outlined.
    Censored readings are open at the top; suspected filler is hatched.
    """
    films = [film_um(o) for panel in panels for o in panel.observations if o.status is not ReadingStatus.NONE]
    scale = _Scale(max(600.0, 1.35 * max(films, default=0.0)), unit)
    x, groups = LEFT, []
    steps: list[tuple[float, float, float | None]] = []
    for panel in panels:
        width = max(NARROWEST, len(panel.observations) * STEP + 6)
        groups.append(_panel(panel, x, width, scale, baseline, panel.key == current))
        counted = [film_um(o) for o in panel.observations if o.counts]
        steps.append((x, width, scale.y(median(counted)) if counted else None))
        x += width + SEAM
    right, height = x - SEAM + 4, TOP + PLOT + FOOT
    base = f", baseline {show(baseline.median, unit)}" if baseline else ", no baseline"
    label = f"Film profile of {len(panels)} panels, {len(films)} readings{base}; the table below holds the numbers"
    return tag(
        "svg",
        tag("title", text(label)),
        _hatch(),
        _grid(scale, right),
        _band(baseline, scale, right),
        *groups,
        _seams(steps),
        class_="film-profile",
        viewBox=f"0 0 {right:.0f} {height:.0f}",
        width=round(right),
        height=round(height),
        role="group",
        aria_label=label,
    )


def _hatch() -> str:
    line = tag("path", d="M-1 5 5 -1M1 7 7 1", class_="fp-hatch-line")
    return tag("defs", tag("pattern", line, id="fp-hatch", width=5, height=5, patternUnits="userSpaceOnUse"))


def _grid(scale: _Scale, right: float) -> str:
    parts = []
    for tick in TICKS[scale.unit]:
        film = tick if scale.unit is Unit.UM else tick * 25.4
        if not LOWEST_UM < film < scale.highest_um:
            continue
        y = scale.y(film)
        parts.append(tag("path", d=f"M{LEFT - 4:.0f} {y:.1f}H{right:.0f}", class_="fp-grid"))
        parts.append(tag("text", f"{tick:,}", x=LEFT - 7, y=y + 4, text_anchor="end", class_="fp-tick"))
    name = "µm" if scale.unit is Unit.UM else "mil"
    parts.append(tag("text", name, x=4, y=TOP + 2, class_="fp-tick"))
    parts.append(tag("path", d=f"M{LEFT - 4:.0f} {scale.floor}H{right:.0f}", class_="fp-floor"))
    return "".join(parts)


def _band(baseline: Baseline | None, scale: _Scale, right: float) -> str:
    if baseline is None:
        return ""
    top, bottom, middle = scale.y(baseline.high), scale.y(baseline.low), scale.y(baseline.median)
    band = tag("rect", x=LEFT - 4, y=top, width=right - LEFT + 4, height=max(bottom - top, 1.5), class_="fp-band")
    return band + tag("path", d=f"M{LEFT - 4:.0f} {middle:.1f}H{right:.0f}", class_="fp-baseline")


def _panel(
    panel: ProfilePanel, x: float, width: float, scale: _Scale, baseline: Baseline | None, is_current: bool
) -> str:
    back = tag(
        "rect", x=x - 2, y=2, width=width + 4, height=TOP + PLOT + FOOT - 4, rx=3,
        class_="fp-panel fp-current" if is_current else "fp-panel",
    )  # fmt: skip
    start = x + (width - len(panel.observations) * STEP) / 2
    base = round(scale.y(baseline.median), 1) if baseline else None
    out = _stands_out_from(panel) if panel.state is State.FILLED else inf
    columns = [
        tag("g", _drawn(o, out, scale, base), transform=f"translate({start + i * STEP:.1f})")
        for i, o in enumerate(panel.observations)
    ]
    if not panel.observations:
        columns.append(tag("path", d=f"M{x:.0f} {scale.floor - 4}h{width:.0f}", class_="fp-empty"))
    middle = x + width / 2
    code = tag("text", text(panel.code), x=middle, y=scale.floor + 18, text_anchor="middle", class_="fp-code")
    glyph = strata_mark(panel.state, middle - 10, scale.floor + 26, 20)
    said = f"{panel.name}: {panel.words}" + (f", {panel.why_empty}" if panel.why_empty else "")
    inside = [tag("title", text(said)), back, *columns, code, glyph]
    if panel.href:
        label = f"{panel.code}, {said}"
        return tag("a", *inside, href=panel.href, data_panel=panel.key, class_="fp-link", aria_label=label)
    return tag("g", *inside)


def _drawn(o: Observation, out: float, scale: _Scale, base: float | None) -> str:
    """A reading's column; one of filler where its film stands out."""
    if o.status is ReadingStatus.NONE:
        cross = f"M1 {scale.floor - 8:.1f}l6 6m0-6l-6 6"
        return tag("title", "no reading") + tag("path", d=cross, class_="fp-none")
    film = film_um(o)
    column = _column(film, o.censored, o.edge, film > out, scale, base)
    return column + _simulated(scale) if o.simulated else column


def _simulated(scale: _Scale) -> str:
    """A letter under the column of a reading of the stand-in gauge."""
    mark = tag("text", "s", x=COLUMN / 2, y=scale.floor + 7, text_anchor="middle", class_="fp-tick")
    return tag("title", "simulated, for practice") + mark


@lru_cache(COLUMNS_AT_HAND)
def _column(film: float, open_top: bool, edge: bool, filler: bool, scale: _Scale, base: float | None) -> str:
    """A column where the drawing begins; many readings show the same number."""
    top = scale.y(film)
    title = tag("title", text(f"at least {show(film, scale.unit)}" if open_top else show(film, scale.unit)))
    if edge:
        return title + _box(2, top, COLUMN - 4, scale.floor, "fp-edge")
    bottom = scale.floor if base is None else base
    parts = [title, _box(0, max(top, bottom), COLUMN, scale.floor, "fp-own")]
    if base is not None and top > base + 1:
        parts.append(_box(0, base, COLUMN, top, "fp-missing"))
    if top < bottom:
        parts.append(_open_top(0, top, bottom) if open_top else _box(0, top, COLUMN, bottom, "fp-more"))
        if filler:
            parts.append(_box(0, top, COLUMN, bottom, "fp-filler"))
    return "".join(parts)


def _stands_out_from(panel: ProfilePanel) -> float:
    """From what film on a reading stands far above the panel's own lower ones, where filler is suspected [µm]."""
    films = sorted(film_um(o) for o in panel.observations if o.counts)
    return films[len(films) // 4] + parameters().filled.counts_from_um if len(films) > 1 else 0.0


def _box(x: float, top: float, width: float, bottom: float, kind: str) -> str:
    return tag("rect", x=x, y=top, width=width, height=max(bottom - top, 0.5), class_=kind)


def _open_top(x: float, top: float, base: float) -> str:
    """A column without a lid: the film goes on above what the gauge can read."""
    fill = tag("rect", x=x, y=top + 6, width=COLUMN, height=max(base - top - 6, 0.5), class_="fp-more")
    posts = f"M{x + 0.5:.1f} {top + 6:.1f}V{top:.1f}m{COLUMN - 1:.1f} 6V{top:.1f}"
    arrow = f"M{x + 1:.1f} {top - 4:.1f}l3-4 3 4"
    return fill + tag("path", d=f"{posts}{arrow}", class_="fp-open")


def _seams(steps: Sequence[tuple[float, float, float | None]]) -> str:
    """Panel medians as treads, joined across the seams, so that a step in film shows; broken where nothing was read."""
    path, joined = [], False
    for x, width, y in steps:
        if y is not None:
            path.append(f"{'L' if joined else 'M'}{x - 2:.1f} {y:.1f}H{x + width + 2:.1f}")
        joined = y is not None
    return tag("path", d="".join(path), class_="fp-step") if path else ""


def column_numbers(observations: Sequence[Observation], unit: Unit) -> str:
    """The readings of a panel in words, for the table beside the drawing."""
    return ", ".join(_number(o, unit) for o in observations) or "–"


def _number(o: Observation, unit: Unit) -> str:
    if o.status is ReadingStatus.NONE:
        return "no reading"
    film = from_um(film_um(o), unit)
    number = f"{film:,.1f}" if unit is Unit.MIL else f"{film:,.0f}"
    said = f"≥ {number}" if o.censored else f"{number} (edge)" if o.edge else number
    return f"{said} (simulated)" if o.simulated else said
