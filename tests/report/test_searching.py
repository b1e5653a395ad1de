import unittest

from hakutsu.entries.claims import Claim
from hakutsu.entries.corners import Wheel
from hakutsu.entries.engine import EngineLook
from hakutsu.entries.general import Seen, Strike
from hakutsu.entries.opening import Brief
from hakutsu.reckoning import Reckoning
from hakutsu.report.brief_section import purpose_lines
from hakutsu.report.searching import search, words_of
from hakutsu.vehicle.terms import PLAIN
from hakutsu.web.station import shown_at
from tests.builders import reading
from tests.inspection import InspectionCase


class Searching(InspectionCase):
    vehicle = {"name": "Pellin Mote", "registration": "ORN 41"}

    def found(self, asked):
        return search(words_of(Reckoning(self.dossier()), shown_at), asked)

    def test_vehicle_and_registration_in_any_case_and_order(self):
        for asked in ("mote", "PELLIN", "orn mote", "41"):
            with self.subTest(asked):
                self.assertTrue(self.found(asked).itself)
        self.assertIsNone(self.found("estate"))
        self.assertIsNone(self.found("   "))

    def test_the_buyer_is_found_without_accents(self):
        self.write("inspection.brief", Brief(buyer="Édda Söl"))
        self.assertTrue(self.found("edda sol").itself)

    def test_a_finding_is_found_by_words_and_place_beside_the_vehicle(self):
        self.write("general.seen", Seen(text="salt crust"), place="rear")
        self.write("general.seen", Seen(text="salt stain"), place="bonnet")
        hits = self.found("salt").hits
        self.assertEqual([hit.room for hit in hits], ["place/rear", "film?panel=bonnet"])
        self.assertEqual([hit.words for hit in self.found("bonnet salt mote").hits], ["salt stain"])
        self.assertIsNone(self.found("salt estate"))

    def test_a_finding_leads_to_the_page_that_shows_its_entry(self):
        self.write("corner.wheel", Wheel(fixings_missing=2), place="wheel_rear_left")
        self.write("engine.look", EngineLook(smoke="blue_load"))
        [missing] = self.found("fixings missing settle").hits
        self.assertEqual((missing.words, missing.room), ("2 wheel fixings missing", "corners?at=wheel_rear_left"))
        self.assertEqual({hit.room for hit in self.found("blue smoke rings").hits}, {"engine/run"})

    def test_struck_entries_and_numbers_are_not_found(self):
        seen = self.write("general.seen", Seen(text="oil mist"), place="rear")
        self.assertEqual(len(self.found("oil").hits), 1)
        self.write("general.strike", Strike(because="it was oil no more"), strikes=seen)
        self.assertIsNone(self.found("oil"))
        self.logbook.append(self.inspection, [reading("roof", 417)], "Ina")
        self.assertIsNone(self.found("417"))

    def test_claims_lead_to_the_claims(self):
        self.write("claim.said", Claim(words="garaged all its life"))
        self.assertEqual([hit.room for hit in self.found("garaged").hits], ["claims"])


class Purpose(unittest.TestCase):
    def test_price_in_its_currency_and_the_budget_left_out(self):
        lines = dict(purpose_lines(Brief(asking_price="8400", budget="7000", currency="EUR", km_per_year=12000), PLAIN))
        self.assertEqual(lines["Asking price"], "€8,400.00")
        self.assertEqual(lines["Distance in a year"], "12,000 km")
        self.assertFalse(any("7,000" in words for words in lines.values()))

    def test_nothing_said_leaves_only_the_taste(self):
        self.assertEqual([name for name, _ in purpose_lines(Brief(), PLAIN)], ["Condition wanted"])
