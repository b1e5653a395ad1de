"""What may not matter does not: units, order of entries, which side; more distance a year never makes it later."""

import json
import random
import re
from collections import defaultdict
from uuid import UUID, uuid5

from hakutsu.demo.building import CARS, demo_drafts
from hakutsu.demo.reference import REFERENCES, reference_drafts
from hakutsu.dossier import gather_dossier
from hakutsu.entries import Draft
from hakutsu.entries.settings import Settings
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.life import Lives
from tests.builders import NOON
from tests.inspection import InspectionCase

UUIDS = re.compile(r"[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}")
SIDES = re.compile(r'(?<!"level":")(?<![a-z])(left|right)(?![a-z])')  # a level may be right too
OTHER = {"left": "right", "right": "left"}
IMPERIAL = Settings(film="mil", distance="mi", depth="in32", temperature="f", pressure="psi", names="american",
                    sides="spoken")  # fmt: skip
FIRST = ("inspection.vehicle", "inspection.brief", "inspection.mechanics")


def every_car():
    for car in CARS:
        yield car, demo_drafts(car)
    for name in REFERENCES:
        yield name, reference_drafts(name)


def mirrored(text):
    """A text with left and right changed places."""
    return SIDES.sub(lambda side: OTHER[side[1]], text)


def told(reckoning):
    """Findings and what becomes of their money, without the order they are told in."""
    found = [(one.code, one.subject, one.consequence.value, round(one.sureness, 5)) for one in reckoning.findings]
    lines = [(*line.item.key, line.treat.value, str(line.amount)) for line in reckoning.lives.sheet.lines]
    return sorted(found), sorted(lines)


class Properties(InspectionCase):
    def written(self, drafts, name, turn=lambda text: text):
        """The drafts as an inspection of their own, each turned as text."""
        inspection = uuid5(self.inspection, name)
        self.logbook.open_inspection(inspection, NOON)
        texts = [UUIDS.sub(lambda one: str(uuid5(inspection, one[0])), turn(one.model_dump_json())) for one in drafts]
        self.logbook.append(inspection, [Draft.model_validate(json.loads(text)) for text in texts], "Test Inspector")
        return inspection

    def reckoning(self, inspection: UUID, settings=None):
        return Reckoning(gather_dossier(inspection, self.logbook.entries(inspection)), *filter(None, [settings]))

    def test_units_and_names_of_the_reader_change_no_finding(self):
        for car, drafts in every_car():
            with self.subTest(car):
                mine = self.written(drafts, car)
                self.assertEqual(told(self.reckoning(mine)), told(self.reckoning(mine, IMPERIAL)))

    def test_a_vehicle_mirrored_has_its_findings_mirrored(self):
        for car, drafts in every_car():
            with self.subTest(car):
                here = told(self.reckoning(self.written(drafts, f"{car} as it is")))
                there = told(self.reckoning(self.written(drafts, f"{car} mirrored", mirrored)))
                turned = tuple(sorted(tuple(mirrored(str(one)) for one in row) for row in rows) for rows in here)
                self.assertEqual(turned, tuple([tuple(map(str, row)) for row in rows] for rows in there))

    def test_kinds_may_be_entered_in_any_order(self):
        for car, drafts in every_car():
            with self.subTest(car):
                here = told(self.reckoning(self.written(drafts, f"{car} in order")))
                there = told(self.reckoning(self.written(self.shuffled(drafts), f"{car} shuffled")))
                self.assertEqual(here, there)

    def shuffled(self, drafts):
        """Drafts in another order, those of one kind in theirs; what speaks of another entry after all others."""
        known, late = {str(one.id) for one in drafts}, list[Draft]()
        by_kind, last = defaultdict(list), []
        for one in drafts:
            speaks_of = set(UUIDS.findall(one.model_dump_json(exclude={"id"}))) & known
            (last if speaks_of or one.kind.startswith("entry.") else by_kind[one.kind]).append(one)
        opening = [one for kind in FIRST for one in by_kind.pop(kind, [])]
        dice, mixed = random.Random(7), list[Draft]()
        while by_kind:
            kind = dice.choice(sorted(by_kind))
            mixed.append(by_kind[kind].pop(0))
            if not by_kind[kind]:
                del by_kind[kind]
        return opening + mixed + late + last

    def test_more_distance_a_year_never_makes_anything_later(self):
        for car, drafts in every_car():
            reckoning = self.reckoning(self.written(drafts, f"{car} driven"))
            slow, middle, fast = ({job.key: job.months() for job in Lives(reckoning, km).jobs}
                                  for km in (4_000, 12_000, 45_000))  # fmt: skip
            for key, due in slow.items():
                with self.subTest(car, job=key):
                    self.assertGreaterEqual(due.median + 1e-6, middle[key].median)
                    self.assertGreaterEqual(middle[key].median + 1e-6, fast[key].median)
                    self.assertGreaterEqual(due.low + 1e-6, fast[key].low)
                    self.assertGreaterEqual(due.high + 1e-6, fast[key].high)
