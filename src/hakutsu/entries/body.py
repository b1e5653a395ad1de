"""What is seen walking round the vehicle: blemishes and events, fit, glass and lamps, trim, rust, additions."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Self
from uuid import UUID

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import Several
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Millimetres = Annotated[float, Field(gt=0, le=6000)]
Unit = Annotated[float, Field(ge=0, le=1)]
Corner = tuple[Unit, Unit]


class BlemishKind(Keyed):
    """What a mark is."""

    CHIP = "chip"
    SCRATCH = "scratch"
    SCUFF = "scuff"
    DENT = "dent"
    DING = "ding"
    CREASE = "crease"
    HAIL = "hail", "hail field"
    CRACK = "crack"
    STRESS_CRACK = "stress_crack", "stress crack"
    KERB = "kerb", "kerb damage"
    PEEL = "peel"
    BUBBLE = "bubble"
    FADE = "fade"
    CHALKING = "chalking"
    PITTING = "pitting"
    TEAR = "tear"
    STAIN = "stain"
    BURN = "burn"
    WEAR = "wear"
    MISFIT = "misfit"
    MISSING = "missing", "missing part"
    MOISTURE = "moisture", "moisture inside"
    TOUCHED_WELL = "touched_well", "touched in before, well"
    TOUCHED_POORLY = "touched_poorly", "touched in before, poorly"
    GROWTH = "growth"
    SPOKES = "spokes", "loose or broken spokes"
    HUB_NUT = "hub_nut", "worn central nut or splines"
    UNIDENTIFIED = "unidentified"


class Depth(Keyed):
    """How deep a mark goes, by nail and eye."""

    UNKNOWN = "unknown", "not felt"
    ON_FILM = "on_film", "on the film"
    CLEAR = "clear", "in the clear"
    COLOUR = "colour", "to colour"
    PRIMER = "primer", "to primer"
    METAL = "metal", "to metal"
    THROUGH = "through"


class ShowsFrom(Keyed):
    """The farthest distance from which it shows."""

    YARD = "yard", "across the yard"
    ARM = "arm", "arm’s length"
    CLOSE = "close", "close, with lamp"


class Trial(Keyed):
    """What a trial spot, wiped or polished by hand, did to it."""

    NONE = "none", "none made"
    WIPED_OFF = "wiped_off", "it came off"
    LESS = "less", "it came out partly"
    STAYED = "stayed", "it stayed"


class Supply(Keyed):
    """How parts for a repair are to be had."""

    STOCKED = "stocked"
    SLOW = "slow", "slow to come"
    USED_ONLY = "used_only", "used only"


@entry_kind("body.blemish", at="somewhere", version=2, upgrades={1: to_keys})
class Blemish(Body):
    """One mark on a panel, wheel or other part.

    Sizes in mm; `count` of a group of like marks. `path` are places (u, v) on the panel: one, two for a line, three or
    more for the outline of a field. `on_edge` is an edge or crease of the panel; `seized` says that fixings are seized
    or corroded.
    """

    kind: BlemishKind
    length_mm: Millimetres | None = None
    width_mm: Millimetres | None = None
    count: Annotated[int, Field(ge=1, le=2000)] = 1
    depth: Depth = Depth.UNKNOWN
    shows_from: ShowsFrom = ShowsFrom.ARM
    path: Annotated[tuple[Corner, ...], Field(max_length=24)] = ()
    trial: Trial = Trial.NONE
    on_edge: bool = False
    supply: Supply = Supply.STOCKED
    seized: bool = False
    note: Note = ""

    @model_validator(mode="after")
    def _says_what_was_tried(self) -> Self:
        if self.kind is BlemishKind.UNIDENTIFIED and not self.note:
            raise ValueError("of an unidentified mark say what was tried: wipe, nail, lamp")
        return self


@entry_kind("body.event")
class Event(Body):
    """One contact that explains several blemishes, named by their entries: one finding, one priced job."""

    blemishes: Annotated[tuple[UUID, ...], Field(min_length=2, max_length=40)]
    what: Note = ""


@entry_kind("body.event_dropped")
class EventDropped(Body):
    """Blemishes that a rule would join have nothing to do with each other."""

    blemishes: Annotated[tuple[UUID, ...], Field(min_length=2, max_length=40)]


class Closing(Keyed):
    """How much a door or lid wants to close."""

    UNKNOWN = "unknown", "not tried"
    FALLS = "falls", "falls shut"
    LIGHT = "light", "light push"
    FIRM = "firm", "firm push"
    SLAM = "slam"


Gap = Annotated[float, Field(ge=0, le=40)]


@entry_kind("body.fit", at="panel", version=2, upgrades={1: to_keys})
class Fit(Body):
    """How a panel sits: gaps [mm] at its front, rear and top edge and how far it stands proud of its neighbour [mm].

    `taper_mm` is how much a gap opens along its length; `drop`: a door drops when opened; `play`: it lifts; `rubs`: its
    paint is rubbed through.
    """

    front_mm: Gap | None = None
    rear_mm: Gap | None = None
    top_mm: Gap | None = None
    taper_mm: Annotated[float, Field(ge=0, le=40)] | None = None
    step_mm: Annotated[float, Field(ge=-20, le=20)] | None = None
    closing: Closing = Closing.UNKNOWN
    drop: bool = False
    play: bool = False
    rubs: bool = False
    faults: Several[Annotated[str, StringConstraints(max_length=40)]] = ()
    note: Note = ""

    @property
    def measured(self) -> bool:
        """True when any gap was measured."""
        return any(gap is not None for gap in (self.front_mm, self.rear_mm, self.top_mm, self.taper_mm))


class RustGrade(StrEnum):
    """How far rust has gone."""

    STAIN = "stain"
    SURFACE = "surface"
    SCALE = "scale"
    PITTED = "pitted"
    PERFORATED = "perforated"


class Coating(Keyed):
    """What lies on the metal there."""

    UNKNOWN = "unknown", "not told"
    FACTORY = "factory"
    LATER = "later"
    FRESH = "fresh", "fresh on a fresh wash"


@entry_kind("body.rust", at="somewhere", version=2, upgrades={1: to_keys})
class Rust(Body):
    """Rust at a place: grade, size [mm], whether it is in what carries, and what coats the metal there."""

    grade: RustGrade
    where: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    size_mm: Millimetres | None = None
    structural: bool = False
    other_side: Annotated[str, StringConstraints(max_length=60)] = ""
    coating: Coating = Coating.UNKNOWN
    note: Note = ""

    @property
    def wants_other_side(self) -> bool:
        """True of rust that may go through and was seen from one side only."""
        return self.grade in (RustGrade.SCALE, RustGrade.PITTED, RustGrade.PERFORATED) and not self.other_side

    @property
    def forbids_lifting(self) -> bool:
        """True of perforated rust in what carries: nobody lifts there or goes under it; a licensed test decides."""
        return self.structural and self.grade is RustGrade.PERFORATED

    def causes(self) -> tuple[str, ...]:
        return ("sill_perforated",) if self.forbids_lifting else ()

    def cause_note(self) -> str:
        return self.where


class GlassFault(Keyed):
    """What is wrong with a pane or a lamp."""

    NONE = "none", "nothing wrong"
    CHIP = "chip"
    CRACK = "crack"
    SCRATCH = "scratch"
    DELAMINATION = "delamination"
    WIPER_ARC = "wiper_arc", "wiper arc"
    CRAZING = "crazing"
    HAZE = "haze"
    MOISTURE = "moisture", "moisture inside"
    BROKEN_MOUNT = "broken_mount", "broken mount"
    MISSING = "missing"
    SLOW = "slow", "moves slowly or binds"
    HEATER = "heater", "heated lines dead"
    SEAL = "seal", "seal perished"
    CLOUDED = "clouded", "clouded or creased"
    DRAIN = "drain", "drain blocked"
    TORN = "torn"
    FRAME = "frame", "frame worn"
    PATTERN = "pattern", "wrong pattern"


class Tint(Keyed):
    """How a pane is darkened."""

    NONE = "clear"
    MADE_IN = "made_in", "made in"
    FILM = "film"
    BUBBLED = "bubbled", "film with bubbles"


@entry_kind("body.glass", version=2, upgrades={1: to_keys})
class Glass(Body):
    """A pane or a lamp: what is wrong with it, its size [mm], its date mark, and for panes tint and light [%].

    `in_sight` is the zone in which the driver looks through it; `along_travel` a scratch in the way a pane moves.
    """

    fault: GlassFault = GlassFault.NONE
    size_mm: Millimetres | None = None
    in_sight: bool = False
    along_travel: bool = False
    date_mark: Annotated[str, StringConstraints(strip_whitespace=True, max_length=20)] = ""
    tint: Tint = Tint.NONE
    light_percent: Annotated[float, Field(ge=0, le=100)] | None = None
    original: bool | None = None
    note: Note = ""


class Material(Keyed):
    """What a piece of trim is made of."""

    PLATED = "plated"
    STAINLESS = "stainless"
    ALUMINIUM = "aluminium"
    PLASTIC = "plastic"
    LETTERS = "letters", "letters or stripes"


class TrimState(Keyed):
    """How a piece of bright work, plastic or a badge is."""

    GOOD = "good"
    HAZED = "hazed"
    FINE_PITS = "fine_pits", "fine pits"
    RUSTED_PITS = "rusted_pits", "pits with rust"
    LIFTING = "lifting"
    BARE = "bare"
    DULLER = "duller", "duller than its neighbours"
    DENTED = "dented", "dented or cracked"
    STANDS_OFF = "stands_off", "stands off"
    CHALKED = "chalked"
    DRIED = "dried"
    DRESSED = "dressed", "dressed to look fresh"
    WORN = "worn"
    MISSING = "missing"
    GHOST = "ghost", "ghost of a removed one"
    WRONG = "wrong", "wrong for what is under it"


class Origin(Keyed):
    """Where a piece comes from."""

    UNKNOWN = "unknown", "not known"
    ORIGINAL = "original"
    RENEWED = "renewed", "renewed or re-plated"
    REPRODUCTION = "reproduction"


@entry_kind("body.trim", version=2, upgrades={1: to_keys})
class Trim(Body):
    """A piece of bright work, plastic or a badge: material, origin and state, apart from each other."""

    state: TrimState
    material: Material = Material.PLASTIC
    origin: Origin = Origin.UNKNOWN
    note: Note = ""


class Works(Keyed):
    """Whether something works."""

    UNKNOWN = "unknown", "not tried"
    YES = "works"
    NO = "no", "does not work"


@entry_kind("body.addition", version=2, upgrades={1: to_keys})
class Addition(Body):
    """A fitting the vehicle was not built with: what, by whom, whether it works and goes with it, how it was put in."""

    what: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    by_whom: Note = ""
    works: Works = Works.UNKNOWN
    in_sale: bool | None = None
    approval: Annotated[str, StringConstraints(max_length=60)] = ""
    original_present: bool | None = None
    holes: Annotated[int, Field(ge=0, le=500)] = 0
    poor: Several[Annotated[str, StringConstraints(max_length=40)]] = ()
    note: Note = ""
