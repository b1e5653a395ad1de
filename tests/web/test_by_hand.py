"""Reflection, a mapped repair and workmanship, from their entries to the page, the sheet and the report."""

from hakutsu.entries.film import MappedRepair, Reflection, WorkmanshipSeen
from hakutsu.entries.general import Limit, Station
from hakutsu.vehicle.vocabulary import Work
from tests.web.case import RoundCase

DOORS = ("front_door_left", "rear_door_left", "front_door_right", "rear_door_right")


class ByHand(RoundCase):
    def film(self, panel):
        return self.client.get(f"{self.here}/film?panel={panel}").text

    def report(self):
        return self.client.get(f"{self.here}/report").text

    def test_reflections_are_compared_and_told(self):
        for door in DOORS:
            self.write("film.reflection", Reflection(distance_cm=120), place=door)
        self.write("film.reflection", Reflection(distance_cm=55), place="front_wing_left")
        words = "print can be read from 55 cm in its paint, from 120 cm in that of the others"
        self.assertIn(words, self.film("front_wing_left"))
        self.assertIn(words[1:], self.report())
        self.assertIn('value="55"', self.film("front_wing_left"))

    def test_a_mapped_repair_without_a_gauge_reaches_the_report_with_its_extent(self):
        self.write("general.limit", Limit(station=Station.FILM, because="no gauge with me"))
        self.write("film.mapped", MappedRepair(length_cm=30, width_cm=20), place="front_wing_left")
        page = self.film("front_wing_left")
        self.assertIn("a repair of 30 × 20 cm mapped by hand", page)
        self.assertRegex(page, r"filler under \d+ to [\d,]+ cm²")
        self.assertIn("30 × 20 cm mapped by hand", self.report())

    def test_poor_workmanship_is_a_finding_and_on_the_sheet_and_good_is_told(self):
        self.write("film.workmanship", WorkmanshipSeen(flatness=Work.GOOD, trim=Work.POOR), place="bonnet")
        self.write("film.workmanship", WorkmanshipSeen(flatness=Work.GOOD), place="roof")
        reckoning = self.client.app.state.desk.reckoning(self.inspection)
        mine = [one for one in reckoning.findings if one.code == "film.poor_work"]
        self.assertEqual([one.subject for one in mine], ["bonnet"])
        self.assertIn(
            "Workmanship of this repaint: <strong>poor</strong>, paint on trim and rubbers", self.film("bonnet")
        )
        report = self.report()
        self.assertIn("painted again poorly: paint on trim and rubbers", report.replace("Painted", "painted"))
        self.assertIn("<strong>Roof</strong> good (flat)", report)

    def test_out_of_bounds_is_refused(self):
        for kind, body in (
            ("film.reflection", {"distance_cm": 4}),
            ("film.reflection", {"distance_cm": -1}),
            ("film.mapped", {"length_cm": 10, "width_cm": 501}),
            ("film.mapped", {"length_cm": 10}),
            ("film.workmanship", {}),
            ("film.workmanship", {"flatness": "superb"}),
        ):
            with self.subTest(kind, body=body):
                draft = {"kind": kind, "place": "bonnet", "body": body, "at": "2026-11-20T12:00:00Z"}
                answer = self.client.post(f"{self.here}/entries", json={"entries": [draft]})
                self.assertGreaterEqual(answer.status_code, 400)
