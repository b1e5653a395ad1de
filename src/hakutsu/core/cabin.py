"""The cabin: wear against what is usual at this distance, and what smells, moisture and signs say."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from hakutsu.core.corners.found import Follows, Found
from hakutsu.core.engine.fluids import FOLLOWS
from hakutsu.entries.cabin import CabinLooked, CabinSign, CabinSmell, CabinWear, Moist, There, Wear
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.inventory import belongings

GRADES = list(Wear)
LEAST_PARTS = 3


@dataclass(frozen=True, slots=True)
class Against:
    """A grade against what is usual: steps above it (below: negative), and the usual one in words; none where distance
    does not wear it, or is not known.
    """

    part: str
    steps: int
    usual: Wear


def usual_wear(part: str, km: float) -> Wear | None:
    """The usual grade of a part at a distance [km]; none where distance does not wear it."""
    reached = cabin_parts()[part].usual_km
    if not reached:
        return None
    return GRADES[sum(km >= one for one in reached)]


def against_distance(grades: Mapping[str, CabinWear], km: float | None) -> list[Against]:
    """Every grade against what is usual at the distance shown [km]; parts said to be renewed tell nothing of it."""
    found = []
    for part, look in grades.items():
        usual = usual_wear(part, km) if km is not None and not look.renewed else None
        if usual is not None:
            found.append(Against(part, GRADES.index(look.wear) - GRADES.index(usual), usual))
    return found


def usual_at(part: str, km: float | None, years: float | None) -> Wear | None:
    """The usual grade of a part at a distance [km] or, where time wears it, an age [years]; none where not known."""
    reached = cabin_parts()[part].usual_years
    if reached and years is not None:
        return GRADES[sum(years >= one for one in reached)]
    return usual_wear(part, km) if km is not None else None


def against_age(grades: Mapping[str, CabinWear], years: float | None) -> list[Against]:
    """Every grade of what time and sun wear against what is usual at an age [years]; renewed parts tell nothing."""
    found = []
    for part, look in grades.items():
        reached = cabin_parts()[part].usual_years
        if not reached or years is None or look.renewed:
            continue
        usual = GRADES[sum(years >= one for one in reached)]
        found.append(Against(part, GRADES.index(look.wear) - GRADES.index(usual), usual))
    return found


def wear_found(grades: Mapping[str, CabinWear], km: float | None, years: float | None = None) -> list[Found]:
    """What wear says: single parts two grades off what is usual at the distance shown [km] or the age [years], and all
    that distance wears together.
    """
    found, every = list[Found](), against_distance(grades, km)
    for one in (*every, *against_age(grades, years)):
        if one.steps <= -2 and cabin_parts()[one.part].retrim:
            words = "less worn than the distance shown: renewed? Then it tells only the distance since"
            found.append(Found(one.part, words, Follows.LOOK, (f"usual would be {one.usual}",)))
        elif one.steps >= 2:
            found.append(Found(one.part, "much more worn than usual", Follows.BUDGET, (f"usual would be {one.usual}",)))
    mean = sum(one.steps for one in every) / len(every) if every else 0.0
    if len(every) >= LEAST_PARTS and mean >= 1.0:
        reasons = tuple(f"{cabin_parts()[one.part].name}: {grades[one.part].wear}, usual {one.usual}" for one in every)
        words = "worn more than the distance shown explains: hold the papers against it"
        found.append(Found("", words, Follows.SETTLE, reasons))
    return found


SIGNS = {
    CabinSign.OVERSPRAY: ("paint overspray inside: painted with doors open", Follows.LOOK),
    CabinSign.GLUE: ("glue: trim was off", Follows.LOOK),
    CabinSign.DYE: ("dyed over: what wear does it hide?", Follows.LOOK),
    CabinSign.FOAM: ("seat foam broken down: driven far, or sat in heavily", Follows.BUDGET),
    CabinSign.HEADLINING: ("headlining hangs or is stained: water, smoke or age", Follows.BUDGET),
    CabinSign.MATS: ("mats cover something: lift every one", Follows.LOOK),
    CabinSign.AIRBAG_COVER: ("airbag cover not as made: was it fired? Nothing is touched", Follows.SETTLE),
    CabinSign.BELT_DATE: ("belt date marks differ: belts replaced, after what?", Follows.SETTLE),
}


def looks_found(looks: Iterable[CabinLooked]) -> list[Found]:
    """What was smelt, felt and seen; a roof opening, a damp floor and a damp smell are one story."""
    every = list(looks)
    smells = {one for look in every for one in look.smells}
    moist = {one for look in every for one in look.moist}
    signs = {one for look in every for one in look.signs}
    found = []
    floor = moist & {Moist.MATS_FRONT, Moist.MATS_REAR, Moist.BOOT}
    if Moist.ROOF in moist and floor:
        found.append(Found("", "water from the roof opening ends in the floor", Follows.SETTLE, tuple(map(str, moist))))
    elif floor:
        words = f"moisture {', '.join(sorted(map(str, floor)))}: look for its way in"
        reasons = ("it smells damp too",) if CabinSmell.DAMP in smells else ()
        found.append(Found("", words, Follows.SETTLE, reasons))
    elif CabinSmell.DAMP in smells:
        found.append(Found("", "smells damp: lift every mat", Follows.LOOK))
    if CabinSmell.COOLANT in smells:
        found.append(Found("", "smells of coolant inside: heater matrix", Follows.SETTLE))
    if CabinSmell.PERFUME in smells:
        found.append(Found("", "perfume: what does it hide? Come back after an hour shut", Follows.LOOK))
    if CabinSmell.SMOKE in smells:
        found.append(Found("", "smells of smoke: seldom goes away", Follows.BUDGET))
    found += [Found("", *SIGNS[one]) for one in SIGNS if one in signs]
    return found


def inventory_found(things: Mapping[str, There]) -> list[Found]:
    """What is missing of what belongs to it, in the order of the table."""
    gone = [belongings()[key] for key, there in things.items() if there is There.MISSING]
    order = list(belongings())
    return [Found("", one.missing, FOLLOWS[one.follows]) for one in sorted(gone, key=lambda one: order.index(one.key))]
