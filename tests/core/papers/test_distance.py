"""How far it ran: records judged against one continuous run, by cases written by hand."""

from __future__ import annotations

import unittest
from datetime import date

import numpy as np

from hakutsu.core.papers.distance import WearSays, judge
from hakutsu.core.papers.hidden import candidates, judge_hidden, wear_says
from hakutsu.core.papers.records import KM_PER_MILE, History, Record, written_wrong
from hakutsu.core.papers.running import GRID, Running
from hakutsu.core.papers.tables import distance_table
from hakutsu.core.papers.telling import distance_words
from hakutsu.entries.cabin import CabinWear

FIRST = date(2016, 5, 1)


def history(*values, digits=6, unit="km", first=FIRST, last="dial_now", **more):
    """One reading a year from 2017 on; `module` beside the last."""
    years = range(first.year + 1, first.year + 1 + len(values))
    sources = ["test"] * (len(values) - 1) + [last]
    records = [
        Record(row, date(year, 5, 3), value, unit, source)
        for row, (year, value, source) in enumerate(zip(years, values, sources, strict=True), start=2)
    ]
    if "module" in more:
        records.append(Record(99, records[-1].on, more["module"], unit, "module"))
    return History(tuple(records), digits, first)


class Kinds(unittest.TestCase):
    def likeliest(self, kind, said, *, at_least=0.5):
        told = judge(said)
        self.assertEqual(told.likeliest, kind, told.probabilities)
        self.assertGreaterEqual(told.probabilities[kind], at_least)
        self.assertAlmostEqual(sum(told.probabilities.values()), 1.0, places=6)
        return told

    def rows(self, told):
        return [row for row, _ in told.doubted]

    def test_an_even_run_is_one_run_and_ends_where_the_dial_does(self):
        told = self.likeliest("consistent", history(14000, 28500, 43000, 57000, 71500, 86000), at_least=0.9)
        self.assertEqual(self.rows(told), [])
        self.assertLess(told.km.p90 - told.km.p10, 500)
        self.assertAlmostEqual(told.km.p50, 86000, delta=100)

    def test_a_fall_that_stays_is_a_dial_that_went_on_from_a_lower_figure(self):
        told = self.likeliest("rolled_back", history(20000, 41000, 60000, 82000, 101000, 62000, 81000, 102000))
        self.assertEqual(self.rows(told), [7, 8, 9])
        self.assertTrue(told.km.p10 < 161000 < told.km.p90, told.km)
        self.assertGreater(told.km.p10, 140000)

    def test_a_fall_to_next_to_nothing_is_another_cluster(self):
        told = self.likeliest("replaced", history(20000, 41000, 60000, 82000, 101000, 9000, 28000, 49000))
        self.assertEqual(self.rows(told), [7, 8, 9])
        self.assertTrue(told.km.p10 < 161000 < told.km.p90, told.km)

    def test_one_record_in_the_other_unit_is_that_and_not_a_fall(self):
        slipped = round(80000 / KM_PER_MILE)
        told = self.likeliest("unit_slip", history(20000, 41000, 60000, slipped, 101000, 121000), at_least=0.9)
        self.assertEqual(self.rows(told), [5])
        self.assertAlmostEqual(told.km.p50, 121000, delta=200)

    def test_a_mistyped_digit_is_that_and_the_run_goes_on(self):
        for wrong in (28000, 8200, 820000, 822000):
            told = self.likeliest("digit_slip", history(20000, 41000, 60000, wrong, 101000, 121000), at_least=0.8)
            self.assertEqual(self.rows(told), [5])

    def test_a_dial_of_five_digits_begins_again(self):
        told = self.likeliest("rolled_over", history(30000, 62000, 95000, 27000, 60000, 91000, digits=5), at_least=0.9)
        self.assertAlmostEqual(told.km.p50, 191000, delta=500)
        self.assertEqual(self.rows(told), [])

    def test_five_digits_that_have_not_begun_again_are_one_run(self):
        self.likeliest("consistent", history(9000, 18000, 27500, 36000, digits=5))

    def test_a_few_hundred_less_is_no_accusation(self):
        said = history(20000, 41000, 60000, 80500, 101000)
        later = Record(40, date(2019, 5, 17), 59700, "km", "invoice")
        told = judge(History((*said.records, later), 6, FIRST))
        self.assertLess(told.probabilities["rolled_back"], 0.1)

    def test_a_pause_of_years_is_no_accusation(self):
        told = judge(history(14000, 28500, 43000, 43100, 43150, 57000, 71000))
        self.assertEqual(told.likeliest, "consistent")
        self.assertEqual(self.rows(told), [])

    def test_two_slips_are_more_than_one_thing_and_both_named(self):
        said = history(20000, 4100, 60000, 82000, 101, 121000, 140000)
        told = judge(said)
        self.assertFalse(told.fits)
        self.assertEqual({*self.rows(told)}, {3, 6})
        self.assertLess(max(told.probabilities.values()), 0.9)
        self.assertIn("no single thing explains them", distance_words(told, said))

    def test_one_record_shows_no_run(self):
        self.assertIn("One record alone", distance_words(judge(history(50000)), history(50000)))
        with self.assertRaises(ValueError):
            judge(History((), 6, FIRST))

    def test_first_use_not_told_leaves_the_rest(self):
        told = judge(History(history(20000, 41000, 60000, 82000, 101000, 62000).records, 6, None))
        self.assertEqual(told.likeliest, "rolled_back")


