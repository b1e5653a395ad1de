import io
import random
import unittest
from dataclasses import replace

from hakutsu.exchange.film_csv import COLUMNS, read_film_csv, write_film_csv
from hakutsu.vehicle.vocabulary import ReadingStatus, Unit
from tests.builders import honest_car, readings, survey

HEADER = "survey,panel,u,v,reading,unit,status,substrate,finish,gauge_limit,resolution\n"


def read(*rows, header=HEADER):
    return read_film_csv((header + "\n".join(rows) + "\n").encode())


class GoodFiles(unittest.TestCase):
    def test_a_row_becomes_a_reading_in_micrometres(self):
        (row,) = read("s1,bonnet,0.5,0.25,4.5,mil,ok,aluminium,factory,1500,12.7").rows
        o = row.observation
        self.assertAlmostEqual(o.value_um, 114.3)
        self.assertEqual(
            (o.panel, o.u, o.v, o.limit_um, o.step_um, o.substrate), ("bonnet", 0.5, 0.25, 1500, 12.7, "aluminium")
        )

    def test_columns_may_come_in_any_order_and_optional_ones_may_be_absent(self):
        found = read("112,roof,factory,steel,ok,um", header="reading,panel,finish,substrate,status,unit\n")
        self.assertEqual((found.bad, found.survey_ids()), ([], [""]))

    def test_over_may_hold_the_limit_or_be_empty(self):
        found = read("s,roof,,,1500,um,over,steel,factory,,", "s,roof,,,,um,over,steel,factory,1000,")
        self.assertEqual([row.observation.censored for row in found.rows], [True, True])

    def test_an_ok_reading_at_the_limit_is_over(self):
        (row,) = read("s,roof,,,1500,um,ok,steel,factory,1500,1").rows
        self.assertTrue(row.observation.censored)

    def test_a_byte_order_mark_blank_lines_and_windows_line_ends_are_no_fault(self):
        data = "\ufeff" + HEADER.replace("\n", "\r\n") + "\r\ns,roof,,,112,um,ok,steel,factory,,\r\n\r\n"
        self.assertEqual(len(read_film_csv(data.encode()).rows), 1)

    def test_many_surveys_in_one_file_are_kept_apart(self):
        found = read(*(f"s{i},roof,,,112,um,ok,steel,factory,," for i in range(3)))
        self.assertEqual([s.id for s in found.surveys()], ["s0", "s1", "s2"])

    def test_unknown_columns_are_remarked_on(self):
        found = read("x,112,um,ok,steel,factory,roof", header="note,reading,unit,status,substrate,finish,panel\n")
        self.assertEqual((found.bad, found.remarks), ([], ["columns not used: note"]))


