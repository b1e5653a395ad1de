"""Sections through what wears: a tread across its three grooves, a disc between its pads."""

from __future__ import annotations

from collections.abc import Sequence

from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.quantities import Scale

WIDE, HIGH = 220.0, 104.0
TREAD_FLOOR, TREAD_EACH = 80.0, 6.6
GROOVES = (62.0, 110.0, 158.0)
GROOVE_HALF = 9.0
EDGE = 10.0


def _line(path: str, kind: str) -> str:
    return tag("path", d=path, class_=kind)


def _words(words: str, x: float, y: float, kind: str = "sc-number") -> str:
    return tag("text", text(words), x=x, y=y, text_anchor="middle", class_=kind)


def _drawing(label: str, parts: Sequence[str]) -> str:
    return tag(
        "svg", tag("title", text(label)), *parts, class_="section", viewBox=f"0 4 {WIDE:.0f} {HIGH - 2:.0f}",
        role="img", aria_label=label,
    )  # fmt: skip


def tread_section(depths: Sequence[float], new: float, legal: float, scale: Scale) -> str:
    """A tread cut across: lands as high as their grooves are deep [mm], dashed where they stood when new, a line where
    the law ends. One depth draws all grooves alike, none only the outline.
    """

    def y(mm: float) -> float:
        return TREAD_FLOOR - mm * TREAD_EACH

    parts = [_line(f"M2 {TREAD_FLOOR + 9}H{WIDE - 2}", "sc-belt"), _outline(y(new))]
    grooves = tuple(depths) if len(depths) == 3 else (depths[0],) * 3 if depths else ()
    if grooves:
        parts += _lands([y(one) for one in grooves])
        shown = grooves if len(depths) == 3 else (None, grooves[1], None)
        for x, mm in zip(GROOVES, shown, strict=True):
            if mm is not None:
                parts.append(_words(scale.number(mm), x, y(new) - 5))
        label = f"Tread {', '.join(scale.words(one) for one in depths)}; new {scale.words(new)}"
    else:
        parts.append(_words("not measured", WIDE / 2, 50, "sc-soft"))
        label = "Tread not measured"
    parts.append(_line(f"M2 {y(legal):.1f}H{WIDE - 2}", "sc-limit"))
    parts.append(
        tag("text", text(f"law {scale.words(legal)}"), x=WIDE - 3, y=HIGH - 1, text_anchor="end", class_="sc-soft")
    )
    if len(depths) == 3:
        parts.append(tag("text", "inner", x=4, y=HIGH - 1, class_="sc-soft"))
    return _drawing(label, parts)


def _outline(top: float) -> str:
    return _line(f"M{EDGE} {TREAD_FLOOR}V{top:.1f}H{WIDE - EDGE}V{TREAD_FLOOR}", "sc-new")


def _lands(tops: Sequence[float]) -> list[str]:
    """Four lands between edge and grooves; a land's top runs from one groove's height to the next."""
    found = []
    left_x, left_y = EDGE, tops[0]
    for x, top in zip(GROOVES, tops, strict=True):
        right = x - GROOVE_HALF
        found.append(_land(left_x, left_y, right, top))
        left_x, left_y = x + GROOVE_HALF, top
    found.append(_land(left_x, left_y, WIDE - EDGE, tops[-1]))
    found.append(tag("rect", x=EDGE - 4, y=TREAD_FLOOR, width=WIDE - 2 * EDGE + 8, height=8.0, class_="sc-rubber"))
    return found


def _land(left: float, left_y: float, right: float, right_y: float) -> str:
    return _line(f"M{left} {TREAD_FLOOR}V{left_y:.1f}L{right} {right_y:.1f}V{TREAD_FLOOR}Z", "sc-rubber")


def brake_section(
    inner: float | None,
    outer: float | None,
    disc: float | None,
    least: float | None,
    scale: Scale,
    *,
    new_pad: float,
    pad_limit: float = 3.0,
) -> str:
    """A disc between its pads, cut across [mm].

    Friction is filled, dashed where it stood when new, its limit a line; the disc carries its minimum as marks.
    """
    each, middle, top, high = 4.6, WIDE / 2, 14.0, 56.0
    half = (disc or 24.0) * each / 2 * 0.62
    parts = [
        tag("rect", x=middle - half, y=6.0, width=2 * half, height=high + 16, class_="sc-disc" if disc else "sc-new")
    ]
    if disc:
        parts.append(_words(scale.number(disc), middle, 42))
    if disc and least:
        reach = least * each / 2 * 0.62
        parts.append(_line(f"M{middle - reach:.1f} 3V12M{middle + reach:.1f} 3V12", "sc-limit"))
    for side, mm in ((-1, inner), (1, outer)):
        plate = middle + side * (half + new_pad * each)
        face = plate - side * (mm or 0.0) * each
        parts.append(
            tag("rect", x=min(plate, plate + side * 9), y=top - 3, width=9.0, height=high + 6, class_="sc-plate")
        )
        wear_from, wear_to = sorted((plate, plate - side * new_pad * each))
        parts.append(tag("rect", x=wear_from, y=top, width=wear_to - wear_from, height=high, class_="sc-new"))
        if mm is not None:
            left, right = sorted((plate, face))
            parts.append(tag("rect", x=left, y=top, width=right - left, height=high, class_="sc-friction"))
            parts.append(_words(scale.number(mm), plate - side * 25, 88))
        parts.append(_line(f"M{plate - side * pad_limit * each:.1f} {top - 4}V{top + high + 4}", "sc-limit"))
    parts += [_words("inner", 20, HIGH - 2, "sc-soft"), _words("outer", WIDE - 20, HIGH - 2, "sc-soft")]
    return _drawing(_brake_label(inner, outer, disc, least, scale), parts)


def drum_section(lining: float | None, scale: Scale, *, new: float = 5.0, limit: float = 1.5) -> str:
    """A shoe's lining under its drum, cut across [mm]: filled, dashed where it stood when new, its limit as a line."""
    each, floor, left, wide = 9.0, 76.0, 34.0, 150.0

    def y(mm: float) -> float:
        return floor - mm * each

    parts = [
        tag("rect", x=left, y=y(new), width=wide, height=new * each, class_="sc-new"),
        tag("rect", x=left - 8, y=floor, width=wide + 16, height=9.0, class_="sc-plate"),
    ]
    if lining is None:
        parts.append(_words("not measured", WIDE / 2, y(new) - 8, "sc-soft"))
    else:
        parts.append(tag("rect", x=left, y=y(lining), width=wide, height=lining * each, class_="sc-friction"))
        parts.append(_words(scale.number(lining), WIDE / 2, y(new) - 6))
    parts.append(_line(f"M{left - 12} {y(limit):.1f}H{left + wide + 12}", "sc-limit"))
    parts.append(_words("shoe and lining", WIDE / 2, HIGH - 2, "sc-soft"))
    said = "not measured" if lining is None else scale.words(lining)
    return _drawing(f"Lining {said}", parts)


def _brake_label(
    inner: float | None, outer: float | None, disc: float | None, least: float | None, scale: Scale
) -> str:
    def said(mm: float | None) -> str:
        return "not measured" if mm is None else scale.words(mm)

    minimum = f", minimum {scale.words(least)}" if least else ""
    return f"Pad inner {said(inner)}, outer {said(outer)}; disc {said(disc)}{minimum}"