class Evidence(unittest.TestCase):
    def test_a_unit_that_counted_more_than_the_dial_shows_the_true_distance(self):
        doubtful = history(20000, 41000, 60000, 62000, 70000, module=96000)
        told = judge(doubtful)
        self.assertGreater(told.probabilities["consistent"], 0.0)
        self.assertEqual(told.likeliest, "rolled_back")
        self.assertAlmostEqual(told.km.p50, 96000, delta=300)

    def test_a_unit_that_shows_the_very_figure_of_the_dial_says_little(self):
        alone = judge(history(20000, 41000, 60000, 62000, 70000)).probabilities["rolled_back"]
        same = judge(history(20000, 41000, 60000, 62000, 70000, module=70000)).probabilities["rolled_back"]
        near = judge(history(20000, 41000, 60000, 62000, 70000, module=70020)).probabilities["rolled_back"]
        self.assertLess(same, alone)
        self.assertAlmostEqual(same, near, delta=0.03)

    def test_a_unit_with_far_less_is_of_another_vehicle_and_accuses_nobody(self):
        told = judge(history(20000, 41000, 60000, 82000, 101000, module=12000))
        self.assertEqual(told.likeliest, "consistent")
        self.assertAlmostEqual(told.km.p50, 101000, delta=200)

    def test_wear_moves_what_the_records_leave_open(self):
        said = history(20000, 41000, 60000, 62000, 70000)
        before = judge(said)
        worn = judge(said, WearSays(180_000, 0.4))
        fresh = judge(said, WearSays(60_000, 0.4))
        self.assertGreater(worn.probabilities["rolled_back"], before.probabilities["rolled_back"])
        self.assertLess(fresh.probabilities["rolled_back"], before.probabilities["rolled_back"])

    def test_order_and_repetition_change_nothing(self):
        said = history(20000, 41000, 60000, 82000, 101000, 62000)
        turned = History(tuple(reversed(said.records)), 6, FIRST)
        twice = History((*said.records, Record(50, said.records[1].on, 41000, "km", "stamp")), 6, FIRST)
        for other in (turned, twice):
            for kind, share in judge(said).probabilities.items():
                self.assertAlmostEqual(judge(other).probabilities[kind], share, places=6)

    def test_what_two_papers_say_alike_is_doubted_twice(self):
        said = history(20000, 41000, 60000, 8200, 101000, 121000)
        twice = History((*said.records, Record(50, said.records[3].on, 8200, "km", "stamp")), 6, FIRST)
        self.assertEqual({row for row, _ in judge(twice).doubted}, {5, 50})

    def test_miles_and_kilometres_are_the_same_run(self):
        km = judge(history(20000, 41000, 60000, 82000, 101000, 62000, 80000))
        mi = judge(
            history(*(one / KM_PER_MILE for one in (20000, 41000, 60000, 82000, 101000, 62000, 80000)), unit="mi")
        )
        self.assertEqual(km.likeliest, mi.likeliest)
        self.assertAlmostEqual(km.km.p50 / mi.km.p50, 1.0, delta=0.02)

    def test_extremes_are_answered(self):
        for values in ((0, 0, 0), (9_999_999, 1, 9_999_999), (1, 1e6, 2e6, 3e6), (5, 4, 3, 2, 1)):
            told = judge(history(*values))
            self.assertAlmostEqual(sum(told.probabilities.values()), 1.0, places=6)
            self.assertTrue(np.isfinite([told.km.p10, told.km.p50, told.km.p90]).all())


