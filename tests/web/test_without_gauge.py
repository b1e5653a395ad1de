from hakutsu.entries.film import CueLookedFor
from hakutsu.entries.general import Limit
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import spot_pattern
from tests.builders import reading
from tests.web.case import RoundCase


class WithoutAGauge(RoundCase):
    def setUp(self):
        super().setUp()
        self.write("general.limit", Limit(station="film", because="no gauge at hand"))

    def text(self, room):
        return self.client.get(f"{self.here}/{room}").text

    def dossier(self):
        return self.client.app.state.desk.reckoning(self.inspection).dossier

    def test_one_limit_takes_film_out_of_coverage_and_stands_once_in_the_report(self):
        self.assertEqual(sum(panel.expected for panel in self.dossier().film_coverage()), 0)
        report = self.text("report")
        self.assertEqual(report.split("What comes next")[0].count("no gauge at hand"), 1)
        self.assertIn("Film of the whole vehicle", report)

    def test_eye_and_hand_are_asked_at_each_place_and_what_they_found_is_judged(self):
        self.assertIn("By eye and hand: Bonnet", " ".join(self.text("place/front").split()))
        for cue in ("overspray", "ripples"):
            self.write("film.cue", CueLookedFor(cue=cue, there=True), place="bonnet")
        self.assertIn("2 ✓", self.text("place/front"))
        report = self.text("report")
        self.assertIn(", by eye. Seen: ", report)
        self.assertIn("what follows was judged by magnet and eye", report)

    def test_the_film_station_says_so_and_takes_it_back(self):
        self.assertIn("No gauge with you.", self.text("film"))

    def test_a_reading_ends_it(self):
        u, v = spot_pattern(panels()["roof"])[0]
        self.post(self.inspection, reading("roof", 118, u=u, v=v))
        self.assertGreater(sum(panel.expected for panel in self.dossier().film_coverage()), 20)
