"""Finished inspections of one make and colour teach the next, on its page and in its report; it can be switched off."""

import re
from datetime import timedelta

from hakutsu.entries import Draft
from hakutsu.entries.opening import Stage, StageReached, Vehicle
from tests.builders import HONEST, NOON, car, opened, reading
from tests.web.case import WebCase
from tests.web.test_settings import USUAL

FORM = {"name": "Pellin Six", "colour": "harbour blue", "finish": "factory", "paint": "unknown", "body_style": "hatch",
        "doors": "5", "steering": "right", "taste": "work", "km_per_year": "", "protocol": "standard"}  # fmt: skip
LINE = "of your own vehicles of this make and colour lie at"


class OwnVehicles(WebCase):
    def finished(self, level, *, by="inspector", registration="", simulated=False, stage=Stage.FINISHED, **vehicle):
        named = {"name": "Pellin Mote", "colour": "Harbour  Blue", "registration": registration} | vehicle
        inspection = opened(self.logbook, **named)
        read = [
            reading(panel, um + level - 118 + (-2, 1, 3, -1)[i], after=i, simulated=simulated)
            for panel, um in HONEST.items()
            for i in range(4)
        ]
        end = Draft.write("inspection.stage", StageReached(stage=stage), NOON + timedelta(hours=1))
        self.logbook.append(inspection, [*read, end], by)
        return inspection

    def opened_by_hand(self, **more):
        answer = self.client.post("/inspections/new", data=FORM | more, follow_redirects=False)
        self.assertEqual(answer.status_code, 303)
        return re.sub(r"/facts$", "", answer.headers["location"])

    def read(self, here, level=112):
        self.post(here.rpartition("/")[2], *(reading(panel, level + i) for panel in HONEST for i in range(4)))
        return self.client.get(f"{here}/film?panel=bonnet").text

    def test_three_of_its_make_and_colour_are_named_on_the_page_and_in_the_report(self):
        for level in (98, 107, 121):
            self.finished(level)
        here = self.opened_by_hand()
        page = self.read(here)
        self.assertIn(f"3 {LINE} 98 to 121 µm: this car is compared with them.", page)
        self.assertGreater(page.count(LINE), 1, "also among the panel's reasons")
        self.assertIn("3 of the inspector’s own vehicles of this", self.client.get(f"{here}/report").text)
        self.assertIn("3 of the same make and colour", self.client.get(f"{here}/logbook").text)

    def test_they_are_left_out_and_taken_again_for_one_vehicle(self):
        for level in (98, 107, 121):
            self.finished(level)
        here = self.opened_by_hand()
        self.read(here)
        self.client.post(f"{here}/film/own-vehicles", data={"leave": "yes"})
        page = self.client.get(f"{here}/film").text
        self.assertNotIn(LINE, page)
        self.assertIn("are left out here", page)
        self.finished(130)
        self.client.post(f"{here}/film/own-vehicles", data={"leave": ""})
        self.assertIn(f"4 {LINE} 98 to 130 µm", self.client.get(f"{here}/film").text)

    def test_switched_off_for_the_account_nothing_is_learnt_and_nothing_said(self):
        for level in (98, 107, 121):
            self.finished(level)
        here = self.opened_by_hand()
        self.assertIn(LINE, self.read(here))
        self.client.post("/settings", data=USUAL | {"film_learn": "no"})
        self.assertNotIn(LINE, self.client.get(f"{here}/film").text)
        self.assertNotIn(LINE, self.read(self.opened_by_hand()))
        self.assertRegex(self.client.get("/settings").text, r'value="no" selected')

    def test_what_does_not_count(self):
        """Two finished, and one each that is open, of others, simulated, of another colour, read twice, restored."""
        for level in (98, 107):
            self.finished(level, registration=f"OR {level}")
        self.finished(110, stage=Stage.BEGUN)
        self.finished(110, by="somebody else")
        self.finished(110, simulated=True)
        self.finished(110, colour="red")
        self.finished(110, colour="")
        self.finished(110, name="Carrow Tern")
        self.finished(111, registration="OR 107")
        self.finished(110, finish="restored")
        self.assertNotIn(LINE, self.read(self.opened_by_hand()))
        self.finished(125)
        self.assertIn(f"3 {LINE} 98 to 125 µm", self.read(self.opened_by_hand()))
        self.assertNotIn(LINE, self.read(self.opened_by_hand(colour="")))

    def test_one_finished_through_its_page_counts_at_once(self):
        for level in (98, 107):
            self.finished(level)
        third = self.finished(116, stage=Stage.BEGUN)
        self.client.get(f"/inspections/{third}/film")
        self.client.post(f"/inspections/{third}/stage", data={"stage": "finished", "anyway": "yes"})
        self.assertIn(f"3 {LINE} 98 to 116 µm", self.read(self.opened_by_hand()))

    def test_a_vehicle_named_otherwise_is_compared_with_others(self):
        for level in (98, 107, 121):
            self.finished(level)
        here = self.opened_by_hand()
        page = self.client.get(f"{here}/vehicle").text
        basis = re.search(r'name="basis" value="([^"]+)"', page)[1]
        form = FORM | {"colour": "red", "basis": basis}
        answer = self.client.post(f"{here}/vehicle", data=form, follow_redirects=False)
        self.assertEqual(answer.status_code, 303)
        self.assertNotIn(LINE, self.read(here))


class Alike(WebCase):
    def test_make_is_the_first_word_and_colour_is_compared_whatever_its_case(self):
        one, other = car(name="Pellin Mote", colour="Harbour  Blue"), car(name="pellin Six", colour="harbour blue")
        self.assertEqual(one.kind, other.kind)
        self.assertEqual(car(colour="").kind, "")
        self.assertNotEqual(Vehicle(vehicle=one).vehicle.kind, car(colour="blue").kind)
