import unittest
from dataclasses import replace

import numpy as np
from bench.life_calibration import COMPONENTS, held, narrowing
from hypothesis import given, settings
from hypothesis import strategies as st

from hakutsu.core.life import WearCase, remaining
from hakutsu.core.life.measured import wear, wear_table

TYRE = WearCase("t", "tyre", "front", "front", 5.0)
PAD = WearCase("p", "pad", "front", "front", 7.0)
DISC = WearCase("d", "disc", "front", "front", 24.0, new_mm=25.0, limit_mm=22.0)


class ByHand(unittest.TestCase):
    def test_a_rate_that_is_as_good_as_known_gives_depth_left_times_rate(self):
        # 8.0 to 5.0 mm in 21,000 km: 7,000 km a mm, 3.4 mm left to 1.6: about 23,800 km
        known = replace(TYRE, new_mm=8.0, since_km=(21_000, 21_000))
        found = remaining(known).km
        self.assertAlmostEqual(found.p50 / 23_800, 1, delta=0.06)

    def test_without_history_the_median_is_the_prior_rate_times_what_is_left(self):
        # 3.4 mm at 6,500 km a mm
        self.assertAlmostEqual(remaining(TYRE).km.p50 / 22_100, 1, delta=0.05)
        # rear axle of a front-driven car: 9,500 km a mm
        rear = replace(TYRE, axle="rear")
        self.assertAlmostEqual(remaining(rear).km.p50 / 32_300, 1, delta=0.05)

    def test_the_interval_of_an_unknown_rate_is_that_of_its_spread(self):
        # sd of ln: tyre 0.336, owner 0.182, depth 0.3/3.4 = 0.088: together 0.392; P90/P10 = e^(2.563 · 0.392)
        found = remaining(TYRE).km
        self.assertAlmostEqual(np.log(found.p90 / found.p10), 2.563 * 0.392, delta=0.05)

    def test_age_limits_and_says_so(self):
        old = remaining(replace(TYRE, age_years=9.5, km_per_year=10_000))
        self.assertEqual((old.km.p50, old.km.p90, old.limited_by), (5_000, 5_000, "age"))
        self.assertAlmostEqual(old.months.p50, 6)
        self.assertIn("ten years of age", "; ".join(old.basis))
        self.assertEqual(remaining(replace(TYRE, age_years=11, km_per_year=10_000)).km.p50, 0)
        self.assertIsNone(remaining(replace(TYRE, age_years=9.5)).months)

    def test_at_the_limit_and_under_it_the_median_is_nothing_and_still_uncertain(self):
        under = remaining(replace(TYRE, now_mm=1.5)).km
        self.assertEqual((under.p10, under.p50), (0, 0))
        self.assertGreater(under.p90, 0)

    def test_whatever_the_history_a_reading_at_the_limit_has_nothing_left_as_likely_as_not(self):
        for method in ("gauge", "eye"):
            for km in (5_000, 20_000, 60_000):
                for case in (TYRE, PAD, replace(DISC, new_mm=24.0)):
                    limit = case.limit_mm or wear_table()[case.component]["limit_mm"]
                    found = remaining(replace(case, now_mm=limit, method=method, since_km=(km, km)))
                    self.assertEqual((found.km.p10, found.km.p50), (0, 0))
                    self.assertGreater(found.km.p90, 0)
                    self.assertIn("as likely as not", found.basis[-1])

    def test_a_disc_without_minimum_or_new_is_not_known_and_says_why(self):
        for case, why in ((replace(DISC, limit_mm=None), "never guessed"), (replace(DISC, new_mm=None), "needs it")):
            found = remaining(case)
            self.assertIsNone(found.km)
            self.assertIn(why, found.basis[0])

    def test_thicker_than_new_widens_and_says_so(self):
        found = remaining(replace(TYRE, now_mm=11.0))
        self.assertIn("widened", "; ".join(found.basis))
        self.assertGreater(found.km.p50, remaining(replace(TYRE, now_mm=8.0)).km.p50)


