"""Entries in order → the present state of one vehicle's inspection. Stations are found by walking this room."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date
from functools import cached_property
from importlib import import_module
from pkgutil import iter_modules
from typing import Any, TypeVar
from uuid import UUID

from hakutsu.dossier.body import BodyDossier
from hakutsu.dossier.cabin import CabinDossier
from hakutsu.dossier.claims import Claims
from hakutsu.dossier.corners import CornersDossier
from hakutsu.dossier.coverage import Covered, parts_covered
from hakutsu.dossier.day import DayDossier
from hakutsu.dossier.engine import EngineDossier
from hakutsu.dossier.facts import Facts
from hakutsu.dossier.film import FilmDossier, KeptReading
from hakutsu.dossier.film_coverage import PanelCoverage, film_coverage
from hakutsu.dossier.folding import UNTOUCHED, Gathering, gather, parted, struck_ids, versions
from hakutsu.dossier.follow_up import FollowUps
from hakutsu.dossier.functions import FunctionsDossier
from hakutsu.dossier.general import General, Kept
from hakutsu.dossier.hazards import HazardsDossier, KeptHazard, KeptStep
from hakutsu.dossier.memo import Leaf, Memo, glance, kept, note
from hakutsu.dossier.money import MoneyDossier
from hakutsu.dossier.opening import Opening, Remarks
from hakutsu.dossier.pictures import Pictures
from hakutsu.dossier.round import PlaceCoverage, StationCoverage, coverage_by_place, coverage_by_station
from hakutsu.dossier.timers import KeptTimer, Timers
from hakutsu.dossier.touched import Touched
from hakutsu.dossier.under import UnderDossier
from hakutsu.entries.envelope import Entry, Unread
from hakutsu.entries.settings import Overrides
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.vocabulary import SteeringSide, Unit

__all__ = [
    "BodyDossier",
    "CabinDossier",
    "Claims",
    "CornersDossier",
    "Covered",
    "DayDossier",
    "Dossier",
    "EngineDossier",
    "Facts",
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
    "MoneyDossier",
    "Opening",
    "PanelCoverage",
    "PlaceCoverage",
    "Timers",
    "UnderDossier",
    "gather_dossier",
]


StateT = TypeVar("StateT")
ENTRIES = "entries"


class Dossier:
    """One inspection as it stands: every entry (struck or not), and the state of each station by its class.

    One that goes on from `before` takes over what it computed where that rests on nothing that changed since.
    """

    def __init__(
        self,
        inspection: UUID,
        entries: tuple[Entry, ...],
        struck: frozenset[UUID],
        states: Gathering,
        unread: tuple[Unread, ...] = (),
        before: Dossier | None = None,
    ) -> None:
        self.inspection = inspection
        self._entries = entries
        self._struck = struck
        self._unread = unread
        self._states = states
        self._versions: dict[type[Any], int] = (
            versions(states, before._states, before._versions) if before else versions(states)
        )
        known = before.__dict__.get("by_id", {}) if before else {}
        self._known_before = known, entries[len(known) :]
        self.memo: Memo = Memo(self.stamp, before.memo if before else None)

    key = "dossier"

    def __eq__(self, other: object) -> bool:
        """Equal where all its stations are."""
        mine = (self.inspection, self._entries, self._struck, self._unread, self._states)
        return isinstance(other, Dossier) and mine == (
            other.inspection, other._entries, other._struck, other._unread, other._states
        )  # fmt: skip

    __hash__ = None  # type: ignore[assignment]  # holds what folds wrote

    def __getitem__(self, station: type[StateT]) -> StateT:
        """The state of a station, by its class; an empty one where nothing was written down for it."""
        note(station, self._versions.get(station, UNTOUCHED))
        return self._states.part(station)

    def stamp(self, leaf: Leaf) -> Any:
        """How something that can be read stands: equal in two dossiers of an inspection where it is the same."""
        if isinstance(leaf, type):
            return self._versions.get(leaf, UNTOUCHED)
        if leaf == ENTRIES:
            return self._entries[-1].hash if self._entries else "", len(self._unread)
        if isinstance(leaf, tuple):
            raise LookupError(f"a dossier knows no {leaf}")
        return getattr(self, leaf)

    def with_more(self, more: Sequence[Entry], unread: Sequence[Unread] = ()) -> Dossier:
        """The same inspection with the entries that came since; what they do not touch is neither folded nor reckoned
        again.
        """
        readable, more_unread = parted(more)
        entries = (*self._entries, *readable)
        every_unread = tuple(sorted((*self._unread, *unread, *more_unread), key=lambda one: one.seq))
        if any(entry.strikes is not None for entry in more):
            struck = struck_ids([*self._entries, *more])
            states = gather(entries, struck)
        else:
            struck = set(self._struck)
            states = gather(readable, struck, self._states)
        states.settled(self._states)
        return Dossier(self.inspection, entries, frozenset(struck), states, every_unread, self)

    @property
    def entries(self) -> tuple[Entry, ...]:
        """Every entry that can be read, struck or not, in order."""
        note(ENTRIES, self.stamp(ENTRIES))
        return self._entries

    @property
    def struck(self) -> frozenset[UUID]:
        """Ids of what was taken back."""
        note(ENTRIES, self.stamp(ENTRIES))
        return self._struck

    @property
    def unread(self) -> tuple[Unread, ...]:
        """Entries this version cannot read: shown in the logbook, and nowhere else."""
        note(ENTRIES, self.stamp(ENTRIES))
        return self._unread

    @property
    def first(self) -> Entry:
        """The entry it begins with, which never changes."""
        return self._entries[0]

    @property
    def last_hash(self) -> str:
        """Hash of the last entry that can be read."""
        return self._entries[-1].hash if self._entries else ""

    @cached_property
    def by_id(self) -> Mapping[UUID, Entry]:
        """Every entry by its id. What is asked of one by name does not change, so that asking is not noted."""
        known, more = self._known_before
        return {**known, **{entry.id: entry for entry in more}}

    @glance
    def last_day(self) -> date:
        """The day of the last entry."""
        return self._entries[-1].at.date()

    @glance
    def gauge_unit(self) -> Unit:
        """The unit the gauge in use shows."""
        return self[FilmDossier].gauge.unit

    @glance
    def own_settings(self) -> Overrides:
        """Settings of this inspection alone."""
        return self[Opening].settings

    @glance
    def steering(self) -> SteeringSide | None:
        """The side the steering wheel is on; none without a vehicle."""
        vehicle = self[Opening].vehicle
        return vehicle.steering if vehicle else None

    @property
    def opening(self) -> Opening:
        """Key facts and brief."""
        return self[Opening]

    @property
    def facts(self) -> Facts:
        """What drives, carries and stops the vehicle."""
        return self[Facts]

    @property
    def film(self) -> FilmDossier:
        """The film survey."""
        return self[FilmDossier]

    @property
    def general(self) -> General:
        """What was said at each place."""
        return self[General]

    @property
    def hazards(self) -> HazardsDossier:
        """Stand-downs and steps."""
        return self[HazardsDossier]

    @property
    def day(self) -> DayDossier:
        """Arrival, conditions and walk."""
        return self[DayDossier]

    @property
    def timers(self) -> Timers:
        """Timers."""
        return self[Timers]

    @property
    def claims(self) -> Claims:
        """What was claimed."""
        return self[Claims]

    @property
    def follow_ups(self) -> FollowUps:
        """Remarks and what became of them."""
        return self[FollowUps]

    @property
    def body(self) -> BodyDossier:
        """What was seen outside."""
        return self[BodyDossier]

    @property
    def remarks(self) -> Remarks:
        """What was seen at no station, and what was done."""
        return self[Remarks]

    @property
    def pictures(self) -> Pictures:
        """Pictures."""
        return self[Pictures]

    @property
    def corners(self) -> CornersDossier:
        """What was seen at the corners."""
        return self[CornersDossier]

    @property
    def engine(self) -> EngineDossier:
        """The engine run, air, battery and pack."""
        return self[EngineDossier]

    @property
    def functions(self) -> FunctionsDossier:
        """Functions and lamps."""
        return self[FunctionsDossier]

    @property
    def under(self) -> UnderDossier:
        """The underside and leaks."""
        return self[UnderDossier]

    @property
    def cabin(self) -> CabinDossier:
        """The cabin."""
        return self[CabinDossier]

    @property
    def money(self) -> MoneyDossier:
        """The negotiation, and proofs."""
        return self[MoneyDossier]

    @property
    def mechanics(self) -> Mechanics:
        """Mechanical facts of the vehicle."""
        return self.facts.mechanics

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
        return list(self._by_place)

    def station_coverage(self) -> list[StationCoverage]:
        """Coverage of every station; together they expect what the places expect."""
        return list(self._by_station)

    def film_coverage(self) -> list[PanelCoverage]:
        """Coverage of the film survey in walk order."""
        return list(self._of_film)

    # A page asks for each of these several times.
    @kept
    def _by_place(self) -> list[PlaceCoverage]:
        return coverage_by_place(
            self.day.places(), self._of_film, self.general, parts_covered(self), self[Touched].places
        )  # fmt: skip

    @kept
    def _by_station(self) -> list[StationCoverage]:
        return coverage_by_station(self._by_place, self.general, len(self.vehicle.not_fitted))

    @kept
    def _of_film(self) -> list[PanelCoverage]:
        return film_coverage(self.vehicle, self.film, self.opening.brief.protocol)


def gather_dossier(inspection: UUID, entries: Sequence[Entry], unread: Sequence[Unread] = ()) -> Dossier:
    """Fold the entries of one inspection, in the order of its logbook; `unread` are those the logbook could not read.

    An entry whose body this version cannot read joins them: it says nothing, and takes back what it struck.
    """
    struck = struck_ids(entries)
    readable, more = parted(entries)
    more_unread = tuple(sorted((*unread, *more), key=lambda one: one.seq))
    return Dossier(inspection, tuple(readable), frozenset(struck), gather(readable, struck), more_unread)


for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")
