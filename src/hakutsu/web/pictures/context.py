"""What the pages of pictures show."""

from __future__ import annotations

import json
from typing import Any
from urllib.parse import urlencode
from uuid import UUID

from markupsafe import Markup

from hakutsu.entries.general import ForDesk
from hakutsu.entries.pictures import Looks
from hakutsu.logbook.pictures import PictureFiles
from hakutsu.reckoning import Reckoning
from hakutsu.report.body_section import numbered
from hakutsu.report.pictures_section import shown
from hakutsu.report.wording import body_words
from hakutsu.vehicle.places import places
from hakutsu.vehicle.shots import Shot, shot_list
from hakutsu.web.paging import part_of


def shots(reckoning: Reckoning) -> list[tuple[Shot, str, bool]]:
    """The shot list with what is on each, ticked where a picture has its tag."""
    dossier, terms = reckoning.dossier, reckoning.terms
    tags = {tag for kept in dossier.pictures.taken.values() for tag in kept.tags}
    wanted = shot_list(dossier.vehicle.body_style, dossier.opening.brief.protocol)
    return [(shot, terms.say(shot.words), shot.tag in tags) for shot in wanted]


def where(reckoning: Reckoning) -> list[tuple[str, str]]:
    """What a picture can be tied to: places, panels, and marks by their number."""
    terms, dossier = reckoning.terms, reckoning.dossier
    found = [(key, terms.place(key)) for key in places()]
    found += [(key, terms.panel(key)) for key in dossier.vehicle.panel_keys()]
    marks = dossier.body.blemishes
    return found + [(f"of:{key}", f"mark {i}: {marks[key].body.kind}") for key, i in numbered(reckoning).items()]


def pictures_context(
    reckoning: Reckoning, files: PictureFiles, place: str = "", of: str = "", start: int | None = None
) -> dict[str, Any]:
    """A page of all pictures, or of those of one place or for one entry."""
    every = list(reckoning.dossier.pictures.taken.values())
    chosen = [one for one in every if (not place or one.entry.place == place) and (not of or str(one.body.of) == of)]
    part = part_of(len(chosen), start)
    taken_at = {at: reckoning.terms.place(at) for at in {one.entry.place for one in every} if at}
    listed = shots(reckoning)
    return {
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "pictures": [shown(reckoning, one) for one in chosen[part.first - 1 : part.last]],
        "part": part,
        "kept": Markup("&amp;") + urlencode({"place": place, "of": of}) if place or of else "",
        "every": len(every),
        "place": place,
        "chosen": f"of:{of}" if of else place,
        "taken_at": sorted(taken_at.items(), key=lambda one: str(one[1])),
        "shots": listed,
        "shots_done": sum(done for _, _, done in listed),
        "where": where(reckoning),
        "waiting": files.waiting,
        "uncopied": len(files.failed & {one.body.sha256 for one in every}),
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection), "view": "pictures"}),
    }


def picture_context(reckoning: Reckoning, entry: UUID) -> dict[str, Any]:
    """One picture, large, with its neighbours."""
    taken = reckoning.dossier.pictures.taken
    keys = list(taken)
    at = keys.index(entry)
    kept = taken[entry]
    marks = [mark.model_dump(mode="json") for mark in kept.marks]
    return {
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "one": shown(reckoning, kept),
        "back": keys[at - 1],
        "next": keys[(at + 1) % len(keys)],
        "number": at + 1,
        "count": len(keys),
        "looks": list(Looks),
        "tags": [(shot.tag, words) for shot, words, _ in shots(reckoning)],
        "questions": [
            kept for kept in reckoning.dossier.general.open(ForDesk) if getattr(kept.body, "shows", None) == entry
        ],
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection), "of": str(entry), "marks": marks}),
    }


def desk_context(reckoning: Reckoning, at: int) -> dict[str, Any]:
    """The desk queue, one item at a time: its question, and its picture where it has one."""
    queue = reckoning.dossier.general.open(ForDesk)
    at = max(0, min(at, len(queue) - 1))
    item = queue[at] if queue else None
    key = getattr(item.body, "shows", None) if item else None
    kept = reckoning.dossier.pictures.taken.get(key) if key else None
    return {
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "queue": [(one, body_words(one.body)[1], reckoning.terms.place(one.entry.place)) for one in queue],
        "at": at,
        "item": item,
        "picture": shown(reckoning, kept) if kept else None,
    }