class DistanceAndThickness(unittest.TestCase):
    def test_the_step_in_closed_form_agrees_with_a_grid_over_the_thickness_when_new(self):
        for now, km in ((5.0, 21_000), (3.0, 40_000), (6.0, 24_000)):
            z = np.linspace(-6, 6, 301)
            k, n = 6500 * 1.4**z, 8.0 + 0.4 * z
            here = n[None, :] - km / k[:, None]
            off = ((now - here) / 0.3) ** 2
            weight = np.exp(-0.5 * (z[:, None] ** 2 + z[None, :] ** 2 + off)) * (here >= 0)
            left = (np.maximum(0, here - 1.6) * k[:, None]).ravel()
            order = np.argsort(left)
            rising = np.cumsum(weight.ravel()[order]) / weight.sum()
            found = wear(replace(TYRE, now_mm=now, since_km=(km, km)))
            for at in (0.1, 0.5, 0.9):
                expected = np.array([left[order][np.searchsorted(rising, at)]])
                another = wear(replace(TYRE, now_mm=now)).survival(expected, owner=False)[0]
                chance = 1 - found.survival(expected, owner=False)[0]
                mixed = (1 - found.doubt) * at + found.doubt * (1 - another)
                self.assertAlmostEqual(chance, mixed, delta=0.012, msg=f"{now} mm after {km} km")

    def test_a_distance_hardly_bounded_weighs_rates_by_how_many_distances_explain_them(self):
        # uniform in distance instead of in share worn: weight k more, so ln k moves up by its variance, ln(1.4)²
        moved = np.exp(np.log(1.4) ** 2)
        for now in (3.0, 5.0, 6.0, 7.0):
            wide, unknown = (remaining(replace(TYRE, now_mm=now, since_km=km)).km for km in ((0, 150_000), None))
            for name in ("p10", "p50", "p90"):
                self.assertAlmostEqual(getattr(wide, name) / getattr(unknown, name), moved, delta=0.03)

    def test_a_part_hardly_worn_for_its_distance_is_said_to_be(self):
        for now, km, words in ((5.7, 40_000, "unusually little"), (3.2, 13_000, "unusually much")):
            found = remaining(replace(TYRE, now_mm=now, since_km=(km, km)))
            self.assertIn(words, "; ".join(found.basis))
        usual = remaining(replace(TYRE, now_mm=5.0, since_km=(20_000, 20_000)))
        self.assertNotIn("unusually", "; ".join(usual.basis))

    def test_a_distance_that_contradicts_the_thickness_counts_for_little_and_says_so(self):
        case = replace(TYRE, now_mm=7.9, since_km=(900_000, 900_000))
        found, without = remaining(case), remaining(replace(case, since_km=None))
        self.assertIn("contradicts the thickness", "; ".join(found.basis))
        self.assertGreaterEqual(found.km.p50, without.km.p50 - 1)
        self.assertLess(
            found.km.p50, 1.6 * without.km.p50
        )  # not the 900,000 km again that the distance alone would say

    def test_one_in_twenty_distances_is_another_parts(self):
        # 4 mm after 20,000 km is just what is usual: the doubt stays near its prior of 0.05; 7.9 mm is hardly believed
        doubts = [wear(replace(TYRE, now_mm=mm, since_km=(20_000, 20_000))).doubt for mm in (5.0, 7.0, 7.9)]
        self.assertLess(doubts[0], 0.05)
        self.assertTrue(doubts[0] < doubts[1] < doubts[2])
        self.assertGreater(doubts[2], 0.5)

    @settings(max_examples=60, deadline=None)
    @given(st.floats(2, 8.5), st.floats(0.1, 3), st.floats(3_000, 60_000))
    def test_with_a_distance_a_thinner_tyre_never_lasts_longer(self, now, less, km):
        thick, thin = (remaining(replace(TYRE, now_mm=mm, since_km=(km, km))) for mm in (now, max(0.0, now - less)))
        for name in ("p10", "p50", "p90"):
            self.assertLessEqual(getattr(thin.km, name), getattr(thick.km, name) * 1.01 + 1)


