import unittest
from datetime import timedelta

import numpy as np

from hakutsu.core.film import Observation
from hakutsu.core.film.parameters import parameters
from hakutsu.core.film.verification import Check, Verified, corrected, drifts, fit_gauge, verified
from hakutsu.vehicle.vocabulary import ReadingStatus
from tests.builders import NOON

P = parameters().verifying
LATER = NOON + timedelta(hours=2)


def fit(offset=0.0, gain=1.0, at=NOON, shims=(0, 125, 500)):
    return fit_gauge(at, [Check(shim, offset + gain * shim) for shim in shims], P)


class Fits(unittest.TestCase):
    def test_a_true_gauge_has_no_offset_and_a_gain_of_one(self):
        found = fit()
        self.assertAlmostEqual(found.offset_um, 0, places=9)
        self.assertAlmostEqual(found.gain, 1, places=9)

    def test_offset_and_gain_come_back_nearly_whole(self):
        # The priors (0 ± 3 µm, 1 ± 0.03) pull a little: three checks of 0.7 µm + 0.5 % leave less than a tenth of it.
        found = fit(2.0, 1.02)
        self.assertAlmostEqual(found.offset_um, 2.0, delta=0.15)
        self.assertAlmostEqual(found.gain, 1.02, delta=0.003)

    def test_one_check_by_hand(self):
        # bare plate shows 2: offset = 2 · (1/0.49) / (1/0.49 + 1/9) = 1.897; the gain stays the prior's
        found = fit_gauge(NOON, [Check(0, 2.0)], P)
        self.assertAlmostEqual(found.offset_um, 1.8967, places=3)
        self.assertAlmostEqual(found.gain, 1.0)
        self.assertAlmostEqual(np.sqrt(found.covariance[0, 0]), 0.6817, places=3)
        self.assertFalse(found.complete)


class States(unittest.TestCase):
    def test_by_what_was_done(self):
        plate_only = fit_gauge(NOON, [Check(0, 0)], P)
        for start, end, state in (
            (None, None, Verified.NOT),
            (fit(), None, Verified.START_ONLY),
            (None, fit(), Verified.NOT),
            (plate_only, fit(), Verified.INCOMPLETE),
            (fit(), fit(0.5, 1.005, LATER), Verified.VERIFIED),
            (fit(), fit(4.0, 1.0, LATER), Verified.DRIFTED),
        ):
            with self.subTest(state):
                self.assertEqual(verified(start, end, P), state)

    def test_drift_of_the_limit_itself_is_still_verified(self):
        # at a shim of 500 µm the limit is 3 + 15 = 18 µm; 2.9 µm at the plate is within 3
        self.assertEqual(verified(fit(), fit(2.9, 1.0, LATER), P), Verified.VERIFIED)
        self.assertAlmostEqual(drifts(fit(), fit(2.9, 1.0, LATER))[0][1], 2.9, delta=0.2)


class Corrections(unittest.TestCase):
    def correct(self, shown, at=NOON, start=None, end=None, **more):
        return corrected(Observation("roof", shown, **more), at, start, end, P)

    def test_without_verification_nothing_changes(self):
        self.assertEqual(self.correct(120.0), Observation("roof", 120.0))

    def test_offset_is_taken_off_and_the_doubt_is_carried(self):
        found = self.correct(122.0, start=fit(2.0))
        self.assertAlmostEqual(found.value_um, 120, delta=0.3)
        self.assertTrue(0.2 < found.extra_sd_um < 1.5)

    def test_drift_goes_with_the_time_of_the_reading(self):
        start, end = fit(0.0), fit(4.0, at=LATER)
        values = [self.correct(124.0, NOON + timedelta(hours=h), start, end).value_um for h in (0, 1, 2, 9)]
        self.assertAlmostEqual(values[0] - values[1], values[1] - values[2], places=2)
        self.assertAlmostEqual(values[0] - values[2], 3.9, delta=0.3)
        self.assertEqual(values[2], values[3])

    def test_above_the_highest_shim_the_doubt_widens(self):
        inside, beyond = (self.correct(um, start=fit()).extra_sd_um for um in (490.0, 1500.0))
        self.assertGreater(beyond, inside + 8)

    def test_over_range_moves_its_bound_and_stays_over_range(self):
        found = self.correct(None, start=fit(5.0), status=ReadingStatus.OVER, limit_um=1500.0)
        self.assertIsNone(found.value_um)
        self.assertTrue(found.censored)
        self.assertAlmostEqual(found.limit_um, 1495, delta=1)
