"""What the rules make of numbers, dates and records of distance."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import ClassVar
from uuid import UUID

from hakutsu.core.findings import Finding, found
from hakutsu.core.papers.dated import age_years, dates_found
from hakutsu.core.papers.dates import LATER, BadTable, Cluster, Dated, Interval, Mark, clusters, decode, judged
from hakutsu.core.papers.distance import Distance, WearSays
from hakutsu.core.papers.hidden import Hidden, candidates, judge_hidden, wear_says
from hakutsu.core.papers.numbers import (
    IDENTITY,
    NAMES,
    Grid,
    Reading,
    codes_found,
    engine_found,
    grid,
    numbers_found,
)
from hakutsu.core.papers.ran import distance_found, probable_km
from hakutsu.core.papers.records import History, Record
from hakutsu.core.papers.telling import spoken_day
from hakutsu.core.scan.units import unit_name
from hakutsu.dossier.memo import kept, kept_as_value
from hakutsu.dossier.papers import PapersDossier
from hakutsu.dossier.scan import ScanDossier
from hakutsu.entries.papers import Answer, RegisterAsked
from hakutsu.reckoning.film_cues import date_cues
from hakutsu.reckoning.station import StationRules
from hakutsu.vehicle.days import told_day
from hakutsu.vehicle.papers import BUILD_PLATE, Code, NumberPlace, RecordSource, dated_marks, registers

ODOMETER = "odometer_km"
USUAL_DIGITS = 6
PLAIN = "plain"


@dataclass(frozen=True, slots=True)
class DatedHere:
    """A dated mark of this vehicle: its kind, the mark decoded, its entry; `fault` where its table cannot be."""

    key: str
    dated: Dated
    entry: UUID
    fault: str = ""


@dataclass(frozen=True, slots=True)
class Told:
    """The records of distance and what they say; those that count for nothing, with why; ways to read hidden digits."""

    history: History
    distance: Distance | None
    entries: dict[int | str, UUID]
    left_out: tuple[tuple[UUID, str], ...]
    hidden: tuple[Hidden, ...]
    wear: WearSays | None


class PapersReckoned(StationRules):
    """Findings of identity, dates and distance."""

    key: ClassVar[str] = "papers"

    @property
    def _papers(self) -> PapersDossier:
        return self._reckoning.dossier[PapersDossier]

    @property
    def _today(self) -> date:
        return self._reckoning.corners.on

    @kept
    def readings(self) -> list[Reading]:
        """Every reading of the identity number: by hand, of the plate as the scan asks for it, and what units hold."""
        told = []
        for seen in self._papers.numbers:
            place = self._reckoning.terms.place(seen.entry.place)
            name = f"glass ({place[:1].lower()}{place[1:]})" if place and seen.body.where is NumberPlace.GLASS else ""
            told.append(Reading(seen.body.where, seen.body.text, name or NAMES[seen.body.where], seen.body.fixed,
                                (seen.entry.id,), seen.body.from_picture))  # fmt: skip
        scan = self._reckoning.dossier[ScanDossier]
        if scan.plate is not None and all(one.where is not NumberPlace.PLATE for one in told):
            told.append(Reading(NumberPlace.PLATE, scan.plate.body.vin, "plate", (), (scan.plate.entry.id,)))
        return told

    @kept
    def of_units(self) -> list[Reading]:
        """What control units hold: the scan's own findings tell of those that differ."""
        scan = self._reckoning.dossier[ScanDossier]
        if scan.last is None:
            return []
        entry = (scan.last.entry.id,)
        named = [(unit_name(unit), unit.vin) for unit in scan.last.body.modules if unit.vin]
        return [Reading(NumberPlace.MODULE, vin, name, (), entry) for name, vin in named]

    @kept
    def grid(self) -> Grid:
        """All readings under each other."""
        return grid([*self.readings, *self.of_units])

    @kept
    def marks(self) -> list[DatedHere]:
        """Dated marks, those of tyres and panes noted elsewhere among them, held against the build date."""
        read = [(one, mark, entry) for one, mark, entry in self._marks_read if one != BUILD_PLATE]
        build = self.built
        told = []
        for key, mark, entry in read:
            try:
                told.append(DatedHere(key, judged([mark], build, self._today)[0], entry))
            except BadTable as error:
                told.append(DatedHere(key, Dated(mark, (), None), entry, str(error)))
        return told

    @property
    def _marks_read(self) -> list[tuple[str, Mark, UUID]]:
        """Marks by kind; each has a name of its own, so that groups can name them."""
        told = []
        for seen in self._papers.marks:
            body = seen.body
            mark = Mark(str(seen.entry.id), seen.entry.place or "", body.code.value, body.text, body.table)
            told.append((body.mark, mark, seen.entry.id))
        for wheel, tyre in self._reckoning.dossier.corners.tyres.items():
            if tyre.body.date_code:
                mark = Mark(str(tyre.entry.id), wheel, Code.TYRE_WEEK.value, tyre.body.date_code)
                told.append(("tyre", mark, tyre.entry.id))
        return told

    @property
    def noted_dates(self) -> bool:
        """Whether a date was noted for its own sake, besides those of tyres."""
        return bool(self._papers.marks)

    @kept
    def built(self) -> Interval | None:
        """When it was built, by its plate; none where that was not read."""
        plates = [mark for key, mark, _ in self._marks_read if key == BUILD_PLATE]
        try:
            intervals = decode(plates[-1], self._today) if plates else ()
        except BadTable:
            return None
        return intervals[0] if len(intervals) == 1 else None

    @kept
    def groups(self) -> list[Cluster]:
        """Marks of one date at one place."""
        return clusters([one.dated for one in self.marks], built=self.built is not None)

    @kept_as_value
    def cluster_cues(self) -> dict[str, dict[str, bool]]:
        """Panels beside parts of one later date: the film there is judged with it."""
        later = {one.dated.mark.mark for one in self.marks if one.dated.verdict == LATER}
        renewed = {one.dated.mark.mark for one in self.marks if dated_marks()[one.key].renewed}
        return date_cues(self.groups, later - renewed)

    @kept
    def told(self) -> Told:
        """The records of distance, and what they say together; nothing of fewer than two."""
        records, entries, hidden = list[Record](), dict[int | str, UUID](), dict[int | str, str]()
        left_out = list[tuple[UUID, str]]()
        built = self.built
        first = self._reckoning.dossier.mechanics.first_used or (built[1] if built else None)
        digits = USUAL_DIGITS
        for row, seen in enumerate(self._papers.records, start=1):
            body, day = seen.body, self._day(seen.body.on, first)
            digits = body.dial_digits or digits
            why = self._why_not(day, first)
            if why or day is None:
                left_out.append((seen.entry.id, why))
                continue
            if "?" in body.value:
                hidden[row] = body.value
            records.append(Record(row, day, candidates(body.value)[0], body.unit.value, body.source.value))
            entries[row] = seen.entry.id
        for source, km, on, entry in self._measured_here(records):
            row = len(self._papers.records) + len(entries) + 1
            records.append(Record(row, on, km, "km", source.value))
            entries[row] = entry
        history = History(tuple(records), digits, first)
        wear = self._wear
        if len(records) < 2:
            return Told(history, None, entries, tuple(left_out), (), wear)
        distance, ways = judge_hidden(history, hidden, wear)
        return Told(history, distance, entries, tuple(left_out), ways, wear)

    @property
    def _wear(self) -> WearSays | None:
        """What the cabin and the discs say by themselves."""
        discs = dict[str, float]()
        for wheel, seen in self._reckoning.dossier.corners.brakes.items():
            if seen.body.disc_mm and seen.body.disc_new_mm:
                axle = "front" if "front" in wheel else "rear"
                discs[axle] = max(discs.get(axle, 0.0), seen.body.disc_new_mm - min(seen.body.disc_mm))
        grades = {part: seen.body for part, seen in self._reckoning.dossier.cabin.wear.items()}
        return wear_says(grades, discs, self._reckoning.dossier.mechanics.odometer_km)

    def _measured_here(self, records: list[Record]) -> list[tuple[RecordSource, float, date, UUID]]:
        """The dial as a fact of the vehicle, unless it was entered as a record; units that count for themselves."""
        facts = self._reckoning.dossier.facts
        told = []
        mentions = facts.mentions.get(ODOMETER, [])
        if mentions and all(one.source != RecordSource.DIAL_NOW.value for one in records):
            last, km = mentions[-1], self._reckoning.dossier.mechanics.odometer_km
            if km is not None:
                told.append((RecordSource.DIAL_NOW, km, self._on(last.entry.at.date(), records), last.entry.id))
        scan = self._reckoning.dossier[ScanDossier].last
        for unit in scan.body.modules if scan else ():
            counted = unit.live.get(ODOMETER)
            if scan is not None and isinstance(counted, int | float) and counted >= 0:
                told.append((RecordSource.MODULE, float(counted), scan.entry.at.date(), scan.entry.id))
        return told

    @staticmethod
    def _on(day: date, records: list[Record]) -> date:
        return max([day, *(one.on for one in records)])

    def _day(self, said: str, first: date | None) -> date | None:
        """The middle of what was told, within the life of the vehicle so far where what was told reaches into it."""
        told = told_day(said)
        if told is None:
            return None
        begins, middle, ends = told
        if first and middle < first <= ends:
            return first
        return self._today if begins <= self._today < middle else middle

    def _why_not(self, day: date | None, first: date | None) -> str:
        if day is None:
            return "without a day it is held against distance alone"
        if day > self._today:
            return "of a day to come"
        return "before it was first used" if first and day < first else ""

    @property
    def probable_km(self) -> float | None:
        """The distance to reckon with [km]: the dial's, unless the records say it does not stand for it."""
        return probable_km(self.told.distance, self._reckoning.dossier.mechanics.odometer_km)

    def part_ages(self) -> dict[str, tuple[float, str]]:
        """Parts with a life that carry a date: by part, age [years] and when it was made."""
        ages = {}
        for one in self.marks:
            part = dated_marks()[one.key].part if one.key in dated_marks() else ""
            years = age_years(one.dated, self._today.toordinal())
            if part and years is not None:
                day = one.dated.intervals[0][0]
                ages[part] = years, f"{day.year}-{day.month:02d}"
        return ages

    @property
    def asked(self) -> dict[str, RegisterAsked]:
        """What registers answered, by key."""
        return {key: seen.body for key, seen in self._papers.asked.items()}

    def findings(self) -> list[Finding]:
        """Everything that numbers, dates, records and registers say."""
        papers = self._papers
        told = numbers_found(self.readings, enforced=self._reckoning.rules.check_digit)
        told += engine_found([(seen.body, seen.entry.id) for seen in papers.engine])
        told += codes_found((seen.body, seen.entry.id) for seen in papers.codes.values())
        lot = self._reckoning.dossier.opening.brief.lot
        if papers.lot is not None and lot and papers.lot.body.text.casefold() != lot.casefold():
            words = f"lot inspected {papers.lot.body.text}, the brief says {lot}"
            told.append(found("papers.lot_differs", IDENTITY, words).seen_in(papers.lot.entry.id))
        names = {one.dated.mark.mark: one.key for one in self.marks}
        dated = [(one.dated, one.entry) for one in self.marks if not one.fault]
        plates = [seen.entry.id for seen in papers.marks if seen.body.mark == BUILD_PLATE]
        told += [one.seen_in(*plates[-1:]) for one in dates_found(dated, self.built, self.groups, names)]
        told += self._of_distance()
        for key, seen in papers.asked.items():
            if seen.body.answer is Answer.NOTED:
                words = f"{registers()[key].name}: something is noted" + (
                    f": {seen.body.note}" if seen.body.note else ""
                )
                told.append(found(f"papers.noted_{key}", IDENTITY, words).seen_in(seen.entry.id))
        return told

    def _of_distance(self) -> list[Finding]:
        if self.told.distance is None:
            return []
        return distance_found(self.told.distance, self.told.history, list(self.told.entries.values()), spoken_day)
