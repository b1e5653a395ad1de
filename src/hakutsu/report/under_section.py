"""The underside and leaks in words: entries, and what the report says of them."""

from __future__ import annotations

from dataclasses import dataclass, replace

from markupsafe import Markup

from hakutsu.core.findings import Finding
from hakutsu.core.under.leaks import LeakFound
from hakutsu.entries.body import Coating
from hakutsu.entries.under import Exhaust, Leak, Pipes, Stage, UnderZone
from hakutsu.figures.under import ZoneShown, under_schematic
from hakutsu.figures.zone_signs import zone_legend
from hakutsu.reckoning import Reckoning
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.under import fitted_zones, zones

Said = tuple[str, str]


@body_words.register
def _(body: UnderZone, terms: Terms = PLAIN) -> Said:
    name = terms.say(zones()[body.zone].name) if body.zone in zones() else body.zone
    said = (
        f"not visible: {body.not_visible}" if body.not_visible else "", f"rust {body.rust}" if body.rust else "",
        "rust, its grade not told" if body.rust_untold else "", *map(str, body.clear),
        "aged alike all over" if body.aged_evenly else "", f"partly: {body.partly}" if body.partly else "",
        f"{body.size_mm:g} mm" if body.size_mm else "",
        "" if body.coating is Coating.UNKNOWN else f"coating {body.coating}", *map(str, body.damage),
        *map(str, body.repair), f"missing {body.missing}" if body.missing else "",
        f"other side {body.other_side}" if body.other_side else "",
        "" if body.pipes is Pipes.UNKNOWN else f"pipes {body.pipes}",
        "" if body.exhaust is Exhaust.UNKNOWN else f"exhaust {body.exhaust}",
        {True: "catalytic converter there", False: "no catalytic converter", None: ""}[body.catalyst], body.note,
    )  # fmt: skip
    return "Underside", f"{name}: {', '.join(one for one in said if one) or 'looked at'}"


@body_words.register
def _(body: Leak, terms: Terms = PLAIN) -> Said:
    said = (
        f"from {body.origin}", f"shows at {body.shows}" if body.shows else "",
        terms.say(zones()[body.zone].name) if body.zone in zones() else "",
        "nothing this time" if body.stage is Stage.NONE else str(body.stage),
        "" if body.drops is None else f"{body.drops:g} drops a minute",
        "" if body.counted is None else f"{body.counted} drops in {body.counted_min:g} min",
        "" if body.minutes is None else f"{body.minutes:g} min after stopping", body.note,
    )  # fmt: skip
    return "Leak", terms.say(str(body.fluid)) + ", " + ", ".join(one for one in said if one)


def zones_shown(reckoning: Reckoning) -> dict[str, ZoneShown]:
    """Every zone looked at, as it is drawn."""
    grave = {one.subject for one in reckoning.under.zones if one.settles}
    found = {}
    for key, seen in reckoning.dossier.under.zones.items():
        body = seen.body
        worn = body.pipes not in (Pipes.UNKNOWN, Pipes.AS_MADE) or body.exhaust not in (Exhaust.UNKNOWN, Exhaust.SOUND)
        there = {"rust": body.rust is not None or body.rust_untold, "damage": bool(body.damage) or worn,
                 "repair": bool(body.repair),
                 "missing": bool(body.missing) or body.catalyst is False}  # fmt: skip
        marks = tuple(mark for mark, said in there.items() if said)
        state = "hidden" if body.not_visible else "found" if marks else "seen" if body.looked else "untouched"
        found[key] = ZoneShown(state, marks, key in grave)
    for leak in reckoning.under.leaks:
        if leak.zone:
            one = found.get(leak.zone, ZoneShown("untouched"))
            settle = one.grave or leak.finding.settles
            found[leak.zone] = replace(one, marks=tuple(dict.fromkeys((*one.marks, "leak"))), grave=settle)
    return found


def zone_line(one: Finding, terms: Terms) -> FoundLine:
    """A finding with its zone."""
    return found_line(one, terms, named=True)


def leak_line(one: LeakFound, terms: Terms) -> FoundLine:
    """A leak in words."""
    return found_line(one.finding, terms)


@dataclass(frozen=True, slots=True)
class UnderSection:
    """The schematic, findings, leaks, and what could not be seen."""

    drawing: str
    found: tuple[FoundLine, ...]
    leaks: tuple[FoundLine, ...]
    hidden: tuple[str, ...]
    open: int
    signs: tuple[tuple[Markup, str], ...] = ()

    @property
    def empty(self) -> bool:
        """True when nobody looked."""
        return not (self.drawing or self.leaks)


def under_section(reckoning: Reckoning) -> UnderSection:
    """Gather the section from a reckoning."""
    terms, seen = reckoning.terms, reckoning.dossier.under.zones
    frame = reckoning.dossier.mechanics.separate_frame
    hidden = tuple(body_words(one.body, terms)[1] for one in seen.values() if one.body.not_visible or one.body.partly)
    return UnderSection(
        Markup(under_schematic(zones_shown(reckoning), terms=terms, linked=False, separate_frame=frame))
        if seen
        else "",
        tuple(zone_line(one, terms) for one in reckoning.under.zones),
        tuple(leak_line(one, terms) for one in reckoning.under.leaks),
        hidden,
        len(fitted_zones(separate_frame=frame).keys() - {key for key, one in seen.items() if one.body.looked}),
        tuple((Markup(sign), name) for sign, name in zone_legend()),
    )


@report_section("under", 60, "_under.html")
def _under(making: Making) -> UnderSection:
    """The underside and leaks."""
    return under_section(making.reckoning)
