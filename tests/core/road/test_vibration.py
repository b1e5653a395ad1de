"""A recorded vibration: even pieces of uneven rows, frequencies by hand, tones found, none found, and doubt."""

import unittest

import numpy as np
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from hakutsu.core.road.vibration import Record, Stated, match_vibration
from hakutsu.core.road.vibration.record import even
from hakutsu.core.road.vibration.simulate import World, make
from hakutsu.core.road.vibration.sources import sources

# 90 km/h on 2.0 m: 25 m/s, 12.5 turns a second; a shaft at 3.6 turns 45 times, an engine at 2,400 rpm 40 times.
STATED = Stated(90.0, 2.0, 3.6, 2400.0)


def driven(*tones, rate=200.0, lasts=30.0, noise=0.1, seed=1, jitter=0.1):
    """Rows of tones (Hz, amplitude) in noise, with gravity, the axes lying anyhow."""
    rng = np.random.default_rng(seed)
    t = np.sort(np.arange(0, lasts, 1 / rate) + rng.normal(0, jitter / rate, int(lasts * rate)))
    a = rng.normal(0, noise, (t.size, 3)) + 9.81 * np.array([0.6, 0.0, 0.8])
    for hz, amplitude in tones:
        a += amplitude * np.sin(2 * np.pi * hz * t)[:, None] * np.array([0.48, 0.6, 0.64])
    return Record(t, a)


def top(match):
    return max(match.candidates, key=lambda one: one.probability)


class Expected(unittest.TestCase):
    def test_what_turns_how_often(self):
        hz = {one.key: one.hz for one in sources(STATED)}
        wanted = {
            "tyre_1": 12.5, "tyre_2": 25, "tyre_3": 37.5, "propshaft_1": 45, "propshaft_2": 90, "engine_0.5": 20,
            "engine_1": 40, "engine_2": 80,
        }  # fmt: skip
        self.assertEqual(set(hz), set(wanted))
        for key, value in wanted.items():
            self.assertAlmostEqual(hz[key], value, msg=key)

    def test_shaft_and_engine_only_where_they_were_stated(self):
        self.assertEqual([one.key for one in sources(Stated(90, 2.0))], ["tyre_1", "tyre_2", "tyre_3"])

    def test_what_cannot_be_is_refused_with_every_fault(self):
        with self.assertRaisesRegex(ValueError, "speed: between.*rolling circumference: between.*final drive"):
            Stated(400, 0, 0.1)


class Rows(unittest.TestCase):
    def test_gaps_are_not_drawn_across_and_repeats_count_once(self):
        t = np.concatenate([np.arange(0, 5, 0.01), np.arange(8, 12, 0.01)])
        t = np.sort(np.concatenate([t, t[100:110]]))
        flat = even(Record(t, np.zeros((t.size, 3))))
        self.assertEqual(len(flat.pieces), 2)
        self.assertAlmostEqual(flat.rate_hz, 100, delta=0.5)
        self.assertTrue(any("gap" in one for one in flat.warnings))

    def test_rows_left_out_do_not_slow_the_rate(self):
        rng = np.random.default_rng(2)
        t = np.arange(0, 20, 0.005)
        t = t[rng.random(t.size) > 0.1]
        self.assertAlmostEqual(even(Record(t, np.zeros((t.size, 3)))).rate_hz, 200, delta=2)

    def test_rows_out_of_order_are_sorted_and_it_is_said(self):
        record = driven((12.5, 0.3))
        order = np.arange(record.t.size)
        order[[50, 900]] = order[[900, 50]]
        match = match_vibration(Record(record.t[order], record.a[order]), STATED)
        self.assertTrue(any("backwards" in one for one in match.warnings))
        self.assertEqual(top(match).source, "tyre_1")

    def test_a_handful_of_rows_is_no_record(self):
        match = match_vibration(Record(np.arange(4.0), np.zeros((4, 3))), STATED)
        self.assertEqual((match.candidates, match.none), ((), 1.0))
        self.assertTrue(match.warnings)


