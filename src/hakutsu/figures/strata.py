"""The strata glyph: a film state as a tiny cross-section, metal below and layers above; readable at 16 px."""

from __future__ import annotations

from hakutsu.core.film import State
from hakutsu.figures.svg import tag, text

NAMES = {
    State.ORIGINAL: "original: one even film",
    State.THINNED: "thinned: film worn away at the top",
    State.BLENDED: "blended: film rising to one side",
    State.REFINISHED: "refinished: a second film",
    State.REBUILT: "rebuilt: three films or more",
    State.FILLED: "filled: filler inside the film",
    None: "not read",
}


def _film(y: float, height: float = 3) -> str:
    return tag("rect", x=1, y=y, width=14, height=height, class_="st-film")


def _layers(state: State | None) -> str:
    if state is None:
        return tag("path", d="M1.5 10.5h13", class_="st-none")
    if state is State.ORIGINAL:
        return _film(8.5)
    if state is State.THINNED:
        return tag("path", d="M1 8.5h3.2c.8 2.6 6.8 2.6 7.6 0H15v3H1z", class_="st-film")
    if state is State.BLENDED:
        return _film(8.5) + tag("path", d="M3 7.4 15 2.4v5z", class_="st-film")
    if state is State.REFINISHED:
        return _film(8.5) + _film(4.4)
    if state is State.REBUILT:
        return _film(9.3, 2.4) + _film(5.7, 2.4) + _film(2.1, 2.4)
    lens = tag("path", d="M1.6 7.6C4.4 4 11.6 4 14.4 7.6 11.6 11.2 4.4 11.2 1.6 7.6z", class_="st-lens")
    hatch = tag("path", d="M4 9.2 6.6 5.4M7 10 10 5.2M10.2 9.6 12.4 6.2", class_="st-hatch")
    return lens + hatch + tag("rect", x=1, y=1.6, width=14, height=2.2, class_="st-film")


def strata_glyph(state: State | None, *, size: int = 16, labelled: bool = False) -> str:
    """The glyph of a state (none for a panel not read) at `size` pixels.

    Unlabelled glyphs stand beside their word and are hidden from screen readers.
    """
    metal = tag("rect", x=0.5, y=12.6, width=15, height=2.2, class_="st-metal")
    attributes = {"role": "img", "aria_label": NAMES[state]} if labelled else {"aria_hidden": "true"}
    title = tag("title", text(NAMES[state])) if labelled else ""
    return tag(
        "svg", title, metal, _layers(state), class_="strata", viewBox="0 0 16 16", width=size, height=size, **attributes
    )


def strata_mark(state: State | None, x: float, y: float, size: float) -> str:
    """The glyph inside another drawing."""
    metal = tag("rect", x=0.5, y=12.6, width=15, height=2.2, class_="st-metal")
    return tag(
        "g", metal, _layers(state), class_="strata", transform=f"translate({x:.1f} {y:.1f}) scale({size / 16:.3f})"
    )
