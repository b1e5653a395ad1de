"""What the film analysis says: baselines, panels, where next, the story; small values without rules."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.film.parameters import Side, parameters
from hakutsu.core.film.survey import Observation, State
from hakutsu.core.film.verdicts.schools import Judged, School
from hakutsu.core.film.verdicts.spots import SpotVerdict, Surprise, film_um
from hakutsu.vehicle.vocabulary import Substrate

LIKELY = 0.7


@dataclass(frozen=True, slots=True)
class Baseline:
    """The car's own film [µm] with its 80 % interval: of the factory, or of a respray of the whole car."""

    median: float
    low: float
    high: float
    kind: str
    probability: float
    anchored_on: tuple[str, ...] = ()
    weak: bool = False


@dataclass(frozen=True, slots=True)
class FilledShare:
    """Share of a panel's area under more than 150 µm of filler, given that there is filler; 80 % interval."""

    median: float
    low: float
    high: float


@dataclass(frozen=True)
class FillerMap:
    """Probability of more than 150 µm of filler over a panel, given that there is filler: rows along v, columns along
    u, cell centres at (i + ½)/n.
    """

    chance: NDArray[np.float64]

    def at(self, u: float, v: float) -> float:
        """Probability at a place."""
        rows, columns = self.chance.shape
        return float(self.chance[min(int(v * rows), rows - 1), min(int(u * columns), columns - 1)])

    def __eq__(self, other: object) -> bool:
        return isinstance(other, FillerMap) and np.array_equal(self.chance, other.chance)


@dataclass(frozen=True, slots=True)
class Headroom:
    """How much clear coat polishing may still take [µm], none where that is not known, why, and how likely that much
    is there.
    """

    um: float | None
    because: str
    chance: float | None = None


@dataclass(frozen=True, slots=True)
class Weights:
    """Weight [bits] for "painted again" against "never painted again": of the declared finish alone, of the rest of
    the car, of the panel's own readings, and of its cues. They add up to the log2 odds.
    """

    declared: float
    rest_of_car: float
    readings: float
    cues: float


@dataclass(frozen=True, slots=True)
class PanelFilm:
    """What is said about one panel; `probabilities` and `state` are none where no gauge reads.

    `thin_um` is the panel's lower quartile [µm]. `filled_share` and `filler_map` are given once filler has a chance of
    5 %; `changes_towards` is the likeliest side of a blended or thinned panel with its probability, where positions
    tell.
    """

    panel: str
    substrate: Substrate
    readings: int
    state: State | None
    probabilities: dict[State, float] | None
    words: str
    reasons: tuple[str, ...]
    judged: Judged | None
    median_um: float | None = None
    thin_um: float | None = None
    filled_share: FilledShare | None = None
    filler_map: FillerMap | None = None
    changes_towards: tuple[Side, float] | None = None
    headroom: Headroom | None = None
    weights: Weights | None = None
    not_measurable: bool = False

    @property
    def settled(self) -> bool:
        """True when the likeliest state is likely enough to be named alone."""
        return self.probabilities is not None and self.state is not None and self.probabilities[self.state] >= LIKELY

    def verdict(self, observation: Observation) -> SpotVerdict | None:
        """Filler, where the panel is likeliest filled and filler likely reaches that spot; edge, where marked so.

        Without a position a reading more than 150 µm above the panel's thinner quarter counts as filler.
        """
        if observation.edge:
            return SpotVerdict.EDGE
        if self.state is not State.FILLED or self.filler_map is None or not observation.counts:
            return None
        if observation.u is None or observation.v is None:
            least = parameters().filled.counts_from_um
            thick = self.thin_um is not None and film_um(observation) - self.thin_um > least
            return SpotVerdict.FILLER if thick else None
        return SpotVerdict.FILLER if self.filler_map.at(observation.u, observation.v) >= 0.5 else None

    @property
    def altered(self) -> float:
        """Probability that the panel was painted again in part or whole; 0 where no gauge reads."""
        if self.probabilities is None:
            return 0.0
        return 1 - self.probabilities[State.ORIGINAL] - self.probabilities[State.THINNED]


@dataclass(frozen=True, slots=True)
class NextSpot:
    """Where a reading is expected to tell most: gain [bits], and how likely the panel's words stay the same."""

    panel: str
    u: float
    v: float
    gain_bits: float
    words_same: float


@dataclass(frozen=True, slots=True)
class ZoneStory:
    """How likely a zone was repaired, with what speaks for it and against it."""

    zone: str
    name: str
    probability: float
    speaks_for: tuple[str, ...]
    speaks_against: tuple[str, ...]


@dataclass(frozen=True)
class FilmAnalysis:
    """The whole survey; `alternative` is the other baseline when neither is likelier than 0.8, `by_substrate` the
    level of panels on another metal than most.
    """

    survey: str
    school: School
    baseline: Baseline | None
    alternative: Baseline | None
    panels: tuple[PanelFilm, ...]
    surprises: tuple[Surprise, ...]
    warnings: tuple[str, ...] = field(default=())
    story: tuple[ZoneStory, ...] = field(default=())
    by_substrate: Mapping[Substrate, Baseline] = field(default_factory=dict)

    @property
    def open_surprises(self) -> list[Surprise]:
        """Surprising readings whose repeats are still missing."""
        return [surprise for surprise in self.surprises if surprise.verdict is SpotVerdict.OPEN]

    def panel(self, key: str) -> PanelFilm | None:
        """One panel's result by key."""
        return next((panel for panel in self.panels if panel.panel == key), None)