class BadRows(unittest.TestCase):
    CASES = (
        ("s,hood,,,112,um,ok,steel,factory,,", "panel", "hood"),
        ("s,roof,,,12x,um,ok,steel,factory,,", "reading", "12x"),
        ("s,roof,,,-3,um,ok,steel,factory,,", "reading", "-3"),
        ("s,roof,,,0,um,ok,steel,factory,,", "reading", "0"),
        ("s,roof,,,nan,um,ok,steel,factory,,", "reading", "nan"),
        ("s,roof,,,1e9,um,ok,steel,factory,,", "reading", "1e9"),
        ("s,roof,,,1_000,um,ok,steel,factory,,", "reading", "1_000"),
        ("s,roof,,,,um,ok,steel,factory,,", "reading", ""),
        ("s,roof,,,3,um,none,steel,factory,,", "reading", "3"),
        ("s,roof,,,112,mm,ok,steel,factory,,", "unit", "mm"),
        ("s,roof,,,112,um,fine,steel,factory,,", "status", "fine"),
        ("s,roof,,,112,um,ok,tin,factory,,", "substrate", "tin"),
        ("s,roof,,,112,um,ok,steel,old,,", "finish", "old"),
        ("s,roof,1.2,0.5,112,um,ok,steel,factory,,", "u", "1.2"),
        ("s,roof,0.2,low,112,um,ok,steel,factory,,", "v", "low"),
        ("s,roof,,,112,um,ok,steel,factory,-5,", "gauge_limit", "-5"),
        ("s,roof,,,112,um,ok,steel,factory,,0", "resolution", "0"),
        ("s,roof,112", "row", ""),
    )

    def test_every_fault_is_named_with_row_column_value_and_reason(self):
        for row, column, value in self.CASES:
            with self.subTest(row):
                found = read("s,bonnet,,,118,um,ok,steel,factory,,", row)
                (bad,) = found.bad
                self.assertEqual((bad.row, bad.column, bad.value), (3, column, value))
                self.assertTrue(bad.reason)
                self.assertEqual(len(found.rows), 1)

    def test_all_bad_rows_are_listed_not_only_the_first(self):
        self.assertEqual(len(read(*(row for row, _, _ in self.CASES)).bad), len(self.CASES))

    def test_a_finish_that_differs_within_a_survey_is_a_fault(self):
        found = read("s,roof,,,112,um,ok,steel,factory,,", "s,roof,,,112,um,ok,steel,restored,,",
                     "t,roof,,,112,um,ok,steel,restored,,")  # fmt: skip
        self.assertEqual([(bad.row, bad.column) for bad in found.bad], [(3, "finish")])

    def test_files_that_are_no_survey_say_what_they_lack(self):
        for data, words in (
            (b"", "missing column"),
            (b"panel;reading\nroof;112\n", "commas"),
            (b"panel,reading\nroof,112\n", "unit, status, substrate, finish"),
            (HEADER.replace("u,v", "u,u").encode(), "twice"),
            (HEADER.encode(), "no rows"),
            (HEADER.encode() + b"s,roof,,,\xff", "UTF-8"),
            (b"\x00\x01\x02", "not a text file"),
            (HEADER.encode() + b's,"roof,,,112', "not CSV"),
        ):
            with self.subTest(data[:30]):
                found = read_film_csv(data)
                self.assertIn(words, " ".join(str(bad) for bad in found.bad))

    def test_edge_and_simulated_are_optional_and_say_yes_or_nothing(self):
        header = HEADER.replace("resolution", "resolution,simulated,edge")
        found = read("s,roof,,,112,um,ok,steel,factory,,,yes,", "s,roof,,,60,um,ok,steel,factory,,,,yes", header=header)
        self.assertEqual(
            [(o.simulated, o.edge) for o in found.surveys()[0].observations], [(True, False), (False, True)]
        )
        (bad,) = read("s,roof,,,112,um,ok,steel,factory,,,no,", header=header).bad
        self.assertEqual((bad.row, bad.column, bad.reason), (2, "simulated", "must be yes or empty"))

    def test_rubbish_never_raises(self):
        chance = random.Random(7)
        for _ in range(200):
            junk = bytes(chance.choice(b'",;\n\r\x00az09.\xff') for _ in range(60))
            self.assertTrue(read_film_csv(HEADER.encode() + junk).bad or not junk.strip(b"\r\n"))


class Writing(unittest.TestCase):
    def test_what_is_written_reads_back_the_same(self):
        more = readings("tailgate", 1200, "over", "none", limit_um=1500.0, step_um=1.0, u=0.25, v=0.5)
        marked = [replace(o, edge=True) for o in readings("roof", 61)] + [
            replace(o, simulated=True) for o in readings("roof", 119)
        ]
        car = survey(honest_car(), more, marked)
        for unit in Unit:
            with self.subTest(unit):
                text = write_film_csv([car], unit)
                self.assertEqual(text.splitlines()[0], ",".join(COLUMNS))
                (again,) = read_film_csv(text.encode()).surveys()
                self.assertEqual(len(again.observations), len(car.observations))
                for a, b in zip(again.observations, car.observations, strict=True):
                    self.assertEqual((a.panel, a.status, a.u, a.limit_um), (b.panel, b.status, b.u, b.limit_um))
                    self.assertEqual((a.edge, a.simulated), (b.edge, b.simulated))
                    if b.status is ReadingStatus.OK:
                        self.assertAlmostEqual(a.value_um, b.value_um, delta=0.01)

    def test_nothing_is_written_that_a_spreadsheet_would_take_for_a_formula(self):
        text = write_film_csv([survey(honest_car())])
        self.assertFalse([line for line in io.StringIO(text) if line[0] in "=+-@"])
