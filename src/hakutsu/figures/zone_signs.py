"""Signs of what was found on a zone of the underside: what became of a strip of metal, for black and white too."""

from __future__ import annotations

from hakutsu.figures.svg import tag

NAMES = {
    "rust": "rust", "damage": "damage", "repair": "worked on", "missing": "missing", "leak": "leak",
    "seen": "nothing found",
}  # fmt: skip
EATEN = "M.5 5.5h2.8l1.3 2.1L6 6.2l2 2.6 1.7-3 1.5 1.6 1.5-1.9h2.8v5.9l-2.1-1-1.9 1.6-2-2.3-1.8 2-2.3-1.6-2 1.5-2.9-.2z"


def _strip(x: float, wide: float, y: float = 7.0) -> str:
    return tag("rect", x=x, y=y, width=wide, height=3.4, class_="zs-metal")


SHAPES = {
    # eaten from both edges
    "rust": tag("path", d=EATEN, class_="zs-metal"),
    # bent in
    "damage": tag("path", d="M.5 7h4.2l3.3 4.6L11.3 7h4.2", class_="zs-bent"),
    # a plate stitched over it
    "repair": _strip(0.5, 15, 9.0)
    + tag("rect", x=3.6, y=4.4, width=8.8, height=3.6, class_="zs-plate")
    + tag("path", d="M5 8.6v-1.4M8 8.6v-1.4M11 8.6v-1.4", class_="zs-stitch"),
    # two stubs, and what was between them
    "missing": _strip(0.5, 3.4) + _strip(12.1, 3.4) + tag("rect", x=5.1, y=6.2, width=5.8, height=5, class_="zs-gone"),
    # a drop under it
    "leak": _strip(0.5, 15, 3.0)
    + tag("path", d="M8 7.4c2 2.6 2.6 3.6 2.6 4.8a2.6 2.6 0 0 1-5.2 0c0-1.2.6-2.2 2.6-4.8z", class_="zs-drop"),
    # sound
    "seen": _strip(0.5, 15),
}


def zone_sign(key: str, x: float, y: float, size: float) -> str:
    """One sign inside a drawing, from its upper left corner on."""
    return tag("g", SHAPES[key], class_="zone-sign", transform=f"translate({x:.1f} {y:.1f}) scale({size / 16:.3f})")


def zone_legend() -> list[tuple[str, str]]:
    """Every sign, as a drawing of its own, beside its word."""
    at = {"viewBox": "0 0 16 16", "width": 20, "height": 20, "aria_hidden": "true", "class_": "zone-sign shrink-0"}
    return [(tag("svg", SHAPES[key], **at), name) for key, name in NAMES.items()]