class Wear(unittest.TestCase):
    def test_grades_by_hand(self):
        one = wear_says({"rim": CabinWear(part="rim", wear="clear")})
        self.assertAlmostEqual(one.km, (110_000 * 200_000) ** 0.5, delta=1)
        self.assertAlmostEqual(one.spread, 0.6)
        renewed = CabinWear(part="rim", wear="clear", renewed=True)
        self.assertIsNone(wear_says({"rim": renewed, "dash": CabinWear(part="dash", wear="clear")}))

    def test_discs_speak_only_far_beyond_the_dial(self):
        self.assertIsNone(wear_says({}, {"front": 2.0}, 80_000))
        self.assertAlmostEqual(wear_says({}, {"front": 2.0}, 50_000).km, 80_000)
        self.assertIsNone(wear_says({}, {"front": 2.0}, None))


class HiddenDigits(unittest.TestCase):
    def test_every_way_to_read_it(self):
        self.assertEqual(candidates("1?"), [float(one) for one in range(10, 20)])
        self.assertEqual(len(candidates("??3")), 100)

    def test_a_hidden_digit_is_read_as_it_fits_the_others(self):
        said = history(20000, 41000, 0, 82000, 101000)
        told, ways = judge_hidden(said, {4: "6?000"})
        self.assertEqual(told.likeliest, "consistent")
        self.assertEqual({*(value for value, _ in ways[0].values)} - {float(f"6{one}000") for one in range(10)}, set())
        self.assertAlmostEqual(sum(share for _, share in ways[0].values), 1.0, delta=0.1)


class Words(unittest.TestCase):
    def test_nobody_is_accused(self):
        for said in (history(20000, 41000, 60000, 82000, 101000, 62000), history(14000, 28000), history(9, 8, 7, 3)):
            told = distance_words(judge(said), said).lower()
            for word in ("fraud", "tamper", "clocked", "rolled back", "manipul", "seller"):
                self.assertNotIn(word, told)

    def test_what_is_doubted_is_said_with_its_days(self):
        said = history(20000, 41000, 60000, 82000, 101000, 62000, 81000, 102000)
        self.assertIn("between 2021-05-03 and 2022-05-03", distance_words(judge(said), said))


class Parts(unittest.TestCase):
    def test_written_wrong_by_hand(self):
        ways = {"swapped": 0.25, "left_out": 0.25, "too_many": 0.25, "wrong": 0.25}
        meant, chance = written_wrong(12, ways)
        by = dict.fromkeys(map(int, meant), 0.0)
        for one, share in zip(meant, chance, strict=True):
            by[int(one)] += share
        self.assertAlmostEqual(by[21], 0.25)  # swapped: the only pair
        self.assertAlmostEqual(by[1], 0.25 / 20)  # a 2 was written after it: 2 places of 10 digits
        self.assertAlmostEqual(by[13], 0.25 / 18)  # wrong: 2 places, 9 other digits
        self.assertAlmostEqual(by[112], 2 * 0.25 / 3)  # either 1 of 112 may be the one left out
        self.assertNotIn(12, by)

    def test_transitions_sum_to_one_and_widen_with_time(self):
        table = distance_table()
        model = Running(table.running, table.record)
        short, long = model.moves(np.array([0.5, 0.5, 5.0, 5.0]))[[0, 2]]
        for matrix in (short, long):
            np.testing.assert_allclose(matrix.sum(axis=1), 1.0)
        middle = GRID.size // 2
        spread = [np.sqrt(one[middle] @ (GRID - GRID[middle]) ** 2) for one in (short, long)]
        self.assertLess(spread[0], spread[1])
        self.assertAlmostEqual(model.first(1.0).sum(), 1.0)
