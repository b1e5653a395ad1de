import random
import tempfile
import unittest

from hakutsu.dossier import Covered, gather_dossier
from hakutsu.entries import Draft
from hakutsu.entries.film import GaugeInUse
from hakutsu.entries.general import Limit, NothingFound, Station, Strike
from hakutsu.entries.opening import Brief
from tests.builders import NOON, logbook_in, opened, reading


class Folding(unittest.TestCase):
    def setUp(self):
        self.directory = tempfile.TemporaryDirectory()
        self.addCleanup(self.directory.cleanup)
        self.logbook = logbook_in(self.directory.name)
        self.inspection = opened(self.logbook)

    def append(self, *drafts):
        answers = self.logbook.append(self.inspection, drafts, "Test Inspector")
        return [answer.id for answer in answers]

    def dossier(self):
        return gather_dossier(self.inspection, self.logbook.entries(self.inspection))

    def strike(self, entry):
        return self.append(Draft.write("general.strike", Strike(), NOON, strikes=entry))[0]

    def values(self, panel):
        return [kept.body.value_um for kept in self.dossier().film.on_panel(panel)]

    def coverage(self, panel):
        return next(c for c in self.dossier().film_coverage() if c.panel == panel)

    def test_readings_gather_by_panel_in_order(self):
        self.append(reading("roof", 112), reading("bonnet", 120), reading("roof", 114))
        self.assertEqual(self.values("roof"), [112, 114])

    def test_a_struck_reading_is_gone_from_the_state_but_not_from_the_logbook(self):
        kept, wrong = self.append(reading("roof", 112), reading("roof", 1117))
        self.strike(wrong)
        self.assertEqual(self.values("roof"), [112])
        self.assertIn(wrong, {entry.id for entry in self.dossier().entries})
        self.assertIn(wrong, self.dossier().struck)
        self.assertNotIn(kept, self.dossier().struck)

    def test_striking_the_strike_brings_the_reading_back_and_again(self):
        (first,) = self.append(reading("roof", 112))
        strike = self.strike(first)
        again = self.strike(strike)
        self.assertEqual(self.values("roof"), [112])
        self.strike(again)
        self.assertEqual(self.values("roof"), [])

    def test_a_replacing_entry_takes_the_place_of_the_one_it_strikes(self):
        (first,) = self.append(reading("roof", 1112))
        self.append(reading("roof", 112, strikes=first))
        self.assertEqual(self.values("roof"), [112])

    def test_the_last_gauge_holds(self):
        self.append(Draft.write("film.gauge", GaugeInUse(name="first"), NOON))
        self.append(Draft.write("film.gauge", GaugeInUse(name="second", unit="mil"), NOON))
        self.assertEqual(self.dossier().film.gauge.name, "second")

    def test_coverage_by_hand_for_a_hatchback_by_the_standard_protocol(self):
        self.append(*(reading("roof", 110 + i) for i in range(3)), reading("bonnet", 118))
        self.append(Draft.write("general.limit", Limit(station=Station.FILM, because="wet"), NOON, place="tailgate"))
        found = {c.panel: c for c in self.dossier().film_coverage()}
        self.assertEqual(len(found), 19)
        self.assertEqual((found["roof"].taken, found["roof"].expected, found["roof"].state), (3, 3, Covered.DONE))
        self.assertEqual((found["bonnet"].taken, found["bonnet"].state), (1, Covered.OPEN))
        self.assertEqual((found["tailgate"].state, found["tailgate"].because), (Covered.LIMITED, "wet"))
        self.assertEqual(found["front_bumper"].state, Covered.NOTHING_TO_READ)
        self.assertEqual(found["sill_left"].expected, 2)
        self.assertEqual(sum(c.state is Covered.OPEN for c in found.values()), 15)

    def test_edge_readings_do_not_count_for_coverage(self):
        self.append(*(reading("roof", 70, edge=True) for _ in range(3)))
        self.assertEqual(self.coverage("roof").taken, 0)

    def test_no_reading_on_metal_as_often_as_planned_is_done_not_open(self):
        self.append(*(reading("roof", None, status="none") for _ in range(3)))
        self.assertEqual(self.coverage("roof").state, Covered.DONE)

    def test_a_later_reading_ends_an_earlier_nothing_to_read(self):
        self.append(Draft.write("general.nothing_found", NothingFound(station=Station.FILM), NOON, place="roof"))
        self.assertEqual(self.coverage("roof").state, Covered.NOTHING_TO_READ)
        self.append(reading("roof", 112))
        self.assertEqual(self.coverage("roof").state, Covered.OPEN)

    def test_a_quick_protocol_wants_one_reading_on_large_panels(self):
        self.append(Draft.write("inspection.brief", Brief(protocol="quick"), NOON))
        self.append(reading("roof", 112))
        self.assertEqual(self.coverage("roof").state, Covered.DONE)
        self.assertEqual(self.coverage("sill_left").state, Covered.DONE)

    def test_folding_is_repeatable(self):
        chance = random.Random(4)
        ids = self.append(*(reading("roof", chance.randint(90, 140)) for _ in range(20)))
        for entry in chance.sample(ids, 8):
            self.strike(entry)
        entries = self.logbook.entries(self.inspection)
        self.assertEqual(gather_dossier(self.inspection, entries), gather_dossier(self.inspection, entries))
        self.assertEqual(len(self.values("roof")), 12)
