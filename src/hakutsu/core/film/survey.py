"""What the film rules work on: observations of one car, free of where they came from."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property

from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import CoverKind, Finish, Paint, ReadingStatus, Substrate


@dataclass(frozen=True, slots=True)
class CueLooked:
    """A cue that was looked for on a panel: there or not. What was not looked for is simply not listed.

    `share` is how far one that is there is there, where it was measured; `words` tell it in place of its name.
    """

    kind: str
    there: bool
    share: float = 1.0
    words: str = ""


class State(StrEnum):
    """What happened to a panel's film."""

    ORIGINAL = "original"
    THINNED = "thinned"
    BLENDED = "blended"
    REFINISHED = "refinished"
    REBUILT = "rebuilt"
    FILLED = "filled"


STATES = tuple(State)


@dataclass(frozen=True, slots=True)
class Observation:
    """One reading of the gauge.

    `value_um` is the number shown [µm] (absent for `none`, maybe for `over`), `step_um` and `limit_um` the display
    step and the range limit [µm] where known, `u` and `v` the position on the panel (0 to 1), `key` whatever the
    caller wants to find the reading again by, `repeats` the key of the reading this one repeats within 20 mm;
    `confirmed` says that repeats at the same spot agreed, so that it cannot be a misread; `between_um` makes it a
    magnet's grade: film between two thicknesses [µm]; `extra_sd_um` is uncertainty [µm] on top of the gauge's own;
    `simulated` readings come from a stand-in gauge and say nothing about a real vehicle.
    """

    panel: str
    value_um: float | None
    status: ReadingStatus = ReadingStatus.OK
    u: float | None = None
    v: float | None = None
    step_um: float | None = None
    limit_um: float | None = None
    substrate: Substrate = Substrate.STEEL
    edge: bool = False
    key: object = None
    repeats: object = None
    confirmed: bool = False
    between_um: tuple[float, float] | None = None
    extra_sd_um: float = 0.0
    simulated: bool = False

    @property
    def censored(self) -> bool:
        """True when the film is known only to be at or above the limit, also for a number at or above it."""
        if self.status is ReadingStatus.OVER:
            return True
        at_limit = self.value_um is not None and self.limit_um is not None and self.value_um >= self.limit_um
        return self.status is ReadingStatus.OK and at_limit

    @property
    def counts(self) -> bool:
        """True when the reading says something about film thickness and enters the model."""
        return self.status is not ReadingStatus.NONE and not self.edge


@dataclass(frozen=True, slots=True)
class Cover:
    """Film or wrap felt for on a panel: which, and its thickness [µm] where known."""

    kind: CoverKind
    thickness_um: float | None = None

    @property
    def hides(self) -> bool:
        """True when something is there and its thickness is not known, so that the paint cannot be measured."""
        return self.kind in (CoverKind.PROTECTION_FILM, CoverKind.WRAP) and self.thickness_um is None


@dataclass(frozen=True, slots=True)
class HonestFilm:
    """Film of a vehicle's untouched panels: the middle of their medians [µm], their spread between panels (standard
    deviation of the logarithm) and within a panel (standard deviation over mean).
    """

    level_um: float
    spread: float
    unevenness: float


@dataclass(frozen=True)
class FilmSurvey:
    """All observations of one car, with its declared finish.

    `substrates` names every panel of the survey, also those never read. `cues` are those looked for on each panel,
    `magnets` a magnet's grades as intervals, `covers` what was felt for on top of the paint. `paint` is how the colour
    is built up. `unreachable` panels are never advised as the next to read. `own_vehicles` are the
    inspector's finished vehicles of the same make and colour; none where nothing is to be learnt from them.
    `mapped` is the share of a panel that a repair mapped by hand covers.
    """

    id: str
    observations: Sequence[Observation]
    finish: Finish = Finish.FACTORY
    substrates: Mapping[str, Substrate] = field(default_factory=dict)
    cues: Mapping[str, Sequence[CueLooked]] = field(default_factory=dict)
    magnets: Sequence[Observation] = ()
    covers: Mapping[str, Cover] = field(default_factory=dict)
    paint: Paint = Paint.UNKNOWN
    unreachable: frozenset[str] = frozenset()
    own_vehicles: tuple[HonestFilm, ...] = ()
    mapped: Mapping[str, float] = field(default_factory=dict)

    def metal_panels(self) -> list[str]:
        """Panels a gauge can read, in the order of the panel table.

        A panel of unknown substrate counts as metal once a gauge has read it.
        """
        read = {o.panel for o in self.observations if o.status is not ReadingStatus.NONE}
        named = {
            key: kind.is_metal or (kind is Substrate.UNKNOWN and key in read) for key, kind in self._panels.items()
        }
        return [key for key in panels() if named.get(key)]

    def all_panels(self) -> list[str]:
        """All panels of the survey, in the order of the panel table."""
        named = self._panels
        return [key for key in panels() if key in named]

    def substrate(self, panel: str) -> Substrate:
        """Substrate of a panel: as stated, else the first one met among its readings."""
        return self._panels[panel]

    @cached_property
    def _panels(self) -> dict[str, Substrate]:
        found = dict(self.substrates)
        for observation in sorted(self.observations, key=lambda o: (o.panel, not o.substrate.is_metal, o.substrate)):
            found.setdefault(observation.panel, observation.substrate)
        return found

    def every_on(self, panel: str) -> list[Observation]:
        """All observations of one panel, in the order of the survey."""
        return self._every.get(panel, [])

    @cached_property
    def _every(self) -> dict[str, list[Observation]]:
        found: dict[str, list[Observation]] = {}
        for observation in self.observations:
            found.setdefault(observation.panel, []).append(observation)
        return found

    def on_panel(self, panel: str) -> list[Observation]:
        """Observations of one panel that enter the model."""
        return self._counted.get(panel, [])

    @cached_property
    def _counted(self) -> dict[str, list[Observation]]:
        every = {panel: [one for one in read if one.counts] for panel, read in self._every.items()}
        return {panel: counted for panel, counted in every.items() if counted}
