"""Every value an entry can choose says something, or is listed as saying nothing, with the reason."""

import tomllib
import unittest
from enum import Enum
from pathlib import Path
from uuid import uuid4

from hakutsu.dossier import gather_dossier
from hakutsu.entries import Draft, EntryError, kinds
from hakutsu.entries.envelope import Entry
from hakutsu.entries.opening import Vehicle
from hakutsu.reckoning import Reckoning
from tests.builders import NOON, car
from tests.entries.test_entries import SAMPLES
from tests.web.test_every_value import choices

LISTED = tomllib.loads((Path(__file__).parent / "no_finding.toml").read_text())
# Kinds that brief, claim, plan, picture, price or stand down: their values are no observations of the vehicle.
ELSEWHERE = ("test.", "inspection.", "film.", "claim.", "picture.", "money.", "hazard.", "step.", "timer.")
LIE = {"panel": "bonnet", "surface": "bonnet", "wheel": "wheel_front_left", "corner": "wheel_front_left",
       "somewhere": "front"}  # fmt: skip
INSPECTION = uuid4()


def entry(kind, body, seq, place=None):
    draft = Draft(id=uuid4(), at=NOON, kind=kind.name, version=kind.version, body=body, place=place)
    draft.check()
    return Entry(**draft.model_dump(), inspection=INSPECTION, by="Test", seq=seq, hash="0" * 64)


def listed(name, field, value):
    """Whether a value is listed as nothing found, or as neither."""
    key = f"{name}.{field}"
    nothing = LISTED["nothing"].get(key, ())
    rows = [LISTED["neither"][one] for one in (key, "*.*") if one in LISTED["neither"]]
    neither = [one for row in rows for one in row["values"]]
    return value in nothing or "*" in nothing or value in neither or "*" in neither


class EveryValue(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.opened = [entry(kinds()["inspection.vehicle"], Vehicle(vehicle=car()).model_dump(mode="json"), 1)]

    def tells(self, kind, field, value, several):
        """Whether a finding rests on an entry that chooses a value; none where no entry may."""
        sample = SAMPLES[f"{kind.name}/{kind.version}"]
        required = {name: sample[name] for name, info in kind.model.model_fields.items() if info.is_required()}
        for body in (required, sample):
            try:
                one = entry(kind, {**body, field: [value] if several else value}, 2, LIE.get(kind.at))
            except EntryError:
                continue
            reckoning = Reckoning(gather_dossier(INSPECTION, [*self.opened, one]))
            found = [each for key, station in reckoning.stations.items() if key != "film" for each in station.found]
            return any(one.id in each.evidence for each in found)
        return None

    def test_it_yields_a_finding_or_is_listed(self):
        for name, kind in sorted(kinds().items()):
            if name.startswith(ELSEWHERE):
                continue
            for field, info in kind.model.model_fields.items():
                several = str(info.annotation).startswith("tuple")
                for one in choices(info.annotation):
                    if not isinstance(one, Enum) or listed(name, field, one.value):
                        continue
                    with self.subTest(kind=name, field=field, value=one.value):
                        self.assertTrue(self.tells(kind, field, one.value, several))

    def test_nothing_is_listed_that_does_not_exist_or_has_no_reason(self):
        for key, row in LISTED["neither"].items():
            self.assertTrue(row["reason"])
            self.exists(key, row["values"])
        for key, values in LISTED["nothing"].items():
            self.exists(key, values)

    def exists(self, key, values):
        name, _, field = key.rpartition(".")
        if name == "*":
            return
        there = {
            one.value for one in choices(kinds()[name].model.model_fields[field].annotation) if isinstance(one, Enum)
        }
        self.assertLessEqual({one for one in values if one != "*"}, there, key)
