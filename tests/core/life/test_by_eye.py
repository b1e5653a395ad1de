"""What looks new, and what leaks: findings that set lives without a date or a grade given by hand."""

import unittest

from hakutsu.core.life.reckon import Given, Proof, survival_jobs
from hakutsu.core.phrases import says
from hakutsu.core.under.leaks import LeakFound, leak_grade, leaking_piece
from hakutsu.entries.corners import Grade
from hakutsu.entries.under import LeakFluid, Stage
from hakutsu.vehicle.mechanics import Mechanics


def due(part, age=12.0, proofs=None, grades=None):
    mechanics = Mechanics(power="petrol", gearbox="manual", drive="front", timing="chain")
    given = Given(mechanics, 5, 12_000, age, age * 13_000, proofs=proofs or {}, grades=grades or {})
    return next(job for job in survival_jobs(given) if job.key == part).months()


class LooksNew(unittest.TestCase):
    NEW = {"battery": Proof(None, None, "looks new (by eye)", by_eye=True)}

    def test_it_lies_between_a_dated_proof_and_none(self):
        dated = due("battery", proofs={"battery": Proof(None, 0.25, "new 2026-08 (invoice)")})
        by_eye, none = due("battery", proofs=self.NEW), due("battery")
        self.assertLess(none.median, by_eye.median)
        self.assertLess(by_eye.median, dated.median)
        self.assertGreater(by_eye.high / by_eye.low, dated.high / dated.low)

    def test_it_is_never_older_than_the_vehicle(self):
        half = due("battery", age=0.5, proofs=self.NEW)
        self.assertAlmostEqual(half.median, due("battery", age=0.5).median, delta=3)

    def test_without_the_eye_a_proof_that_says_no_date_says_nothing(self):
        nothing = Proof(None, None, "new (the seller)")
        self.assertEqual(due("battery", proofs={"battery": nothing}).median, due("battery").median)


class Leaks(unittest.TestCase):
    def test_the_part_that_leaks_by_its_name_and_fluid(self):
        for fluid, origin, place, part in (
            ("coolant", "radiator seam", "bay", "radiator"),
            ("coolant", "upper radiator hose", "bay", "coolant_hoses"),
            ("coolant", "water pump weep hole", "bay", "water_pump"),
            ("steering", "steering rack", "bay", "steering_rack"),
            ("brake", "wheel cylinder", "wheel_rear_right", "wheel_cylinder:rear_right"),
            ("brake", "wheel cylinder", "", ""),
            ("brake", "master cylinder", "bay", "master_cylinder"),
            ("oil", "sump gasket", "bay", ""),
            ("coolant", "somewhere below", "bay", ""),
        ):
            with self.subTest(origin):
                self.assertEqual(leaking_piece(LeakFluid(fluid), origin, place), part)

    def test_how_far_it_has_gone_grades_it(self):
        def grade(fluid, stage, part="radiator", **more):
            return leak_grade(LeakFound(LeakFluid(fluid), "x", Stage(stage), "", "x", False, part=part, **more))

        self.assertEqual([grade("coolant", one) for one in ("none", "stain", "seep", "weep", "drip", "run")],
                         [None, None, Grade.WORN, Grade.WORN, Grade.FAILING, Grade.FAILING])  # fmt: skip
        self.assertEqual(grade("brake", "seep", "caliper:front_left"), Grade.FAILING)
        self.assertIsNone(grade("coolant", "drip", part=""))
        self.assertIsNone(grade("coolant", "drip", suspended=True))

    def test_a_dripping_radiator_is_failing_whatever_its_age(self):
        self.assertLess(due("radiator", age=2.0, grades={"radiator": Grade.FAILING}).median, 6.1)
        self.assertGreater(due("radiator", age=2.0).median, 60)

    def test_no_leak_names_no_part(self):
        self.assertEqual(says("leaks_coolant", "no leak at the radiator"), [])


if __name__ == "__main__":
    unittest.main()
