"""A reckoning that goes on from the one before says the same as one made afresh, whatever came in between."""

import dataclasses
import random
import unittest
from datetime import timedelta
from uuid import UUID, uuid4

import numpy as np
from pydantic import BaseModel

from hakutsu.demo.building import demo_drafts, demo_id
from hakutsu.dossier import Dossier, gather_dossier
from hakutsu.dossier.body import BodyDossier
from hakutsu.dossier.cabin import CabinDossier
from hakutsu.dossier.film import FilmDossier
from hakutsu.entries import Draft, Entry
from hakutsu.entries.cabin import CabinWear
from hakutsu.entries.settings import Overrides, Settings
from hakutsu.reckoning import Reckoning
from hakutsu.report.sections import Making, report_sections
from hakutsu.web.film.context import film_context
from tests.builders import NOON, reading

CLOSE = 1e-9


def differ(one: object, other: object, at: str = "") -> str:
    """Where two values differ, or nothing: numbers within 1e-9."""
    if isinstance(one, float) and isinstance(other, float):
        return "" if one == other or abs(one - other) <= CLOSE * max(1.0, abs(one)) or one != one else at
    if isinstance(one, np.ndarray):
        return "" if np.allclose(one, np.asarray(other), rtol=CLOSE, atol=CLOSE, equal_nan=True) else at
    if type(one) is not type(other):
        return at
    if isinstance(one, (BaseModel, UUID, str, int)) or one is None:
        return "" if one == other else at
    if isinstance(one, dict):
        return at if list(one) != list(other) else _first(at, [(key, one[key], other[key]) for key in one])
    if isinstance(one, (list, tuple)):
        return (
            f"{at}: length"
            if len(one) != len(other)
            else _first(at, [(i, *two) for i, two in enumerate(zip(one, other, strict=True))])
        )
    if dataclasses.is_dataclass(one):
        return _first(at, [(f.name, getattr(one, f.name), getattr(other, f.name)) for f in dataclasses.fields(one)])
    return "" if one == other else at


def _first(at, parts):
    return next((found for name, one, other in parts if (found := differ(one, other, f"{at}.{name}"))), "")


def told(reckoning: Reckoning) -> dict[str, object]:
    """Everything that pages, report and export take from a reckoning."""
    dossier, lives = reckoning.dossier, reckoning.lives
    making = Making(reckoning, NOON, "", lambda _: "")
    return {
        "drawn": str(film_context(reckoning, None, "sheet", None)["picture"]),
        "report": {one.key: one.built(making) for one in report_sections() if one.kept},
        "findings": reckoning.findings,
        "sheet": lives.sheet,
        "jobs": lives.jobs,
        "spending": lives.spending,
        "stories": reckoning.stories,
        "against": reckoning.condition.against,
        "film": reckoning.film.analysis.panels,
        "film story": reckoning.film.analysis.story,
        "stand-downs": reckoning.stand_downs,
        "limits": reckoning.limitations,
        "looks": reckoning.second_looks(NOON),
        "plan": reckoning.run_sheet.plan(NOON),
        "stations": dossier.station_coverage(),
        "places": dossier.place_coverage(),
        "terms": reckoning.terms,
        "waits": [one.waits() for one in reckoning.stations.values()],
    }


class Sequence:
    """An inspection that grows by random entries, strikes and settings."""

    def __init__(self, seed: int) -> None:
        self.chance = random.Random(seed)
        self.pool = demo_drafts("estate")
        self.entries: list[Entry] = []
        self.more(next(one for one in self.pool if one.kind == "inspection.vehicle"))

    def more(self, draft: Draft) -> Entry:
        number = len(self.entries) + 1
        at = NOON + timedelta(minutes=number)
        said = draft.model_dump() | {"id": uuid4(), "at": at}
        entry = Entry(**said, inspection=demo_id("estate"), by="tester", seq=number, hash=f"{number:064x}")
        self.entries.append(entry)
        return entry

    def step(self) -> list[Entry]:
        """One to four entries: mostly of the pool, now and then a strike or a setting of the inspection."""
        made = []
        for _ in range(self.chance.randint(1, 4)):
            what = self.chance.random()
            if what < 0.12 and len(self.entries) > 1:
                strike = {"strikes": self.chance.choice(self.entries[1:]).id}
                made.append(self.more(Draft(id=uuid4(), at=NOON, kind="general.strike", version=1, **strike)))
            elif what < 0.17:
                said = Overrides(
                    names=self.chance.choice(("american", "british")), sides=self.chance.choice(("spoken", "own"))
                )
                made.append(self.more(Draft.write("inspection.settings", said, NOON)))
            else:
                made.append(self.more(self.chance.choice(self.pool)))
        return made


class GoingOn(unittest.TestCase):
    def test_random_entries_strikes_and_settings(self):
        for seed in range(4):
            sequence = Sequence(seed)
            last = Reckoning(gather_dossier(demo_id("estate"), sequence.entries))
            account = Settings()
            told(last)
            for step in range(14):
                if sequence.chance.random() < 0.1:
                    account = Settings(distance=sequence.chance.choice(("km", "mi")))
                made = sequence.step()
                last = Reckoning(last.dossier.with_more(made), account, last)
                fresh = Reckoning(gather_dossier(demo_id("estate"), sequence.entries), account)
                # Sometimes only a part is asked for, so that others are older than one step.
                if sequence.chance.random() < 0.4:
                    self.assertEqual(differ(last.cabin.found, fresh.cabin.found), "", (seed, step))
                    continue
                self.assertEqual(last.dossier, fresh.dossier)
                self.assertEqual(differ(told(last), told(fresh)), "", (seed, step, [one.kind for one in made]))


class WhatIsNotTouched(unittest.TestCase):
    def setUp(self):
        self.sequence = Sequence(1)
        for draft in self.sequence.pool[1:]:
            if draft.strikes is None:
                self.sequence.more(draft)
        self.before = Reckoning(gather_dossier(demo_id("estate"), self.sequence.entries))
        told(self.before)

    def after(self, draft: Draft) -> Reckoning:
        return Reckoning(self.before.dossier.with_more([self.sequence.more(draft)]), None, self.before)

    def test_a_cabin_entry_leaves_the_film_as_it_was(self):
        after = self.after(Draft.write("cabin.wear", CabinWear(part="rim", wear="through"), NOON))
        self.assertIs(after.dossier[FilmDossier], self.before.dossier[FilmDossier])
        self.assertIsNot(after.dossier[CabinDossier], self.before.dossier[CabinDossier])
        self.assertIs(after.film.analysis, self.before.film.analysis)
        self.assertIs(after.engine.warm_up, self.before.engine.warm_up)

    def test_a_reading_is_seen_by_whoever_reads_the_film(self):
        after = self.after(reading("rear_quarter_left", 480))
        self.assertIsNot(after.film.analysis, self.before.film.analysis)
        self.assertIs(after.dossier[BodyDossier], self.before.dossier[BodyDossier])
        self.assertEqual(len(self.before.dossier.film.readings) + 1, len(after.dossier.film.readings))

    def test_what_was_gathered_before_stays_as_it_was(self):
        wear = dict(self.before.dossier.cabin.wear)
        self.after(Draft.write("cabin.wear", CabinWear(part="rim", wear="through"), NOON))
        self.assertEqual(self.before.dossier.cabin.wear, wear)

    def test_a_dossier_without_entries_goes_on(self):
        empty = gather_dossier(demo_id("estate"), [])
        self.assertIsInstance(empty, Dossier)
        self.assertEqual(empty.with_more(self.sequence.entries[:1]).vehicle.name, self.before.dossier.vehicle.name)
