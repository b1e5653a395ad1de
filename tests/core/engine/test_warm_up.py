import unittest

import numpy as np

from hakutsu.core.engine.warm_up import Sample, Warming, course, judge, warm_up


def run(until, *, settle=90.0, end=125.0, tau=13.0, start=15.0, noise=0.0, seed=1):
    rng = np.random.default_rng(seed)
    minutes = np.arange(0, until + 1.0)
    true = course(np.array([start, end, np.log(tau), settle]), minutes)
    return [Sample(float(m), float(t + noise * rng.normal())) for m, t in zip(minutes, true, strict=True)]


class Fitting(unittest.TestCase):
    def test_a_clean_run_gives_its_parameters_back(self):
        found = warm_up(run(30), 15.0)
        self.assertAlmostEqual(found.thermostat_c, 90.0, delta=0.5)
        self.assertAlmostEqual(float(found.at(np.array([10.0]))[0]), 15 + 110 * (1 - np.exp(-10 / 13)), delta=1.0)
        self.assertAlmostEqual(found.settled.median, 90, delta=0.5)

    def test_the_band_holds_the_course_and_narrows_with_samples(self):
        widths = []
        for until in (8, 16):
            found = warm_up(run(until, noise=1.0), 15.0)
            low, high = found.band(np.array([float(until)]))
            self.assertTrue(low[0] <= found.at(np.array([float(until)]))[0] <= high[0])
            far_low, far_high = found.band(np.array([30.0]))
            widths.append(float((far_high - far_low)[0]))
        self.assertLess(widths[1], widths[0] + 1.0)

    def test_wrong_samples_are_marked_and_do_not_move_it(self):
        samples = run(30, noise=0.5)
        samples[12] = Sample(12.0, 9.0)
        samples[25] = Sample(25.0, 140.0)
        found = warm_up(samples, 15.0)
        self.assertEqual([i for i, wrong in enumerate(found.wrong) if wrong], [12, 25])
        self.assertAlmostEqual(found.settled.median, 90, delta=1.0)

    def test_without_a_reading_before_the_start_no_good_sample_is_crossed_out(self):
        for first in (1, 4):
            samples = run(20, start=15, noise=0.3)[first:]
            fit = warm_up(samples)
            self.assertEqual(sum(fit.wrong), 0, first)
            self.assertAlmostEqual(fit.start_c, 15, delta=6)

    def test_order_does_not_matter(self):
        samples = run(25, noise=0.5)
        self.assertEqual(judge(samples), judge(list(reversed(samples))))


class Judging(unittest.TestCase):
    def test_too_few_says_how_many_more(self):
        verdict = judge(run(2))
        self.assertEqual((verdict.warming, verdict.more), (Warming.TOO_FEW, 2))
        self.assertEqual(judge([]).more, 5)

    def test_on_its_way_is_not_settled(self):
        self.assertIs(judge(run(8, noise=0.5), start_c=15).warming, Warming.NOT_SETTLED)

    def test_where_it_settles_decides(self):
        for settle, said in ((62, Warming.COLD), (90, Warming.USUAL), (108, Warming.HIGH)):
            self.assertIs(judge(run(40, settle=settle, tau=10, end=140), start_c=15).warming, said)
        mapped = judge(run(40, settle=108, tau=10, end=140), start_c=15, map_controlled=True)
        self.assertIs(mapped.warming, Warming.USUAL)

    def test_an_idling_diesel_in_the_cold_is_judged_after_the_drive(self):
        samples = run(25, end=60, tau=12, start=0)
        self.assertIs(judge(samples, start_c=0, outside_c=0, diesel=True).warming, Warming.INCONCLUSIVE)
        self.assertIsNot(judge(samples, start_c=0, outside_c=12, diesel=True).warming, Warming.INCONCLUSIVE)

    def test_a_petrol_engine_idling_in_frost_may_settle_low_too(self):
        samples = run(40, settle=62, tau=10, end=140)
        self.assertIs(judge(samples, start_c=15, outside_c=-3).warming, Warming.INCONCLUSIVE)
        self.assertIs(judge(samples, start_c=15, outside_c=3).warming, Warming.COLD)

    def test_only_readings_stop_it_and_one_that_does_not_fit_is_read_again(self):
        samples = run(20, noise=0.5)
        odd = judge([*samples, Sample(21.0, 131.0)], start_c=15)
        self.assertTrue(odd.repeat)
        self.assertIsNot(odd.warming, Warming.STOP)
        again = judge([*samples, Sample(21.0, 131.0), Sample(21.2, 132.0)], start_c=15)
        self.assertIs(again.warming, Warming.STOP)

    def test_a_real_overheating_is_stopped_at_once(self):
        samples = run(30, settle=200, end=150, tau=12)
        hot = next(i for i, one in enumerate(samples) if one.coolant_c >= 118)
        self.assertIs(judge(samples[: hot + 1], start_c=15).warming, Warming.STOP)

    def test_rising_with_the_fan_running_stops_earlier(self):
        rising = run(20, settle=200, end=127, tau=11)  # 109 °C at minute 20, by hand
        samples = [*rising, Sample(21.0, 112.5, fan=True), Sample(22.0, 114.5, fan=True)]
        self.assertIs(judge(samples, start_c=15).warming, Warming.STOP)
        without = [*rising, Sample(21.0, 112.5), Sample(22.0, 114.5)]
        self.assertIsNot(judge(without, start_c=15).warming, Warming.STOP)

    def test_two_wrong_readings_a_minute_apart_do_not_stop_a_healthy_engine(self):
        samples = [*run(20, noise=0.5), Sample(21.0, 119.0), Sample(22.0, 141.0)]
        said = judge(samples, start_c=15)
        self.assertIsNot(said.warming, Warming.STOP)
        self.assertTrue(said.repeat)
