"""What the papers show."""

from __future__ import annotations

import json
from typing import Any
from uuid import UUID

from markupsafe import Markup

from hakutsu.core.papers.dated import interval_words, mark_name
from hakutsu.core.papers.dates import AGREES, EARLIER, LATER
from hakutsu.core.papers.telling import KIND_WORDS, distance_words, spoken_day
from hakutsu.core.road.noticed import per_cent
from hakutsu.dossier.papers import PapersDossier
from hakutsu.dossier.variant import VariantDossier
from hakutsu.entries import papers as kinds
from hakutsu.entries.pictures import PictureKind
from hakutsu.entries.variant import VariantTaken
from hakutsu.figures.papers import dates_line, distance_line, number_grid
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.papers import DatedHere, PapersReckoned
from hakutsu.report.finding_wording import found_line
from hakutsu.report.papers_section import mark_lines
from hakutsu.vehicle.papers import RESTS_ON, Code, NumberPlace, RecordSource, dated_marks, registers
from hakutsu.web.pictures.context import shown
from hakutsu.web.rendering import fragment
from hakutsu.web.told import places_offered, told_rows

ROOMS = {"identity": "Identity", "dates": "Dates", "distance": "Distance", "registers": "Registers to ask"}
FOUND = {
    "identity": ("papers.number_", "papers.mark_", "papers.engine_", "papers.colour_", "papers.trim_", "papers.lot_"),
    "dates": ("papers.date_",),
    "distance": ("papers.distance_",),
    "registers": ("papers.noted_",),
}  # fmt: skip
VERDICTS = {LATER: "later: replaced then", EARLIER: "much earlier: of another vehicle, or old stock", AGREES: "agrees"}
MENTIONED = 0.01


def papers_context(reckoning: Reckoning, room: str) -> dict[str, Any]:
    """One room."""
    terms = reckoning.terms
    found = [one for one in reckoning.findings_of("papers") if one.code.startswith(FOUND[room])]
    context: dict[str, Any] = {
        "dossier": reckoning.dossier, "terms": terms, "stand_downs": reckoning.stand_downs, "rooms": ROOMS,
        "room": room, "kinds": kinds, "found": [found_line(one, terms) for one in found],
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection), "room": room}),
    }  # fmt: skip
    return context | MADE[room](reckoning, reckoning.station(PapersReckoned))


def _identity(reckoning: Reckoning, papers: PapersReckoned) -> dict[str, Any]:
    state, grid = reckoning.dossier[PapersDossier], papers.grid
    read = {one.where for one in papers.readings}
    rows = [*state.numbers, *state.engine, *state.codes.values(), *([state.lot] if state.lot else [])]
    return {
        "grid": Markup(number_grid(grid)), "number": grid.identity, "enforced": reckoning.rules.check_digit,
        "unread": [one for one in RESTS_ON if one not in read], "told": told_rows(reckoning, rows, placed=True),
        "number_places": list(NumberPlace), "lot": reckoning.dossier.opening.brief.lot,
        "stills": [shown(reckoning, one) for one in reckoning.dossier.pictures.taken.values()
                   if one.body.kind is PictureKind.STILL],
        "places": places_offered(reckoning),
        "colours": list(known.colours.items()) if (known := _known(reckoning)) else [],
    }  # fmt: skip


def _known(reckoning: Reckoning) -> VariantTaken | None:
    """What the library said of the variant."""
    taken = reckoning.dossier[VariantDossier].taken
    return taken.body if taken else None


def _dates(reckoning: Reckoning, papers: PapersReckoned) -> dict[str, Any]:
    built = papers.built
    state = reckoning.dossier[PapersDossier]
    plate = [one for one in state.marks if one.body.mark == "build_plate"]
    return {
        "line": Markup(dates_line(mark_lines(reckoning), built, reckoning.corners.on)),
        "built": interval_words(built) if built else "",
        "plate": told_rows(reckoning, plate, placed=True), "plate_unread": bool(plate) and built is None,
        "marks": [_mark(reckoning, one) for one in papers.marks],
        "carriers": [(key, row.name, row.code) for key, row in dated_marks().items()], "codes": list(Code),
        "places": places_offered(reckoning),
        "letters": list(known.letters.items()) if (known := _known(reckoning)) else [],
    }  # fmt: skip


