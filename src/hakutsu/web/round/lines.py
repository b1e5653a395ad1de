"""The lines of a place sheet: everything due at a place, each with a short form of its own that opens in place."""

from __future__ import annotations

from dataclasses import dataclass
from string import ascii_lowercase
from typing import Any

from hakutsu.core.engine.fluids import fluid_table
from hakutsu.dossier import Covered, PlaceCoverage
from hakutsu.dossier.coverage import PartCoverage
from hakutsu.dossier.papers import PapersDossier
from hakutsu.dossier.variant import VariantDossier
from hakutsu.entries import body as body_kinds
from hakutsu.entries import corners as corner_kinds
from hakutsu.entries import engine as engine_kinds
from hakutsu.entries import fluids as fluid_kinds
from hakutsu.entries import under as under_kinds
from hakutsu.entries.cabin import Wear
from hakutsu.entries.corners import Grade
from hakutsu.entries.variant import WeakResult
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.fitment import as_built
from hakutsu.vehicle.mechanics import BrakeKind
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.papers import Code, NumberPlace, dated_marks
from hakutsu.vehicle.places import WHEELS, places
from hakutsu.vehicle.under import zones
from hakutsu.web.corners.context import CHOICES, corner_parts, whole_parts
from hakutsu.web.outside.context import POOR
from hakutsu.web.round.twin import KINDS, twin_entries, twin_said

BY_EYE = ("fit", "glass", "under", "cabin")  # looks that are taken by eye: one tap says that there is nothing
FORMS = {"fit": "fit", "glass": "glass", "tyres": "tyre", "brakes": "brake", "under": "zone", "cabin": "cabin"}
LINED = (*FORMS, "functions")  # looks that have a line of their own
BELOW = {
    "front": ("core_support",), "rear": ("rear_end",),
    "front_corner_left": ("front_well_left",), "front_corner_right": ("front_well_right",),
    "rear_corner_left": ("rear_well_left",), "rear_corner_right": ("rear_well_right",),
    "flank_left": ("under_sill_left", "front_jack_left", "rear_jack_left"),
    "flank_right": ("under_sill_right", "front_jack_right", "rear_jack_right"),
}  # fmt: skip
NUMBERS_AT = {
    "front": NumberPlace.SCREEN, "bay": NumberPlace.STAMPED, "inside_front": NumberPlace.PLATE,
    "flank_left": NumberPlace.STICKER, "flank_right": NumberPlace.STICKER, "rear": NumberPlace.GLASS,
}  # where a number usually stands, and what it is there  # fmt: skip
LEAKS_AT = ("bay", "under_front", "under_rear")
FUNCTION, CABIN = "function_", "cabin_"
PAGES = {
    "marks": "outside/blemishes", "fit": "outside/fit", "glass": "outside/glass", "gear": "corners?at={}",
    "fluid": "engine/fluids", "signs": "engine/bay", "leak": "under", "addition": "outside/additions",
    "wheel": "corners?at={}", "mark": "papers/dates", "number": "papers/identity", "weak": "variant",
    "functions": "functions", "rust": "outside/rust", "zone": "under?zone={}", "cabin": "cabin",
}  # where there is more of a form than here  # fmt: skip
USUAL_MARKS = ("scratch", "chip", "dent", "ding", "scuff", "crease", "kerb", "stain")


@dataclass(frozen=True, slots=True)
class FluidLine:
    """What the form of a fluid needs: its key, its caution, and the colours it may have."""

    key: str
    caution: str
    colours: list[tuple[str, str]]


@dataclass(frozen=True, slots=True)
class Line:
    """One line: its letter (the key that opens it), what it is, the form in it, the place its entries hold for, the key
    its state is kept by, and what else the form needs.
    """

    letter: str
    name: str
    form: str
    place: str
    state: str
    more: Any = None

    @property
    def page(self) -> str:
        """The page with the whole of it, below the inspection's address; empty where the form leads there itself."""
        return PAGES.get(self.form, "").format(self.place)


_Said = tuple[str, str, str, str, Any]


def place_lines(reckoning: Reckoning, key: str) -> list[Line]:
    """Everything that can be entered at a place, in the order one looks at it."""
    coverage = _coverage(reckoning, key)
    found: list[_Said] = []
    for panel in coverage.panels:
        name = f"Marks: {reckoning.terms.panel(panel.panel)}"
        found.append((name, "marks", panel.panel, f"marks_{panel.panel}", None))
    found += [_part_line(reckoning, part) for part in coverage.parts if part.check.key in FORMS]
    for wheel in WHEELS:
        found += _corner_lines(reckoning, wheel) if any(part.part == wheel for part in coverage.parts) else []
    if things := _functions(reckoning, coverage):
        found.append((f"Functions: {len(things)}", "functions", key, "functions", things))
    found += _of_the_bay(reckoning) if key == "bay" else []
    if key != "desk":
        found.append(("Rust here", "rust", key, "rust", None))
        found.append(("A fitting it was not built with", "addition", key, "additions", None))
        carriers = [(one, row.name) for one, row in dated_marks().items()]
        found.append(("A dated mark here", "mark", key, "marks_dated", carriers))
    taken = reckoning.dossier[VariantDossier].taken
    for row in taken.body.weak if taken else ():
        if row.place == key:
            found.append((f"Known weak point: {row.name}", "weak", key, f"weak_{row.key}", row))
    if key in NUMBERS_AT:
        found.append(("Identity number here", "number", key, "numbers", NUMBERS_AT[key]))
    if key in LEAKS_AT:
        found.append(("A leak", "leak", key, "leaks", None))
    fitted = {one.part for place in reckoning.dossier.place_coverage() for one in place.parts}
    for zone in (one for one in BELOW.get(key, ()) if one in fitted):
        found.append((f"Below: {reckoning.terms.say(zones()[zone].name)}", "zone", zone, zone, None))
    return [Line(letter, *one) for letter, one in zip(_letters(len(found)), found, strict=True)]


def _part_line(reckoning: Reckoning, part: PartCoverage) -> _Said:
    place = part.part.replace("brake_", "wheel_") if part.check.key == "brakes" else part.part
    name = f"{part.check.name}: {reckoning.terms.place(part.part)}"
    form = FORMS[part.check.key] if _has_form(part) else "link"
    return name, form, place, part.part, _of_part(reckoning, part)


def _corner_lines(reckoning: Reckoning, wheel: str) -> list[_Said]:
    rows = [(row.key, reckoning.terms.say(row.name), row.tested) for row in corner_parts(reckoning, wheel)]
    name = reckoning.terms.place(wheel)
    return [
        (f"Running gear: {name}", "gear", wheel, f"gear_{wheel}", rows),
        (f"Wheel and fixings: {name}", "wheel", wheel, f"fixings_{wheel}", None),
    ]


def _of_the_bay(reckoning: Reckoning) -> list[_Said]:
    """Under the bonnet: each fluid, signs of work, and the parts that are graded there."""
    say, table = reckoning.terms.say, fluid_table()
    found: list[_Said] = []
    for key in reckoning.engine.fluid_keys:
        row = table["fluid"][key]
        colours = [(one, table["colour"][one]["words"]) for one in row["colours"]]
        name = say(row["name"])
        found.append((name, "fluid", key, f"fluid_{key}", FluidLine(key, row["caution"], colours)))
    found.append(("Signs of work and neglect", "signs", "bay", "engine_signs", None))
    rows = [(row.key, say(row.name), row.tested) for row in whole_parts(reckoning)]
    found.append(("Belts, hoses and other parts", "gear", "", "gear_whole", rows))
    return found


def _letters(count: int) -> list[str]:
    """A key for each of the first lines; those beyond the alphabet have none."""
    return [*ascii_lowercase[:count], *[""] * (count - len(ascii_lowercase))][:count]


def _coverage(reckoning: Reckoning, key: str) -> PlaceCoverage:
    return next(one for one in reckoning.dossier.place_coverage() if one.place == key)


def _has_form(part: PartCoverage) -> bool:
    """Whether a look has a form here; what is smelt, felt and counted inside has its own page."""
    return part.check.key != "cabin" or part.part.removeprefix(CABIN) in cabin_parts()


def _of_part(reckoning: Reckoning, part: PartCoverage) -> Any:
    """What the form of a part needs beside its place: whether it is a drum, the name of a part inside, or its page."""
    if not _has_form(part):
        return part.check.key
    if part.check.key == "brakes":
        axle = part.part.removeprefix("brake_").split("_")[0]
        return as_built(reckoning.dossier.mechanics, f"{axle}_brakes") == BrakeKind.DRUM.value
    return cabin_parts()[part.part.removeprefix(CABIN)].name if part.check.key == "cabin" else None


def _functions(reckoning: Reckoning, coverage: PlaceCoverage) -> list[tuple[str, str]]:
    """Things to try at a place that nobody tried yet, then those that were."""
    mine = [part for part in coverage.parts if part.check.key == "functions"]
    mine.sort(key=lambda part: part.state is not Covered.OPEN)
    keys = [part.part.removeprefix(FUNCTION) for part in mine]
    return [(one, reckoning.terms.say(equipment()[one].name)) for one in keys if one in equipment()]


def line_states(reckoning: Reckoning, key: str) -> dict[str, str]:
    """How far every line is, by the key of its state; what is counted is told as a number."""
    coverage, body = _coverage(reckoning, key), reckoning.dossier.body
    every = [part for place in reckoning.dossier.place_coverage() for part in place.parts]
    states = {part.part: _words(part.state) for part in every}
    for panel in coverage.panels:
        count = sum(panel.panel in (mark.place, *mark.body.also_on) for mark in body.blemishes.values())
        states[f"marks_{panel.panel}"] = str(count) if count else "none noted"
    for wheel in WHEELS:
        corner = wheel.removeprefix("wheel_")
        graded = sum(one.endswith(f":{corner}") for one in reckoning.dossier.corners.gear)
        states[f"gear_{wheel}"] = f"{graded} graded" if graded else "none graded"
        said = wheel in reckoning.dossier.corners.wheels
        states[f"fixings_{wheel}"] = "done ✓" if said else "none noted"
    states |= _states_of_the_bay(reckoning) if key == "bay" else {}
    leaks = [seen for looks in reckoning.dossier.under.leaks.values() for seen in looks if seen.entry.place == key]
    states["leaks"] = str(len(leaks)) if leaks else "none noted"
    added = sum(one.entry.place == key for one in body.additions)
    states["additions"] = str(added) if added else "none noted"
    mine = [part for part in coverage.parts if part.check.key == "functions"]
    states["functions"] = f"{sum(part.state is not Covered.OPEN for part in mine)}/{len(mine)}"
    papers = reckoning.dossier[PapersDossier]
    for name, every_one in (("marks_dated", papers.marks), ("numbers", papers.numbers)):
        count = sum(one.entry.place == key for one in every_one)
        states[name] = str(count) if count else "none noted"
    weak = reckoning.dossier[VariantDossier].weak
    states |= {f"weak_{one}": str(seen.body.result) for one, seen in weak.items()}
    rust = sum(one.place in (key, *places()[key].panels) for one in body.rust)
    return states | {"rust": str(rust) if rust else "none noted"}


def _states_of_the_bay(reckoning: Reckoning) -> dict[str, str]:
    """How far the lines under the bonnet are."""
    engine, gear = reckoning.dossier.engine, reckoning.dossier.corners.gear
    graded = sum(":" not in one for one in gear)
    looked = {key: "done ✓" if key in engine.fluids else "open" for key in reckoning.engine.fluid_keys}
    return {f"fluid_{key}": said for key, said in looked.items()} | {
        "engine_signs": "done ✓" if engine.bay else "open",
        "gear_whole": f"{graded} graded" if graded else "none graded",
    }


def _words(state: Covered) -> str:
    return {Covered.OPEN: "open", Covered.DONE: "done ✓", Covered.LIMITED: "limited"}.get(state, "–")


def rest_by_eye(reckoning: Reckoning, key: str) -> list[str]:
    """What is still due here and can be seen by eye: parts, and the place itself; what an instrument or a try tells
    stays open.
    """
    coverage = _coverage(reckoning, key)
    due = [part for part in coverage.parts if part.state is Covered.OPEN]
    parts = [part.part for part in due if part.check.key in BY_EYE and _has_form(part)]
    return parts + ([key] if coverage.looked is Covered.OPEN else [])


def lines_context(reckoning: Reckoning, key: str) -> dict[str, Any]:
    """What the lines of a place sheet show, with the choices of their forms."""
    terms = reckoning.terms
    states = line_states(reckoning, key)
    lines = place_lines(reckoning, key)
    there = twin_entries(reckoning, [line.place for line in lines if line.form in KINDS])
    twins = {
        line.state: twin_said(reckoning, line.form, there[KINDS[line.form][0], line.place])
        for line in lines
        if line.form in KINDS and (KINDS[line.form][0], line.place) in there
    }
    return {
        "lines": [(line, states.get(line.state, ""), twins.get(line.state)) for line in lines],
        "rest": rest_by_eye(reckoning, key),
        "depth": terms.scale("depth"),
        "distance": terms.scale("distance"),
        "pressure": terms.scale("pressure"),
        "marks": [one for one in body_kinds.BlemishKind if one.value in USUAL_MARKS],
        "other_marks": [one for one in body_kinds.BlemishKind if one.value not in USUAL_MARKS],
        "depths": list(body_kinds.Depth),
        "distances": list(body_kinds.ShowsFrom),
        "glass_faults": list(body_kinds.GlassFault),
        "closings": list(body_kinds.Closing),
        "rust_grades": list(body_kinds.RustGrade),
        **CHOICES,
        "others": [(one, terms.place(one)) for one in ("axle_front", "axle_rear", *WHEELS)],
        "exhausts": list(under_kinds.Exhaust),
        "pipe_states": list(under_kinds.Pipes),
        "works": list(body_kinds.Works),
        "every_panel": [(one, terms.panel(one)) for one in reckoning.dossier.vehicle.panel_keys()],
        "poor": POOR,
        "weak_results": list(WeakResult),
        "number_places": list(NumberPlace),
        "date_codes": list(Code),
        "cracks": list(corner_kinds.Cracks),
        "hoses": list(corner_kinds.Hose),
        "pipes": list(corner_kinds.Pipe),
        "linings": list(corner_kinds.Lining),
        "grades": list(Grade),
        "damages": list(under_kinds.UnderDamage),
        "wears": list(Wear),
        "levels": list(fluid_kinds.FluidLevel),
        "smells": list(fluid_kinds.Smell),
        "fluid_states": list(fluid_kinds.FluidState),
        "bay_signs": list(engine_kinds.BaySign),
        "leak_fluids": [under_kinds.LeakFluid.UNKNOWN, *list(under_kinds.LeakFluid)[:-1]],
        "stages": list(under_kinds.Stage)[1:],
        "codes": {one: panels()[one].code for one in places()[key].panels},
    }
