"""Entries in order → the present state of one vehicle's inspection."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from hakutsu.dossier.body import BodyDossier
from hakutsu.dossier.cabin import CabinDossier
from hakutsu.dossier.claims import Claims
from hakutsu.dossier.corners import CornersDossier
from hakutsu.dossier.coverage import Covered, PanelCoverage, film_coverage
from hakutsu.dossier.day import DayDossier
from hakutsu.dossier.engine import EngineDossier
from hakutsu.dossier.film import FilmDossier, KeptReading
from hakutsu.dossier.folding import gather, parted, struck_ids
from hakutsu.dossier.follow_up import FollowUps
from hakutsu.dossier.functions import FunctionsDossier
from hakutsu.dossier.general import General, Kept
from hakutsu.dossier.hazards import HazardsDossier, KeptHazard, KeptStep
from hakutsu.dossier.opening import Opening
from hakutsu.dossier.pictures import Pictures
from hakutsu.dossier.round import (
    PlaceCoverage,
    StationCoverage,
    cabin_coverage,
    corner_parts,
    coverage_by_place,
    coverage_by_station,
    engine_parts,
    function_parts,
    outside_parts,
    under_parts,
)
from hakutsu.dossier.timers import KeptTimer, Timers
from hakutsu.dossier.under import UnderDossier
from hakutsu.entries.envelope import Entry, Unread
from hakutsu.vehicle.description import VehicleDescription

__all__ = [
    "BodyDossier",
    "CabinDossier",
    "Claims",
    "CornersDossier",
    "Covered",
    "DayDossier",
    "Dossier",
    "EngineDossier",
    "FilmDossier",
    "FollowUps",
    "FunctionsDossier",
    "General",
    "HazardsDossier",
    "Kept",
    "KeptHazard",
    "KeptReading",
    "KeptStep",
    "KeptTimer",
    "Opening",
    "PanelCoverage",
    "PlaceCoverage",
    "Timers",
    "UnderDossier",
    "gather_dossier",
]


@dataclass(frozen=True, slots=True)
class Dossier:
    """One inspection as it stands, every entry (struck or not) still at hand."""

    inspection: UUID
    entries: tuple[Entry, ...]
    struck: frozenset[UUID]
    opening: Opening
    film: FilmDossier
    general: General
    hazards: HazardsDossier
    day: DayDossier
    timers: Timers
    claims: Claims
    follow_ups: FollowUps
    body: BodyDossier
    pictures: Pictures
    corners: CornersDossier
    engine: EngineDossier
    functions: FunctionsDossier
    under: UnderDossier
    cabin: CabinDossier
    unread: tuple[Unread, ...] = ()  # entries this version cannot read: shown in the logbook, and nowhere else

    @property
    def vehicle(self) -> VehicleDescription:
        """The vehicle's key facts.

        Raises
        ------
        LookupError
            If the logbook holds no vehicle yet.
        """
        if self.opening.vehicle is None:
            raise LookupError("this inspection has no vehicle yet")
        return self.opening.vehicle

    def place_coverage(self) -> list[PlaceCoverage]:
        """Coverage of every place in walk order."""
        protocol = self.opening.brief.protocol
        outside = [
            *outside_parts(self.vehicle, self.body, self.general, protocol),
            *corner_parts(self.vehicle, self.corners, self.general, protocol),
            *under_parts(self.under, self.corners.mechanics.separate_frame, self.general, protocol),
            *engine_parts(self.engine, str(self.corners.mechanics.power), self.general, protocol),
            *cabin_coverage(self.cabin, str(self.corners.mechanics.power), self.general, protocol),
            *function_parts(self.vehicle, self.functions, self.general, protocol),
        ]
        return coverage_by_place(self.day.places(), self.film_coverage(), self.general, outside)

    def station_coverage(self) -> list[StationCoverage]:
        """Coverage of every station; together they expect what the places expect."""
        return coverage_by_station(self.place_coverage(), self.general, len(self.vehicle.not_fitted))

    def film_coverage(self) -> list[PanelCoverage]:
        """Coverage of the film survey in walk order."""
        return film_coverage(self.vehicle, self.film, self.opening.brief.protocol)


def gather_dossier(inspection: UUID, entries: Sequence[Entry], unread: Sequence[Unread] = ()) -> Dossier:
    """Fold the entries of one inspection, in the order of its logbook; `unread` are those the logbook could not read.

    An entry whose body this version cannot read joins them: it says nothing, and takes back what it struck.
    """
    struck = struck_ids(entries)
    readable, more = parted(entries)
    gathering = gather(readable, struck)
    return Dossier(
        inspection,
        tuple(readable),
        frozenset(struck),
        gathering.station(Opening),
        gathering.station(FilmDossier),
        gathering.station(General),
        gathering.station(HazardsDossier),
        gathering.station(DayDossier),
        gathering.station(Timers),
        gathering.station(Claims),
        gathering.station(FollowUps),
        gathering.station(BodyDossier),
        gathering.station(Pictures),
        gathering.station(CornersDossier),
        gathering.station(EngineDossier),
        gathering.station(FunctionsDossier),
        gathering.station(UnderDossier),
        gathering.station(CabinDossier),
        tuple(sorted((*unread, *more), key=lambda one: one.seq)),
    )