def _mark(reckoning: Reckoning, one: DatedHere) -> tuple[UUID, str, str, str]:
    """A mark: its entry, what carries it with its place, when it was made, and how that stands to the build."""
    place = reckoning.terms.place(one.dated.mark.place)
    name = f"{place}: {mark_name(one.key)}" if place else mark_name(one.key)
    if one.fault:
        return one.entry, name, one.dated.mark.text, f"its table cannot be: {one.fault}"
    if not one.dated.intervals:
        return one.entry, name, one.dated.mark.text, "cannot be read so: no such date, or one to come"
    when = " or ".join(interval_words(each) for each in one.dated.intervals)
    return one.entry, name, f"{one.dated.mark.text}: {when}", VERDICTS.get(one.dated.verdict or "", "")


def _distance(reckoning: Reckoning, papers: PapersReckoned) -> dict[str, Any]:
    terms, told = reckoning.terms, papers.told
    left = dict(told.left_out)
    doubted = {told.entries[row] for row, _ in told.distance.doubted} if told.distance else set()
    mine = reckoning.dossier[PapersDossier].records
    rows = [(id, words, left.get(id, ""), id in doubted) for id, words in told_rows(reckoning, mine, placed=True)]
    context: dict[str, Any] = {
        "rows": rows, "others": len(told.entries) - len([one for one in mine if one.entry.id not in left]),
        "sources": list(RecordSource), "line": "", "said": "", "shares": [], "span": "", "hidden": [], "wear": "",
        "unit": terms.scale("distance").label, "first_used": told.history.first_used,
    }  # fmt: skip
    if told.wear is not None:
        context["wear"] = terms.say(f"{{distance {round(told.wear.km, -3):.0f}}}")
    if told.distance is None:
        return context
    distance = told.distance
    words = {row: next((one.on for one in told.history.records if one.row == row), None) for row in told.entries}
    context["hidden"] = [
        (spoken_day(day), " or ".join(f"{value:,.0f} ({per_cent(share)})" for value, share in one.values[:4]))
        for one in told.hidden if (day := words.get(one.row)) is not None
    ]  # fmt: skip
    ends = [terms.say(f"{{distance {km:.0f}}}") for km in (distance.km.p10, distance.km.p50, distance.km.p90)]
    shares = sorted(distance.probabilities.items(), key=lambda one: -one[1])
    return context | {
        "line": Markup(distance_line(told.history, distance, lambda km: terms.say(f"{{distance {km:.0f}}}"))),
        "said": distance_words(distance, told.history, spoken_day),
        "span": f"{ends[0]} to {ends[2]}",
        "middle": ends[1],
        "shares": [(KIND_WORDS[kind], per_cent(share)) for kind, share in shares if share >= MENTIONED],
    }


def _registers(reckoning: Reckoning, papers: PapersReckoned) -> dict[str, Any]:
    asked = reckoning.dossier[PapersDossier].asked
    rows = []
    for key, row in registers().items():
        told = told_rows(reckoning, [asked[key]], placed=True) if key in asked else []
        rows.append((key, row, told))
    return {"rows": rows}


MADE = {"identity": _identity, "dates": _dates, "distance": _distance, "registers": _registers}


def papers_fragments(reckoning: Reckoning, room: str | None) -> dict[str, str]:
    """The moving parts of a room."""
    chosen = room if room in ROOMS else "identity"
    context = papers_context(reckoning, chosen)
    return {
        f"papers_{chosen}": fragment(f"papers/_{chosen}.html", **context),
        "papers_found": fragment("papers/_found.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }
