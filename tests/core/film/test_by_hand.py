"""What eye and hand measure: reflection as a distance, a repair mapped by hand, workmanship."""

import unittest
from dataclasses import replace
from math import exp, pi

import numpy as np

from hakutsu.core.estimate import Z80
from hakutsu.core.film import CueLooked, FilmSurvey, State, analyse, parameters
from hakutsu.core.film.by_hand import (
    WORK_WORDS,
    WorkPart,
    by_hand_weights,
    mapped_area,
    mapped_cue,
    mapped_share,
    reflection_cues,
    workmanship,
)
from hakutsu.core.film.cues import cue_ratios
from hakutsu.vehicle.vocabulary import Substrate, Work
from tests.core.film.test_sanity import car, panel

P = parameters()
DOORS = ("front_door_left", "rear_door_left", "front_door_right", "rear_door_right")
WING = "front_wing_left"


class Reflection(unittest.TestCase):
    def test_a_panel_that_reads_from_half_as_far_is_dull_and_the_others_are_not(self):
        found = reflection_cues(dict.fromkeys(DOORS, 120.0) | {WING: 60.0}, P)
        self.assertEqual((found[WING].kind, found[WING].there, found[WING].share), ("dull_reflection", True, 1.0))
        self.assertEqual(
            found[WING].words, "print can be read from 60 cm in its paint, from 120 cm in that of the others"
        )
        self.assertFalse(any(found[door].there for door in DOORS))

    def test_between_sharp_and_dull_it_counts_in_part(self):
        """0.85 of the others is as sharp, 0.5 fully dull: 81 of 120 is 0.675, half way."""
        found = reflection_cues(dict.fromkeys(DOORS, 120.0) | {WING: 81.0}, P)
        self.assertAlmostEqual(found[WING].share, 0.5, 9)
        half, full, none = (
            cue_ratios([one])
            for one in (found[WING], CueLooked("dull_reflection", True), CueLooked("dull_reflection", False))
        )
        np.testing.assert_allclose(half, (full + none) / 2)

    def test_flat_panels_are_compared_with_flat_ones_and_few_with_nothing(self):
        found = reflection_cues(dict.fromkeys(DOORS, 120.0) | {"roof": 60.0}, P)
        self.assertTrue(found["roof"].there, "no other flat panels: compared with all")
        flat = {"roof": 60.0, "bonnet": 60.0, "boot_lid": 62.0, "tailgate": 120.0, "sunroof": 61.0}
        flat = {key: far for key, far in flat.items() if key in ("roof", "bonnet", "boot_lid")}
        self.assertEqual(reflection_cues(flat, P), {})

    def test_twice_as_sharp_is_no_evidence_of_paint(self):
        self.assertFalse(reflection_cues(dict.fromkeys(DOORS, 120.0) | {WING: 240.0}, P)[WING].there)


class Mapped(unittest.TestCase):
    def test_its_area_is_that_of_an_ellipse(self):
        self.assertAlmostEqual(mapped_area(30, 20), pi * 15 * 10, 9)

    def test_shares_agree_best_with_what_was_mapped(self):
        weights = by_hand_weights(np.array([0.05, 0.1, 0.2]), 0.1, P)
        self.assertAlmostEqual(float(weights[1]), 1.0, 9)
        self.assertAlmostEqual(float(weights[0]), exp(-0.5 * (np.log(2) / P.mapped.sd_log) ** 2), 9)

    def test_alone_it_gives_the_extent_with_its_interval(self):
        found = mapped_share(0.1, P)
        self.assertAlmostEqual(found.low, 0.1 / exp(Z80 * P.mapped.sd_log), 6)
        self.assertEqual(mapped_share(0.9, P).high, 1.0)

    def test_without_a_gauge_it_makes_filler_likely_with_its_extent(self):
        survey = FilmSurvey("eye", [], substrates={WING: Substrate.STEEL}, cues={WING: [mapped_cue(30, 20)]},
                            mapped={WING: 0.15})  # fmt: skip
        found = analyse(survey).panel(WING)
        self.assertGreater(found.probabilities[State.FILLED], 0.4)
        self.assertIn("a repair of 30 × 20 cm mapped by hand", found.reasons)
        self.assertIn("by eye", found.words)
        self.assertTrue(found.filled_share.low < 0.15 < found.filled_share.high)

    def test_beside_a_gauge_it_narrows_the_extent(self):
        read = [*car(115, without=(WING,)), *panel(WING, 150)]
        read += [replace(o, value_um=700.0, u=0.5, v=0.12 + 0.01 * i) for i, o in enumerate(panel(WING, 115)[:3])]
        cues = {WING: [mapped_cue(12, 10)]}
        alone = analyse(FilmSurvey("car", read)).panel(WING).filled_share
        mapped = analyse(FilmSurvey("car", read, cues=cues, mapped={WING: 0.04})).panel(WING).filled_share
        self.assertLess(mapped.high - mapped.low, alone.high - alone.low)
        self.assertLess(abs(mapped.median - 0.04), abs(alone.median - 0.04))


class Workmanship(unittest.TestCase):
    def test_grades(self):
        good, fair, poor = Work.GOOD, Work.FAIR, Work.POOR
        flat, clean, edges, trim = WorkPart
        for parts, grade, why in (
            ({flat: good, trim: good}, good, "flat, trim taken off"),
            ({flat: good, clean: fair}, fair, "some dust or sanding marks"),
            ({flat: fair, trim: poor}, poor, "paint on trim and rubbers, not quite flat"),
            (
                {flat: fair, clean: fair, edges: fair},
                poor,
                "not quite flat, some dust or sanding marks, a soft edge to feel",
            ),
        ):
            with self.subTest(why):
                found = workmanship(parts)
                self.assertEqual((found.grade, found.why), (grade, why))
        self.assertIsNone(workmanship({}))

    def test_every_grade_has_words(self):
        self.assertEqual(set(WORK_WORDS), {(part, grade) for part in WorkPart for grade in Work})


if __name__ == "__main__":
    unittest.main()
