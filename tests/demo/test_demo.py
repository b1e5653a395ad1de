import tempfile
import unittest
from pathlib import Path

from hakutsu.core.film import State
from hakutsu.demo import add_demo
from hakutsu.demo.building import CARS, demo_id
from hakutsu.demo.reference import REFERENCES
from hakutsu.dossier import gather_dossier
from hakutsu.entries.opening import Stage
from hakutsu.exchange.film_csv import read_film_csv
from hakutsu.reckoning import Reckoning
from tests.builders import first_fault, logbook_in

EXAMPLES = Path(__file__).parents[2] / "examples"


class Demo(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.directory = tempfile.TemporaryDirectory()
        cls.addClassCleanup(cls.directory.cleanup)
        cls.logbook = logbook_in(cls.directory.name)
        add_demo(cls.logbook)

    def reckoning(self, car):
        return Reckoning(gather_dossier(demo_id(car), self.logbook.entries(demo_id(car))))

    def test_starting_again_adds_nothing(self):
        before = self.logbook.count()
        add_demo(self.logbook)
        self.assertEqual((self.logbook.count(), len(self.logbook.inspections())), (before, len(CARS) + len(REFERENCES)))

    def test_one_is_finished_one_half_done_one_just_begun(self):
        stages = {car: self.reckoning(car).dossier.opening.stage for car in CARS}
        self.assertEqual(stages, {"estate": Stage.FINISHED, "hatch": Stage.BEGUN, "fell": Stage.BEGUN})
        taken = {car: len(self.reckoning(car).dossier.film.readings) for car in CARS}
        self.assertTrue(taken["fell"] < taken["hatch"] < taken["estate"])

    def test_the_engine_finds_the_hidden_repaint_and_the_filled_corner(self):
        film = self.reckoning("estate").film.analysis
        self.assertEqual(film.panel("front_wing_left").state, State.REFINISHED)
        self.assertEqual(film.panel("rear_quarter_right").state, State.FILLED)
        self.assertEqual(film.panel("tailgate").state, State.ORIGINAL)

    def test_the_half_done_one_asks_for_a_repeat(self):
        panels = {s.observation.panel for s in self.reckoning("hatch").film.analysis.surprises}
        self.assertIn("rear_quarter_left", panels)

    def test_its_logbook_holds_a_struck_entry_and_an_unbroken_chain(self):
        self.assertEqual(len(self.reckoning("estate").dossier.struck), 1)
        self.assertIsNone(first_fault(self.logbook, demo_id("estate")))

    def test_the_example_file_is_the_finished_vehicles_survey(self):
        found = read_film_csv((EXAMPLES / "estate_film.csv").read_bytes())
        self.assertEqual(found.bad, [])
        self.assertEqual(len(found.rows), len(self.reckoning("estate").dossier.film.readings))
