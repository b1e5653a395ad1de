import unittest
from dataclasses import replace

import numpy as np

from hakutsu.core.film import STATES, Cover, CueLooked, State, analyse, cue_kinds, magnet_observation, without
from hakutsu.core.film.cues import cue_ratios
from hakutsu.vehicle.vocabulary import CoverKind, MagnetGrade, Substrate
from tests.builders import honest_car, readings, survey

PANEL = "rear_quarter_right"
FILLED = STATES.index(State.FILLED)


def seen(*kinds):
    return [CueLooked(kind, True) for kind in kinds]


def chances(*cues, values=(128, 133), magnets=(), cover=None, car=honest_car()):
    base = survey(car, readings(PANEL, *values), rear_quarter_right="steel")
    covers = {PANEL: cover} if cover else {}
    return analyse(replace(base, cues={PANEL: list(cues)}, magnets=list(magnets), covers=covers)).panel(PANEL)


class Ratios(unittest.TestCase):
    def test_nothing_looked_for_is_one(self):
        np.testing.assert_allclose(cue_ratios([]), 0)

    def test_cues_of_different_groups_multiply(self):
        kinds = cue_kinds()
        both = cue_ratios(seen("overspray", "mismatch"))
        np.testing.assert_allclose(both, np.add(kinds["overspray"].seen, kinds["mismatch"].seen))

    def test_within_a_group_the_strongest_counts_in_full_and_the_others_with_exponent_three_tenths(self):
        # masking: a masking edge (22 for refinished) is stronger than overspray (20) and labels (9)
        found = cue_ratios(seen("labels", "overspray", "masking_edge"))
        refinished = STATES.index(State.REFINISHED)
        self.assertAlmostEqual(found[refinished], np.log(22) + 0.3 * (np.log(20) + np.log(9)))

    def test_the_order_of_looking_does_not_matter(self):
        one = cue_ratios(seen("runs", "fisheyes", "ripples"))
        np.testing.assert_allclose(one, cue_ratios(seen("ripples", "runs", "fisheyes")))

    def test_every_cue_speaks_for_something_when_there_and_against_it_when_not(self):
        for kind in cue_kinds().values():
            with self.subTest(kind.key):
                self.assertGreater(max(kind.seen), 0.5)
                self.assertLess(min(kind.absent), 0)
                self.assertEqual((kind.seen[0], kind.absent[0]), (0, 0))


class Posterior(unittest.TestCase):
    def test_a_cue_that_is_there_raises_altered_and_one_that_is_not_lowers_it(self):
        plain = chances().altered
        self.assertGreater(chances(CueLooked("overspray", True)).altered, plain)
        self.assertLess(chances(CueLooked("overspray", False)).altered, plain)

    def test_cues_alone_tell_of_bare_metal_repaint_that_thickness_cannot(self):
        at_baseline = chances(*seen("overspray", "broken_bolts", "orange_peel"), values=(119, 117, 118))
        self.assertGreater(at_baseline.altered, 0.5)
        self.assertTrue(any(reason.startswith("seen: ") for reason in at_baseline.reasons))

    def test_ripples_point_at_filler(self):
        with_ripples = chances(*seen("ripples"), values=(236, 229, 241)).probabilities[State.FILLED]
        self.assertGreater(with_ripples, chances(values=(236, 229, 241)).probabilities[State.FILLED])

    def test_what_one_cue_did_is_what_the_model_says_without_it(self):
        cue = CueLooked("overspray", True)
        undone = without(chances(cue, values=(118, 117, 119)).probabilities, [cue], cue)
        for state, chance in chances(values=(118, 117, 119)).probabilities.items():
            self.assertAlmostEqual(undone[state], chance, delta=0.02)

    def test_weights_add_up_to_the_odds(self):
        found = chances(CueLooked("mismatch", True))
        w = found.weights
        odds = np.log2(found.altered / (1 - found.altered))
        self.assertAlmostEqual(w.declared + w.rest_of_car + w.readings + w.cues, odds, places=6)
        self.assertGreater(w.cues, 0)


class Magnet(unittest.TestCase):
    def test_a_magnet_that_does_not_hold_means_filler_and_a_firm_one_hardly_any(self):
        loose, firm = (
            chances(values=(), magnets=[magnet_observation(PANEL, grade)]).probabilities[State.FILLED]
            for grade in (MagnetGrade.NONE, MagnetGrade.FIRM)
        )
        self.assertGreater(loose, 0.8)
        self.assertLess(firm, chances(values=()).probabilities[State.FILLED])

    def test_beside_a_gauge_reading_it_adds_nothing(self):
        base = survey(honest_car(), readings(PANEL, 236, u=0.5, v=0.5))
        with_magnet = replace(base, magnets=[magnet_observation(PANEL, MagnetGrade.FIRM, 0.52, 0.5)])
        self.assertEqual(analyse(base).panel(PANEL).probabilities, analyse(with_magnet).panel(PANEL).probabilities)

    def test_on_aluminium_it_says_nothing(self):
        base = survey(honest_car(), readings(PANEL, 119, substrate=Substrate.ALUMINIUM, u=0.5, v=0.5))
        with_magnet = replace(base, magnets=[magnet_observation(PANEL, MagnetGrade.NONE, 0.1, 0.1)])
        self.assertEqual(analyse(base).panel(PANEL).probabilities, analyse(with_magnet).panel(PANEL).probabilities)


class Covers(unittest.TestCase):
    FILMED = (301, 304, 299, 302)

    def test_even_film_at_such_a_height_asks_for_the_edge_first(self):
        self.assertTrue(any("feel for its edge" in reason for reason in chances(values=self.FILMED).reasons))

    def test_film_of_known_thickness_is_taken_off(self):
        found = chances(values=self.FILMED, cover=Cover(CoverKind.PROTECTION_FILM, 183))
        self.assertEqual(found.state, State.ORIGINAL)
        self.assertTrue(any("taken off every reading" in reason for reason in found.reasons))

    def test_film_of_unknown_thickness_leaves_the_panel_not_measurable(self):
        found = chances(values=self.FILMED, cover=Cover(CoverKind.PROTECTION_FILM))
        self.assertTrue(found.not_measurable)
        self.assertIn("not measurable", found.words)

    def test_an_edge_felt_makes_original_likelier_and_none_felt_settles_it_the_other_way(self):
        altered = [
            chances(values=self.FILMED, cover=cover).altered
            for cover in (Cover(CoverKind.UNKNOWN), None, Cover(CoverKind.NOTHING))
        ]
        self.assertLess(altered[0], altered[1] - 0.05)
        self.assertLessEqual(altered[1], altered[2])
