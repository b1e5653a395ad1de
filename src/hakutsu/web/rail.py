"""The rail: what is left, by station and by place, and what waits; on every page of an inspection."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from hakutsu.dossier import Covered
from hakutsu.entries.general import AskSeller, ForDesk, Hint
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.road import RoadReckoned


@dataclass(frozen=True, slots=True)
class Left:
    """One thing on the rail: words, where it leads, whether it asks for somebody now, and whether it counts work."""

    words: str
    room: str
    now: bool = False
    counts: bool = False


def rail(reckoning: Reckoning, now: datetime) -> list[Left]:
    """Coverage of places and film, then what there is of stand-downs, repeats, second looks, proposals, questions."""
    dossier = reckoning.dossier
    places = dossier.place_coverage()
    film = [one for one in dossier.film_coverage() if one.expected or one.state is Covered.LIMITED]
    looked = sum(one.looked is not Covered.OPEN for one in places)
    read = sum(one.state is not Covered.OPEN for one in film)
    looks = [one for one in reckoning.second_looks(now) if one.open]
    due, general = sum(one.due for one in looks), dossier.general
    after = sum(not one.done for one in reckoning.station(RoadReckoned).after)
    waiting = (
        (len(reckoning.stand_downs), "stand-down", "stand-downs", "standdowns", True),
        (len(reckoning.film.analysis.open_surprises), "reading to repeat", "readings to repeat", "film", True),
        (len(reckoning.functions.retests), "function to try again", "functions to try again", "functions", True),
        (after, "look after the drive", "looks after the drive", "road/after", True),
        (due, "second look due", "second looks due", "round", True),
        (len(looks) - due, "second look later", "second looks later", "round", False),
        (len(reckoning.proposed_limits), "limit proposed", "limits proposed", "round", True),
        (len(general.open(Hint)), "hint", "hints", "round", False),
        (len(general.open(AskSeller)), "to ask", "to ask", "round", False),
        (len(general.open(ForDesk)), "for the desk", "for the desk", "desk", False),
    )
    begun = [
        Left(f"Places {looked}/{len(places)}", "round", counts=True),
        Left(f"Film {read}/{len(film)}", "film", counts=True),
    ]
    waits = [Left(f"{n} {one if n == 1 else many}", room, asks) for n, one, many, room, asks in waiting if n]
    return [*(one for one in waits if one.now), *begun, *(one for one in waits if not one.now)]
