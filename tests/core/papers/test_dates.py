"""Dated marks by hand: codes decoded, held against the build date, and gathered into clusters."""

import unittest
from datetime import date

from hakutsu.core.papers.dates import BadTable, Mark, clusters, decode, judged, months_before

TODAY = date(2026, 11, 28)
DOTS = "before:7-n after:13-n"
LETTERS = "ABCDEFGHJKLM:1-12;RSTVWX:1996-2001"


def read(kind, text, table=""):
    return [(first.isoformat(), last.isoformat()) for first, last in decode(Mark("m", "p", kind, text, table), TODAY)]


class Codes(unittest.TestCase):
    def expect(self, kind, rows, table=""):
        for text, wanted in rows.items():
            with self.subTest(kind, text=text):
                self.assertEqual(read(kind, text, table), wanted)

    def test_weeks_of_tyres(self):
        self.expect("tyre_week", {
            "3217": [("2017-08-07", "2017-08-13")],
            "5320": [("2020-12-28", "2021-01-03")],
            "5319": [], "5417": [], "0017": [], "5226": [], "32": [], "ab17": [],
            "328": [("1978-08-07", "1978-08-13"), ("1988-08-08", "1988-08-14"), ("1998-08-03", "1998-08-09")],
        })  # fmt: skip

    def test_dots_of_panes(self):
        self.expect("glass_dot_month", {
            "..17": [("2017-05-01", "2017-05-31")],
            "17.": [("2017-12-01", "2017-12-31")],
            "17": [("2017-01-01", "2017-12-31")],
            ".17.": [], ".......17": [], "17.......": [],
            ".98": [("1998-06-01", "1998-06-30")],
            ".......7": [],
        }, DOTS)  # fmt: skip
        self.assertEqual(len(read("glass_dot_month", "7", DOTS)), 5)
        self.assertEqual(read("glass_dot_month", "7..", f"{DOTS} decade:2010"), [("2017-11-01", "2017-11-30")])
        with self.assertRaises(BadTable):
            read("glass_dot_month", "17", "before:7")

    def test_moulded_clocks(self):
        self.expect("clock_mould", {
            "19>5": [("2019-05-01", "2019-05-31")],
            "1998>?": [("1998-01-01", "1998-12-31")],
            "?>5": [], "19>13": [], "27>1": [("1927-01-01", "1927-01-31")], "19": [],
        })  # fmt: skip

    def test_letters_by_table_with_letters_left_out(self):
        self.expect("letter_table", {
            "HT": [("1998-08-01", "1998-08-31")],
            "jt": [("1998-09-01", "1998-09-30")],
            "T": [("1998-01-01", "1998-12-31")],
            "J98": [("1998-09-01", "1998-09-30")],
            "1998 J": [("1998-09-01", "1998-09-30")],
            "98": [("1998-01-01", "1998-12-31")],
            "J": [], "IT": [], "JTT": [], "": [],
        }, LETTERS)  # fmt: skip
        with self.assertRaises(BadTable):
            read("letter_table", "A", "ABC:1-2")

    def test_plain_dates_and_what_is_still_to_come(self):
        self.expect("plain", {
            "2019": [("2019-01-01", "2019-12-31")], "2019-02": [("2019-02-01", "2019-02-28")],
            "2020-02-29": [("2020-02-29", "2020-02-29")], "2019-02-30": [], "2026-12": [],
            "2026": [("2026-01-01", "2026-12-31")],
            "last year": [],
        })  # fmt: skip


class Against(unittest.TestCase):
    def told(self, *marks, build=(date(2019, 3, 4), date(2019, 3, 4))):
        return judged([Mark(str(i), place, kind, text) for i, (place, kind, text) in enumerate(marks)], build, TODAY)

    def test_later_much_earlier_and_old_stock(self):
        rows = [
            ("plain", "2019-03-05", "later"), ("plain", "2019-03", "agrees"), ("plain", "2018-09-03", "much_earlier"),
            ("plain", "2018-09-04", "agrees"), ("tyre_week", "1018", "agrees"), ("tyre_week", "0818", "much_earlier"),
            ("plain", "soon", "unreadable"),
        ]  # fmt: skip
        told = self.told(*(("front", kind, text) for kind, text, _ in rows))
        self.assertEqual([one.verdict for one in told], [wanted for _, _, wanted in rows])
        self.assertEqual([one.verdict for one in self.told(("front", "plain", "2019"), build=None)], [None])

    def test_a_shorter_month_has_its_last_day(self):
        self.assertEqual(months_before(date(2019, 8, 31), 6), date(2019, 2, 28))
        self.assertEqual(months_before(date(2019, 1, 15), 12), date(2018, 1, 15))

    def test_one_date_at_one_corner_is_a_cluster(self):
        told = self.told(
            ("corner", "plain", "2021-05"), ("corner", "plain", "2021-06"), ("corner", "plain", "2021-12"),
            ("corner", "plain", "2019-03"), ("rear", "plain", "2021-05"),
        )  # fmt: skip
        self.assertEqual([(one.place, one.marks) for one in clusters(told, built=True)], [("corner", ("0", "1"))])

    def test_without_a_build_date_every_mark_counts_and_no_set_within_another_is_told(self):
        told = self.told(
            *(("front", "plain", day) for day in ("2019-01-01", "2019-03-01", "2019-04-01", "2019-06-15")), build=None
        )
        self.assertEqual([one.marks for one in clusters(told, built=False)], [("0", "1", "2"), ("2", "3")])