class Matched(unittest.TestCase):
    def test_each_source_by_its_frequency(self):
        for key, hz in (("tyre_1", 12.6), ("tyre_2", 24.8), ("propshaft_1", 45.6), ("engine_2", 80.3)):
            with self.subTest(key):
                match = match_vibration(driven((hz, 0.15)), STATED)
                self.assertEqual(top(match).source, key)
                self.assertGreater(top(match).probability, 0.8)
                self.assertAlmostEqual(top(match).hz, hz, delta=0.1)

    def test_the_amplitude_is_the_peak_of_the_tone(self):
        match = match_vibration(driven((12.5, 0.3)), STATED)
        self.assertAlmostEqual(match.peaks[0].amplitude, 0.3, delta=0.03)

    def test_of_a_tone_and_its_double_the_lower_is_the_source(self):
        match = match_vibration(driven((12.5, 0.1), (25.0, 0.3)), STATED)
        self.assertEqual(top(match).source, "tyre_1")

    def test_a_tone_that_wanders_with_the_speed_is_followed(self):
        rng = np.random.default_rng(4)
        t = np.arange(0, 40, 1 / 200)
        hz = 45 * (1 + 0.03 * np.sin(2 * np.pi * t / 20))
        a = rng.normal(0, 0.15, (t.size, 3))
        a[:, 1] += 0.12 * np.sin(2 * np.pi * np.cumsum(hz) / 200)
        self.assertEqual(top(match_vibration(Record(t, a), Stated(90, 2.0, 3.6))).source, "propshaft_1")

    def test_two_sources_share_what_they_explain(self):
        match = match_vibration(driven((12.5, 0.2), (40.0, 0.2)), STATED)
        self.assertEqual({one.source for one in match.candidates if one.probability > 0.2}, {"tyre_1", "engine_1"})

    def test_a_tone_between_all_of_them_is_an_other(self):
        match = match_vibration(driven((31.0, 0.3)), STATED)
        self.assertEqual(top(match).source, "other")
        self.assertGreater(top(match).probability, 0.8)

    def test_noise_and_stillness_are_none(self):
        for record in (driven(), driven(noise=0.0), driven(rate=50, noise=0.5, seed=3)):
            self.assertGreater(match_vibration(record, STATED).none, 0.5)

    def test_a_frequency_two_share_is_given_to_neither_for_sure(self):
        both = Stated(90.0, 2.0, 3.0)  # third order of the tyre and first of the shaft: 37.5 Hz both
        match = match_vibration(driven((37.5, 0.3)), both)
        shares = {one.source: one.probability for one in match.candidates}
        self.assertAlmostEqual(shares["tyre_3"], shares["propshaft_1"], delta=0.1)

    def test_above_half_the_rate_is_said_and_its_alias_not_named_for_sure(self):
        high = Stated(90.0, 2.0, None, 2280.0)  # twice 38 Hz: 76 Hz, which 50 samples a second show at 26
        t = np.arange(0, 30, 0.02)
        a = np.random.default_rng(5).normal(0, 0.05, (t.size, 3))
        a[:, 0] += 0.4 * np.sin(2 * np.pi * 76 * t)
        match = match_vibration(Record(t, a), high)
        self.assertTrue(any("engine_2" in one for one in match.warnings))
        self.assertTrue(all(one.probability <= 0.6 + 1e-9 for one in match.candidates if one.source != "other"))
        self.assertLessEqual(max((one.hz for one in match.peaks), default=0), match.highest_usable_hz)


class Many(unittest.TestCase):
    def test_shares_add_up_and_nothing_breaks_in_any_world(self):
        for number, world in enumerate((World(bumps=20), World(noise="white", jitter=0.5), World(gaps=1.0))):
            made = make(np.random.default_rng(number), world)
            match = match_vibration(made.record, made.stated)
            self.assertAlmostEqual(sum(one.probability for one in match.candidates) + match.none, 1, delta=1e-3)
            self.assertEqual(len({one.source for one in match.candidates}), len(match.candidates))

    @settings(max_examples=25, deadline=None, suppress_health_check=list(HealthCheck))
    @given(st.lists(st.tuples(st.floats(-1e3, 1e3), st.floats(-1e3, 1e3)), max_size=60), st.floats(20, 250))
    def test_any_rows_are_answered(self, rows, speed):
        t = np.array([one for one, _ in rows]).reshape(-1)
        a = np.array([[two, -two, 1.0] for _, two in rows]).reshape(-1, 3)
        match = match_vibration(Record(t, a), Stated(speed, 2.0))
        self.assertAlmostEqual(sum(one.probability for one in match.candidates) + match.none, 1, delta=1e-3)
