"""What the pages of the outside show."""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from typing import Any

from markupsafe import Markup

from hakutsu.core.body.cues import GAP
from hakutsu.core.body.fit import own_gap_mm
from hakutsu.core.body.trim import trim_words
from hakutsu.dossier.body import Seen
from hakutsu.entries import body as kinds
from hakutsu.figures.shell_sheet import SheetPanel, shell_sheet
from hakutsu.reckoning import Reckoning
from hakutsu.report.body_section import contact_cost, cost_words, holes_words, numbered, part_rows, sheet_marks, showing
from hakutsu.report.life_section import exact_money
from hakutsu.report.wording import body_words
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import Group, fitted_parts
from hakutsu.vehicle.places import places
from hakutsu.web.rendering import fragment

ROOMS = {
    "blemishes": "Blemishes",
    "fit": "Fit",
    "glass": "Glass and lamps",
    "rust": "Rust",
    "trim": "Bright work and trim",
    "additions": "Additions",
}
MOVING = {room: ("marks", "list") if room == "blemishes" else ("list",) for room in ROOMS}
USUAL_KINDS = ("scratch", "chip", "dent", "ding", "scuff", "crease", "kerb", "stain")
POOR = (
    "unsealed holes",
    "loose wiring",
    "no fuse",
    "taped joints",
    "connectors leading nowhere",
    "hides what is below",
    "built-up floor",
    "blocks something",
)
FIT_FAULTS = ("strut does not hold", "latch worn", "safety catch fails", "seal torn", "hem seam open")
GROUP_NAMES: dict[Group, str] = {
    "wheel": "Wheels",
    "pane": "Panes",
    "lamp": "Lamps",
    "trim": "Trim",
    "roof": "Roof openings",
    "metal": "Inner wings, arches, shuts",
    "inside": "Inside",
}
LOOKED_FOR = {"rust": "rust", "trim": "worn or missing trim", "additions": "additions"}
SHOWS = {"all": "all marks", "arm": "what shows at arm’s length", "yard": "what shows across the yard"}
_REACH = {
    "all": tuple(kinds.ShowsFrom),
    "arm": (kinds.ShowsFrom.UNKNOWN, kinds.ShowsFrom.YARD, kinds.ShowsFrom.ARM),
    "yard": (kinds.ShowsFrom.YARD,),
}


def outside_context(reckoning: Reckoning, room: str, shows: str = "all") -> dict[str, Any]:
    """One room of the station."""
    terms = reckoning.terms
    context: dict[str, Any] = {
        "dossier": reckoning.dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "rooms": ROOMS,
        "room": room,
        "shows": shows if shows in SHOWS else "all",
        "shows_names": SHOWS,
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection), "room": room}),
    }
    body = reckoning.dossier.body
    context["not_found"] = [(one, terms.place(one.place)) for one in body.none if one.body.text == LOOKED_FOR.get(room)]
    context["looked_for"] = LOOKED_FOR.get(room, "")
    return context | _ROOMS[room](reckoning, context["shows"])


def outside_fragments(reckoning: Reckoning, room: str | None, shows: str | None) -> dict[str, str]:
    """The moving parts of a room."""
    if room not in ROOMS:
        return {}
    context = outside_context(reckoning, room, shows or "all")
    return {f"outside_{name}": fragment(f"outside/_{room}_{name}.html", **context) for name in MOVING[room]}


def _where(reckoning: Reckoning) -> list[tuple[str, list[tuple[str, str]]]]:
    """Panels in walk order, then parts by group: what a mark can lie on."""
    vehicle, terms = reckoning.dossier.vehicle, reckoning.terms
    found = [("Panels", [(key, terms.panel(key)) for key in vehicle.panel_keys()])]
    for group in GROUP_NAMES:
        mine = [(part.key, terms.place(part.key)) for part in fitted_parts(vehicle.body_style, vehicle.doors, group)]
        found.append((GROUP_NAMES[group], mine))
    return found


def _blemishes(reckoning: Reckoning, shows: str) -> dict[str, Any]:
    outside, numbers = reckoning.outside, numbered(reckoning)
    vehicle, terms = reckoning.dossier.vehicle, reckoning.terms
    keys, known = vehicle.panel_keys(), panels()
    patches = [
        SheetPanel(key, known[key].code, terms.panel(key), None, "tap to mark", (), href=f"#{key}") for key in keys
    ]
    shown = showing(reckoning, _REACH[shows])
    marks = sheet_marks(reckoning, shown)
    sides = (terms.side("left"), terms.side("right"))
    return {
        "where": _where(reckoning),
        "usual_kinds": USUAL_KINDS,
        "other_kinds": [kind for kind in kinds.BlemishKind if kind not in USUAL_KINDS],
        "depths": list(kinds.Depth),
        "distances": list(kinds.ShowsFrom),
        "trials": list(kinds.Trial),
        "supplies": list(kinds.Supply),
        "sheet": Markup("").join(
            Markup(
                shell_sheet(
                    patches, outside.patches, terms.film, marks=marks, sides=sides, states=False, upright=upright
                )
            )
            for upright in (False, True)
        ),
        "parts": part_rows(reckoning, shown),
        "blends": [(terms.place(key), cost_words(reckoning, cost)) for key, cost in outside.costs.blends.items()],
        "total": cost_words(reckoning, outside.costs.total),
        "rate": exact_money(reckoning.settings.labour_rate, reckoning.dossier.opening.brief.currency),
        "count": len(numbers),
        "contacts": [
            ([(numbers[m.entry.id], m.entry.id) for m in one.marks], one.event, contact_cost(reckoning, one))
            for one in outside.contacts
        ],
    }


