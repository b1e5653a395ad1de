"""Every address of an inspection answers, whatever stands in its logbook; new addresses are found by themselves."""

from unittest.mock import patch
from uuid import uuid4

from hakutsu.demo import add_demo
from hakutsu.demo.building import CARS, demo_id
from hakutsu.entries import Draft
from hakutsu.entries.hazards import HazardRaised
from hakutsu.entries.settings import Overrides
from tests.builders import NOON
from tests.entries.test_entries import SAMPLES
from tests.web.addresses import AddressCase


class EveryAddress(AddressCase):
    def test_the_addresses_are_found(self):
        found = list(self.addresses())
        self.assertGreater(len(found), 55)
        for one in ("/arrival", "/place/bay", "/life/sheet", "/engine/run", "/outside/rust", "/report"):
            self.assertIn(one, found)

    def test_of_the_demo(self):
        add_demo(self.logbook)
        for car in CARS:
            self.answers(demo_id(car))

    def test_of_an_inspection_just_opened(self):
        self.answers(self.inspection)

    def test_one_stored_where_it_does_not_belong_is_read_and_does_no_harm(self):
        draft = Draft(id=uuid4(), at=NOON, kind="corner.brake", body=SAMPLES["corner.brake/1"], place="roof")
        with patch("hakutsu.entries.envelope.check_place"):  # as an older version may have kept it
            self.post(self.inspection, draft)
        self.assertEqual(self.dossier().corners.brakes, {})
        self.assertIn("Brake", self.client.get(f"{self.here}/logbook").text)
        self.assertEqual(self.client.get(f"{self.here}/life/calendar").status_code, 200)

    def test_with_a_stand_down_in_other_words_and_units(self):
        self.write("hazard.raised", HazardRaised(cause="fuel_wet"), place="bay")
        self.write(
            "inspection.settings",
            Overrides(names="american", sides="spoken", distance="mi", depth="in32", temperature="f", pressure="psi"),
        )
        self.assertIn("Forbidden", self.client.get(f"{self.here}/arrival").text)
        self.answers(self.inspection)
