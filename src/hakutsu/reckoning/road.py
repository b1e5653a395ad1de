"""What the rules make of the road test, and of what is looked at after it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar
from uuid import UUID

from hakutsu.core.corners.sizes import tyre_size
from hakutsu.core.corners.tyres import placard_size
from hakutsu.core.findings import Finding
from hakutsu.core.functions import Status
from hakutsu.core.road.after import Again, Since, after_list
from hakutsu.core.road.measured import (
    HubPair,
    clutch_found,
    clutch_grade,
    dials_found,
    distances_found,
    hub_pairs,
    hubs_found,
    vibration_found,
)
from hakutsu.core.road.noticed import Elsewhere, graded, noticed_found, told_more
from hakutsu.core.road.tables import road_table
from hakutsu.dossier.body import Seen
from hakutsu.dossier.memo import kept
from hakutsu.dossier.road import RoadDossier, drove, road_subjects_here
from hakutsu.dossier.scan import ScanDossier
from hakutsu.entries.corners import Grade
from hakutsu.entries.registry import Body
from hakutsu.entries.road import DriveDone, Noticed, RestFine
from hakutsu.reckoning.station import StationRules
from hakutsu.vehicle.mechanics import Drive, Power
from hakutsu.vehicle.road import Level, Subject, road_signs


@dataclass(frozen=True, slots=True)
class SubjectStands:
    """How a subject of the road test stands: what was noticed, what was said of the rest, the level that rests on, and
    whether the subject was reached.
    """

    subject: Subject
    noticed: tuple[Seen[Noticed], ...]
    rest: Seen[RestFine] | None
    rest_level: Level | None
    reached: bool

    @property
    def fine(self) -> bool:
        """Whether the rest was said to be fine."""
        return self.rest is not None and not self.rest.body.doubtful

    @property
    def doubtful(self) -> bool:
        """Whether the road was too bad to tell."""
        return self.rest is not None and self.rest.body.doubtful


class RoadReckoned(StationRules):
    """Findings of the road test, bound to the level that was reached."""

    key: ClassVar[str] = "road"

    @property
    def _road(self) -> RoadDossier:
        return self._reckoning.dossier[RoadDossier]

    @property
    def level(self) -> Level | None:
        """The farthest level reached; none before a drive."""
        return self._road.level

    @property
    def drives(self) -> list[Seen[DriveDone]]:
        """Every drive, and every try that came to none."""
        return self._road.drives

    def findings(self) -> list[Finding]:
        """Everything noticed and measured, each with its entries."""
        measured = self.measured_found
        elsewhere = self._elsewhere(measured)
        told = []
        for seen in self._noticed:
            level = self._road.level_at(seen.entry)
            told.append(noticed_found(seen.body, seen.entry.place, level, elsewhere).seen_in(seen.entry.id))
        return [*told, *measured]

    @kept
    def measured_found(self) -> list[Finding]:
        """What clutch, dials, distances, hubs and records say."""
        road, told = self._road, list[Finding]()
        if road.clutch is not None:
            told += [one.seen_in(road.clutch.entry.id) for one in clutch_found(road.clutch.body)]
        dials = [one.entry.id for one in road.dials] or self._tyre_entries
        told += [
            one.seen_in(*dials)
            for one in dials_found([one.body for one in road.dials], self._reckoning.rules, self.tyres_roll)
            if dials
        ]  # fmt: skip
        counted = [one.entry.id for one in road.distances] + [one.entry.id for one in road.drives]
        far = distances_found([one.body for one in road.distances], [one.body for one in road.drives])
        told += [one.seen_in(*counted) for one in far]
        hubs = [one.entry.id for every in road.hubs.values() for one in every]
        told += [one.seen_in(*hubs) for one in hubs_found(self.hubs)]
        for seen in road.vibrations:
            told += [one.seen_in(seen.entry.id) for one in vibration_found(seen.body)]
        return told

    @property
    def _tyre_entries(self) -> list[UUID]:
        return [one.entry.id for one in self._reckoning.dossier.corners.tyres.values()]

    @property
    def tyres_roll(self) -> float | None:
        """Rolling circumference of the tyres at the driven axle over that of the placard; none where not known."""
        mechanics = self._reckoning.dossier.mechanics
        axle = "rear" if mechanics.drive is Drive.REAR else "front"
        wanted = tyre_size(placard_size(mechanics, axle))
        tyres = self._reckoning.dossier.corners.tyres.items()
        fitted = tyre_size(next((one.body.size for wheel, one in tyres if axle in wheel and one.body.size), ""))
        return fitted.circumference_m / wanted.circumference_m if fitted and wanted else None

    @property
    def rolling_m(self) -> float | None:
        """The rolling circumference of what is fitted, else of the placard [m]; none where neither is known."""
        mechanics = self._reckoning.dossier.mechanics
        sizes = [one.body.size for one in self._reckoning.dossier.corners.tyres.values()] + [mechanics.front_size]
        return next((size.circumference_m for one in sizes if (size := tyre_size(one))), None)

    @property
    def measurements(self) -> list[Body]:
        """What was measured on the road, as it was entered, hubs apart."""
        road = self._road
        told: list[Body] = [road.clutch.body] if road.clutch else []
        for every in (road.dials, road.distances, road.vibrations):
            told += [one.body for one in every]
        return told

    def _elsewhere(self, measured: list[Finding]) -> Elsewhere:
        others = [*self._reckoning.corners.found, *measured]
        return Elsewhere(others, self._reckoning.corners.grades, self._worked_at)

    @property
    def _worked_at(self) -> list[str]:
        return [one.body.part.casefold() for one in self._reckoning.dossier[ScanDossier].seller_work]

    @property
    def _noticed(self) -> list[Seen[Noticed]]:
        """What was noticed, without taps of which a form says more."""
        every = self._road.noticed
        said = [(one.body, one.entry.place) for one in every]
        return [one for at, one in enumerate(every) if not told_more(said, at)]

    def part_grades(self) -> dict[str, tuple[Grade, str]]:
        """What was noticed makes of parts with a life; what was tried where it would show, and was fine, is sound."""
        road = self._road
        found = self._sound()
        if road.clutch is not None and (grade := clutch_grade(road.clutch.body)):
            found["clutch"] = grade
        elsewhere = self._elsewhere(self.measured_found)
        for seen in self._noticed:
            told = graded(seen.body, seen.entry.place, elsewhere)
            if told is not None and not seen.entry.own_doing:
                piece, mark, words = told
                order = list(Grade)
                if piece not in found or order.index(mark) > order.index(found[piece][0]):
                    found[piece] = mark, words
        return found

    def _sound(self) -> dict[str, tuple[Grade, str]]:
        """Parts that a subject speaks for, of which nothing was noticed at a level that would have shown it."""
        found = {}
        stands = {one.subject.key: one for one in self.subjects}
        for row in road_table().speaks:
            one = stands.get(row.subject)
            if one is None or not one.fine or one.noticed or one.rest_level is None:
                continue
            if one.rest_level.rank >= row.level.rank:
                found[row.piece] = Grade.SOUND, f"on the road ({one.rest_level}): nothing noticed"
        return found

    @kept
    def subjects(self) -> list[SubjectStands]:
        """Every subject of this vehicle as it stands."""
        road, level = self._road, self.level or Level.NONE
        found = []
        for one in road_subjects_here(self._reckoning.dossier):
            mine = tuple(seen for seen in road.noticed if road_signs()[seen.body.sign].subject == one.key)
            rest = road.rest.get(one.key)
            rest_level = road.level_at(rest.entry) if rest else None
            found.append(SubjectStands(one, mine, rest, rest_level, one.level.rank <= level.rank))
        return found

    @kept
    def after(self) -> list[Again]:
        """What is looked at again after the drive."""
        dossier, engine = self._reckoning.dossier, self._reckoning.dossier.engine
        vents = [one.entry.at for one in (engine.air, engine.air_by_hand) if one is not None]
        odd = [
            (item.name, status.said, [one.entry.at for one in dossier.functions.tried[item.key]])
            for item, status in self._reckoning.functions.statuses
            if status.retest or status.status is Status.FAILS
        ]
        since = Since(
            levels=[one.entry.at for every in engine.fluid_looks.values() for one in every],
            vents=vents,
            starts=[run.start.entry.at for run in engine.runs if run.start is not None],
            scans=[one.entry.at for one in dossier[ScanDossier].reads],
            functions=odd,
        )
        electric = dossier.mechanics.power is Power.ELECTRIC
        return after_list(drove(dossier), self._reckoning.engine.after_drive, self.hubs, since, electric=electric)

    @kept
    def hubs(self) -> list[HubPair]:
        """Hubs of both axles since the drive."""
        told = {wheel: [(one.entry.at, one.body) for one in every] for wheel, every in self._road.hubs.items()}
        return hub_pairs(told, drove(self._reckoning.dossier))