def _spots(reckoning: Reckoning) -> list[tuple[str, str]]:
    """Places round the vehicle, and its inner metal."""
    vehicle, terms = reckoning.dossier.vehicle, reckoning.terms
    here = [key for key in places() if key != "desk"]
    metal = [part.key for part in fitted_parts(vehicle.body_style, vehicle.doors, "metal")]
    return [(key, terms.place(key)) for key in (*here, *metal)]


def _fit(reckoning: Reckoning, _shows: str) -> dict[str, Any]:
    vehicle, terms, body = reckoning.dossier.vehicle, reckoning.terms, reckoning.dossier.body
    own = own_gap_mm(body.fits)
    rows = []
    also = [key for key in body.fits if key not in vehicle.panel_keys()]
    for key in (*vehicle.panel_keys(), *also):
        if key in body.fits or panels()[key].opens:
            found = reckoning.outside.fits.get(key)
            rows.append((key, terms.place(key), body.fits.get(key), found, reckoning.film.measured_cue(key, GAP)))
    return {
        "rows": rows,
        "own_gap": own,
        "panels_here": [
            *((key, terms.panel(key)) for key in vehicle.panel_keys()),
            *((part.key, terms.place(part.key)) for part in fitted_parts(vehicle.body_style, vehicle.doors, "trim")),
        ],
        "gap_grades": list(kinds.GapGrade),
        "closings": list(kinds.Closing),
        "fit_faults": FIT_FAULTS,
    }


def _said(reckoning: Reckoning, seen: Sequence[Seen[Any]]) -> list[tuple[Seen[Any], str, str]]:
    return [(one, reckoning.terms.place(one.place), body_words(one.body, reckoning.terms)[1]) for one in seen]


def _glass(reckoning: Reckoning, _shows: str) -> dict[str, Any]:
    vehicle, terms, body = reckoning.dossier.vehicle, reckoning.terms, reckoning.dossier.body
    fitted = [
        part for part in fitted_parts(vehicle.body_style, vehicle.doors) if part.group in ("pane", "lamp", "roof")
    ]
    return {
        "pieces": [
            (part.key, terms.place(part.key), [one for one in _said(reckoning, body.glass) if one[0].place == part.key])
            for part in fitted
        ],
        "more": {one.entry.id: reckoning.outside.glass_words(one) for one in body.glass},
        "odd": reckoning.outside.odd_marks,
        "faults": list(kinds.GlassFault),
        "tints": list(kinds.Tint),
        "rules": reckoning.rules,
    }


def _rust(reckoning: Reckoning, _shows: str) -> dict[str, Any]:
    return {
        "said": _said(reckoning, reckoning.dossier.body.rust),
        "grades": list(kinds.RustGrade),
        "coatings": list(kinds.Coating),
        "spots": _spots(reckoning),
        "traps": reckoning.outside.rust_traps,
    }


def _trim(reckoning: Reckoning, _shows: str) -> dict[str, Any]:
    vehicle, terms = reckoning.dossier.vehicle, reckoning.terms
    pieces = fitted_parts(vehicle.body_style, vehicle.doors, "trim")
    return {
        "said": _said(reckoning, reckoning.dossier.body.trim),
        "pieces": [(part.key, terms.place(part.key)) for part in pieces],
        "means": {one.entry.id: terms.say(trim_words(one.body)) for one in reckoning.dossier.body.trim},
        "states": list(kinds.TrimState),
        "materials": list(kinds.Material),
        "origins": list(kinds.Origin),
    }


def _additions(reckoning: Reckoning, _shows: str) -> dict[str, Any]:
    return {
        "said": _said(reckoning, reckoning.dossier.body.additions),
        "spots": _spots(reckoning),
        "works": list(kinds.Works),
        "holes": {one.entry.id: holes_words(reckoning, one.body) for one in reckoning.dossier.body.additions},
        "poor": POOR,
    }


_ROOMS: dict[str, Callable[[Reckoning, str], dict[str, Any]]] = {
    "blemishes": _blemishes, "fit": _fit, "glass": _glass, "rust": _rust, "trim": _trim, "additions": _additions,
}  # fmt: skip