class Properties(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.sampled_from([TYRE, PAD, DISC]), st.floats(0, 30), st.floats(0.1, 5), st.booleans())
    def test_thinner_never_lasts_longer(self, case, now, less, by_eye):
        case = replace(case, now_mm=now, method="eye" if by_eye else "gauge")
        thick, thin = remaining(case).km, remaining(replace(case, now_mm=max(0.0, now - less))).km
        for name in ("p10", "p50", "p90"):
            self.assertLessEqual(getattr(thin, name), getattr(thick, name) * (1 + 1e-6) + 1)

    @settings(max_examples=40, deadline=None)
    @given(st.floats(2, 8), st.floats(500, 60_000), st.floats(1.01, 4), st.one_of(st.none(), st.floats(0, 12)))
    def test_more_distance_a_year_never_means_more_months(self, now, year, more, age):
        case = replace(TYRE, now_mm=now, age_years=age)
        slow, fast = (remaining(replace(case, km_per_year=year * one)).months for one in (1, more))
        for name in ("p10", "p50", "p90"):
            self.assertLessEqual(getattr(fast, name), getattr(slow, name) * (1 + 1e-6) + 1e-6)

    @settings(max_examples=80, deadline=None)
    @given(st.sampled_from([TYRE, PAD, DISC]), st.floats(0, 1.1))
    def test_without_history_a_tighter_measurement_is_never_wider(self, case, share):
        row = wear_table()[case.component]
        limit = case.limit_mm or row["limit_mm"]
        new = case.new_mm or row.get("new_mm", row.get("front", {}).get("new_mm", [0]))[0]
        case = replace(case, now_mm=limit + share * (new - limit))
        gauge, eye = (remaining(replace(case, method=method)).km for method in ("gauge", "eye"))
        self.assertLessEqual(gauge.p90 - gauge.p10, (eye.p90 - eye.p10) * (1 + 1e-9))

    def test_with_history_a_tighter_measurement_is_not_wider_on_average(self):
        rng, ratios = np.random.default_rng(2), []
        for _ in range(200):
            k, n = 6500 * 1.4 ** rng.normal(), 8.0 + 0.4 * rng.normal()
            now = n - rng.uniform(0.1, 0.7) * (n - 1.6)
            d = (n - now) * k
            case = replace(TYRE, since_km=(0.95 * d, 1.05 * d))
            widths = []
            for method, sd in (("gauge", 0.3), ("eye", 1.2)):
                found = remaining(replace(case, method=method, now_mm=max(0.0, now + sd * rng.normal()))).km
                widths.append((found.p90 - found.p10) / max(found.p50, 500))
            ratios.append(np.log(widths[0] / widths[1]))
        self.assertLess(np.mean(ratios), 0)

    def test_history_narrows_what_is_measured_by_gauge(self):
        for case in (replace(TYRE, now_mm=4.5, since_km=(22_000, 25_000)), replace(PAD, since_km=(33_000, 37_000))):
            known, unknown = remaining(case).km, remaining(replace(case, since_km=None)).km
            self.assertLess(np.log(known.p90 / known.p10), 0.75 * np.log(unknown.p90 / unknown.p10))


class Calibration(unittest.TestCase):
    def test_the_interval_holds_the_truth_of_simulated_parts(self):
        rng, held = np.random.default_rng(5), []
        row = wear_table()["tyre"]
        for _ in range(400):
            k = 6500 * 1.4 ** rng.normal()
            n = row["new_mm"][0] + row["new_mm"][1] * rng.normal()
            now = n - rng.uniform(0.1, 0.6) * n
            measured = round(max(0.0, now + 0.3 * rng.normal()), 1)
            since = ((n - now) * k * 0.9, (n - now) * k * 1.1) if rng.random() < 0.5 else None
            found = remaining(replace(TYRE, now_mm=measured, since_km=since)).km
            held.append(found.p10 <= max(0.0, now - 1.6) * k * 1.2 ** rng.normal() <= found.p90)
        self.assertTrue(0.74 < np.mean(held) < 0.87, np.mean(held))

    def test_a_distance_makes_the_interval_of_gauge_readings_a_quarter_narrower(self):
        ratios = [ratio for part in COMPONENTS for ratio in narrowing("bare", part, 120, 4)]
        self.assertGreater(len(ratios), 60)
        self.assertLess(np.mean(ratios), 0.75)

    def test_the_same_parts_are_held_by_component(self):
        for part in COMPONENTS:
            self.assertTrue(0.72 < held("usable", part, 250, 7) < 0.87, part)
