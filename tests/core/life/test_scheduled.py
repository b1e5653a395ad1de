import unittest

from hakutsu.core.life.reckon import Given, Proof, scheduled_jobs
from hakutsu.vehicle.mechanics import Mechanics


def due(part, proof=None, *, rate=13_000, age=3.0, km=180_000.0, power="petrol", timing="belt"):
    """Months until a scheduled item is due."""
    mechanics = Mechanics(first_used="2015-06-01", power=power, timing=timing, gearbox="manual", drive="front")
    given = Given(mechanics, 5, rate, age, km, proofs={} if proof is None else {part: proof})
    (mine,) = (job for job in scheduled_jobs(given) if job.key == part)
    return mine.due


class BothClocks(unittest.TestCase):
    def test_a_belt_of_two_years_at_60_000_a_year_is_due_now(self):
        # 2 · 60,000 km = the 120,000 km it lasts; the date alone would leave six years
        self.assertEqual(due("timing_belt", Proof(None, 2.0, "invoice"), rate=60_000), 0.0)

    def test_changed_today_it_lasts_two_years_at_that_rate(self):
        self.assertAlmostEqual(due("timing_belt", Proof(0.0, 0.0, "invoice"), rate=60_000), 24.0)

    def test_the_past_ran_at_the_vehicles_own_rate_and_the_buyer_drives_on_at_his(self):
        # own rate 60,000: 60,000 km since; 60,000 km left at 12,000 a year are five years, eight by time less one
        self.assertAlmostEqual(due("timing_belt", Proof(None, 1.0, "invoice"), rate=12_000), 60.0)

    def test_oil_proven_by_distance_on_a_car_that_stands_is_due_by_time(self):
        # 2,000 km a year: 5,000 km ago is two and a half years ago
        self.assertEqual(due("engine_oil", Proof(5_000, None, "sticker"), age=20.0, km=40_000), 0.0)
        self.assertGreater(due("engine_oil", Proof(5_000, None, "sticker"), age=2.0, km=40_000), 0.0)

    def test_nothing_is_older_than_the_vehicle(self):
        self.assertAlmostEqual(due("brake_fluid", Proof(None, 9.0, "said"), age=1.0, km=10_000), 12.0)


class WithoutProof(unittest.TestCase):
    def test_nothing_is_due_on_a_vehicle_too_young_for_it(self):
        # a belt of 8 years or 120,000 km: 90,000 km left at 13,000 a year are 83 months, by time 72
        self.assertAlmostEqual(due("timing_belt", age=2.0, km=30_000), 72.0)
        self.assertAlmostEqual(due("engine_oil", age=0.5, km=4_000), 6.0)

    def test_without_proof_an_old_vehicle_is_due(self):
        self.assertEqual(due("timing_belt", age=9.0, km=90_000), 0.0)
        self.assertEqual(due("timing_belt", age=None, km=None), 0.0)

    def test_a_proof_without_date_or_distance_proves_nothing(self):
        self.assertEqual(due("timing_belt", Proof(None, None, "said to be done"), age=2.0, km=30_000), 0.0)
