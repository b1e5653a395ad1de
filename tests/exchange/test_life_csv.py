import json
import unittest

from typer.testing import CliRunner

from hakutsu.cli import app
from hakutsu.core.life import remaining
from hakutsu.exchange.life_csv import COLUMNS, LifeCsvError, read_life_csv

HEAD = ",".join(COLUMNS) + "\n"
ROWS = (
    "a,tyre,front,front,5.0,gauge,,20000,26000,4,12000,",
    "b,disc,rear,all,9.2,eye,,,,,,",
    "c,pad,front,rear,6,gauge,11,,,,,",
)
GOOD = HEAD + "\n".join(ROWS)


def run(*arguments, text=None):
    return CliRunner().invoke(app, list(arguments), input=text)


class Reading(unittest.TestCase):
    def test_empty_fields_are_not_known(self):
        first, second, _ = read_life_csv(GOOD)
        self.assertEqual((first.since_km, first.age_years, first.limit_mm), ((20_000, 26_000), 4, None))
        self.assertEqual((second.since_km, second.km_per_year, second.method), (None, None, "eye"))

    def test_what_nobody_measured_is_anything_between_new_and_worn_out(self):
        measured, by_whom, never = read_life_csv(
            HEAD + "a,tyre,front,,5,gauge,,,,,,\nb,tyre,front,,5,,,,,,,\nc,tyre,front,,,,,,,,,\n"
        )
        self.assertEqual((measured.drive, by_whom.method, never.now_mm), (None, "eye", None))
        one, two, three = (remaining(case).km for case in (measured, by_whom, never))
        self.assertLess(one.p90 - one.p10, two.p90 - two.p10)
        self.assertGreater(three.p90 / three.p10, two.p90 / max(two.p10, 1))

    def test_a_least_distance_alone_is_open_above(self):
        [case] = read_life_csv(HEAD + "a,pad,front,front,8,gauge,,20000,,,,\n")
        self.assertEqual(case.since_km, (20_000, 120_000))

    def test_every_fault_is_named_with_its_row(self):
        wrong = (
            "a,wheel,front,front,5,gauge,,,,,,",
            "b,tyre,front,sideways,5,gauge,,,,,,",
            "c,tyre,front,front,x,gauge,,,,,,",
            "d,tyre,front,front,-1,gauge,,,,,,",
            "e,tyre,front,front,5,gauge,,9,3,,,",
            "f,tyre,front,front,nan,gauge,,,,,,",
        )
        bad = HEAD + "\n".join(wrong)
        with self.assertRaises(LifeCsvError) as caught:
            read_life_csv(bad)
        said = str(caught.exception)
        for words in ("row 2: component is “wheel”", "row 3: drive is", "row 4: now_mm is “x”", "row 5: now_mm",
                      "row 6: since_km_low is above", "row 7: now_mm is nan"):  # fmt: skip
            self.assertIn(words, said)
        with self.assertRaisesRegex(LifeCsvError, "columns are missing: limit_mm"):
            read_life_csv(HEAD.replace(",limit_mm", ""))


class Command(unittest.TestCase):
    def test_json_holds_the_whole_contract(self):
        first, second, third = json.loads(run("life", "-", "--json", text=GOOD).stdout)
        self.assertEqual(set(first), {"case", "remaining_km", "remaining_months", "limited_by", "basis"})
        self.assertEqual(set(first["remaining_km"]), {"p10", "p50", "p90"})
        self.assertLess(first["remaining_km"]["p10"], first["remaining_km"]["p90"])
        self.assertEqual((second["remaining_km"], second["limited_by"]), (None, None))
        self.assertTrue(second["basis"][0])
        self.assertEqual(first["basis"][1], "20,000 km to 26,000 km since new")
        self.assertIn("5 mm by gauge, limit 1.6 mm, new 8 mm ± 0.4 mm", first["basis"])
        self.assertIsNone(third["remaining_months"])

    def test_a_table_and_faults(self):
        self.assertIn("limited by", run("life", "-", text=GOOD).stdout)
        answer = run("life", "-", text="case\n1\n")
        self.assertEqual(answer.exit_code, 2)
