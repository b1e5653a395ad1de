"""The cabin: wear against what is usual at this distance, and what smells, moisture and signs say."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from hakutsu.core.findings import Finding, found
from hakutsu.entries.cabin import CabinLooked, CabinSign, CabinSmell, CabinWear, Moist, There, Wear
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.inventory import belongings

GRADES = list(Wear)
LEAST_PARTS = 3
INSIDE = "inside_front"


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


def wear_found(grades: Mapping[str, CabinWear], km: float | None, years: float | None = None) -> list[Finding]:
    """What wear says: single parts two grades off what is usual at the distance shown [km] or the age [years], and all
    that distance wears together.
    """
    seen, every = list[Finding](), against_distance(grades, km)
    for one in (*every, *against_age(grades, years)):
        if one.steps <= -2 and cabin_parts()[one.part].retrim:
            words = "less worn than the distance shown: renewed? Then it tells only the distance since"
            seen.append(found("cabin.worn_less", one.part, words, (f"usual would be {one.usual}",)))
        elif one.steps >= 2:
            why = (f"usual would be {one.usual}",)
            seen.append(found("cabin.worn_more", one.part, "much more worn than usual", why))
    mean = sum(one.steps for one in every) / len(every) if every else 0.0
    if len(every) >= LEAST_PARTS and mean >= 1.0:
        reasons = tuple(f"{cabin_parts()[one.part].name}: {grades[one.part].wear}, usual {one.usual}" for one in every)
        words = "worn more than the distance shown explains: hold the papers against it"
        seen.append(found("cabin.worn_beyond_distance", INSIDE, words, reasons))
    return seen


DAMP_AT = {Moist.BOOT: "boot", Moist.MATS_REAR: "inside_rear"}
SIGNS = {
    CabinSign.OVERSPRAY: "paint overspray inside: painted with doors open",
    CabinSign.GLUE: "glue: trim was off",
    CabinSign.DYE: "dyed over: what wear does it hide?",
    CabinSign.FOAM: "seat foam broken down: driven far, or sat in heavily",
    CabinSign.HEADLINING: "headlining hangs or is stained: water, smoke or age",
    CabinSign.MATS: "mats cover something: lift every one",
    CabinSign.AIRBAG_COVER: "airbag cover not as made: was it fired? Nothing is touched",
    CabinSign.BELT_DATE: "belt date marks differ: belts replaced, after what?",
    CabinSign.SILT: "silt or a tide line under the carpet: stood in water",
    CabinSign.STAIN: "stains inside",
    CabinSign.TEAR: "tears inside",
    CabinSign.BURN: "burns inside",
}
SMELLS = {
    CabinSmell.COOLANT: "smells of coolant inside: heater matrix",
    CabinSmell.PERFUME: "perfume: what does it hide? Come back after an hour shut",
    CabinSmell.SMOKE: "smells of smoke: seldom goes away",
    CabinSmell.FUEL: "smells of fuel inside: where from?",
}


def looks_found(looks: Iterable[CabinLooked]) -> list[Finding]:
    """What was smelt, felt and seen; a roof opening, a damp floor and a damp smell are one story."""
    every = list(looks)
    smells = {one for look in every for one in look.smells}
    moist = {one for look in every for one in look.moist}
    signs = {one for look in every for one in look.signs}
    seen = []
    floor = moist & {Moist.MATS_FRONT, Moist.MATS_REAR, Moist.BOOT, Moist.FOOTWELL}
    if Moist.ROOF in moist and floor:
        words = "water from the roof opening ends in the floor"
        seen.append(found("cabin.roof_water", INSIDE, words, sorted(map(str, moist))))
    elif floor:
        words = f"moisture {', '.join(sorted(map(str, floor)))}: look for its way in"
        reasons = ("it smells damp too",) if CabinSmell.DAMP in smells else ()
        where = {DAMP_AT.get(one, INSIDE) for one in floor}
        seen.append(found("cabin.floor_damp", where.pop() if len(where) == 1 else INSIDE, words, reasons))
    elif Moist.ROOF in moist:
        seen.append(found("cabin.roof_damp", INSIDE, "moisture at the roof opening: its drains, or its seal"))
    elif CabinSmell.DAMP in smells:
        seen.append(found("cabin.smells_damp", INSIDE, "smells damp: lift every mat"))
    seen += [found(f"cabin.smells_{one.value}", INSIDE, words) for one, words in SMELLS.items() if one in smells]
    return seen + [found(f"cabin.sign_{one.value}", INSIDE, words) for one, words in SIGNS.items() if one in signs]


def inventory_found(things: Mapping[str, There]) -> list[Finding]:
    """What is missing of what belongs to it, in the order of the table."""
    gone = {key for key, there in things.items() if there is There.MISSING}
    return [
        found(f"cabin.missing_{key}", one.place, one.missing) for key, one in belongings().items() if key in gone
    ]  # fmt: skip
